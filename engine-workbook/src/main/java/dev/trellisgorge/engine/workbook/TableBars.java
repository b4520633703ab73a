package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sheet.SheetChart;
import java.util.List;
import java.util.function.Consumer;

/** The bars beside a table's rows, as native charts whose plots are as high as the rows. */
final class TableBars {
    private static final double EDGE = 0.01;

    private final List<PlainChart> parts;
    private final HelperSheet helpers;
    private final Consumer<String> warnings;

    /** As for a chart of its own. */
    TableBars(List<PlainChart> parts, HelperSheet helpers, Consumer<String> warnings) {
        this.parts = parts;
        this.helpers = helpers;
        this.warnings = warnings;
    }

    /** The panels side by side, each plot as high as the rows. */
    void drawOn(Canvas canvas, Area area) {
        boolean figures = parts.stream().anyMatch(part -> panel(part).valueAxisShown() || !NativeChart.axisTitle(panel(part), false).isEmpty());
        int below = figures ? 1 : 0;
        Area whole = new Area(area.column(), area.row(), area.columns(), area.rows() + below);
        Plot plot = new Plot(parts, helpers, area);
        plot.tellUnlabelled(warnings);
        double shares = parts.stream().mapToDouble(part -> panel(part).share()).sum();
        double at = 0;
        for (PlainChart part : parts) {
            double share = panel(part).share() / shares;
            SheetChart chart = new NativeChart(part, panel(part), helpers, plot).describe(false, false, true);
            double left = part == parts.get(0) ? EDGE : 0; // panels that meet share their base line
            double right = part == parts.get(parts.size() - 1) ? EDGE : 0;
            SheetChart placed = chart.placed(new SheetChart.Frame(left, 0, 1 - left - right, (double) area.rows() / whole.rows())).seenThrough();
            canvas.chart(whole.across(at, share), part.name(), part.alternative(), placed);
            at += share;
        }
        key(canvas, plot, area, below);
    }

    private void key(Canvas canvas, Plot plot, Area area, int below) {
        Looks.Legend place = plot.legend();
        if (place == Looks.Legend.NONE || plot.series().stream().noneMatch(Series::inLegend)) {
            return;
        }
        if (place == Looks.Legend.LEFT || place == Looks.Legend.RIGHT) {
            throw new BadInput(Place.of("chart '" + parts.get(0).name() + "'"), ProblemKind.UNSUPPORTED, "files of this kind can't put the legend beside bars in a table; put it at the top or at the bottom");
        }
        int row = place == Looks.Legend.TOP ? area.row() - 1 : area.row() + area.rows() + below;
        Key.draw(canvas, new Area(area.column(), row, area.columns(), 1), plot.series(), plot.lines(), plot.frame(), false);
    }

    private static Panel panel(PlainChart part) {
        return part.panels().get(0);
    }
}
