package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * The rows of a sheet with anything on them, which become a table: the header names the columns from its first cell to the last
 * one before a gap; what is beside is passed over, and a row without a cell below the header is too. Cells that are merged in
 * the header name each column that they span.
 */
final class SheetRows {
    private static final int HEADER_SOUGHT = 50;
    private static final int LINES_LISTED = 12;
    /** Of a sheet, whose cells take more room on the way than those of a text. */
    private static final long MOST_CELLS = Bound.SHEET_CELLS.count();

    private final Place place;
    private final Layout layout;
    private final CellRangeAddress range;
    private final List<Row> rows = new ArrayList<>();
    private final Path book;
    private String sheet = "";
    private String called = "";
    private final List<CellRangeAddress> merged = new ArrayList<>();
    private final SheetNotes notes = new SheetNotes();
    private final TreeMap<Integer, Integer> hidden = new TreeMap<>();
    private long cellCount;

    /**
     * A row.
     *
     * @param line  on the sheet, 1 for the first
     * @param cells by their column, 0 for the first: a Double, a LocalDate, a Boolean, a String or a {@link SheetCell}; never blank
     */
    private record Row(int line, Map<Integer, Object> cells) {

        /** How many cells stand side by side from the first one on. */
        int run() {
            int from = first();
            int run = 0;
            while (cells.containsKey(from + run)) {
                run++;
            }
            return run;
        }

        int first() {
            return cells.isEmpty() ? 0 : Collections.min(cells.keySet());
        }
    }

    /**
     * @param place  the file, and the sheet where it has several
     * @param layout what is said of the sheet
     */
    SheetRows(InputFile source, Layout layout) {
        this.place = source.place();
        this.book = source.path();
        this.layout = layout;
        this.range = layout.range().map(cells -> range(cells)).orElse(new CellRangeAddress(0, Integer.MAX_VALUE, 0, Integer.MAX_VALUE));
    }

    private static CellRangeAddress range(String cells) {
        CellRangeAddress range = CellRangeAddress.valueOf(cells.toUpperCase(Locale.ROOT));
        return range.getFirstRow() >= 0 ? range : new CellRangeAddress(0, Integer.MAX_VALUE, range.getFirstColumn(), range.getLastColumn());
    }

    /** So many rows from a line on, 1 or more, all alike. Cells outside the range are passed over. */
    void add(int line, int times, Map<Integer, Object> cells) {
        long from = Math.max(line, range.getFirstRow() + 1L);
        long to = Math.min((long) line + times - 1, range.getLastRow() + 1L);
        if (from > to || cells.isEmpty()) {
            return;
        }
        Map<Integer, Object> inside = cells;
        if (layout.range().isPresent()) {
            inside = new HashMap<>(cells);
            inside.keySet().removeIf(column -> !isInRange(column));
        }
        cellCount += inside.size() * (to - from + 1);
        long most = Math.min(MOST_CELLS, layout.limits().cells());
        if (cellCount > most) {
            throw new BadInput(place.within(times == 1 ? "row " + line : "rows " + line + " to " + (line + times - 1L)), ProblemKind.TOO_LARGE, "the sheet has more cells than the " + most + " that are read");
        }
        for (long at = from; at <= to && !inside.isEmpty(); at++) {
            if (layout.rows() == Layout.Rows.ALL || !isHidden((int) at)) {
                rows.add(new Row((int) at, inside));
            }
        }
    }

    /** What is to be reported of the sheet. */
    SheetNotes notes() {
        return notes;
    }

    /** Says that readers don't see so many rows from a line on; before they are added. */
    void hide(int line, int times) {
        hidden.put(line, (int) Math.min(Integer.MAX_VALUE, (long) line + times - 1));
    }

    private boolean isHidden(int line) {
        Map.Entry<Integer, Integer> block = hidden.floorEntry(line);
        return block != null && line <= block.getValue();
    }

    /** Says that readers don't see the sheet. */
    void hiddenSheet() {
        notes.add(Note.urgent("the sheet '" + called + "' is hidden, and is read all the same", List.of()));
    }

    /** Puts the result of a formula in its place; nothing where the row is not read, or the file has one and none can be worked out. */
    void workedOut(int line, int column, Object result) {
        int at = Collections.binarySearch(rows, new Row(line, Map.of()), Comparator.comparingInt(Row::line));
        if (at >= 0 && isInRange(column)) {
            Object before = rows.get(at).cells().get(column);
            if (before instanceof SheetCell.Unreadable || !(result instanceof SheetCell.Unreadable error) || error.isResult()) {
                rows.get(at).cells().put(column, result);
            } else {
                notes.stale(line, column);
            }
            if (!(result instanceof SheetCell.Unreadable) && !result.equals(before)) {
                notes.workedOut(line, column);
            }
        }
    }

    String sheet() {
        return sheet;
    }

    private boolean isInRange(int column) {
        return column >= range.getFirstColumn() && column <= range.getLastColumn();
    }

    /** Cells that are one for readers; rows and columns from 0, and the last ones are in it. */
    void merge(int firstRow, int lastRow, int firstColumn, int lastColumn) {
        if (firstRow <= lastRow && firstColumn <= lastColumn) { // beyond a sheet's last row there is nothing to merge
            merged.add(new CellRangeAddress(firstRow, lastRow, firstColumn, lastColumn));
        }
    }

    Table table(String name) {
        if (rows.isEmpty()) {
            throw new BadInput(place, ProblemKind.UNREADABLE, layout.range().map(cells -> "no cell stands in " + cells).orElse("the sheet is empty") + "; a table starts with a header row");
        }
        int at = header();
        int headerRows = headerRows(at);
        int lastHeaderLine = rows.get(at).line() + headerRows - 1;
        List<Row> header = rows.stream().skip(at).takeWhile(row -> row.line() <= lastHeaderLine).map(this::filled).toList();
        List<Row> after = rows.subList(at + header.size(), rows.size());
        Map<Integer, String> names = names(header, after);
        List<Row> below = after.stream().filter(row -> row.cells().keySet().stream().anyMatch(names::containsKey)).toList();
        layout.checkKinds(Place.inFile(place.file(), header.get(0).line(), 0), List.copyOf(names.values()));
        if (below.isEmpty()) {
            throw new BadInput(place, ProblemKind.NO_ROWS, "has a header and no row below it");
        }
        WrittenCells written = new WrittenCells(layout);
        tell(names, below, written);
        List<Supplier<Column>> columns = new ArrayList<>();
        names.forEach((column, title) -> columns.add(() -> column(title, below, column, written)));
        int[] lines = below.stream().mapToInt(Row::line).toArray();
        Table table = written.table(name, new Source(place.file(), lines), columns);
        int[] onSheet = names.entrySet().stream().filter(column -> table.find(column.getValue()).isPresent()).mapToInt(column -> isAsRead(table.column(column.getValue()), below, column.getKey()) ? column.getKey() : -1).toArray();
        return sheet.isEmpty() || onSheet.length != table.columns().size() ? table : Table.of(name, new Source(place.file(), lines, Optional.of(new Source.OfSheet(book, sheet, onSheet))), table.columns()).withNotes(table.notes());
    }

    /** Whether the cells of a column are on the sheet what they are in the table, and none of them had to be read. */
    private static boolean isAsRead(Column column, List<Row> rows, int at) {
        return IntStream.range(0, column.size()).allMatch(row -> {
            Object cell = rows.get(row).cells().get(at);
            return cell == null || cell instanceof SheetCell.Unreadable ? !column.isPresent(row) : column.isPresent(row) && switch (column.kind()) {
                case TEXT -> cell.equals(column.written(row));
                case NUMBER -> cell instanceof Double; // hours are no days, as sheets count them
                case DATE -> cell instanceof LocalDate;
                case TRUTH -> cell instanceof Boolean;
            };
        });
    }

    /** Says what the sheet is called, where formulas can refer to it. */
    void on(String name) {
        sheet = name;
        called(name);
    }

    /** Says what the sheet is called, where none can. */
    void called(String name) {
        called = name;
    }

    /** The place of the first header row: the one that is said, the first of the range, or the first of the widest ones. */
    private int header() {
        if (layout.headerRow().isPresent()) {
            int line = layout.headerRow().getAsInt();
            for (int i = 0; i < rows.size(); i++) {
                if (rows.get(i).line() == line) {
                    return i;
                }
            }
            throw new BadInput(place, ProblemKind.UNREADABLE, "row " + line + " is empty, and the header is to stand there");
        }
        int widest = 0;
        int at = 0;
        for (int i = 0; i < Math.min(rows.size(), HEADER_SOUGHT) && layout.range().isEmpty(); i++) {
            Row row = rows.get(i);
            int run = (row.cells().size() > 1 ? filled(row) : row).run(); // a title over all columns is one cell
            if (run > widest) {
                widest = run;
                at = i;
            }
        }
        return at;
    }

    /** As many as cells are merged downwards; two where cells are merged sideways over texts. */
    private int headerRows(int at) {
        if (layout.headerRows().isPresent()) {
            return layout.headerRows().getAsInt();
        }
        int line = rows.get(at).line() - 1;
        List<CellRangeAddress> here = merged.stream().filter(cells -> cells.getFirstRow() == line && rows.get(at).cells().containsKey(cells.getFirstColumn())).toList();
        int down = here.stream().mapToInt(cells -> cells.getLastRow() - line + 1).max().orElse(1);
        boolean sideways = here.stream().anyMatch(cells -> cells.getLastColumn() > cells.getFirstColumn());
        if (down == 1 && sideways && at + 2 < rows.size() && rows.get(at + 1).line() == line + 2) {
            Map<Integer, Object> next = rows.get(at + 1).cells();
            boolean texts = here.stream().allMatch(cells -> IntStream.rangeClosed(cells.getFirstColumn(), cells.getLastColumn()).allMatch(column -> next.get(column) instanceof String));
            return texts ? 2 : 1;
        }
        return down;
    }

    /** With what stands in merged cells on each place that they span. */
    private Row filled(Row row) {
        Map<Integer, Object> cells = new HashMap<>(row.cells());
        for (CellRangeAddress block : merged) {
            if (block.getFirstRow() < row.line() && row.line() <= block.getLastRow() + 1) {
                Object shown = rows.stream().filter(other -> other.line() == block.getFirstRow() + 1).findFirst()
                        .map(other -> other.cells().get(block.getFirstColumn())).orElse(null);
                for (int column = block.getFirstColumn(); shown != null && column <= Math.min(block.getLastColumn(), layout.limits().columns()); column++) {
                    cells.put(column, shown);
                }
            }
        }
        return new Row(row.line(), cells);
    }

    /** The names of the columns by their places, from the first header cell to the last one before a gap. */
    private Map<Integer, String> names(List<Row> header, List<Row> below) {
        Row whole = new Row(header.get(0).line(), new HashMap<>());
        header.forEach(row -> row.cells().forEach(whole.cells()::putIfAbsent));
        int from = header.get(0).first();
        if (whole.run() > layout.limits().columns()) {
            throw new BadInput(place, ProblemKind.TOO_LARGE, "the header has more than " + layout.limits().columns() + " columns");
        }
        Set<Integer> filled = new HashSet<>();
        below.forEach(row -> filled.addAll(row.cells().keySet()));
        Problems problems = new Problems();
        Map<Integer, String> names = new LinkedHashMap<>();
        Map<String, Integer> seen = new HashMap<>();
        for (int column = from; whole.cells().containsKey(column); column++) {
            int at = column;
            Set<String> parts = new LinkedHashSet<>();
            header.forEach(row -> parts.add(row.cells().containsKey(at) ? SheetCell.written(row.cells().get(at)).strip() : ""));
            parts.remove("");
            String name = String.join(" ", parts);
            Integer before = seen.putIfAbsent(name, column);
            if (before == null) {
                names.put(column, name);
            } else if (!isSpanned(header.get(0).line(), before, column)) {
                problems.add(Place.inFile(place.file(), header.get(0).line(), 0), ProblemKind.DATA, "columns " + letters(before) + " and " + letters(column) + " are both named '" + name + "'");
            } else if (filled.contains(at)) {
                String numbered = name + " " + (column - before + 1);
                seen.put(numbered, column);
                names.put(column, numbered);
            }
        }
        problems.throwIfAny();
        return names;
    }

    /** Whether one merged cell of the header spans both columns. */
    private boolean isSpanned(int line, int first, int column) {
        return merged.stream().anyMatch(cells -> cells.isInRange(line - 1, first) && cells.isInRange(line - 1, column));
    }

    private static String letters(int column) {
        return CellReference.convertNumToColString(column);
    }

    /** Of the one kind that its cells are; else as it is written. */
    private Column column(String name, List<Row> rows, int at, WrittenCells written) {
        Object[] cells = rows.stream().map(row -> row.cells().get(at)).map(cell -> cell instanceof SheetCell.Unreadable ? null : cell).toArray();
        if (areTimes(cells) && layout.kind(name).filter(given -> given != Kind.NUMBER).isEmpty()) {
            Layout.TimeUnit unit = layout.timeUnit(name);
            if (!layout.saysTimeUnit(name)) {
                written.note(Optional.of(new Note("times of '" + name + "' are read as " + unit.toString() + "; kinds: {" + name + ": days} has them as days", List.of())));
            }
            return Column.owning(name, Kind.NUMBER, Stream.of(cells).mapToDouble(cell -> cell == null ? Double.NaN : unit.of(((SheetCell.Time) cell).days())).toArray());
        }
        if (layout.timesOfDay().containsKey(name)) {
            written.hours(name, IntStream.range(0, cells.length).mapToDouble(row -> cells[row] instanceof LocalDate ? notes.hours(rows.get(row).line(), at)
                    : cells[row] instanceof String text ? CellReader.hours(layout.dates(), text.strip()).orElse(Double.NaN) : Double.NaN).toArray());
        }
        Optional<Kind> found = kind(cells);
        if (found.isPresent() && layout.kind(name).filter(given -> given != found.get()).isEmpty()) {
            return Column.owning(name, found.get(), figures(cells));
        }
        String[] texts = new String[cells.length];
        for (int i = 0; i < cells.length; i++) {
            texts[i] = cells[i] == null ? null : SheetCell.written(cells[i]);
        }
        if (layout.kind(name).filter(given -> given == Kind.TEXT).isPresent()) {
            return Column.texts(name, texts);
        }
        IntPredicate typed = row -> cells[row] != null && !(cells[row] instanceof String) && !(cells[row] instanceof SheetCell);
        IntFunction<Place> places = row -> Place.inFile(place.file()).within("cell " + letters(at) + rows.get(row).line());
        return written.column(new WrittenCells.Cells(name, texts, Optional.of(typed), places));
    }

    private static boolean areTimes(Object[] cells) {
        return Stream.of(cells).anyMatch(SheetCell.Time.class::isInstance) && Stream.of(cells).allMatch(cell -> cell == null || cell instanceof SheetCell.Time);
    }

    /** What the table does not show: cells that can't be read, rows that are hidden, and what stands below or beside. */
    private void tell(Map<Integer, String> names, List<Row> below, WrittenCells written) {
        names.forEach((column, name) -> {
            Map<String, List<Integer>> unread = new LinkedHashMap<>();
            below.stream().filter(row -> row.cells().get(column) instanceof SheetCell.Unreadable).forEach(row -> unread.computeIfAbsent(row.cells().get(column).toString(), why -> new ArrayList<>()).add(row.line()));
            if (!unread.isEmpty()) {
                written.note(Optional.of(Note.urgent("cells of '" + name + "' can't be read, and are missing", unread.entrySet().stream().map(each -> each.getKey() + " (" + SheetNotes.listed(column, each.getValue()) + ")").toList())));
            }
        });
        notes.of(names, layout.timesOfDay().keySet(), below.stream().map(Row::line).collect(Collectors.toSet())).forEach(note -> written.note(Optional.of(note)));
        List<Integer> unseen = below.stream().map(Row::line).filter(this::isHidden).toList();
        if (!unseen.isEmpty()) {
            written.note(Optional.of(Note.urgent(unseen.size() + " of the rows are hidden or filtered out on the sheet, and are read all the same; 'rows: visible' takes the others alone", List.of(lines(unseen)))));
        }
        secondTable(names, below).ifPresent(row -> written.anotherTable(row, "row " + below.get(row).line()));
        beside(names, below).ifPresent(area -> written.note(Optional.of(new Note("another table stands beside this one, and is passed over; 'range' has it read", List.of(area)))));
    }

    private static String lines(List<Integer> lines) {
        String listed = String.join(", ", lines.stream().limit(LINES_LISTED).map(String::valueOf).toList());
        return (lines.size() == 1 ? "row " : "rows ") + listed + (lines.size() > LINES_LISTED ? " and " + (lines.size() - LINES_LISTED) + " more" : "");
    }

    /** A row of texts alone, below a blank row and where figures stood before. */
    private static OptionalInt secondTable(Map<Integer, String> names, List<Row> below) {
        for (int i = 1; i < below.size(); i++) {
            Row row = below.get(i);
            Row before = below.get(i - 1);
            List<Integer> filled = names.keySet().stream().filter(row.cells()::containsKey).toList();
            boolean texts = filled.size() > 1 && filled.stream().allMatch(column -> row.cells().get(column) instanceof String);
            boolean figures = filled.stream().anyMatch(column -> before.cells().get(column) instanceof Double);
            if (row.line() > before.line() + 1 && texts && figures && i + 1 < below.size()) {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }

    /** Cells of two columns or more, right or left of the table, with a header on its line. */
    private Optional<String> beside(Map<Integer, String> names, List<Row> below) {
        int line = rows.stream().filter(row -> row.line() < below.get(0).line()).mapToInt(Row::line).max().orElse(0);
        Map<Integer, Object> header = rows.stream().filter(row -> row.line() == line).findFirst().map(Row::cells).orElse(Map.of());
        List<Integer> others = header.keySet().stream().filter(column -> !names.containsKey(column) && header.get(column) instanceof String).sorted()
                .filter(column -> below.stream().anyMatch(row -> row.cells().containsKey(column))).toList();
        return others.size() < 2 ? Optional.empty() : Optional.of(letters(others.get(0)) + line + ":" + letters(others.get(others.size() - 1)) + below.get(below.size() - 1).line());
    }

    /** The one kind, other than text, of all cells that are there. */
    private static Optional<Kind> kind(Object[] cells) {
        Set<Kind> kinds = new LinkedHashSet<>();
        for (Object cell : cells) {
            if (cell != null) {
                kinds.add(cell instanceof Double ? Kind.NUMBER : cell instanceof LocalDate ? Kind.DATE : cell instanceof Boolean ? Kind.TRUTH : Kind.TEXT); // times among others are texts
            }
        }
        return kinds.isEmpty() ? Optional.of(Kind.NUMBER) : kinds.size() == 1 && !kinds.contains(Kind.TEXT) ? Optional.of(kinds.iterator().next()) : Optional.empty();
    }

    private static double[] figures(Object[] cells) {
        double[] figures = new double[cells.length];
        for (int i = 0; i < cells.length; i++) {
            figures[i] = cells[i] == null ? Double.NaN : cells[i] instanceof Double number ? number + 0.0 : cells[i] instanceof LocalDate day ? day.toEpochDay()
                    : Boolean.TRUE.equals(cells[i]) ? 1 : 0;
        }
        return figures;
    }

}
