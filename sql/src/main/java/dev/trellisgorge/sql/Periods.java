package dev.trellisgorge.sql;

import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.stream.Stream;

/** Calendar periods (ISO 8601) in a dialect: their numbers, as {@link CalendarUnit} counts them, of dates and of texts that name periods. */
final class Periods {
    private static final String YEAR = "[0-9]{4}";
    private static final String MONTH = "(0[1-9]|1[0-2])";

    private final Dialect dialect;

    Periods(Dialect dialect) {
        this.dialect = dialect;
    }

    private static String field(String part, String date) {
        return "EXTRACT(" + part + " FROM " + date + ")";
    }

    /** The number of the period that a date lies in. */
    String number(String date, CalendarUnit unit) {
        return dialect.cast(switch (unit) {
            case DAY -> dialect.days(date);
            case WEEK -> "FLOOR((" + dialect.days(date) + " + 3) / " + dialect.number(7) + ")";
            case MONTH -> field("YEAR", date) + " * 12 + " + field("MONTH", date) + " - 1";
            case QUARTER -> field("YEAR", date) + " * 4 + " + field("QUARTER", date) + " - 1";
            case YEAR -> field("YEAR", date);
        }, Kind.NUMBER);
    }

    /** The first day of the period that a text names, where it is no longer than a unit; else missing. */
    String firstDay(String text, CalendarUnit longest) {
        List<String> days = Stream.of(CalendarUnit.values()).filter(written -> written.ordinal() <= longest.ordinal())
                .map(written -> start("CASE WHEN " + dialect.matches(text, pattern(written)) + " THEN " + text + " END", written)).toList();
        return days.size() == 1 ? days.get(0) : "COALESCE(" + String.join(", ", days) + ")";
    }

    /** The number of the period that a text names, or that what it names lies in. */
    String numberOfText(String text, CalendarUnit unit) {
        return number(firstDay(text, unit), unit);
    }

    private static String pattern(CalendarUnit written) {
        return switch (written) {
            case DAY -> YEAR + "-" + MONTH + "-(0[1-9]|[12][0-9]|3[01])";
            case WEEK -> YEAR + "-[Ww](0[1-9]|[1-4][0-9]|5[0-3])";
            case MONTH -> YEAR + "-" + MONTH;
            case QUARTER -> YEAR + "-[Qq][1-4]";
            case YEAR -> YEAR;
        };
    }

    private String whole(String text, int from, int digits) {
        return "CAST(SUBSTRING(" + text + " FROM " + from + " FOR " + digits + ") AS INTEGER)";
    }

    /** Databases work out at once what is the same on every row: so nothing here may fail of a text that is no such period. */
    private String start(String text, CalendarUnit written) {
        String year = "SUBSTRING(" + text + " FROM 1 FOR 4)";
        return switch (written) {
            case DAY -> "CAST(CASE WHEN " + whole(text, 9, 2) + " <= " + daysOfMonth(text) + " THEN " + text + " END AS DATE)";
            case WEEK -> week(text, year);
            case MONTH -> "CAST(" + text + " || '-01' AS DATE)";
            case QUARTER -> "CAST(" + year + " || CASE SUBSTRING(" + text + " FROM 7 FOR 1) WHEN '1' THEN '-01-01' WHEN '2' THEN '-04-01' WHEN '3' THEN '-07-01' WHEN '4' THEN '-10-01' END AS DATE)";
            case YEAR -> "CAST(" + year + " || '-01-01' AS DATE)";
        };
    }

    private String daysOfMonth(String text) {
        String year = whole(text, 1, 4);
        String leap = "MOD(" + year + ", 4) = 0 AND (MOD(" + year + ", 100) <> 0 OR MOD(" + year + ", 400) = 0)";
        return "CASE SUBSTRING(" + text + " FROM 6 FOR 2) WHEN '02' THEN CASE WHEN " + leap + " THEN 29 ELSE 28 END WHEN '04' THEN 30 WHEN '06' THEN 30 WHEN '09' THEN 30 WHEN '11' THEN 30 ELSE 31 END";
    }

    /** The fourth of January always lies in the first week; a week that begins in the next year's first is none. */
    private String week(String text, String year) {
        String days = firstWeek("CAST(" + year + " || '-01-04' AS DATE)") + " * 7 - 3 + (" + whole(text, 7, 2) + " - 1) * 7";
        String next = firstWeek("CAST(CAST(" + whole(text, 1, 4) + " + 1 AS " + dialect.type(Kind.TEXT) + ") || '-01-04' AS DATE)") + " * 7 - 3";
        return "CASE WHEN " + whole(text, 7, 2) + " < 53 OR " + days + " < " + next + " THEN " + dialect.day(days) + " END";
    }

    private String firstWeek(String date) {
        return number(date, CalendarUnit.WEEK);
    }

    /** The period with a number, as it is written. */
    String written(String number, CalendarUnit unit) {
        String whole = "CAST(" + number + " AS INTEGER)";
        return switch (unit) {
            case DAY -> dialect.period(dialect.day(number), unit);
            case WEEK -> dialect.period(dialect.day("(" + number + " * 7 - 3)"), unit);
            case MONTH -> padded("FLOOR(" + whole + " / 12.0)", 4) + " || '-' || " + padded("MOD(" + whole + ", 12) + 1", 2);
            case QUARTER -> padded("FLOOR(" + whole + " / 4.0)", 4) + " || '-Q' || " + padded("MOD(" + whole + ", 4) + 1", 1);
            case YEAR -> padded(whole, 4);
        };
    }

    private String padded(String number, int digits) {
        return "LPAD(CAST(CAST(" + number + " AS INTEGER) AS " + dialect.type(Kind.TEXT) + "), " + digits + ", '0')";
    }
}
