package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.sql.Date;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/** Makes a table of what a query gives: numbers of any SQL type become numbers, dates and timestamps dates, booleans truths, all else texts; NULL is missing. */
public final class QueryTable {
    /** Types of numbers for which JDBC has no name. */
    private static final Pattern OWN_NUMBERS = Pattern.compile("(?i)U?(TINY|SMALL|BIG|HUGE)?INT(EGER)?");

    private final Kind[] kinds;
    private final boolean[] plainDays;
    private final List<Figures> figures = new ArrayList<>();
    private final List<Texts> texts = new ArrayList<>();

    private QueryTable(Kind[] kinds, ResultSetMetaData columns) throws SQLException {
        this.kinds = kinds;
        this.plainDays = new boolean[kinds.length];
        for (int i = 0; i < kinds.length; i++) {
            plainDays[i] = columns.getColumnType(i + 1) == Types.DATE;
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
        QueryTable read = new QueryTable(fields.stream().map(Field::kind).toArray(Kind[]::new), rows.getMetaData());
        while (rows.next()) {
            for (int i = 0; i < fields.size(); i++) {
                read.add(rows, i);
            }
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
        figures.get(at).add(rows.wasNull() ? Double.NaN : figure);
    }

    /** A timestamp's is that of its local time. */
    private LocalDate day(ResultSet rows, int at) throws SQLException {
        if (plainDays[at]) {
            return rows.getObject(at + 1, LocalDate.class);
        }
        Date day = rows.getDate(at + 1);
        return day == null ? null : day.toLocalDate();
    }

    private Column column(int at, String name) {
        return kinds[at] == Kind.TEXT ? Column.texts(name, texts.get(at).all()) : Column.owning(name, kinds[at], figures.get(at).all());
    }
}
