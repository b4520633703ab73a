package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.CellFormat;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Axis;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.SheetChart.Layer;
import dev.trellisgorge.sheet.SheetChart.Names;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.sheet.TextLook;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/** Writes a native chart as one of an OpenDocument spreadsheet. Used by one thread. */
final class ChartObject {
    /** Programs turn a ring from the right, and ours start at the top. */
    private static final int TOP = 90;

    private final SheetChart chart;
    private final double width;
    private final double height;
    private final ChartLooks looks = new ChartLooks();
    private final ChartSeries series;

    /** @param width of the whole chart, as {@code height}, in points */
    ChartObject(SheetChart chart, double width, double height) {
        this.chart = chart;
        this.width = width;
        this.height = height;
        this.series = new ChartSeries(chart, looks);
    }

    ChartLooks looks() {
        return looks;
    }

    /** Writes the chart itself. */
    void write(OutputStream out) {
        // Styles stand before what they are for, so all of it is put together first.
        List<Consumer<PartWriter>> body = new ArrayList<>();
        title(body);
        legend(body);
        plot(body);
        String whole = looks.style().shape(Fill.of(chart.ground()), Optional.empty()).name();
        try (PartWriter part = new PartWriter(out, "office:document-content", "style", "text", "table", "chart", "draw", "fo", "svg", "number", "xlink")) {
            part.open("office:automatic-styles");
            looks.write(part);
            part.close(1).open("office:body").open("office:chart").open("chart:chart", "chart:class", series.type(), "svg:width", PartWriter.points(width), "svg:height", PartWriter.points(height),
                    "chart:style-name", whole);
            body.forEach(each -> each.accept(part));
        }
    }

    /** Writes what its styles refer to by name. */
    void writeStyles(OutputStream out) {
        try (PartWriter part = new PartWriter(out, "office:document-styles", "style", "draw", "svg", "xlink")) {
            part.open("office:styles");
            looks.writeNamed(part, name -> part.leaf("draw:fill-image", "draw:name", name, "xlink:href", "Pictures/" + name + ".png", "xlink:type", "simple", "xlink:show", "embed"));
        }
    }

    private void title(List<Consumer<PartWriter>> body) {
        List<TextLine> lines = chart.title().map(SheetChart.Title::lines).orElse(List.of());
        if (lines.isEmpty()) {
            return;
        }
        TextLook large = look(lines.get(0));
        List<TextLine> first = lines.stream().filter(line -> look(line).size() == large.size() && look(line).bold().equals(large.bold())).toList();
        List<TextLine> others = lines.stream().filter(line -> !first.contains(line)).toList();
        Optional<double[]> corner = chart.title().filter(SheetChart.Title::atLeft).map(SheetChart.Title::corner);
        String x = corner.map(at -> PartWriter.points(at[0] * width)).orElse(null);
        double y = corner.map(at -> at[1] * height).orElse(0.0);
        body.add(written("chart:title", first, x, corner.isPresent() ? PartWriter.points(y) : null));
        if (!others.isEmpty()) {
            body.add(written("chart:subtitle", others, x, corner.isPresent() ? PartWriter.points(y + first.size() * large.size() / 100.0 * 1.3) : null));
        }
    }

    private static TextLook look(TextLine line) {
        return line.runs().get(0).look();
    }

    private Consumer<PartWriter> written(String element, List<TextLine> lines, String x, String y) {
        String style = looks.style().words(look(lines.get(0))).name();
        return part -> part.open(element, "svg:x", x, "svg:y", y, "chart:style-name", style).open("text:p").spaced(lines.stream().map(TextLine::words).collect(Collectors.joining("\n"))).close(2);
    }

    private void legend(List<Consumer<PartWriter>> body) {
        chart.legend().ifPresent(legend -> {
            ChartLooks.Style style = looks.style().words(chart.text()).graphic("draw:stroke", "none").graphic("draw:fill", "none");
            legend.text().ifPresent(style::words);
            String name = style.name();
            String at = switch (legend.at()) {
                case BOTTOM -> "bottom";
                case LEFT -> "start";
                case RIGHT -> "end";
                case TOP -> "top";
            };
            body.add(part -> part.leaf("chart:legend", "chart:legend-position", at, "chart:style-name", name));
        });
    }

    private List<Layer.Bars> bars() {
        return chart.layers().stream().filter(Layer.Bars.class::isInstance).map(Layer.Bars.class::cast).toList();
    }

    private void plot(List<Consumer<PartWriter>> body) {
        ChartLooks.Style style = looks.style().chart("chart:include-hidden-cells", "true").chart("chart:treat-empty-cells", "leave-gap");
        if (bars().stream().anyMatch(layer -> !layer.upright())) {
            style.chart("chart:vertical", "true");
        }
        if (bars().stream().anyMatch(Layer.Bars::stacked)) {
            style.chart("chart:stacked", "true");
        }
        if (chart.axes().size() > 1) {
            style.chart("chart:group-bars-per-axis", "true");
        }
        Optional<Layer.Rings> rings = chart.layers().stream().filter(Layer.Rings.class::isInstance).map(Layer.Rings.class::cast).findFirst();
        rings.ifPresent(layer -> style.chart("chart:angle-offset", String.valueOf(Math.floorMod(TOP - layer.start(), 360))));
        String name = style.name();
        String wall = looks.style().graphic("draw:fill", "none").graphic("draw:stroke", "none").name();
        List<Consumer<PartWriter>> inside = new ArrayList<>();
        chart.place().ifPresent(place -> inside.add(part -> part.leaf("chart:coordinate-region", "svg:x", PartWriter.points(place.left() * width), "svg:y", PartWriter.points(place.top() * height), "svg:width",
                PartWriter.points(place.width() * width), "svg:height", PartWriter.points(place.height() * height))));
        String categories = series.categories();
        if (rings.isPresent()) {
            String clockwise = looks.style().chart("chart:reverse-direction", "true").name();
            inside.add(part -> {
                part.open("chart:axis", "chart:dimension", "x", "chart:name", "primary-x");
                part.leaf("chart:categories", "table:cell-range-address", categories).close(1).leaf("chart:axis", "chart:dimension", "y", "chart:name", "primary-y", "chart:style-name", clockwise);
            });
        }
        for (int pair = 0; pair < chart.axes().size(); pair++) {
            categoryAxis(inside, chart.axes().get(pair).categories(), pair, pair == 0 ? Optional.of(categories) : Optional.empty());
        }
        for (int pair = 0; pair < chart.axes().size(); pair++) {
            valueAxis(inside, chart.axes().get(pair).values(), pair);
        }
        inside.addAll(series.written());
        body.add(part -> {
            part.open("chart:plot-area", "chart:style-name", name);
            inside.forEach(each -> each.accept(part));
            part.leaf("chart:wall", "chart:style-name", wall).leaf("chart:floor", "chart:style-name", wall).close(1);
        });
    }

    private void categoryAxis(List<Consumer<PartWriter>> inside, Axis axis, int pair, Optional<String> categories) {
        String name = axis(axis).chart("text:line-break", "true").name(); // a label may stand below a name
        inside.add(part -> {
            part.open("chart:axis", "chart:dimension", "x", "chart:name", pair == 0 ? "primary-x" : "secondary-x", "chart:style-name", name);
            categories.ifPresent(cells -> part.leaf("chart:categories", "table:cell-range-address", cells));
            part.close(1);
        });
    }

    private void valueAxis(List<Consumer<PartWriter>> inside, Axis axis, int pair) {
        ChartLooks.Style style = axis(axis);
        axis.least().ifPresent(least -> style.chart("chart:minimum", String.valueOf(least)));
        axis.largest().ifPresent(largest -> style.chart("chart:maximum", String.valueOf(largest)));
        if (!axis.format().equals(CellFormat.GENERAL)) {
            style.format(axis.format());
        }
        bars().stream().filter(layer -> layer.second() == pair > 0).findFirst().ifPresent(layer -> style.chart("chart:gap-width", String.valueOf(layer.gap())).chart("chart:overlap", String.valueOf(layer.over())));
        String name = style.name();
        String titled = looks.style().words(chart.text()).name();
        inside.add(part -> {
            part.open("chart:axis", "chart:dimension", "y", "chart:name", pair == 0 ? "primary-y" : "secondary-y", "chart:style-name", name);
            if (!axis.title().isEmpty()) {
                part.open("chart:title", "chart:style-name", titled).open("text:p").spaced(axis.title()).close(2);
            }
            part.close(1);
        });
    }

    private ChartLooks.Style axis(Axis axis) {
        ChartLooks.Style style = looks.style().words(chart.text());
        style.chart("chart:visible", String.valueOf(axis.shown())).chart("chart:display-label", String.valueOf(axis.shown() && axis.names() != Names.NONE)).chart("chart:tick-marks-major-inner", "false")
                .chart("chart:tick-marks-major-outer", "false").chart("chart:reverse-direction", String.valueOf(axis.backwards()));
        if (axis.names() == Names.START || axis.names() == Names.END) {
            style.chart("chart:axis-label-position", axis.names() == Names.START ? "outside-start" : "outside-end");
        }
        style.chart("chart:axis-position", switch (axis.crosses()) {
            case END -> "end";
            case START -> "start";
            case ZERO -> "0";
        });
        axis.text().ifPresent(style::words);
        return style.line(axis.line());
    }
}
