package dev.trellisgorge.chart;

import dev.trellisgorge.formula.HelperTable;
import java.util.List;

/** One place on a page. */
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
     * One big figure.
     *
     * @param name  what its series are called by
     * @param title over it, or empty
     * @param text  under it, or empty
     * @param data  the figure in the first row of {@code label}'s column; no row where there is none
     * @param label the column, and how the figure is written
     */
    record OfFigure(String name, String title, String text, HelperTable data, Label label) implements Tile {

        /** The figure as it is read; empty where there is none. */
        public String written() {
            return data.rowCount() == 0 ? "" : label.format().write(data.column(label.column()).cells().number(0));
        }
    }
}
