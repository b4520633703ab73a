package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.SheetChart;
import java.util.List;
import java.util.function.Consumer;

/** A chart as native ones: a ring, or each panel as a chart, with their key over them. */
final class NativeTile {
    private final List<PlainChart> parts;
    private final HelperSheet cells;
    private final Consumer<String> warnings;

    /**
     * @param parts the panels, each as a chart
     * @param warnings  takes what is left out
     */
    NativeTile(List<PlainChart> parts, HelperSheet cells, Consumer<String> warnings) {
        this.parts = parts;
        this.cells = cells;
        this.warnings = warnings;
    }

    /** A chart whose titles stand elsewhere. */
    static PlainChart untitled(PlainChart chart) {
        return chart.by(chart.plan().change().titles("", "").build()).drawn(chart.drawing());
    }

    void drawOn(Canvas canvas, Area area) {
        parts.get(0).drawing().match(panels -> panels(canvas, area), ring -> new NativeRing(parts.get(0), ring, cells).drawOn(canvas, area), texts -> {
            throw new IllegalArgumentException("texts are cells, and no native chart");
        });
    }

    /** The plots of panels are equally long along the categories, and stand in line. */
    private void panels(Canvas canvas, Area area) {
        double whole = parts.stream().mapToDouble(part -> panel(part).share()).sum();
        boolean upright = parts.get(0).orientation() == Orientation.VERTICAL;
        Plot plot = new Plot(parts, cells, area);
        plot.tellUnlabelled(warnings);
        // The first part has what all of them share beside its own room: the names at the left, or the titles at the top.
        double shared = parts.size() == 1 ? 0 : upright ? plot.top() : plot.names();
        double at = 0;
        for (int i = 0; i < parts.size(); i++) {
            boolean first = i == 0;
            boolean last = i == parts.size() - 1;
            double share = panel(parts.get(i)).share() / whole;
            double length = share * (1 - shared) + (first ? shared : 0);
            Area place = upright ? area.down(at, length) : area.across(at, length);
            SheetChart chart = new NativeChart(parts.get(i), panel(parts.get(i)), cells, plot).describe(first, upright ? last : first, plot.keyed());
            if (parts.size() == 1 && plot.keyed()) {
                chart = plot.placeBelowKey(chart);
            } else if (parts.size() > 1 && upright) {
                chart = plot.placeUpright(chart, length, first, last);
            } else if (parts.size() > 1) {
                chart = plot.placeLying(chart, first ? shared / length : 0, share * (1 - shared) / length, last);
            }
            canvas.chart(place, parts.get(i).name(), parts.get(i).alternative(), chart);
            at += length;
        }
        if (plot.keyed()) {
            Key.draw(canvas, plot.key(), plot.series(), plot.lines(), plot.frame(), plot.isKeyDown());
        }
    }

    private static Panel panel(PlainChart part) {
        return part.panels().get(0);
    }
}
