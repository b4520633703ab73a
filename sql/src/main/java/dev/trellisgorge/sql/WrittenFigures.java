package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.text.DecimalFormatSymbols;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Figures and dates as texts by CLDR patterns, in a dialect. Halves are rounded away from zero, of the decimal number that a reader sees. */
final class WrittenFigures {
    /** Digits before the point. Larger figures have no decimals in a double, and are an error of the database. */
    private static final int MOST = 15;
    private static final int MOST_DECIMALS = 12;
    private static final int WEEK = 7;
    private static final Pattern PIECE = Pattern.compile("([A-Za-z])\\1*|'((?:[^']|'')*)'|[^A-Za-z']+");

    private final Dialect dialect;

    WrittenFigures(Dialect dialect) {
        this.dialect = dialect;
    }

    /** A pattern for numbers that databases can follow; empty where it has an exponent, or digits of its own. */
    private static Optional<NumberPattern> plain(Textual.Formatted f) {
        return Optional.of(NumberPattern.of(f.pattern(), f.locale())).filter(pattern -> pattern.symbols().getZeroDigit() == '0' && !pattern.isExponential() && pattern.mostDecimals() <= MOST_DECIMALS && !pattern.alwaysPoint()
                && (pattern.groups() == 0 || pattern.groups() == 3) && pattern.leastWhole() <= MOST_DECIMALS);
    }

    private static Relation.Aid.Rounded rounded(NumberPattern pattern, Formula figure) {
        return new Relation.Aid.Rounded(figure, pattern.mostDecimals(), pattern.shift());
    }

    /** Adds the rounded figures that a formula reads. */
    static void read(Formula formula, Typing typing, Set<Relation.Aid.Rounded> figures) {
        if (formula instanceof Textual.Formatted formatted && !(formatted.of() instanceof Leaf.Absent) && typing.of(formatted.of()) == Kind.NUMBER && !WrittenDigits.hasExponent(formula)) {
            plain(formatted).ifPresent(pattern -> figures.add(rounded(pattern, formatted.of())));
        }
        formula.operands().forEach(operand -> read(operand, typing, figures));
    }

    /** A figure without its sign as a text of so many decimals. */
    String rounded(String figure, Relation.Aid.Rounded how) {
        int decimals = how.decimals() + how.shift();
        String rounded = "CAST(ROUND(" + dialect.decimal("ABS(" + figure + ")") + ", " + decimals + ") AS " + dialect.decimal(MOST, decimals) + ")";
        String shifted = how.shift() == 0 ? rounded : "CAST(" + rounded + " * " + (int) Math.pow(10, how.shift()) + " AS " + dialect.decimal(MOST + how.shift(), how.decimals()) + ")";
        return "CAST(" + shifted + " AS " + dialect.type(Kind.TEXT) + ")";
    }

    /** @param figure its expression @return empty where the pattern has digits of its own */
    Optional<String> number(Textual.Formatted f, String figure, SqlFormula.Names names) {
        Optional<NumberPattern> plain = plain(f);
        if (plain.isEmpty()) {
            return Optional.empty();
        }
        NumberPattern pattern = plain.get();
        DecimalFormatSymbols symbols = pattern.symbols();
        int most = pattern.mostDecimals();
        String text = names.aid(rounded(pattern, f.of()));
        String whole = most == 0 ? text : "SUBSTRING(" + text + " FROM 1 FOR CHAR_LENGTH(" + text + ") - " + (most + 1) + ")";
        String body = whole(whole, pattern, symbols) + fraction(text, pattern.leastDecimals(), most, String.valueOf(symbols.getDecimalSeparator()), pattern.leastWhole() == 0);
        String zero = most == 0 ? "'0'" : "'0." + "0".repeat(most) + "'";
        return Optional.of(signed(figure, figure + " < 0 AND " + text + " <> " + zero, body, pattern));
    }

    /** What stands before and behind the digits of a figure, by its sign. @param negative whether it has one */
    String signed(String figure, String negative, String body, NumberPattern pattern) {
        String prefix = affix(negative, pattern.negative().before(), pattern.positive().before());
        String suffix = affix(negative, pattern.negative().after(), pattern.positive().after());
        return "CASE WHEN " + figure + " IS NOT NULL THEN " + (prefix.isEmpty() ? "" : prefix + " || ") + body + (suffix.isEmpty() ? "" : " || " + suffix) + " END";
    }

    private String affix(String negative, String ofNegative, String ofOthers) {
        return !ofNegative.equals(ofOthers) ? "CASE WHEN " + negative + " THEN " + dialect.text(ofNegative) + " ELSE " + dialect.text(ofOthers) + " END" : ofOthers.isEmpty() ? "" : dialect.text(ofOthers);
    }

    private String whole(String digits, NumberPattern pattern, DecimalFormatSymbols symbols) {
        int least = pattern.leastWhole();
        String padded = least == 0 ? "CASE WHEN " + digits + " = '0' THEN '' ELSE " + digits + " END" : least == 1 ? digits
                : "CASE WHEN CHAR_LENGTH(" + digits + ") < " + least + " THEN LPAD(" + digits + ", " + least + ", '0') ELSE " + digits + " END";
        if (pattern.groups() == 0) {
            return "(" + padded + ")";
        }
        String grouped = dialect.grouped(padded);
        char character = symbols.getGroupingSeparator();
        return character == ',' ? grouped : "REPLACE(" + grouped + ", ',', " + dialect.text(String.valueOf(character)) + ")";
    }

    /** @param bare whether nothing stands before the point of a figure below 1, so that a zero alone is to be said */
    String fraction(String text, int least, int most, String point, boolean bare) {
        if (most == 0) {
            return bare ? " || CASE WHEN " + text + " = '0' THEN '0' ELSE '' END" : "";
        }
        String digits = "SUBSTRING(" + text + " FROM CHAR_LENGTH(" + text + ") - " + (most - 1) + " FOR " + most + ")";
        if (least == most) {
            return " || " + dialect.text(point) + " || " + digits;
        }
        String trimmed = "TRIM(TRAILING '0' FROM " + digits + ")";
        String none = "CHAR_LENGTH(" + trimmed + ") = 0";
        String zero = bare ? " WHEN " + none + " AND " + text + " LIKE '0.%' THEN '0'" : "";
        return least == 0 ? " || CASE" + zero + " WHEN " + none + " THEN '' ELSE " + dialect.text(point) + " || " + trimmed + " END"
                : " || " + dialect.text(point) + " || CASE WHEN CHAR_LENGTH(" + trimmed + ") < " + least + " THEN SUBSTRING(" + digits + " FROM 1 FOR " + least + ") ELSE " + trimmed + " END";
    }

    /** @return empty where the pattern asks for something else than years, quarters, months, days and days of the week */
    Optional<String> day(String date, String pattern, Locale asked) {
        Locale locale = asked.equals(Locale.ROOT) ? Locale.ENGLISH : asked;
        List<String> pieces = new ArrayList<>();
        Matcher piece = PIECE.matcher(pattern);
        int to = 0;
        while (piece.find()) {
            Optional<String> said = piece.group(1) != null ? letters(date, piece.group(), locale)
                    : Optional.of(dialect.text(piece.group(2) == null ? piece.group() : piece.group(2).isEmpty() ? "'" : piece.group(2).replace("''", "'")));
            if (said.isEmpty() || piece.start() != to) {
                return Optional.empty();
            }
            pieces.add(said.get());
            to = piece.end();
        }
        return to == pattern.length() && !pieces.isEmpty() ? Optional.of("(" + String.join(" || ", pieces) + ")") : Optional.empty();
    }

    /** Texts that name a date or a period by the first day of it, and others as they are. */
    Optional<String> period(String text, String pattern, Locale locale) {
        return day(new Periods(dialect).firstDay(text, CalendarUnit.YEAR), pattern, locale).map(day -> "COALESCE(" + day + ", " + text + ")");
    }

    private Optional<String> letters(String date, String letters, Locale locale) {
        int count = letters.length();
        return switch (letters.charAt(0)) {
            case 'y', 'u' -> count == 4 ? Optional.of(digits(field("YEAR", date), 4)) : count == 2 ? Optional.of(digits("MOD(CAST(" + field("YEAR", date) + " AS INTEGER), 100)", 2)) : Optional.empty();
            case 'M', 'L' -> count <= 2 ? Optional.of(digits(field("MONTH", date), count)) : Optional.of(named(field("MONTH", date), 1, 12, letters, locale, month -> LocalDate.of(2031, Month.of(month), 1)));
            case 'Q', 'q' -> count <= 2 ? Optional.of(digits(field("QUARTER", date), count)) : Optional.of(named(field("QUARTER", date), 1, 4, letters, locale, quarter -> LocalDate.of(2031, quarter * 3 - 2, 1)));
            case 'd' -> count <= 2 ? Optional.of(digits(field("DAY", date), count)) : Optional.empty();
            case 'E' -> Optional.of(named("MOD(" + dialect.days(date) + " + 7000003, 7)", 0, WEEK - 1, letters, locale, day -> LocalDate.of(2031, 3, 3).with(DayOfWeek.of(day + 1))));
            default -> Optional.empty();
        };
    }

    private static String field(String part, String date) {
        return "EXTRACT(" + part + " FROM " + date + ")";
    }

    private String digits(String number, int least) {
        String text = "CAST(CAST(" + number + " AS INTEGER) AS " + dialect.type(Kind.TEXT) + ")";
        return least == 1 ? text : "LPAD(" + text + ", " + least + ", '0')";
    }

    private String named(String number, int from, int to, String letters, Locale locale, IntFunction<LocalDate> of) {
        DateTimeFormatter names = DateTimeFormatter.ofPattern(letters, locale);
        return "CASE CAST(" + number + " AS INTEGER)" + IntStream.rangeClosed(from, to).mapToObj(i -> " WHEN " + i + " THEN " + dialect.text(names.format(of.apply(i)))).collect(Collectors.joining()) + " END";
    }
}
