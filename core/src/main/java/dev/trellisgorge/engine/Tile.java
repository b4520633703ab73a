package dev.trellisgorge.engine;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.PlainChart;
import java.util.List;
import java.util.Objects;

/** One place on a page. Immutable and thread-safe. */
public sealed interface Tile {

    /** A place with a chart. */
    static Tile of(PlainChart chart) {
        return new OfChart(List.of(chart));
    }

    /**
     * A chart.
     *
     * @param parts the chart; where the engine has no panels, one chart a panel, with the same categories
     */
    record OfChart(List<PlainChart> parts) implements Tile {
        public OfChart {
            parts = List.copyOf(parts);
        }
    }

    /**
     * One big figure: the first row of a chart's one series, with the chart's title over it and its subtitle under it.
     *
     * @param chart of one series; no row where there is no figure
     */
    record OfFigure(PlainChart chart) implements Tile {
        public OfFigure {
            Objects.requireNonNull(chart, "chart");
        }

        /** What its series are called by. */
        public String name() {
            return chart.name();
        }

        /** Over it, or empty. */
        public String title() {
            return chart.title();
        }

        /** Under it, or empty. */
        public String text() {
            return chart.subtitle();
        }

        public ComputedColumns data() {
            return chart.data();
        }

        /** The computed column with the figure. */
        public String column() {
            return chart.series().get(0).column();
        }

        /** How the figure is written. */
        public Label label() {
            return chart.series().get(0).label().orElseThrow();
        }

        /** The figure as it is read; empty where there is none. */
        public String written() {
            return chart.data().rowCount() == 0 ? "" : chart.labelText(chart.series().get(0), 0);
        }
    }
}
