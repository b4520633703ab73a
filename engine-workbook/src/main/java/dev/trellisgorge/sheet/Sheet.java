package dev.trellisgorge.sheet;

import dev.trellisgorge.chart.Color;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellRangeAddress;

/**
 * A sheet: rows of cells, how large they are, what is merged, ruled or picked from lists, what stands over them, and how it is seen and
 * printed. Rows may be made when they are written, so that a table of any length takes little memory. Rows and columns are counted from 0.
 * Used by one thread.
 */
public final class Sheet {
    private final String name;
    private final TreeMap<Integer, Row> rows = new TreeMap<>();
    private Optional<Generated> generated = Optional.empty();
    private final List<Columns> columns = new ArrayList<>();
    private final List<CellRangeAddress> merged = new ArrayList<>();
    private final List<Rule> rules = new ArrayList<>();
    private final List<DataBar> dataBars = new ArrayList<>();
    private final List<Picks> picks = new ArrayList<>();
    private final List<Placed> placed = new ArrayList<>();
    private int columnsInSight;
    private int rowsInSight;
    private int[] repeated = new int[2];
    private boolean gridlines = true;
    private Printing printing = Printing.AS_IT_COMES;

    /** How a sheet is printed, always on landscape paper. */
    public enum Printing {
        ONE_PAGE, ONE_PAGE_WIDE, AS_IT_COMES
    }

    /**
     * Columns of one width.
     *
     * @param last   the last of them
     * @param width  in characters
     * @param folded whether they are folded away, as a group
     */
    public record Columns(int first, int last, double width, boolean folded) {
    }

    /**
     * Rows that are made one after the other when they are written.
     *
     * @param fill given each row, empty
     */
    public record Generated(int first, int count, Consumer<Row> fill) {
    }

    /**
     * A rule that gives the words of cells a colour.
     *
     * @param formula holds where it does, written for the first of the cells
     */
    public record Rule(CellRangeAddress cells, String formula, Color color) {
    }

    /**
     * Bars in cells, each as long as its cell's figure, which is not written.
     *
     * @param least   a formula of the figure at the start of a cell
     * @param largest the same for its end
     * @param above   the colour of bars to the right, and {@code below} of those to the left
     */
    public record DataBar(CellRangeAddress cells, String least, String largest, Color above, Color below) {
    }

    /**
     * A cell whose value is picked from a list.
     *
     * @param from    a formula of the cells that hold the list
     * @param title   over the message, {@code message}, that is shown where something else is typed
     */
    public record Picks(int row, int column, String from, String title, String message) {
    }

    Sheet(String name) {
        this.name = name;
    }

    public String name() {
        return name;
    }

    /** A row, made where there is none yet. */
    public Row row(int at) {
        return rows.computeIfAbsent(at, Row::new);
    }

    /** Whether a row was made. */
    public boolean hasRow(int at) {
        return rows.containsKey(at);
    }

    /** The rows that were made, from the top. */
    public Collection<Row> rows() {
        return Collections.unmodifiableCollection(rows.values());
    }

    /** Has rows below all others made when they are written. */
    public void generate(int first, int count, Consumer<Row> fill) {
        generated = Optional.of(new Generated(first, count, fill));
    }

    public Optional<Generated> generated() {
        return generated;
    }

    /** Sets the widths of the first columns, in characters. */
    public void widths(List<Double> widths) {
        widths(widths, widths.size(), widths.size());
    }

    /**
     * The same with columns that are folded away in a group.
     *
     * @param from the first of them
     * @param to   the one after the last, at most as many as there are widths
     */
    public void widths(List<Double> widths, int from, int to) {
        int first = 0;
        for (int at = 1; at <= widths.size(); at++) {
            if (at == widths.size() || !widths.get(at).equals(widths.get(first)) || at == from || at == to) {
                columns.add(new Columns(first, at - 1, widths.get(first), first >= from && first < to));
                first = at;
            }
        }
    }

    public List<Columns> columns() {
        return Collections.unmodifiableList(columns);
    }

    /** Makes several cells one; nothing happens to a single one. */
    public void merge(int row, int column, int rows, int columns) {
        if (rows * columns > 1) {
            merged.add(new CellRangeAddress(row, row + rows - 1, column, column + columns - 1));
        }
    }

    public List<CellRangeAddress> merged() {
        return Collections.unmodifiableList(merged);
    }

    public void rule(CellRangeAddress cells, String formula, Color color) {
        rules.add(new Rule(cells, formula, color));
    }

    public List<Rule> rules() {
        return Collections.unmodifiableList(rules);
    }

    public void dataBar(DataBar bar) {
        dataBars.add(bar);
    }

    public List<DataBar> dataBars() {
        return Collections.unmodifiableList(dataBars);
    }

    public void picks(Picks cell) {
        picks.add(cell);
    }

    public List<Picks> picks() {
        return Collections.unmodifiableList(picks);
    }

    /** Puts something over the cells. */
    public void place(Placed what) {
        placed.add(what);
    }

    public List<Placed> placed() {
        return Collections.unmodifiableList(placed);
    }

    /** Keeps the first columns and rows in sight. */
    public void keepInSight(int columns, int rows) {
        columnsInSight = columns;
        rowsInSight = rows;
    }

    public int columnsInSight() {
        return columnsInSight;
    }

    public int rowsInSight() {
        return rowsInSight;
    }

    /** Repeats rows over each printed page. @param to the one after the last */
    public void repeat(int from, int to) {
        repeated = new int[] {from, to};
    }

    /** The rows over each printed page, the first and the one after the last; the same where there are none. */
    public int[] repeated() {
        return repeated.clone();
    }

    public void withoutGridlines() {
        gridlines = false;
    }

    public boolean hasGridlines() {
        return gridlines;
    }

    public void print(Printing how) {
        printing = how;
    }

    public Printing printing() {
        return printing;
    }

    /** The last column that has a cell, a width or a part of a merged one; below 0 where there is none. Rows that are generated count by their widths. */
    public int lastColumn() {
        return IntStream.concat(IntStream.concat(columns.stream().mapToInt(Columns::last), merged.stream().mapToInt(CellRangeAddress::getLastColumn)), rows.values().stream().mapToInt(Row::lastColumn)).max().orElse(-1);
    }
}
