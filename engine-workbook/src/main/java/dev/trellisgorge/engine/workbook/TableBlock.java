package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.poi.ss.usermodel.HorizontalAlignment;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFSheet;

/**
 * Lying bars in a table: names and figures in ruled cells, and over the cells beside them a native chart whose bars stand each in
 * its row.
 */
final class TableBlock {
    /** The title, the second line, and what stands over the columns. */
    private static final int ABOVE = 3;
    private static final int HIGHEST_ROW = 2;
    private static final int FEWEST_FOR_BARS = 3;
    private static final double EDGE = 0.01;

    private final List<PlainChart> parts;
    private final HelperSheet helpers;
    private final XSSFSheet sheet;
    private final TableCells cells;
    private final Styles styles;
    private final Consumer<String> told;

    /** @param parts the panels, each as a chart */
    TableBlock(List<PlainChart> parts, HelperSheet helpers, XSSFSheet sheet, Styles styles, Consumer<String> told) {
        this.parts = parts;
        this.helpers = helpers;
        this.sheet = sheet;
        this.styles = styles;
        this.told = told;
        this.cells = new TableCells(sheet, helpers, styles, told);
    }

    /** How many rows of the sheet a chart takes at least. */
    static int rows(HelperSheet helpers) {
        return ABOVE + helpers.lines() + 2;
    }

    void fill(Area area) {
        PlainChart first = parts.get(0);
        int count = helpers.lines();
        int high = Math.max(1, Math.min(HIGHEST_ROW, (area.rows() - ABOVE - 2) / Math.max(1, count)));
        cells.titles(area, first);
        TableCells.Widths widths = cells.widths(first, area.columns() - FEWEST_FOR_BARS);
        int before = widths.all();
        cells.headings(area.row() + ABOVE - 1, area.column(), first, widths);
        for (int at = area.column() + before; at < area.column() + area.columns(); at++) {
            cells.write(area.row() + ABOVE - 1, at, "", styles.heading(HorizontalAlignment.LEFT));
        }
        for (int row = 0; row < count; row++) {
            int line = area.row() + ABOVE + row * high;
            cells.row(line, area.column(), first, row, high, widths);
            for (int at = area.column() + before; at < area.column() + area.columns(); at++) {
                cells.write(line + high - 1, at, "", styles.ruled(HorizontalAlignment.LEFT, Optional.empty()));
            }
        }
        if (count > 0) {
            bars(new Area(area.column() + before, area.row() + ABOVE, area.columns() - before, count * high));
        }
    }

    /** The panels side by side, each plot as high as the rows. */
    private void bars(Area area) {
        boolean figures = parts.stream().anyMatch(part -> panel(part).valueAxisShown() || !NativeChart.axisTitle(panel(part), false).isEmpty());
        int below = figures ? 1 : 0;
        Area whole = new Area(area.column(), area.row(), area.columns(), area.rows() + below);
        Plot plot = new Plot(parts, area);
        plot.tellUnlabelled(told);
        double shares = parts.stream().mapToDouble(part -> panel(part).share()).sum();
        double at = 0;
        for (PlainChart part : parts) {
            double share = panel(part).share() / shares;
            XSSFChart chart = sheet.createDrawingPatriarch().createChart(whole.across(at, share).anchor());
            new NativeChart(part, panel(part), helpers, plot).drawOn(chart, false, false, true);
            double left = part == parts.get(0) ? EDGE : 0; // panels that meet share their base line
            double right = part == parts.get(parts.size() - 1) ? EDGE : 0;
            NativeChart.place(chart, left, 0, 1 - left - right, (double) area.rows() / whole.rows());
            ChartFrame.seeThrough(chart);
            at += share;
        }
        key(plot, area, below);
    }

    private void key(Plot plot, Area area, int below) {
        Looks.Legend place = plot.legend();
        if (place == Looks.Legend.NONE || plot.series().stream().noneMatch(Series::inLegend)) {
            return;
        }
        if (place == Looks.Legend.LEFT || place == Looks.Legend.RIGHT) {
            throw new BadInput(Place.of("chart '" + parts.get(0).name() + "'"), "files of this kind can't put the legend beside bars in a table; put it at the top or at the bottom");
        }
        int row = place == Looks.Legend.TOP ? area.row() - 1 : area.row() + area.rows() + below;
        Key.draw(sheet, new Area(area.column(), row, area.columns(), 1), plot.series(), plot.frame(), false);
    }

    private static Panel panel(PlainChart part) {
        return part.panels().get(0);
    }
}
