package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Columns whose cells are figures, but not all written plainly: they become columns of figures where every cell that is there
 * can be read so, and what was read otherwise than it stands is reported. Where the layout says what a column holds, a cell that
 * can't be read is an error; where it does not, the column holds texts, and it is reported which cells most of the others differ from.
 */
final class WrittenCells {
    private static final int LISTED = 5;
    /** So many cells are tried before a column is read as what most of them are. */
    private static final int SAMPLE = 100;
    private static final int MOST_KNOWN = 50_000;

    private final Layout layout;
    private final List<Note> notes = new ArrayList<>();
    private final Map<String, double[]> hours = new HashMap<>();
    private OptionalInt another = OptionalInt.empty();

    WrittenCells(Layout layout) {
        this.layout = layout;
    }

    /**
     * The cells of one column.
     *
     * @param texts  as they stand, null where they are blank
     * @param typed  whether the file itself says that a row's cell is no text; empty where all of its cells are
     * @param places where a row's cell stands
     */
    record Cells(String name, String[] texts, Optional<IntPredicate> typed, IntFunction<Place> places) {

        boolean isTyped(int row) {
            return typed.isPresent() && typed.get().test(row);
        }

        Place place(int row) {
            return places.apply(row).within("column '" + name + "'");
        }
    }

    /**
     * What a cell is read as.
     *
     * @param figure empty where it is none of the column's kind
     * @param plain  whether it stands there as it is read
     */
    private record Reading(OptionalDouble figure, boolean plain) {
    }

    /** What became of the cells. */
    private static final class Outcome {
        private final double[] figures;
        private final Conversions conversions = new Conversions();
        private final List<Problem> odd = new ArrayList<>();
        private final List<String> oddCells = new ArrayList<>();
        private int oddCount;
        private int readCount;

        private Outcome(int rows) {
            figures = new double[rows];
        }

        /** A total has no date: where the last cell, or one of the last, says that its row is one, it is missing, and so is what follows it. */
        private void forgiveTotal(Cells cells, Layout layout) {
            int last = figures.length - 1;
            int total = last;
            while (total > Math.max(0, last - oddCount) && !LastRow.isTotal(text(cells, total))) {
                total--;
            }
            long odd = IntStream.rangeClosed(Math.max(0, total), last).filter(row -> Double.isNaN(figures[row]) && !text(cells, row).isEmpty()).count();
            if (total >= 0 && oddCount > 0 && odd == oddCount && LastRow.isTotal(text(cells, total)) && Double.isNaN(figures[total])) {
                oddCount = 0;
                for (int row = total; row <= last && layout.totalRow() != Layout.TotalRow.DROP; row++) {
                    if (!text(cells, row).isEmpty()) {
                        conversions.add(row, text(cells, row), () -> "missing");
                    }
                }
            }
        }

        private static String text(Cells cells, int row) {
            return row < 0 || cells.texts()[row] == null ? "" : cells.texts()[row];
        }
    }

    void note(Optional<Note> note) {
        note.ifPresent(notes::add);
    }

    /** The hours from midnight to the times of day of a column's dates, where they are known before its cells are read; NaN without a date. */
    void hours(String name, double[] known) {
        hours.put(name, known);
    }

    private Column hours(String dates, String title, List<Column> made, Source source) {
        Column column = made.stream().filter(each -> each.name().equals(dates)).findFirst().orElseThrow();
        if (column.kind() != Kind.DATE) {
            throw new BadInput(Place.inFile(source.file()).within("column '" + dates + "'"), ProblemKind.WRONG_TYPE, "holds " + column.kind().phrase() + " a row, and times of day are those of dates");
        }
        double[] known = hours.getOrDefault(dates, new double[column.size()]);
        return Column.owning(title, Kind.NUMBER, IntStream.range(0, column.size()).mapToDouble(row -> column.isPresent(row) ? known[row] : Double.NaN).toArray());
    }

    /** That from this row on another table seems to stand. @param where its line, for the note */
    void anotherTable(int row, String where) {
        another = OptionalInt.of(row);
        notes.add(Note.urgent("another table seems to begin below, and its rows are read as rows of this one; 'range' says which cells of a sheet are meant", List.of(where)));
    }

    private String hint(CellReader reader, int row) {
        return another.isPresent() && row >= another.getAsInt() ? "; another table seems to begin there, so leave it out, or say with 'range' which cells of the sheet are meant" : reader.hint();
    }

    /**
     * The table of columns that are made here, with what is to be reported of them, and of a total at its end.
     *
     * @throws BadInput with all that is wrong in any of the columns
     */
    Table table(String name, Source source, List<Supplier<Column>> columns) {
        Problems problems = new Problems();
        List<Column> made = new ArrayList<>();
        columns.forEach(column -> problems.attempt(column).ifPresent(made::add));
        layout.timesOfDay().forEach((dates, title) -> problems.attempt(() -> hours(dates, title, made, source)).ifPresent(made::add));
        problems.throwIfAny();
        return LastRow.seenTo(Replaced.told(Table.of(name, source, made)).withNotes(notes), layout.totalRow());
    }

    /** @throws BadInput where the layout says what the column holds, and a cell is not that; with the place of each of the first few */
    Column column(Cells cells) {
        if (layout.timesOfDay().containsKey(cells.name())) {
            hours.computeIfAbsent(cells.name(), name -> Stream.of(cells.texts()).mapToDouble(cell -> cell == null ? Double.NaN : CellReader.hours(layout.dates(), cell.strip()).orElse(Double.NaN)).toArray());
        }
        Optional<Kind> given = layout.kind(cells.name());
        Optional<CellReader> nearest = Optional.empty();
        Optional<Outcome> near = Optional.empty();
        for (CellReader reader : readers(given)) {
            if (given.isPresent() || isPromising(reader, cells)) {
                Outcome outcome = read(reader, cells);
                if (reader.isOfTime()) {
                    outcome.forgiveTotal(cells, layout);
                }
                if (outcome.oddCount == 0 && (given.isPresent() || outcome.readCount > 0)) {
                    note(outcome.conversions.note(cells.name(), reader.one(), row -> cells.places().apply(row).toString()));
                    return reader.column(cells.name(), outcome.figures);
                }
                if (near.isEmpty() || outcome.oddCount < near.get().oddCount) {
                    near = Optional.of(outcome);
                    nearest = Optional.of(reader);
                }
            }
        }
        if (near.isPresent() && given.isPresent()) {
            throw new BadInput(odd(near.get(), cells));
        }
        if (near.isPresent() && near.get().readCount > near.get().oddCount) {
            notes.add(left(near.get(), nearest.orElseThrow(), cells));
        }
        codes(cells).ifPresent(notes::add);
        return Column.texts(cells.name(), cells.texts());
    }

    /** That whole numbers stay as they are written, where a figure would not. */
    private static Optional<Note> codes(Cells cells) {
        List<String> inexact = IntStream.range(0, cells.texts().length).filter(row -> cells.texts()[row] != null && Kinds.isInexact(cells.texts()[row].strip()))
                .limit(ColumnTypes.LISTED + 1L).mapToObj(row -> cells.texts()[row].strip() + " (" + cells.places().apply(row) + ")").toList();
        return inexact.isEmpty() ? Optional.empty() : Optional.of(ColumnTypes.codes(cells.name(), inexact));
    }

    /** The cells that are not of the kind, each with its place. */
    private static List<Problem> odd(Outcome outcome, Cells cells) {
        List<Problem> problems = new ArrayList<>(outcome.odd);
        if (outcome.oddCount > problems.size()) {
            problems.add(new Problem(Place.inFile(cells.places().apply(0).file()).within("column '" + cells.name() + "'"), ProblemKind.DATA,
                    "the same on " + (outcome.oddCount - problems.size()) + " more rows"));
        }
        return problems;
    }

    private static Note left(Outcome outcome, CellReader reader, Cells cells) {
        List<String> rows = new ArrayList<>(outcome.oddCells);
        if (outcome.oddCount > rows.size()) {
            rows.add("and " + (outcome.oddCount - rows.size()) + " more");
        }
        return new Note("'" + cells.name() + "' is read as texts, as most of its cells are " + reader.one() + "s and not all", rows, false,
                reader.kind() == Kind.NUMBER ? Optional.of(new Note.NoFigures(cells.name(), odd(outcome, cells))) : Optional.empty());
    }

    /** The ways to read a column, in the order in which they are tried. */
    private List<CellReader> readers(Optional<Kind> given) {
        List<CellReader> readers = new ArrayList<>();
        for (char character : layout.decimal().map(List::of).orElse(List.of('.', ','))) {
            readers.add(CellReader.numbers(character, given.isPresent()));
        }
        readers.add(CellReader.days(layout.dates()));
        readers.add(CellReader.truths());
        readers.removeIf(reader -> given.isPresent() && given.get() != reader.kind());
        if (given.isEmpty() && !layout.dates().isEmpty()) {
            for (CalendarUnit unit : List.of(CalendarUnit.MONTH, CalendarUnit.QUARTER, CalendarUnit.YEAR)) {
                readers.add(CellReader.periods(unit, layout.dates()));
            }
        }
        return readers;
    }

    /** Whether most of the first cells that are there can be read so; most columns of texts end here. */
    private boolean isPromising(CellReader reader, Cells cells) {
        int tried = 0;
        int read = 0;
        for (int row = 0; row < cells.texts().length && tried < SAMPLE; row++) {
            String cell = cells.texts()[row];
            if (cell != null && !cell.isBlank() && !layout.isMissing(cell.strip())) {
                tried++;
                read += reader.read(cell.strip()).isPresent() ? 1 : 0;
            }
        }
        return read * 2 > tried;
    }

    private Outcome read(CellReader reader, Cells cells) {
        Outcome outcome = new Outcome(cells.texts().length);
        Map<String, Reading> known = new HashMap<>(); // most columns hold the same few texts again and again
        for (int row = 0; row < cells.texts().length; row++) {
            String cell = cells.texts()[row] == null ? "" : cells.texts()[row].strip();
            outcome.figures[row] = Double.NaN;
            if (!cell.isEmpty() && layout.isMissing(cell)) {
                outcome.conversions.add(row, cell, () -> "missing");
            } else if (!cell.isEmpty()) {
                Reading reading = cells.isTyped(row) ? typed(reader, cell) : known.get(cell);
                if (reading == null) {
                    reading = reading(reader, cell, cells.typed().isPresent());
                    if (known.size() < MOST_KNOWN) {
                        known.put(cell, reading);
                    }
                }
                take(outcome, row, cell, reader, reading, cells);
            }
        }
        return outcome;
    }

    /** A cell that the file itself says to be no text. */
    private static Reading typed(CellReader reader, String cell) {
        return new Reading(reader.kind() == Kind.NUMBER ? Numbers.parse(cell) : reader.read(cell), true);
    }

    /** @param sheet whether the file could have said that the cell is no text, and did not */
    private static Reading reading(CellReader reader, String cell, boolean sheet) {
        OptionalDouble figure = reader.read(cell);
        boolean plain = figure.isPresent() && (reader.kind() == Kind.NUMBER ? !sheet && Numbers.parse(cell).isPresent() : cell.equals(reader.written(figure.getAsDouble())));
        return new Reading(figure, plain);
    }

    private void take(Outcome outcome, int row, String cell, CellReader reader, Reading reading, Cells cells) {
        if (reading.figure().isEmpty()) {
            if (outcome.oddCount++ < LISTED) {
                outcome.odd.add(new Problem(cells.place(row), ProblemKind.DATA, reader.refusal(cell) + (outcome.odd.isEmpty() ? hint(reader, row) : "")));
                outcome.oddCells.add(reader.refusal(cell) + " (" + cells.places().apply(row) + ")");
            }
            return;
        }
        double figure = reading.figure().getAsDouble();
        outcome.figures[row] = figure;
        outcome.readCount++;
        if (!reading.plain()) {
            outcome.conversions.add(row, cell, () -> reader.written(figure));
        }
    }
}
