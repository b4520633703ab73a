package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.Anchor;
import dev.trellisgorge.sheet.Row;
import dev.trellisgorge.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.apache.poi.ss.util.CellRangeAddress;

/** Where the cells of a sheet are and how large, what is merged, ruled or picked from lists. Of a sheet that changes no more. */
final class SheetShape {
    /** Of a sheet whose columns and rows say nothing else: 64 pixels, and points. */
    private static final double COLUMN = 48;
    private static final double CHARACTER = 5.25;
    static final double ROW = 15;
    private static final int COLUMN_BITS = 20;

    /**
     * Columns of one width.
     *
     * @param width in points
     */
    record Columns(int first, int last, double width, boolean folded) {
    }

    /**
     * An area with rules over its cells.
     *
     * @param base the cell that their formulas are written for
     */
    record RuledArea(CellRangeAddress cells, String base, List<Sheet.Rule> rules) {
    }

    /** A list that a cell's value is picked from, with its name. */
    record NamedList(String name, Sheet.Picks picks) {
    }

    private final Sheet sheet;
    private final Map<Integer, Double> heights;
    private final Map<Long, CellRangeAddress> merged = new LinkedHashMap<>();
    private final List<RuledArea> ruled = new ArrayList<>();
    private final Map<Long, NamedList> lists = new LinkedHashMap<>();

    /** @param number which of the sheets it is */
    SheetShape(Sheet sheet, int number) {
        this.sheet = sheet;
        this.heights = sheet.rows().stream().filter(row -> row.height().isPresent()).collect(Collectors.toMap(Row::at, row -> row.height().getAsDouble(), (a, b) -> b, TreeMap::new));
        for (CellRangeAddress area : sheet.merged()) {
            area.forEach(cell -> merged.put(key(cell.getRow(), cell.getColumn()), area));
        }
        Map<CellRangeAddress, List<Sheet.Rule>> rules = new LinkedHashMap<>();
        sheet.rules().forEach(rule -> rules.computeIfAbsent(rule.cells(), each -> new ArrayList<>()).add(rule));
        rules.forEach((cells, over) -> ruled.add(new RuledArea(cells, OpenFormula.quoted(sheet.name()).substring(1) + "." + cells.formatAsString().split(":")[0], over)));
        sheet.picks().forEach(picks -> lists.put(key(picks.row(), picks.column()), new NamedList("picks" + number + "_" + lists.size(), picks)));
    }

    private static long key(int row, int column) {
        return ((long) row << COLUMN_BITS) + column;
    }

    Sheet sheet() {
        return sheet;
    }

    /** From the left, without gaps, at least as many as hold cells. */
    List<Columns> columns() {
        List<Columns> all = new ArrayList<>();
        int next = 0;
        for (Sheet.Columns some : sheet.columns()) {
            all.add(new Columns(some.first(), some.last(), some.width() * CHARACTER, some.folded()));
            next = some.last() + 1;
        }
        if (next <= sheet.lastColumn()) {
            all.add(new Columns(next, sheet.lastColumn(), COLUMN, false));
        }
        return all;
    }

    /** In points; empty where a row is as high as any. */
    Optional<Double> height(int row) {
        return Optional.ofNullable(heights.get(row));
    }

    /** All heights that are stated, in points. */
    Map<Integer, Double> heights() {
        return heights;
    }

    /** The area that a cell is merged into. */
    Optional<CellRangeAddress> merged(int row, int column) {
        return merged.isEmpty() ? Optional.empty() : Optional.ofNullable(merged.get(key(row, column)));
    }

    Optional<RuledArea> ruled(int row, int column) {
        return ruled.stream().filter(area -> area.cells().isInRange(row, column)).findFirst();
    }

    /** The lists that cells are picked from. */
    List<NamedList> lists() {
        return List.copyOf(lists.values());
    }

    Optional<NamedList> list(int row, int column) {
        return lists.isEmpty() ? Optional.empty() : Optional.ofNullable(lists.get(key(row, column)));
    }

    /** How far a place is from the left, in points. */
    double x(Anchor.Corner at) {
        double left = 0;
        for (Columns some : columns()) {
            left += Math.max(0, Math.min(some.last() + 1, at.column()) - some.first()) * some.width();
        }
        int stated = columns().stream().mapToInt(some -> some.last() + 1).max().orElse(0);
        return left + Math.max(0, at.column() - stated) * COLUMN + (double) at.x() / Anchor.UNITS_PER_POINT;
    }

    /** How far a place is from the top, in points. */
    double y(Anchor.Corner at) {
        double top = 0;
        for (int above = 0; above < at.row(); above++) {
            top += heights.getOrDefault(above, ROW);
        }
        return top + (double) at.y() / Anchor.UNITS_PER_POINT;
    }
}
