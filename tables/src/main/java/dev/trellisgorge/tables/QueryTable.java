package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/** Makes a table of what a query gives: numbers of any SQL type become numbers, dates and timestamps dates, booleans truths, all else texts; NULL is missing. */
public final class QueryTable {
    /** Types of numbers for which JDBC has no name. */
    private static final Pattern OWN_NUMBERS = Pattern.compile("(?i)U?(TINY|SMALL|BIG|HUGE)?INT(EGER)?");

    private static final Pattern ZONED = Pattern.compile("(?i)timestamptz|timestamp( ?\\(\\d+\\))? with time zone");
    private static final int LAST_YEAR = 9999;

    private final Kind[] kinds;
    private final boolean[] plainDays;
    private final boolean[] zoned;
    private final String name;
    private final List<String> names;
    private int read;
    private final List<Figures> figures = new ArrayList<>();
    private final List<Texts> texts = new ArrayList<>();

    private QueryTable(String name, List<Field> fields, ResultSetMetaData columns) throws SQLException {
        this.name = name;
        this.names = fields.stream().map(Field::name).toList();
        this.kinds = fields.stream().map(Field::kind).toArray(Kind[]::new);
        this.plainDays = new boolean[kinds.length];
        this.zoned = new boolean[kinds.length];
        for (int i = 0; i < kinds.length; i++) {
            plainDays[i] = columns.getColumnType(i + 1) == Types.DATE;
            zoned[i] = columns.getColumnType(i + 1) == Types.TIMESTAMP_WITH_TIMEZONE || ZONED.matcher(String.valueOf(columns.getColumnTypeName(i + 1))).matches();
            figures.add(new Figures());
            texts.add(new Texts());
        }
    }

    /** The rest of a query's rows, by the kinds of its columns. Errors of the database are passed on. */
    public static Table of(String name, ResultSet rows) throws SQLException {
        return of(name, rows, fields(rows.getMetaData()));
    }

    /** The same, with a note of characters that no text may hold. */
    public static Table told(String name, ResultSet rows) throws SQLException {
        return Replaced.told(of(name, rows));
    }

    /** The columns of a query, by its types. */
    public static List<Field> fields(ResultSetMetaData columns) throws SQLException {
        List<Field> fields = new ArrayList<>();
        for (int i = 1; i <= columns.getColumnCount(); i++) {
            fields.add(Field.of(columns.getColumnLabel(i), kind(columns.getColumnType(i), String.valueOf(columns.getColumnTypeName(i)))));
        }
        return fields;
    }

    /** The rest of a query's rows as columns whose names and kinds are known; there are at least as many. Errors of the database are passed on. */
    public static Table of(String name, ResultSet rows, List<Field> fields) throws SQLException {
        QueryTable read = new QueryTable(name, fields, rows.getMetaData());
        while (rows.next()) {
            for (int i = 0; i < fields.size(); i++) {
                read.add(rows, i);
            }
            read.read++;
        }
        List<Column> made = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            made.add(read.column(i, fields.get(i).name()));
        }
        return Table.of(name, Source.MEMORY, made);
    }

    private static Kind kind(int type, String name) {
        return switch (type) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT, Types.REAL, Types.FLOAT, Types.DOUBLE, Types.DECIMAL, Types.NUMERIC -> Kind.NUMBER;
            case Types.DATE, Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE -> Kind.DATE;
            case Types.BOOLEAN, Types.BIT -> Kind.TRUTH;
            default -> OWN_NUMBERS.matcher(name).matches() ? Kind.NUMBER : Kind.TEXT;
        };
    }

    private void add(ResultSet rows, int at) throws SQLException {
        if (kinds[at] == Kind.TEXT) {
            texts.get(at).add(rows.getString(at + 1));
            return;
        }
        double figure;
        if (kinds[at] == Kind.DATE) {
            LocalDate day = day(rows, at);
            figure = day == null ? Double.NaN : day.toEpochDay();
        } else if (kinds[at] == Kind.TRUTH) {
            figure = rows.getBoolean(at + 1) ? 1 : 0;
        } else {
            figure = rows.getDouble(at + 1) + 0.0;
        }
        boolean missing = rows.wasNull();
        if (!missing && kinds[at] == Kind.NUMBER && Double.isNaN(figure)) {
            throw new BadInput(place(at), "the database holds a NaN, which is no number; leave such rows out, or make NULL of it");
        }
        figures.get(at).add(missing ? Double.NaN : figure);

    }

    private Place place(int at) {
        return Place.of("table '" + name + "'").within("row " + (read + 1)).within("column '" + names.get(at) + "'");
    }

    /** A timestamp's is that of its local time. Never by way of the calendar that was used before 1582. */
    private LocalDate day(ResultSet rows, int at) throws SQLException {
        Object written = rows.getObject(at + 1);
        LocalDate day = written == null ? null : written instanceof LocalDate date ? date : plainDays[at] ? rows.getObject(at + 1, LocalDate.class) : written instanceof OffsetDateTime || zoned[at] ? rows.getDate(at + 1).toLocalDate()
                : rows.getObject(at + 1, LocalDateTime.class).toLocalDate();
        if (day != null && (day.getYear() < 0 || day.getYear() > LAST_YEAR)) {
            throw new BadInput(place(at), "the database holds a date that is none of the years 0 to " + LAST_YEAR + ": " + rows.getString(at + 1));
        }
        return day;
    }

    private Column column(int at, String name) {
        return kinds[at] == Kind.TEXT ? Column.texts(name, texts.get(at).all()) : Column.owning(name, kinds[at], figures.get(at).all());
    }
}
