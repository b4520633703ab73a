package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Data;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.SheetChart.LabelAt;
import dev.trellisgorge.sheet.SheetChart.Labels;
import dev.trellisgorge.sheet.SheetChart.Layer;
import dev.trellisgorge.sheet.SheetChart.OwnLabel;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.poi.ss.util.CellRangeAddress;

/** The series of a chart, over their cells: bars, lines, points and rings, with their labels. Used by one thread. */
final class ChartSeries {
    private static final String RING = "chart:ring";
    private static final String BAR = "chart:bar";
    private static final String LINE = "chart:line";

    private final SheetChart chart;
    private final ChartLooks looks;
    private final List<Drawn> all;

    ChartSeries(SheetChart chart, ChartLooks looks) {
        this.chart = chart;
        this.looks = looks;
        this.all = drawn();
    }

    /** A series, whatever it is drawn as. */
    private record Drawn(String type, String categories, String values, Optional<String> name, ChartLooks.Style style, Optional<Labels> labels, List<Fill> points, boolean second) {
        /** How many rows its cells have. */
        int rows() {
            CellRangeAddress cells = CellRangeAddress.valueOf(values.substring(values.lastIndexOf('!') + 1));
            return cells.getLastRow() - cells.getFirstRow() + 1;
        }
    }

    /** The cells with the names along the base; of rings, those of the innermost. */
    String categories() {
        return OpenFormula.address((type().equals(RING) ? all.get(all.size() - 1) : all.get(0)).categories());
    }

    /** What the chart is as a whole. */
    String type() {
        return all.stream().map(Drawn::type).filter(each -> !each.equals(LINE)).findFirst().orElse(LINE);
    }

    /** Each of them, to be written when all styles are known. */
    List<Consumer<PartWriter>> written() {
        List<Consumer<PartWriter>> written = new ArrayList<>();
        all.forEach(each -> series(written, each));
        return written;
    }

    private List<Drawn> drawn() {
        List<Drawn> drawn = new ArrayList<>();
        for (Layer layer : chart.layers()) {
            layer.match(bars -> bars.bars().forEach(bar -> drawn.add(of(BAR, bar.data(), looks.style().shape(bar.fill(), bar.outline()), bars.second()))), line -> drawn.add(of(LINE, line.data(), line(line), false)),
                    // the outermost stands last there, and first here
                    rings -> rings.rings().forEach(ring -> drawn.add(0, new Drawn(RING, ring.categories().cells(), ring.values().cells(), Optional.empty(), looks.style(), Optional.empty(), ring.fills(), false))));
        }
        return drawn;
    }

    private static Drawn of(String type, Data data, ChartLooks.Style style, boolean second) {
        return new Drawn(type, data.categories().cells(), data.values().cells(), Optional.of(data.name().cells()), style, data.labels(), List.of(), second);
    }

    private ChartLooks.Style line(Layer.OfLine line) {
        ChartLooks.Style style = looks.style().line(line.line());
        if (line.marker().isEmpty()) {
            return style.chart("chart:symbol-type", "none");
        }
        SheetChart.Marker marker = line.marker().get();
        String size = PartWriter.points(marker.size());
        return style.graphic("svg:stroke-color", marker.fill().toString()).graphic("draw:fill-color", marker.fill().toString()).chart("chart:symbol-type", "named-symbol")
                .chart("chart:symbol-name", marker.dot() ? "circle" : "horizontal-bar").chart("chart:symbol-width", size).chart("chart:symbol-height", size);
    }

    private void series(List<Consumer<PartWriter>> inside, Drawn drawn) {
        ChartLooks.Style style = drawn.style();
        Map<Integer, OwnLabel> own = new LinkedHashMap<>();
        drawn.labels().ifPresent(labels -> {
            labels.own().forEach(label -> own.put(label.row(), label));
            if (labels.from().isEmpty()) {
                style.chart("chart:data-label-number", "value").format(labels.format());
            }
            style.chart("chart:label-position", at(labels.at())).words(labels.text());
        });
        String name = style.name();
        List<Consumer<PartWriter>> points = new ArrayList<>();
        int next = 0;
        boolean plain = own.isEmpty() && drawn.points().isEmpty();
        for (int at = 0; at < (plain ? 0 : drawn.rows()); at++) {
            Consumer<PartWriter> point = point(drawn, at, own.get(at));
            if (point != null) {
                skip(points, at - next);
                points.add(point);
                next = at + 1;
            }
        }
        if (next > 0) {
            skip(points, drawn.rows() - next);
        }
        inside.add(part -> {
            part.open("chart:series", "chart:style-name", name, "chart:values-cell-range-address", OpenFormula.address(drawn.values()), "chart:label-cell-address",
                    drawn.name().map(OpenFormula::address).orElse(null));
            if (!drawn.type().equals(RING)) {
                part.with("chart:class", drawn.type(), "chart:attached-axis", drawn.second() ? "secondary-y" : "primary-y");
            }
            points.forEach(each -> each.accept(part));
            part.close(1);
        });
    }

    private static void skip(List<Consumer<PartWriter>> points, int many) {
        if (many > 0) {
            points.add(part -> part.leaf("chart:data-point", "chart:repeated", String.valueOf(many)));
        }
    }

    /** What a point has of its own; absent where it is as the series says. */
    private Consumer<PartWriter> point(Drawn drawn, int at, OwnLabel label) {
        if (at < drawn.points().size()) {
            String name = looks.style().shape(drawn.points().get(at), Optional.empty()).name();
            return part -> part.leaf("chart:data-point", "chart:style-name", name);
        } else if (label == null) {
            return null;
        }
        ChartLooks.Style style = looks.style().chart("chart:label-position", at(label.at()));
        // Too short for its label, which begins where the bar does.
        String name = style.chart("chart:data-label-number", "value").format(drawn.labels().orElseThrow().format()).words(label.text()).name();
        return part -> part.leaf("chart:data-point", "chart:style-name", name);
    }

    private static String at(LabelAt place) {
        return switch (place) {
            case OUTSIDE_END -> "outside";
            case INSIDE_END -> "inside";
            case INSIDE_BASE -> "near-origin";
            case ABOVE -> "top";
            case BELOW -> "bottom";
            case LEFT -> "left";
            case RIGHT -> "right";
        };
    }
}
