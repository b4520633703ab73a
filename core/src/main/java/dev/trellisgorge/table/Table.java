package dev.trellisgorge.table;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A named, immutable table of columns of equal length. Rows are 0-based. Thread-safe.
 *
 * <p>A table that was cut from another ({@link #rows}) remembers the whole table and where each of its
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
    private final Map<Integer, Added> added;
    private final List<Note> notes;

    private Table(String name, List<Column> columns, Source source, Table whole, int[] wholeRows, Map<Integer, Added> added, List<Note> notes) {
        this.name = Objects.requireNonNull(name, "name");
        this.source = Objects.requireNonNull(source, "source");
        this.notes = List.copyOf(notes);
        this.columns = new LinkedHashMap<>();
        this.rowCount = columns.isEmpty() ? 0 : columns.get(0).size();
        for (Column column : columns) {
            if (column.size() != rowCount) {
                throw new IllegalArgumentException("table '" + name + "': column '" + column.name() + "' has "
                        + column.size() + " rows, the first column has " + rowCount);
            }
            if (column.name().isBlank()) {
                throw new BadInput(Place.of("table '" + name + "'"), ProblemKind.MISSING, "a column has no name");
            }
            if (this.columns.put(column.name(), column) != null) {
                throw new BadInput(Place.of("table '" + name + "'"), ProblemKind.CONFLICT, "two columns are named '" + column.name() + "'");
            }
        }
        this.whole = whole == null ? this : whole;
        this.wholeRows = wholeRows;
        this.added = added;
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

    /** A table made in memory, row by row. */
    public static Builder named(String name) {
        return new Builder(name);
    }

    /**
     * A table made in memory of records.
     *
     * @param rows   one a row
     * @param fields the columns: their name and kind, and what each record has there; null is missing
     */
    public static <T> Table of(String name, Iterable<? extends T> rows, Map<Field, Function<? super T, ?>> fields) {
        Builder builder = named(name);
        fields.keySet().forEach(field -> builder.column(field.name(), field.kind()));
        for (T row : rows) {
            builder.row(fields.values().stream().map(cell -> (Object) cell.apply(row)).toArray());
        }
        return builder.build();
    }

    /** Gathers the rows of a table. Not thread-safe. */
    public static final class Builder {
        private final String name;
        private final Map<String, Kind> kinds = new LinkedHashMap<>();
        private final List<Object[]> rows = new ArrayList<>();

        private Builder(String name) {
            this.name = Objects.requireNonNull(name, "name");
        }

        /** One more column, the last; all columns are named before the first row. */
        public Builder column(String column, Kind kind) {
            if (!rows.isEmpty()) {
                throw new IllegalStateException("columns are named before the first row");
            }
            kinds.put(Objects.requireNonNull(column, "column"), Objects.requireNonNull(kind, "kind"));
            return this;
        }

        /**
         * One more row.
         *
         * @param cells one a column: a Number, a String, a LocalDate or a Boolean as its kind says; null is missing
         * @throws IllegalArgumentException where there are more or fewer cells than columns, or one is of another kind
         */
        public Builder row(Object... cells) {
            if (cells.length != kinds.size()) {
                throw new IllegalArgumentException("row " + (rows.size() + 1) + " has " + cells.length + " cells, and there are " + kinds.size() + " columns");
            }
            int at = 0;
            for (Map.Entry<String, Kind> column : kinds.entrySet()) {
                Object cell = cells[at++];
                Class<?> wanted = switch (column.getValue()) {
                    case NUMBER -> Number.class;
                    case TEXT -> String.class;
                    case DATE -> LocalDate.class;
                    case TRUTH -> Boolean.class;
                };
                if (cell != null && !wanted.isInstance(cell)) {
                    throw new IllegalArgumentException("row " + (rows.size() + 1) + ", column '" + column.getKey() + "': '" + cell + "' is not "
                            + column.getValue().phrase());
                }
            }
            rows.add(cells.clone());
            return this;
        }

        public Table build() {
            List<Column> columns = new ArrayList<>();
            for (Map.Entry<String, Kind> column : kinds.entrySet()) {
                int at = columns.size();
                Stream<Object> cells = rows.stream().map(row -> row[at]);
                columns.add(switch (column.getValue()) {
                    case NUMBER -> Column.numbers(column.getKey(), cells.mapToDouble(cell -> cell == null ? Double.NaN : ((Number) cell).doubleValue()).toArray());
                    case TEXT -> Column.texts(column.getKey(), cells.toArray(String[]::new));
                    case DATE -> Column.dates(column.getKey(), cells.toArray(LocalDate[]::new));
                    case TRUTH -> Column.truths(column.getKey(), cells.toArray(Boolean[]::new));
                });
            }
            return of(name, Source.MEMORY, columns);
        }
    }

    public String name() {
        return name;
    }

    /** Where its rows came from. */
    public Source source() {
        return source;
    }

    public int rowCount() {
        return rowCount;
    }

    public List<Column> columns() {
        return List.copyOf(columns.values());
    }

    /** What is known of the columns without their cells. */
    public Schema schema() {
        return Schema.of(this);
    }

    public List<String> columnNames() {
        return List.copyOf(columns.keySet());
    }

    public Optional<Column> find(String column) {
        return Optional.ofNullable(columns.get(column));
    }

    /** @throws BadInput with the nearest known name where there is no such column */
    public Column column(String column) {
        return find(column).orElseThrow(() -> schema().unknown(column));
    }

    /** What a reader should know of how the rows came to be, first to last. */
    public List<Note> notes() {
        return notes;
    }

    /** This table, and something that a reader should know of it. */
    public Table withNotes(Note note) {
        return withNotes(List.of(note));
    }

    /** This table, and several things that a reader should know of it. */
    public Table withNotes(List<Note> told) {
        List<Note> more = new ArrayList<>(notes);
        told.forEach(note -> more.add(new Note(Characters.shown(note.sentence()), note.rows().stream().map(Characters::shown).toList(), note.urgent(), note.noFigures())));
        return told.isEmpty() ? this : new Table(name, columns(), source, whole == this ? null : whole, wholeRows, added, more);
    }

    /** The same, with the cells of a column as texts. */
    public Table withTexts(String column) {
        Column cells = column(column);
        String[] texts = IntStream.range(0, rowCount).mapToObj(row -> cells.isPresent(row) ? cells.written(row) : null).toArray(String[]::new);
        List<Column> others = columns().stream().map(each -> each == cells ? Column.texts(column, texts) : each).toList();
        return new Table(name, others, source, whole == this ? null : whole, wholeRows, added, notes);
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

    /**
     * A row that stands in no raw table.
     *
     * @param rows   the rows of {@link #whole()} that it was made of; none where it was stated
     * @param summed the columns in which it is their sum
     */
    private record Added(int[] rows, Set<String> summed) {
    }

    /** The rows of {@link #whole()} that a row which was added sums in a column; none where it is no sum. */
    public int[] summedRows(int row, String column) {
        Added made = added.get(wholeRow(row));
        return made == null || !made.summed().contains(column) ? new int[0] : made.rows().clone();
    }

    /** The rows at these places, in this order: 0-based, each once at most. */
    public Table rows(int[] rows) {
        int[] inWhole = IntStream.of(rows).map(this::wholeRow).toArray();
        return new Table(name, columns.values().stream().map(c -> c.at(rows)).toList(), source, whole, inWhole, added, notes);
    }

    /**
     * This table and one row more.
     *
     * @param at     where it stands, 0-based
     * @param cells  its texts (String) and figures (Double) by column; all else is missing. A text in a column of another
     *               kind makes that one of texts
     * @param madeOf the rows of {@link #whole()} that it was made of; none where it was stated
     * @param summed the columns in which it is their sum
     */
    public Table withRow(int at, Map<String, Object> cells, int[] madeOf, Set<String> summed) {
        cells.keySet().forEach(this::column);
        List<Column> longer = columns.values().stream().map(c -> c.withCell(at, cells.get(c.name()))).toList();
        int mark = MADE - added.size();
        int[] inWhole = IntStream.rangeClosed(0, rowCount).map(row -> row == at ? mark : wholeRow(row < at ? row : row - 1)).toArray();
        Map<Integer, Added> more = new HashMap<>(added);
        more.put(mark, new Added(madeOf.clone(), Set.copyOf(summed)));
        return new Table(name, longer, source, whole, inWhole, more, notes);
    }

    @Override
    public String toString() {
        return name + " (" + rowCount + " rows): " + columns.values();
    }
}
