package dev.trellisgorge.chart;

import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * A chart that any chart engine can draw: the only thing engines are given. Immutable.
 *
 * @param name        the chart's name in its brief; names files and sheets
 * @param title       one line, or empty
 * @param subtitle    one line, or empty
 * @param orientation which way bars run
 * @param data        the helper columns with their formulas and cells, one row a category, in drawing order;
 *                    an engine never sorts, groups or drops a row
 * @param printed     the helper series as they are printed: the category first, or the slices of a ring as rows
 * @param labels      the label of each series that has one, by the series
 * @param panels      none where the pattern has no drawing yet
 * @param stamp       words to print across the chart, where it must not be taken for right
 */
public record PlainChart(String name, String title, String subtitle, Orientation orientation,
        HelperTable data, Table printed, Map<String, Label> labels, List<Panel> panels, Optional<String> stamp) {

    public PlainChart {
        panels = List.copyOf(panels);
        labels = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(labels));
    }

    public PlainChart stamped(String words) {
        return new PlainChart(name, title, subtitle, orientation, data, printed, labels, panels, Optional.of(words));
    }

    /** Every series of every panel, in drawing order. */
    public List<Series> series() {
        return panels.stream().flatMap(panel -> panel.series().stream()).toList();
    }

    /** The label text of a series' cell; empty where nothing is drawn there, or nothing written. */
    public String labelText(Series series, int row) {
        return series.label().map(label -> labelText(series.column(), label, row)).orElse("");
    }

    /** The same for a series that may not be drawn. */
    public String labelText(String series, Label label, int row) {
        if (!data.column(series).cells().isPresent(row)) {
            return "";
        }
        Column cells = data.column(label.column()).cells();
        return cells.kind() == Kind.TEXT ? cells.written(row) : label.format().write(cells.number(row));
    }

    /** What the chart shows, in words and figures, for readers who can't see it: every row, and what each series has there. */
    public String alternative() {
        String rows = IntStream.range(0, data.rowCount()).mapToObj(row -> data.category().written(row) + " " + figures(row))
                .collect(Collectors.joining("; "));
        return (title.isEmpty() ? "Chart" : title) + ": " + rows + ".";
    }

    /** The figures that the labels show; of a chart without labels, what each series has. */
    private String figures(int row) {
        String figures = series().stream().filter(series -> series.fill().isPresent())
                .map(series -> Map.entry(series, labels.isEmpty() ? data.column(series.column()).cells().written(row) : labelText(series, row)))
                .filter(entry -> !entry.getValue().isEmpty())
                .map(entry -> entry.getValue() + (entry.getKey().inLegend() ? " (" + entry.getKey().name() + ")" : ""))
                .collect(Collectors.joining(", "));
        return figures.isEmpty() ? "no figure" : figures;
    }

    /**
     * A bar as it is drawn.
     *
     * @param series whose it is; a spacer's is not seen
     * @param row    its category, 0-based
     * @param start  where it starts on the value axis: zero, or in a stack the end of the one before on its side of zero
     * @param end    where it ends
     */
    public record Bar(Series series, int row, double start, double end) {
    }

    /** The bars of a group, row by row in drawing order; none where a cell is absent. */
    public List<Bar> bars(BarGroup group) {
        List<Bar> bars = new ArrayList<>();
        for (int row = 0; row < data.rowCount(); row++) {
            double down = 0;
            double up = 0;
            for (Series series : group.series()) {
                Column cells = data.column(series.column()).cells();
                if (cells.isPresent(row)) {
                    double length = cells.number(row);
                    double start = group.placing() != BarGroup.Placing.STACKED ? 0 : length < 0 ? down : up;
                    down = Math.min(down, start + length);
                    up = Math.max(up, start + length);
                    bars.add(new Bar(series, row, start, start + length));
                }
            }
        }
        return bars;
    }
}
