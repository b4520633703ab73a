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
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * How databases differ: in what a statement is written in, and in what a session needs. Each question is answered for each of them, so that a new one
 * does not compile before it has answered all. Thread-safe.
 */
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

    /** A name of a table, a view or a column, whatever characters it holds. */
    public String quoted(String name) {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, H2 -> "\"" + name.replace("\"", "\"\"") + "\"";
            case SPARK -> "`" + name.replace("`", "``") + "`";
        };
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
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, H2 -> "'" + text.replace("'", "''") + "'";
            case SPARK -> "'" + text.replace("\\", "\\\\").replace("'", "\\'").replace("${", "$\\{") + "'"; // a backslash escapes there, and ${ stands for a variable
        };
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
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, SPARK -> cell;
            case H2 -> kind == Kind.TEXT ? "CAST(" + cell + " AS VARBINARY)" : cell; // whose texts are compared by halves of code points
        };
    }

    /** A number that is added up and divided as a double. */
    String number(double figure) {
        String written = Numbers.shortest(figure);
        return switch (this) {
            case STANDARD, POSTGRESQL, H2, SPARK -> "CAST(" + written + " AS " + number + ")";
            case DUCKDB -> figure < 0 ? "(" + exponential(written) + ")" : exponential(written);
        };
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
        return switch (this) {
            case STANDARD, DUCKDB, SPARK -> "CAST(" + expression + " AS " + decimal + ")";
            case POSTGRESQL, H2 -> "CAST(CAST(" + expression + " AS " + text + ") AS " + decimal + ")";
        };
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
        return switch (this) {
            case STANDARD, DUCKDB -> false;
            case POSTGRESQL, H2, SPARK -> true;
        };
    }

    /** What has an expression computed on its own: else some databases write out its columns wherever they are read. */
    String computedOnce() {
        return switch (this) {
            case STANDARD, DUCKDB, H2, SPARK -> "";
            case POSTGRESQL -> "MATERIALIZED ";
        };
    }

    /** What stands behind an order, for the first row alone. */
    String firstRow() {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, H2 -> "FETCH FIRST 1 ROW ONLY";
            case SPARK -> "LIMIT 1";
        };
    }

    /**
     * The first of some rows' cells, as an expression.
     *
     * @param order by what they are ordered
     * @param from  FROM and WHERE
     */
    String first(String cell, String order, String from) {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, H2 -> "(SELECT " + cell + from + " ORDER BY " + order + " " + firstRow() + ")";
            case SPARK -> "(SELECT MIN_BY(" + cell + ", " + order + ")" + from + ")"; // it takes no order there
        };
    }

    /** Whether it reads files of its own accord. */
    public boolean readsFiles() {
        return switch (this) {
            case STANDARD, POSTGRESQL, H2 -> false;
            case DUCKDB, SPARK -> true;
        };
    }

    /** Whether it runs in this process: it is given rows as it asks for them, is told which files it may open, and says how far it is. */
    boolean isEmbedded() {
        return switch (this) {
            case STANDARD, POSTGRESQL, H2, SPARK -> false;
            case DUCKDB -> true;
        };
    }

    /** What a table is that only this connection sees. */
    String temporary() {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, SPARK -> "TEMPORARY";
            case H2 -> "LOCAL TEMPORARY";
        };
    }

    /** Whether rows can't be copied into temporary tables where files are only read. */
    boolean copiesByWriting() {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, SPARK -> false;
            case H2 -> true;
        };
    }

    /** How sums of doubles are made exact. */
    enum Sums {
        /** Not at all: they are the database's own. */
        OWN,
        /** By the whole and the fractional parts, each added up for itself. */
        PARTS,
        /** Likewise, and the fractional ones by an aggregate that compensates for its rounding. */
        COMPENSATED
    }

    Sums sums() {
        return switch (this) {
            case STANDARD -> Sums.OWN;
            case POSTGRESQL, H2, SPARK -> Sums.PARTS;
            case DUCKDB -> Sums.COMPENSATED;
        };
    }

    /** A whole number of 64 bits as one of which sums have no end. */
    String widened(String whole) {
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL, H2 -> whole;
            case SPARK -> "CAST(" + whole + " AS DECIMAL(20, 0))";
        };
    }

    /** A decimal number as the nearest double. */
    String nearest(String decimals) {
        return switch (this) {
            case STANDARD, POSTGRESQL, H2, SPARK -> cast(decimals, Kind.NUMBER);
            case DUCKDB -> cast(cast(decimals, Kind.TEXT), Kind.NUMBER); // whose own way from a wide decimal to a double rounds twice
        };
    }

    /** Settings that a connection to any of its databases is opened with. */
    Map<String, String> connectedWith() {
        return switch (this) {
            case STANDARD, DUCKDB, H2, SPARK -> Map.of();
            case POSTGRESQL -> Map.of("readOnlyMode", "always", "readOnly", "true"); // of the session and not of each transaction, so that no COMMIT ends it
        };
    }

    /** The statements that a session begins with, before any of a brief. */
    List<String> begun(Optional<String> zone) {
        return switch (this) {
            case STANDARD, SPARK -> List.of(); // it is not said in one way everywhere; and a cluster is told otherwise
            case DUCKDB -> zone.map(name -> "SET TimeZone = " + text(name)).stream().toList();
            case H2 -> zone.map(name -> "SET TIME ZONE " + text(name)).stream().toList();
            case POSTGRESQL -> Stream.concat(Stream.of("SET standard_conforming_strings = on"), zone.map(name -> "SET TIME ZONE " + text(name)).stream()).toList(); // else a backslash could hide where a text ends
        };
    }

    /** Whether a session's time zone can be set. */
    public boolean setsZone() {
        return switch (this) {
            case STANDARD -> false;
            case DUCKDB, POSTGRESQL, H2, SPARK -> true;
        };
    }

    /** What is run before a statement so long that compiling it would take longer than running it. */
    Optional<String> beforeLongStatement() {
        return switch (this) {
            case STANDARD, DUCKDB, H2, SPARK -> Optional.empty();
            case POSTGRESQL -> Optional.of("SELECT SET_CONFIG(name, 'off', TRUE) FROM pg_settings WHERE name = 'jit'");
        };
    }

    /** Whether its driver asks for a statement to be cancelled once only, which is lost where the statement has not arrived yet. */
    boolean losesCancels() {
        return switch (this) {
            case STANDARD, DUCKDB, H2, SPARK -> false;
            case POSTGRESQL -> true;
        };
    }

    /** A day as its driver takes it. */
    Object day(LocalDate day) {
        return switch (this) {
            case STANDARD, POSTGRESQL, H2, SPARK -> day;
            case DUCKDB -> day.toString(); // whose driver knows days before 1582 by text alone
        };
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
            case WEEK -> switch (this) {
                case STANDARD, DUCKDB, POSTGRESQL -> digits("ISOYEAR", date, 4) + " || '-W' || " + digits("WEEK", date, 2);
                case H2 -> digits("ISO_WEEK_YEAR", date, 4) + " || '-W' || " + digits("ISO_WEEK", date, 2);
                case SPARK -> digits("YEAROFWEEK", date, 4) + " || '-W' || " + digits("WEEK", date, 2);
            };
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
        return switch (this) {
            case STANDARD, DUCKDB, POSTGRESQL -> "(DATE '1970-01-01' + " + whole + ")";
            case H2 -> "DATEADD(DAY, " + whole + ", DATE '1970-01-01')";
            case SPARK -> "DATE_ADD(DATE '1970-01-01', " + whole + ")";
        };
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
            case STANDARD, POSTGRESQL -> "(" + date + " - DATE '1970-01-01')";
        };
    }
}
