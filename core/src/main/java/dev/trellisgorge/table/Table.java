package dev.trellisgorge.table;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * A named, immutable table of columns of equal length. Rows are 0-based.
 *
 * <p>A table that was cut from another ({@link #slice}) remembers the whole table and where each of its
 * rows stands there, so that a workbook can point back at the raw rows and a message at the file's line.
 */
public final class Table {
    private static final int MADE = -1;

    private final String name;
    private final Map<String, Column> columns;
    private final int rowCount;
    private final Source source;
    private final Table whole;
    private final int[] wholeRows;
    private final Map<Integer, int[]> sums;
    private final List<Note> notes;

    private Table(String name, List<Column> columns, Source source, Table whole, int[] wholeRows, Map<Integer, int[]> sums, List<Note> notes) {
        this.name = name;
        this.notes = List.copyOf(notes);
        this.columns = new LinkedHashMap<>();
        this.rowCount = columns.isEmpty() ? 0 : columns.get(0).size();
        for (Column column : columns) {
            if (column.size() != rowCount) {
                throw new IllegalArgumentException("table '" + name + "': column '" + column.name() + "' has "
                        + column.size() + " rows, the first column has " + rowCount);
            }
            if (column.name().isBlank()) {
                throw new BadInput(Place.of("table '" + name + "'"), "a column has no name");
            }
            if (this.columns.put(column.name(), column) != null) {
                throw new BadInput(Place.of("table '" + name + "'"), "two columns are named '" + column.name() + "'");
            }
        }
        this.source = source;
        this.whole = whole == null ? this : whole;
        this.wholeRows = wholeRows;
        this.sums = sums;
    }

    /**
     * @throws IllegalArgumentException where the columns differ in length
     * @throws BadInput                 where two columns share a name, or one has none
     */
    public static Table of(String name, Column... columns) {
        return of(name, Source.MEMORY, List.of(columns));
    }

    public static Table of(String name, Source source, List<Column> columns) {
        return new Table(name, columns, source, null, null, Map.of(), List.of());
    }

    public String name() {
        return name;
    }

    public int rowCount() {
        return rowCount;
    }

    public List<Column> columns() {
        return List.copyOf(columns.values());
    }

    public List<String> columnNames() {
        return List.copyOf(columns.keySet());
    }

    public Optional<Column> find(String column) {
        return Optional.ofNullable(columns.get(column));
    }

    /** @throws BadInput with the nearest known name where there is no such column */
    public Column column(String column) {
        return find(column).orElseThrow(() -> new BadInput(place(), unknownColumn(column)));
    }

    /** The message for a column that is not here. */
    public String unknownColumn(String column) {
        return "table '" + name + "' has no column '" + column + "'. " + Nearest.hint(column, columns.keySet());
    }

    /** What a reader should know of how the rows came to be, first to last. */
    public List<Note> notes() {
        return notes;
    }

    /** This table, and something that a reader should know of it. */
    public Table noting(Note note) {
        List<Note> more = new ArrayList<>(notes);
        more.add(note);
        return new Table(name, columns(), source, whole == this ? null : whole, wholeRows, sums, more);
    }

    /** A whole table of its own with the same rows and other columns; each row is still known by where it was read from. */
    public Table withColumns(List<Column> others) {
        int[] lines = source.lines().length == 0 ? new int[0] : IntStream.range(0, rowCount).map(row -> line(wholeRow(row))).toArray();
        return new Table(name, others, new Source(source.file(), lines), null, null, Map.of(), notes);
    }

    /** The same with rows in other places, and new ones at the negative places: {@code columns} hold all of them. */
    public Table withRows(int[] rows, List<Column> others) {
        int[] lines = source.lines().length == 0 ? new int[0] : IntStream.of(rows).map(row -> row < 0 ? 0 : line(wholeRow(row))).toArray();
        return new Table(name, others, new Source(source.file(), lines), null, null, Map.of(), notes);
    }

    private int line(int wholeRow) {
        int[] lines = whole.source.lines();
        return wholeRow >= 0 && wholeRow < lines.length ? lines[wholeRow] : 0;
    }

    /** Where a row was read from; the table's name where it was made in memory. */
    public Place rowPlace(int row) {
        if (whole != this) {
            return wholeRows[row] < 0 ? place().within("the row that was added") : whole.rowPlace(wholeRows[row]);
        }
        return source.file().isEmpty() ? place().within("row " + (row + 1)) : source.row(row);
    }

    public Place place() {
        return source.file().isEmpty() ? Place.of("table '" + name + "'") : Place.inFile(source.file());
    }

    /** The uncut table that this one was cut from; itself where nothing was cut. */
    public Table whole() {
        return whole;
    }

    /** The row of {@link #whole()} that {@code row} of this table is; negative for a row that was added since. */
    public int wholeRow(int row) {
        return wholeRows == null ? row : wholeRows[row];
    }

    /** The rows of {@link #whole()} whose figures a row that was added sums; none where it sums nothing. */
    public int[] summedRows(int row) {
        return sums.getOrDefault(wholeRow(row), new int[0]).clone();
    }

    /**
     * The rows whose cell in {@code column} is written as {@code value} (see {@link Column#written}; a
     * number matches any spelling of the same number).
     *
     * @throws BadInput where there is no such column, or no such row
     */
    public Table slice(String column, String value) {
        Column cells = column(column);
        String wanted = cells.kind() != Kind.NUMBER ? value
                : Numbers.parse(value).stream().mapToObj(Numbers::shortest).findFirst().orElse(value);
        int[] rows = IntStream.range(0, rowCount).filter(r -> cells.written(r).equals(wanted)).toArray();
        if (rows.length == 0) {
            Set<String> values = new HashSet<>();
            List<String> known = new ArrayList<>();
            IntStream.range(0, rowCount).mapToObj(cells::written).filter(values::add).forEach(known::add);
            throw new BadInput(place().within("column '" + column + "'"),
                    "no row holds '" + value + "'. " + Nearest.hint(value, known));
        }
        return rows(rows);
    }

    /** The rows at these places, in this order: 0-based, each once at most. */
    public Table rows(int[] rows) {
        int[] inWhole = IntStream.of(rows).map(this::wholeRow).toArray();
        return new Table(name, columns.values().stream().map(c -> c.at(rows)).toList(), source, whole, inWhole, sums, notes);
    }

    /** This table and one row more, before the others: {@code column} holds {@code text}, all else is missing. */
    public Table withRowFirst(String column, String text) {
        return withRow(column, text, 0, Map.of(), new int[0]);
    }

    /** The same, after the others. */
    public Table withRowLast(String column, String text) {
        return withRow(column, text, rowCount, Map.of(), new int[0]);
    }

    /**
     * The rows at {@code kept}, in this order, and after them one in which {@code column} holds {@code text} and each
     * column of numbers the sum of its cells on the rows at {@code summed}; missing where none of them is there.
     */
    public Table withTotalLast(int[] kept, int[] summed, String column, String text) {
        Map<String, Double> totals = new HashMap<>();
        columns.values().stream().filter(c -> c.kind() == Kind.NUMBER && !c.name().equals(column)).forEach(c -> IntStream.of(summed)
                .filter(c::isPresent).mapToDouble(c::number).reduce(Double::sum).ifPresent(sum -> totals.put(c.name(), sum)));
        return rows(kept).withRow(column, text, kept.length, totals, IntStream.of(summed).map(this::wholeRow).toArray());
    }

    private Table withRow(String column, String text, int at, Map<String, Double> figures, int[] summed) {
        column(column);
        List<Column> longer = columns.values().stream().map(c -> c.name().equals(column) ? c.withText(at, text)
                : c.withFigure(at, figures.getOrDefault(c.name(), Double.NaN))).toList();
        int mark = MADE - sums.size();
        int[] inWhole = IntStream.rangeClosed(0, rowCount)
                .map(row -> row == at ? mark : wholeRow(row < at ? row : row - 1)).toArray();
        Map<Integer, int[]> more = new HashMap<>(sums);
        more.put(mark, summed);
        return new Table(name, longer, source, whole, inWhole, more, notes);
    }

    @Override
    public String toString() {
        return name + " (" + rowCount + " rows): " + columns.values();
    }
}
