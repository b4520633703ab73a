package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.Placed;
import dev.trellisgorge.sheet.TextLine;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;

/** What stands over a sheet's cells: charts, and words in boxes. */
final class SheetDrawing {
    /** After the prefix of a sheet's styles. */
    private static final String CHART = "chart";
    private static final String BOX = "b";
    private static final double HUNDREDTHS = 100;

    /**
     * A chart on a sheet.
     *
     * @param object the folder that it stands in
     */
    record PlacedChart(String object, String name, ChartObject chart) {
    }

    /** Where something stands, in points. */
    private record Box(double x, double y, double width, double height) {
    }

    private final SheetShape shape;
    private final String prefix;
    private final List<PlacedChart> charts = new ArrayList<>();
    private final List<Placed.OfWords> boxes = new ArrayList<>();

    /**
     * @param prefix of its styles
     * @param before how many charts other sheets have
     */
    SheetDrawing(SheetShape shape, String prefix, int before) {
        this.shape = shape;
        this.prefix = prefix;
        for (Placed placed : shape.sheet().placed()) {
            Box box = box(placed);
            placed.match(chart -> charts.add(new PlacedChart("Object " + (before + charts.size() + 1), chart.name(), new ChartObject(chart.chart(), box.width(), box.height()))), words -> boxes.add(words));
        }
    }

    List<PlacedChart> charts() {
        return charts;
    }

    /** The boxes whose words can't follow a cell here, each in words. */
    List<String> followed() {
        return shape.sheet().placed().stream().filter(placed -> placed.match(chart -> false, words -> words.cell().isPresent())).map(Placed::description).toList();
    }

    private Box box(Placed placed) {
        double left = shape.x(placed.at().from());
        double top = shape.y(placed.at().from());
        return new Box(left, top, shape.x(placed.at().to()) - left, shape.y(placed.at().to()) - top);
    }

    /** The looks of boxes and their words, where automatic styles stand. */
    void styles(PartWriter part) {
        part.open("style:style", "style:name", prefix + CHART, "style:family", "graphic").leaf("style:graphic-properties", "draw:fill", "none", "draw:stroke", "none").close(1);
        for (int at = 0; at < boxes.size(); at++) {
            styles(part, boxes.get(at), prefix + BOX + at);
        }
    }

    private static void styles(PartWriter part, Placed.OfWords words, String name) {
        part.open("style:style", "style:name", name, "style:family", "graphic");
        part.leaf("style:graphic-properties", "draw:fill", "none", "draw:stroke", "none", "draw:textarea-vertical-align", words.atTop() ? "top" : "middle", "fo:padding", "0pt", "draw:auto-grow-height", "false").close(1);
        for (int p = 0; p < words.lines().size(); p++) {
            TextLine line = words.lines().get(p);
            boolean left = line.at().filter(TextLine.At.LEFT::equals).isPresent();
            part.open("style:style", "style:name", name + "p" + p, "style:family", "paragraph").leaf("style:paragraph-properties", "fo:text-align", left ? "start" : "center").close(1);
            for (int r = 0; r < line.runs().size(); r++) {
                var look = line.runs().get(r).look();
                part.open("style:style", "style:name", name + "p" + p + "r" + r, "style:family", "text");
                part.leaf("style:text-properties", "fo:font-size", PartWriter.points(look.size() / HUNDREDTHS), "fo:font-weight", look.bold().orElse(false) ? "bold" : "normal", "fo:font-family", look.font().orElse(null),
                        "fo:color", look.color().toString());
                part.close(1);
            }
        }
    }

    /** The frames, where a table's shapes stand. */
    void write(PartWriter part) {
        Iterator<PlacedChart> drawn = charts.iterator();
        part.open("table:shapes");
        for (Placed placed : shape.sheet().placed()) {
            placed.match(chart -> frame(part, chart, prefix + CHART).leaf("draw:object", "xlink:href", "./" + drawn.next().object(), "xlink:type", "simple", "xlink:show", "embed"), words -> {
                String style = prefix + BOX + boxes.indexOf(words);
                return words(frame(part, words, style), words, style);
            });
            part.element("svg:desc", placed.description()).close(1);
        }
        part.close(1);
    }

    private PartWriter frame(PartWriter part, Placed placed, String style) {
        Box box = box(placed);
        return part.open("draw:frame", "draw:name", placed.name(), "draw:style-name", style, "svg:x", PartWriter.points(box.x()), "svg:y", PartWriter.points(box.y()), "svg:width", PartWriter.points(box.width()),
                "svg:height", PartWriter.points(box.height()));
    }

    private static PartWriter words(PartWriter part, Placed.OfWords words, String style) {
        part.open("draw:text-box");
        for (int p = 0; p < words.lines().size(); p++) {
            part.open("text:p", "text:style-name", style + "p" + p);
            List<TextLine.Run> runs = words.lines().get(p).runs();
            for (int r = 0; r < runs.size(); r++) {
                part.open("text:span", "text:style-name", style + "p" + p + "r" + r).spaced(runs.get(r).words()).close(1);
            }
            part.close(1);
        }
        return part.close(1);
    }
}
