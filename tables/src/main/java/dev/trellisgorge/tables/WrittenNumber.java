package dev.trellisgorge.tables;

import dev.trellisgorge.table.Numbers;
import java.util.OptionalDouble;
import java.util.regex.Pattern;

/**
 * Reads a number as people write it: grouped in threes, with a currency sign, a per cent sign (then it is the share), in
 * brackets or with a minus before or after it where it is below zero, with blanks of any width.
 *
 * @param decimal the decimal sign, {@code .} or {@code ,}
 */
record WrittenNumber(char decimal) {
    private static final Pattern BLANKS = Pattern.compile("[\\s\\u00A0\\u2007\\u2009\\u202F']+");
    private static final Pattern MONEY = Pattern.compile("^\\p{Sc}|\\p{Sc}$");
    private static final Pattern GROUPED_BY_COMMA = Pattern.compile("\\d{1,3}(,\\d{3})+(\\.\\d*)?");
    private static final Pattern GROUPED_BY_POINT = Pattern.compile("\\d{1,3}(\\.\\d{3})+(,\\d*)?");
    private static final double PER_CENT = 100;

    /** Empty where it is no number so written. */
    OptionalDouble read(String cell) {
        String text = BLANKS.matcher(cell.strip()).replaceAll("").replace('\u2212', '-');
        boolean negative = false;
        if (text.startsWith("(") && text.endsWith(")")) {
            negative = true;
            text = text.substring(1, text.length() - 1);
        } else if (text.endsWith("-") && text.length() > 1) {
            negative = true;
            text = text.substring(0, text.length() - 1);
        }
        boolean share = text.endsWith("%");
        text = share ? text.substring(0, text.length() - 1) : text;
        boolean minus = text.startsWith("-");
        text = minus || text.startsWith("+") ? text.substring(1) : text;
        String bare = MONEY.matcher(text).replaceAll("");
        if (!minus && bare.length() < text.length() && bare.startsWith("-")) { // between the currency and the figure
            minus = true;
            bare = bare.substring(1);
        }
        text = bare;
        if (negative && minus || text.isEmpty() || text.startsWith("+") || text.startsWith("-")) {
            return OptionalDouble.empty();
        }
        OptionalDouble size = Numbers.parse(plain(text));
        if (size.isEmpty()) {
            return size;
        }
        double figure = share ? size.getAsDouble() / PER_CENT : size.getAsDouble();
        return OptionalDouble.of((negative || minus ? -figure : figure) + 0.0);
    }

    /** Without what groups, and with a point; no number where it is grouped in another way. */
    private String plain(String text) {
        if (decimal == '.') {
            return text.indexOf(',') < 0 ? text : GROUPED_BY_COMMA.matcher(text).matches() ? text.replace(",", "") : "";
        }
        return text.indexOf('.') < 0 ? text.replace(',', '.') : GROUPED_BY_POINT.matcher(text).matches() ? text.replace(".", "").replace(',', '.') : "";
    }
}
