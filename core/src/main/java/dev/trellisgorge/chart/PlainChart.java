package dev.trellisgorge.chart;

import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.List;
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
 * @param panels      none where the pattern has no drawing yet
 * @param stamp       words to print across the chart, where it must not be taken for right
 */
public record PlainChart(String name, String title, String subtitle, Orientation orientation,
        HelperTable data, Table printed, List<Panel> panels, Optional<String> stamp) {

    public PlainChart {
        panels = List.copyOf(panels);
    }

    public PlainChart stamped(String words) {
        return new PlainChart(name, title, subtitle, orientation, data, printed, panels, Optional.of(words));
    }

    /** Every series of every panel, in drawing order. */
    public List<Series> series() {
        return panels.stream().flatMap(panel -> panel.series().stream()).toList();
    }

    /** The label text of a series' cell; empty where nothing is drawn there, or nothing written. */
    public String labelText(Series series, int row) {
        boolean drawn = data.column(series.column()).cells().isPresent(row);
        return series.label().filter(label -> drawn).map(label -> {
            Column cells = data.column(label.column()).cells();
            return cells.kind() == Kind.TEXT ? cells.written(row) : label.format().write(cells.number(row));
        }).orElse("");
    }

    /** What the chart shows, in words and figures, for readers who can't see it: every row, and what each series has there. */
    public String alternative() {
        String rows = IntStream.range(0, data.rowCount()).mapToObj(row -> data.category().written(row) + " " + figures(row))
                .collect(Collectors.joining("; "));
        return (title.isEmpty() ? "Chart" : title) + ": " + rows + ".";
    }

    private String figures(int row) {
        String figures = series().stream().filter(series -> series.fill().isPresent()).filter(series -> data.column(series.column()).cells().isPresent(row))
                .map(series -> figure(series, row) + (series.inLegend() ? " (" + series.name() + ")" : ""))
                .collect(Collectors.joining(", "));
        return figures.isEmpty() ? "no figure" : figures;
    }

    private String figure(Series series, int row) {
        String label = labelText(series, row);
        return label.isEmpty() ? data.column(series.column()).cells().written(row) : label;
    }
}
