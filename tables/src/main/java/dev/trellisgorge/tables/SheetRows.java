package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The rows of a sheet with anything on them, which become a table: the header names the columns from its first cell to the last
 * one before a gap; what is beside is passed over, and a row without a cell below the header is too.
 */
final class SheetRows {
    private static final int HEADER_SOUGHT = 50;

    private final Place place;
    private final List<Row> rows = new ArrayList<>();

    /**
     * A row.
     *
     * @param line  on the sheet, 1 for the first
     * @param cells by their column, 0 for the first: a Double, a LocalDate, a Boolean or a String; never blank
     */
    record Row(int line, Map<Integer, Object> cells) {

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
            return cells.keySet().stream().mapToInt(Integer::intValue).min().orElse(0);
        }
    }

    /** @param place the file, and the sheet where it has several */
    SheetRows(Place place) {
        this.place = place;
    }

    void add(int line, Map<Integer, Object> cells) {
        if (!cells.isEmpty()) {
            rows.add(new Row(line, cells));
        }
    }

    Table table(String name, Layout layout) {
        if (rows.isEmpty()) {
            throw new BadInput(place, "the sheet is empty; a table starts with a header row");
        }
        int at = header(layout.headerRow());
        Row header = rows.get(at);
        int from = header.first();
        List<String> names = names(header, from);
        List<Row> below = rows.subList(at + 1, rows.size()).stream()
                .filter(row -> row.cells().keySet().stream().anyMatch(column -> column >= from && column < from + names.size())).toList();
        if (below.isEmpty()) {
            throw new BadInput(place, "has a header and no row below it");
        }
        List<Column> columns = new ArrayList<>();
        WrittenCells written = new WrittenCells(layout, row -> Place.inFile(place.file(), below.get(row).line(), 0).toString());
        for (int i = 0; i < names.size(); i++) {
            columns.add(column(names.get(i), below, from + i, written));
        }
        Table table = Table.of(name, new Source(place.file(), below.stream().mapToInt(Row::line).toArray()), columns);
        for (Note note : written.notes()) {
            table = table.noting(note);
        }
        return LastRow.seenTo(table, layout.totalRow());
    }

    private int header(OptionalInt headerRow) {
        if (headerRow.isPresent()) {
            for (int i = 0; i < rows.size(); i++) {
                if (rows.get(i).line() == headerRow.getAsInt()) {
                    return i;
                }
            }
            throw new BadInput(place, "row " + headerRow.getAsInt() + " is empty, and the header is to stand there");
        }
        int widest = rows.stream().limit(HEADER_SOUGHT).mapToInt(Row::run).max().orElse(0);
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i).run() == widest) {
                return i;
            }
        }
        return 0;
    }

    private List<String> names(Row header, int from) {
        Problems problems = new Problems();
        Map<String, Integer> seen = new HashMap<>();
        List<String> names = new ArrayList<>();
        for (int i = 0; i < header.run(); i++) {
            String name = written(header.cells().get(from + i)).strip();
            Integer before = seen.putIfAbsent(name, i + 1);
            if (before != null) {
                problems.add(Place.inFile(place.file(), header.line(), 0), "columns " + before + " and " + (i + 1) + " are both named '" + name + "'");
            }
            names.add(name);
        }
        problems.throwIfAny();
        return names;
    }

    /** Of the one kind that its cells are; texts where they are of several. */
    private static Column column(String name, List<Row> rows, int at, WrittenCells written) {
        Object[] cells = rows.stream().map(row -> row.cells().get(at)).toArray();
        if (all(cells, Double.class)) {
            return Column.owning(name, Kind.NUMBER, figures(cells));
        }
        if (all(cells, LocalDate.class)) {
            return Column.owning(name, Kind.DATE, figures(cells));
        }
        if (all(cells, Boolean.class)) {
            return Column.owning(name, Kind.TRUTH, figures(cells));
        }
        String[] texts = new String[cells.length];
        for (int i = 0; i < cells.length; i++) {
            texts[i] = cells[i] == null ? null : written(cells[i]);
        }
        Optional<Column> read = written.column(name, texts);
        if (read.isPresent()) {
            return read.get();
        }
        return all(cells, String.class) ? Kinds.datesOrTexts(name, texts) : Column.texts(name, texts);
    }

    private static boolean all(Object[] cells, Class<?> kind) {
        for (Object cell : cells) {
            if (cell != null && !kind.isInstance(cell)) {
                return false;
            }
        }
        return true;
    }

    private static double[] figures(Object[] cells) {
        double[] figures = new double[cells.length];
        for (int i = 0; i < cells.length; i++) {
            figures[i] = cells[i] == null ? Double.NaN : cells[i] instanceof Double number ? number + 0.0 : cells[i] instanceof LocalDate day ? day.toEpochDay()
                    : Boolean.TRUE.equals(cells[i]) ? 1 : 0;
        }
        return figures;
    }

    private static String written(Object cell) {
        return cell instanceof Double number ? Numbers.shortest(number) : String.valueOf(cell);
    }
}
