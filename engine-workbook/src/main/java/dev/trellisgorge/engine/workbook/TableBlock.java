package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.plan.PlainChart;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import dev.trellisgorge.sheet.CellLook.Across;
import dev.trellisgorge.sheet.Sheet;

/**
 * Lying bars in a table: names and figures in ruled cells, and beside them either bars in cells too, or over the cells a native chart
 * whose bars stand each in its row.
 */
final class TableBlock {
    /** The title, the second line, and what stands over the columns. */
    private static final int ABOVE = 3;
    private static final int HIGHEST_ROW = 2;
    private static final int FEWEST_FOR_BARS = 3;

    private final List<PlainChart> parts;
    private final HelperSheet helpers;
    private final Sheet sheet;
    private final TableCells cells;
    private final Consumer<String> warnings;

    /** @param parts the panels, each as a chart */
    TableBlock(List<PlainChart> parts, HelperSheet helpers, Sheet sheet, Consumer<String> warnings) {
        this.parts = parts;
        this.helpers = helpers;
        this.sheet = sheet;
        this.warnings = warnings;
        this.cells = new TableCells(sheet, helpers, warnings);
    }

    /** How many rows of the sheet a chart takes at least. */
    static int rows(HelperSheet helpers) {
        return ABOVE + helpers.lines() + 2;
    }

    void fill(Area area) {
        PlainChart first = parts.get(0);
        int count = helpers.lines();
        CellBars inCells = new CellBars(parts, helpers, cells, warnings);
        int high = inCells.areAsked() ? 1 : Math.max(1, Math.min(HIGHEST_ROW, (area.rows() - ABOVE - 2) / Math.max(1, count)));
        cells.titles(area, first);
        TableCells.Widths widths = cells.widths(first, area.columns() - Math.max(FEWEST_FOR_BARS, inCells.least()));
        int before = widths.all();
        cells.headings(area.row() + ABOVE - 1, area.column(), first, widths);
        Area room = new Area(area.column() + before, area.row() + ABOVE, area.columns() - before, count * high);
        for (int row = 0; row < count; row++) {
            cells.row(area.row() + ABOVE + row * high, area.column(), first, row, high, widths);
        }
        if (inCells.areAsked()) {
            inCells.fill(room);
            return;
        }
        for (int at = area.column() + before; at < area.column() + area.columns(); at++) {
            cells.write(area.row() + ABOVE - 1, at, "", Styles.heading(Across.LEFT));
        }
        for (int row = 0; row < count; row++) {
            int line = area.row() + ABOVE + row * high;
            for (int at = area.column() + before; at < area.column() + area.columns(); at++) {
                cells.write(line + high - 1, at, "", Styles.ruled(Across.LEFT, Optional.empty()));
            }
        }
        if (count > 0) {
            new TableBars(parts, helpers, warnings).drawOn(new SheetCanvas(sheet), room);
        }
    }
}
