package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/** Makes a table of what a query gives: numbers of any SQL type become numbers, dates and timestamps dates, booleans truths, all else texts; NULL is missing. */
public final class QueryTable {
    private static final double DOUBLES_UP_TO = 0x1p53;
    private static final int LAST_YEAR = 9999;

    private final ZoneId zone;
    private final Kind[] kinds;
    private final boolean[] plainDays;
    private final boolean[] zoned;
    private final boolean[] wide;
    private final String name;
    private final List<String> names;
    private int read;
    private final List<Figures> figures = new ArrayList<>();
    private final List<Texts> texts = new ArrayList<>();
    private final Map<Integer, Codes> codes = new LinkedHashMap<>();

    private QueryTable(String name, List<Field> fields, ResultSetMetaData columns, ZoneId zone) throws SQLException {
        this.zone = zone;
        this.name = name;
        this.names = fields.stream().map(Field::name).toList();
        this.kinds = fields.stream().map(Field::kind).toArray(Kind[]::new);
        this.plainDays = new boolean[kinds.length];
        this.zoned = new boolean[kinds.length];
        this.wide = new boolean[kinds.length];
        for (int i = 0; i < kinds.length; i++) {
            plainDays[i] = columns.getColumnType(i + 1) == Types.DATE;
            zoned[i] = ColumnTypes.isZoned(columns.getColumnType(i + 1), String.valueOf(columns.getColumnTypeName(i + 1)));
            figures.add(new Figures());
            texts.add(new Texts());
        }
    }

    /**
     * The rest of a query's rows, by the kinds of its columns: a column of whole numbers of which a double would change one is of codes, and reported, as are characters that no text may
     * hold. Errors of the database are passed on.
     *
     * @param login  whose time zone the days of moments are of
     * @param stated kinds of columns that are not to be found: a number of what would be codes, or texts of whole or decimal numbers
     * @throws BadInput where a column can't be of the kind that is stated, or is not there
     */
    public static Table told(String name, ResultSet rows, Map<String, Kind> stated, Login login) throws SQLException {
        ColumnTypes types = ColumnTypes.of(rows.getMetaData());
        QueryTable read = new QueryTable(name, types.stated(stated, Place.of("table '" + name + "'")), rows.getMetaData(), login.zone().orElseGet(ZoneId::systemDefault));
        types.wide().stream().filter(column -> !stated.containsKey(column)).forEach(column -> read.codes.put(read.names.indexOf(column), new Codes()));
        Table table = read.rest(rows);
        for (Map.Entry<Integer, Codes> codes : read.codes.entrySet()) {
            if (!codes.getValue().inexact.isEmpty()) {
                table = table.withNotes(ColumnTypes.codes(read.names.get(codes.getKey()), codes.getValue().inexact));
            }
        }
        return Replaced.told(table.withNotes(types.zoned().stream().map(column -> ColumnTypes.days(column, login.zoneName())).toList()));
    }

    /** The rest of a query's rows as columns whose names and kinds are known; there are at least as many. Errors of the database are passed on. @throws BadInput where a double would change a whole number */
    public static Table of(String name, ResultSet rows, List<Field> fields) throws SQLException {
        QueryTable read = new QueryTable(name, fields, rows.getMetaData(), ZoneOffset.UTC); // a statement has no moments left
        List<String> labels = ColumnTypes.of(rows.getMetaData()).wide();
        for (int i = 0; i < fields.size(); i++) {
            read.wide[i] = labels.contains(rows.getMetaData().getColumnLabel(i + 1));
        }
        return read.rest(rows);
    }

    private Table rest(ResultSet rows) throws SQLException {
        while (rows.next()) {
            for (int i = 0; i < kinds.length; i++) {
                add(rows, i);
            }
            read++;
        }
        List<Column> made = new ArrayList<>();
        for (int i = 0; i < kinds.length; i++) {
            made.add(column(i, names.get(i)));
        }
        return Table.of(name, Source.MEMORY, made);
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
            throw new BadInput(place(at), ProblemKind.DATA, "the database gives a NaN, which is no number: it holds one, or a figure is too large; leave such rows out, or make NULL of it");
        }
        if (!missing && kinds[at] == Kind.NUMBER && Math.abs(figure) >= DOUBLES_UP_TO) {
            large(at, rows.getString(at + 1));
        }
        figures.get(at).add(missing ? Double.NaN : figure);
    }

    private void large(int at, String cell) {
        if (codes.containsKey(at)) {
            codes.get(at).add(read, cell);
        } else if (wide[at] && ColumnTypes.isCode(cell)) {
            throw ColumnTypes.unexpectedCode(place(at), names.get(at), cell);
        }
    }

    private Place place(int at) {
        return Place.of("table '" + name + "'").within("row " + (read + 1)).within("column '" + names.get(at) + "'");
    }

    /** A timestamp's is that of its local time, a moment's that of the time zone. Never by way of the calendar that was used before 1582. */
    private LocalDate day(ResultSet rows, int at) throws SQLException {
        Object written = rows.getObject(at + 1);
        LocalDate day = written == null ? null : written instanceof LocalDate date ? date : plainDays[at] ? rows.getObject(at + 1, LocalDate.class) : written instanceof OffsetDateTime || zoned[at] ? rows.getObject(at + 1, OffsetDateTime.class).atZoneSameInstant(zone).toLocalDate()
                : rows.getObject(at + 1, LocalDateTime.class).toLocalDate();
        if (day != null && (day.getYear() < 0 || day.getYear() > LAST_YEAR)) {
            throw new BadInput(place(at), ProblemKind.DATA, "the database holds a date that is none of the years 0 to " + LAST_YEAR + ": " + rows.getString(at + 1));
        }
        return day;
    }

    private Column column(int at, String name) {
        if (codes.containsKey(at) && !codes.get(at).inexact.isEmpty()) {
            double[] read = figures.get(at).all();
            return Column.texts(name, IntStream.range(0, read.length).mapToObj(row -> Double.isNaN(read[row]) ? null : codes.get(at).written.getOrDefault(row, Numbers.shortest(read[row]))).toArray(String[]::new));
        }
        return kinds[at] == Kind.TEXT ? Column.texts(name, texts.get(at).all()) : Column.owning(name, kinds[at], figures.get(at).all());
    }

    /** The cells of a column of whole numbers that a double may change, by their rows. */
    private static final class Codes {
        private final Map<Integer, String> written = new HashMap<>();
        private final List<String> inexact = new ArrayList<>();

        void add(int row, String cell) {
            written.put(row, cell);
            if (inexact.size() <= ColumnTypes.LISTED && ColumnTypes.isCode(cell) && !inexact.contains(cell)) {
                inexact.add(cell);
            }
        }
    }
}
