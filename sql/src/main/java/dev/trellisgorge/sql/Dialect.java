package dev.trellisgorge.sql;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.query.PureFunctions;
import dev.trellisgorge.sql.query.QueryLanguage;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** How databases differ in what a statement is written in. Thread-safe. */
public enum Dialect {
    /** ISO/IEC 9075, as far as it goes. */
    STANDARD("DOUBLE PRECISION", "VARCHAR(10000)", "", "DECIMAL(38, 15)"),
    DUCKDB("DOUBLE", "VARCHAR", "", "DECIMAL(38, 15)"),
    /** Texts are compared by their bytes, whatever the database's own collation is. */
    POSTGRESQL("DOUBLE PRECISION", "TEXT", " COLLATE \"C\"", "NUMERIC"),
    H2("DOUBLE PRECISION", "VARCHAR", "", "DECFLOAT"),
    /** With the rules of ANSI for casts, which are its usual ones. */
    SPARK("DOUBLE", "STRING", "", "DECIMAL(38, 15)");

    /** Numbers from 0 below 100,000, made of digits, as the standard has no table of numbers. */
    private static final String TENS = IntStream.range(0, 5).mapToObj(i -> "(VALUES (0), (1), (2), (3), (4), (5), (6), (7), (8), (9)) AS d" + i + " (n)").collect(Collectors.joining(" CROSS JOIN "));
    private static final String DIGITS = "(d0.n + d1.n * 10 + d2.n * 100 + d3.n * 1000 + d4.n * 10000)";

    private static final int GROUP = 3;
    private static final int MOST_GROUPS = 6;

    private final String number;
    private final String text;
    private final String collation;
    private final String decimal;

    Dialect(String number, String text, String collation, String decimal) {
        this.number = number;
        this.text = text;
        this.collation = collation;
        this.decimal = decimal;
    }

    /** @throws BadInput with the nearest name where there is none of that name */
    public static Dialect named(String name) {
        return Arrays.stream(values()).filter(dialect -> dialect.toString().equals(name.toLowerCase(Locale.ROOT))).findFirst()
                .orElseThrow(() -> new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, "there is no dialect '" + name + "'. " + Nearest.hint(name, names())));
    }

    /** The names of all dialects. */
    public static List<String> names() {
        return Arrays.stream(values()).map(Dialect::toString).toList();
    }

    /** The name that it is asked for by. */
    @Override
    public String toString() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** A name of a table, a view or a column, whatever signs it holds. */
    public String quoted(String name) {
        return this == SPARK ? "`" + name.replace("`", "``") + "`" : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /** How a query is read there. */
    QueryLanguage language() {
        return switch (this) {
            case STANDARD -> new QueryLanguage('"', true, false, PureFunctions.COMMON);
            case DUCKDB -> new QueryLanguage('"', false, true, PureFunctions.DUCKDB);
            case POSTGRESQL -> new QueryLanguage('"', false, true, PureFunctions.POSTGRESQL);
            case H2 -> new QueryLanguage('"', false, false, PureFunctions.H2);
            case SPARK -> new QueryLanguage('`', true, true, PureFunctions.SPARK);
        };
    }

    /** A text as a value. */
    String text(String text) {
        if (this == SPARK) { // a backslash escapes there, and ${ stands for a variable
            return "'" + text.replace("\\", "\\\\").replace("'", "\\'").replace("${", "$\\{") + "'";
        }
        return "'" + text.replace("'", "''") + "'";
    }

    /** The type of cells of a kind. */
    String type(Kind kind) {
        return switch (kind) {
            case NUMBER -> number;
            case TEXT -> text;
            case DATE -> "DATE";
            case TRUTH -> "BOOLEAN";
        };
    }

    /** An expression as cells of a kind; texts so that they are in the order of their code points. */
    String cast(String expression, Kind kind) {
        return "CAST(" + expression + " AS " + type(kind) + ")" + (kind == Kind.TEXT ? collation : "");
    }

    /** What is compared of a cell where its size counts: a text by its code points, which are in the order of its bytes; other cells as they are. */
    String sized(String cell, Kind kind) {
        return this == H2 && kind == Kind.TEXT ? "CAST(" + cell + " AS VARBINARY)" : cell; // whose texts are compared by halves of code points
    }

    /** A number that is added up and divided as a double. */
    String number(double figure) {
        String written = Numbers.shortest(figure);
        return this == DUCKDB ? figure < 0 ? "(" + exponential(written) + ")" : exponential(written) : "CAST(" + written + " AS " + number + ")";
    }

    private static String exponential(String written) {
        return written.contains("E") || written.contains("e") ? written : written + "e0";
    }

    /** A cell that is there, as it is written in a statement. */
    String literal(Column column, int row) {
        return literal(switch (column.kind()) {
            case NUMBER -> (Object) column.number(row);
            case TEXT -> column.written(row);
            case DATE -> column.date(row).orElseThrow();
            case TRUTH -> column.number(row) == 1;
        });
    }

    /** A stated value of a kind. */
    String literal(Object value) {
        return value instanceof Double figure ? number(figure) : value instanceof LocalDate day ? "DATE '" + day + "'" : value instanceof Boolean truth ? truth ? "TRUE" : "FALSE" : text((String) value);
    }

    /** A double as the decimal number that a reader sees, with room for its digits. */
    String decimal(String expression) {
        return this == DUCKDB || this == STANDARD || this == SPARK ? "CAST(" + expression + " AS " + decimal + ")" : "CAST(CAST(" + expression + " AS " + text + ") AS " + decimal + ")";
    }

    /** A decimal number of so many digits, some of them after the point. */
    String decimal(int digits, int after) {
        return "DECIMAL(" + (digits + after) + ", " + after + ")";
    }

    /** The digits of a whole number, with a comma before each three of them. */
    String grouped(String digits) {
        return switch (this) {
            case DUCKDB -> "FORMAT('{:,}', CAST(" + digits + " AS BIGINT))";
            case POSTGRESQL -> "REGEXP_REPLACE(" + digits + ", '([0-9])(?=([0-9]{3})+$)', '\\1,', 'g')";
            case H2, SPARK -> "REGEXP_REPLACE(" + digits + ", '([0-9])(?=([0-9]{3})+$)', '$1,')";
            case STANDARD -> inThrees(digits);
        };
    }

    /** Without expressions for patterns, which few databases have as the standard has them: six groups, of which the blank ones go. */
    private static String inThrees(String digits) {
        String groups = IntStream.range(0, MOST_GROUPS).mapToObj(group -> "SUBSTRING(LPAD(" + digits + ", " + MOST_GROUPS * GROUP + ", ' ') FROM " + (group * GROUP + 1) + " FOR " + GROUP + ")").collect(Collectors.joining(" || ',' || "));
        return "TRIM(LEADING ' ' FROM REPLACE(" + groups + ", '" + " ".repeat(GROUP) + ",', ''))";
    }

    /** Whether a double may be written with a digit more than it needs, as older runtimes of Java do, and others where a shorter one lies half way. */
    boolean mayWriteOneDigitMore() {
        return this == H2 || this == SPARK || this == POSTGRESQL;
    }

    /** What has an expression computed on its own: else some databases write out its columns wherever they are read. */
    String computedOnce() {
        return this == POSTGRESQL ? "MATERIALIZED " : "";
    }

    /** What stands behind an order, for the first row alone. */
    String firstRow() {
        return this == SPARK ? "LIMIT 1" : "FETCH FIRST 1 ROW ONLY";
    }

    /** Whether it reads files of its own accord. */
    public boolean readsFiles() {
        return this == DUCKDB || this == SPARK;
    }

    /** What a table is that only this connection sees. */
    String temporary() {
        return this == H2 ? "LOCAL TEMPORARY" : "TEMPORARY";
    }

    /** The number of a date's field, as a text of so many digits. */
    private String digits(String field, String date, int digits) {
        return "LPAD(CAST(CAST(EXTRACT(" + field + " FROM " + date + ") AS INTEGER) AS " + text + "), " + digits + ", '0')";
    }

    /** The period that a date lies in, as ISO 8601 writes it. */
    String period(String date, CalendarUnit unit) {
        String year = digits("YEAR", date, 4);
        return switch (unit) {
            case DAY -> cast(date, Kind.TEXT);
            case WEEK -> digits(this == H2 ? "ISO_WEEK_YEAR" : this == SPARK ? "YEAROFWEEK" : "ISOYEAR", date, 4) + " || '-W' || " + digits(this == H2 ? "ISO_WEEK" : "WEEK", date, 2);
            case MONTH -> year + " || '-' || " + digits("MONTH", date, 2);
            case QUARTER -> year + " || '-Q' || " + digits("QUARTER", date, 1);
            case YEAR -> year;
        };
    }

    /** A table of whole numbers, in its only column; by the standard no more than 100,000 of them, and an error of the database else. */
    String numbers(String from, String to, String column) {
        return switch (this) {
            case DUCKDB -> "(SELECT UNNEST(GENERATE_SERIES(CAST(" + from + " AS BIGINT), CAST(" + to + " AS BIGINT))) AS " + column + ")";
            case POSTGRESQL -> "(SELECT GENERATE_SERIES(CAST(" + from + " AS BIGINT), CAST(" + to + " AS BIGINT)) AS " + column + ")";
            case H2 -> "(SELECT X AS " + column + " FROM SYSTEM_RANGE(COALESCE(CAST(" + from + " AS BIGINT), 1), COALESCE(CAST(" + to + " AS BIGINT), 0)))";
            case SPARK -> "(SELECT EXPLODE(SEQUENCE(CAST(" + from + " AS BIGINT), CAST(" + to + " AS BIGINT))) AS " + column + ")";
            case STANDARD -> "(SELECT " + from + " + " + DIGITS + " AS " + column + " FROM " + TENS + " WHERE " + DIGITS + " <= CAST(" + to + " - " + from + " AS DECIMAL(5, 0)))";
        };
    }

    /** The day that is so many days after 1970-01-01. */
    String day(String days) {
        String whole = "CAST(" + days + " AS INTEGER)";
        return this == H2 ? "DATEADD(DAY, " + whole + ", DATE '1970-01-01')" : this == SPARK ? "DATE_ADD(DATE '1970-01-01', " + whole + ")" : "(DATE '1970-01-01' + " + whole + ")";
    }

    /** Whether all of a text is as a regular expression says. */
    String matches(String text, String pattern) {
        return switch (this) {
            case DUCKDB -> "REGEXP_FULL_MATCH(" + text + ", '" + pattern + "')";
            case POSTGRESQL -> "(" + text + " ~ '^(" + pattern + ")$')";
            case H2, SPARK -> "REGEXP_LIKE(" + text + ", '^(" + pattern + ")$')";
            case STANDARD -> "(" + text + " SIMILAR TO '" + pattern + "')";
        };
    }

    /** The number of days from 1970-01-01 to a date. */
    String days(String date) {
        return switch (this) {
            case DUCKDB -> "DATE_DIFF('day', DATE '1970-01-01', " + date + ")";
            case H2 -> "DATEDIFF(DAY, DATE '1970-01-01', " + date + ")";
            case SPARK -> "DATEDIFF(" + date + ", DATE '1970-01-01')";
            default -> "(" + date + " - DATE '1970-01-01')";
        };
    }
}
