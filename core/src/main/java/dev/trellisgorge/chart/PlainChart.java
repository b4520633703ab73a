package dev.trellisgorge.chart;

import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

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
 * @param note        what is written after a category's name, or none
 * @param drawing     what is on the sheet
 * @param stamp       words to print across the chart, where it must not be taken for right
 */
public record PlainChart(String name, String title, String subtitle, Orientation orientation, HelperTable data, Table printed,
        Map<String, Label> labels, Optional<Label> note, Drawing drawing, Optional<String> stamp) {

    private static final double FULL_TURN = 360;
    private static final int MOST_ROWS_TOLD = 100;

    public PlainChart {
        labels = Collections.unmodifiableMap(new LinkedHashMap<>(labels));
    }

    public PlainChart stamped(String words) {
        return new PlainChart(name, title, subtitle, orientation, data, printed, labels, note, drawing, Optional.of(words));
    }

    /** This chart over other cells. */
    public PlainChart over(HelperTable cells) {
        return new PlainChart(name, title, subtitle, orientation, cells, printed, labels, note, drawing, stamp);
    }

    public PlainChart drawing(Drawing other) {
        return new PlainChart(name, title, subtitle, orientation, data, printed, labels, note, other, stamp);
    }

    /** The panels; none where the chart is a ring or texts. */
    public List<Panel> panels() {
        return drawing instanceof Panels shared ? shared.panels() : List.of();
    }

    /** Every series, in drawing order. */
    public List<Series> series() {
        return drawing.series();
    }

    /** What is written along the base for a row: its name, and the note after it. */
    public String categoryText(int row) {
        String name = data.category().written(row);
        String after = note.map(n -> text(n, row)).orElse("");
        return after.isEmpty() ? name : name + " (" + after + ")";
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
        return text(label, row);
    }

    String text(Label label, int row) {
        Column cells = data.column(label.column()).cells();
        return cells.kind() == Kind.TEXT ? cells.written(row) : label.format().write(cells.number(row));
    }

    /** What the chart shows, in words and figures, for readers who can't see it: the rows, and what each series has there. */
    public String alternative() {
        String rows = IntStream.range(0, Math.min(MOST_ROWS_TOLD, data.rowCount()))
                .mapToObj(row -> (data.categoryName().isPresent() ? categoryText(row) + " " : "") + figures(row)).collect(Collectors.joining("; "));
        String more = data.rowCount() > MOST_ROWS_TOLD ? "; and " + (data.rowCount() - MOST_ROWS_TOLD) + " rows more" : "";
        return (title.isEmpty() ? "Chart" : title) + ": " + rows + more + ".";
    }

    /** The figures that the labels show; of a chart without labels, what each series has. */
    private String figures(int row) {
        String figures = shown().map(series -> Map.entry(series, labels.isEmpty() ? data.column(series.column()).cells().written(row) : labelText(series, row)))
                .filter(entry -> !entry.getValue().isEmpty())
                .map(entry -> entry.getValue() + (entry.getKey().inLegend() ? " (" + entry.getKey().name() + ")" : ""))
                .collect(Collectors.joining(", "));
        return figures.isEmpty() ? "no figure" : figures;
    }

    /** The series that say something; in a ring, the one in its middle. */
    private Stream<Series> shown() {
        return drawing instanceof Ring ring && ring.centre().isPresent() && !labels.isEmpty() ? ring.centre().stream()
                : series().stream().filter(series -> series.fill().isPresent());
    }

    /** The slices of a ring's track that have a size, clockwise; none where the chart has no row. */
    public List<Ring.Slice> slices(Ring ring, List<Series> track) {
        List<Ring.Slice> slices = new ArrayList<>();
        double whole = data.rowCount() == 0 ? 0 : track.stream().mapToDouble(this::size).sum();
        double at = ring.start();
        for (Series series : track) {
            double sweep = whole > 0 ? size(series) / whole * FULL_TURN : 0;
            if (sweep > 0) {
                slices.add(new Ring.Slice(series, at, sweep));
            }
            at += sweep;
        }
        return slices;
    }

    private double size(Series slice) {
        Column cells = data.column(slice.column()).cells();
        return cells.isPresent(0) ? cells.number(0) : 0;
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

    /**
     * What a panel's value axis covers.
     *
     * @param low  never above zero
     * @param high never below zero
     */
    public record Extent(double low, double high) {

        Extent with(double figure) {
            return Double.isNaN(figure) ? this : new Extent(Math.min(low, figure), Math.max(high, figure));
        }
    }

    /** From the lowest to the highest figure that the panel shows or reaches for, and zero. */
    public Extent extent(Panel panel) {
        Extent extent = new Extent(0, 0);
        for (BarGroup group : panel.bars()) {
            for (Bar bar : bars(group)) {
                extent = extent.with(bar.end());
            }
        }
        for (ReferenceLine line : panel.references()) {
            extent = extent.with(line.value());
        }
        List<String> columns = Stream.of(panel.lines().stream().map(line -> line.series().column()),
                panel.points().stream().map(points -> points.series().column()), panel.scale().reaches().stream()).flatMap(c -> c).toList();
        for (String column : columns) {
            Column cells = data.column(column).cells();
            for (int row = 0; row < cells.size(); row++) {
                extent = extent.with(cells.number(row));
            }
        }
        return extent;
    }
}
