package dev.trellisgorge.tables;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a number format of a sheet (ECMA-376 part 1, 18.8.31) says of the number in a cell. Immutable and thread-safe.
 *
 * @param kind what the number is
 * @param unit what is written beside it, a currency or a per cent sign, the latter in quotes where it is text and does not scale; empty where nothing is
 */
record CellFormat(Kind kind, String unit) {
    enum Kind {
        NUMBER, DATE, DATE_AND_TIME, TIME
    }

    static final CellFormat GENERAL = new CellFormat(Kind.NUMBER, "");
    /** Formats by number alone (18.8.30): those of eastern Asia among them. */
    private static final Set<Integer> DATES = Set.of(14, 15, 16, 17, 27, 28, 29, 30, 31, 34, 35, 36, 50, 51, 52, 53, 54, 55, 56, 57, 58);
    private static final Set<Integer> TIMES = Set.of(18, 19, 20, 21, 32, 33, 45, 46, 47);
    private static final int DATE_AND_TIME = 22;
    private static final Pattern PIECE = Pattern.compile("\"([^\"]*)\"?|\\\\(.)|[_*].|\\[\\$([^\\]-]*)[^\\]]*\\]|\\[([^\\]]*)\\]|(?i)(AM/PM|A/P|General)|(.)", Pattern.DOTALL);
    private static final Pattern ELAPSED = Pattern.compile("(?i)h+|m+|s+");
    private static final String CURRENCIES = "$€£¥₹₽₩₺₴₪฿₫₦¢";

    /** @param code the format's own; empty where only its number says it */
    static CellFormat of(int number, String code) {
        if (code.isEmpty()) {
            return new CellFormat(DATES.contains(number) ? Kind.DATE : TIMES.contains(number) ? Kind.TIME : number == DATE_AND_TIME ? Kind.DATE_AND_TIME : Kind.NUMBER, number == 9 || number == 10 ? "%" : "");
        }
        boolean date = false;
        boolean month = false;
        boolean time = false;
        StringBuilder unit = new StringBuilder();
        String section = firstSection(code);
        Matcher piece = PIECE.matcher(section);
        while (piece.find()) {
            String text = piece.group(1) != null ? piece.group(1) : piece.group(2);
            if (text != null) {
                unit.append(text.contains("%") ? "\"%\"" : text.strip());
            } else if (piece.group(3) != null) {
                unit.append(piece.group(3).strip());
            } else if (piece.group(4) != null) {
                time |= ELAPSED.matcher(piece.group(4)).matches();
            } else if (piece.group(5) != null) {
                time |= !piece.group(5).equalsIgnoreCase("General");
            } else if (piece.group(6) != null) {
                char character = piece.group(6).toLowerCase(Locale.ROOT).charAt(0);
                boolean exponent = character == 'e' && piece.end() < section.length() && "+-".indexOf(section.charAt(piece.end())) >= 0;
                date |= "ydgb".indexOf(character) >= 0 || character == 'e' && !exponent;
                month |= character == 'm';
                time |= character == 'h' || character == 's';
                unit.append(character == '%' || CURRENCIES.indexOf(character) >= 0 ? String.valueOf(character) : "");
            }
        }
        date |= month && !time;
        return new CellFormat(date && time ? Kind.DATE_AND_TIME : date ? Kind.DATE : time ? Kind.TIME : Kind.NUMBER, date || time ? "" : unit.toString());
    }

    /** What holds for numbers above zero: all up to a semicolon that is none of a text. */
    private static String firstSection(String code) {
        boolean quoted = false;
        for (int i = 0; i < code.length(); i++) {
            char character = code.charAt(i);
            if (character == '\\' && !quoted) {
                i++;
            } else if (character == '"') {
                quoted = !quoted;
            } else if (character == ';' && !quoted) {
                return code.substring(0, i);
            }
        }
        return code;
    }
}
