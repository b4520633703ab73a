package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.CellFormat;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.TextLook;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** The styles of a chart's parts, each once, with a name. Used by one thread. */
final class ChartLooks {
    /** The name of the dashes that lines are drawn in. */
    static final String DASHES = "Dashes";
    private static final double HUNDREDTHS = 100;

    private final NumberStyles numbers = new NumberStyles();
    private final Map<Map<String, Map<String, String>>, String> names = new LinkedHashMap<>();
    private final Map<Fill.Picture, String> pictures = new LinkedHashMap<>();

    /** A style while it is put together: properties by the element that holds them. */
    final class Style {
        private final Map<String, Map<String, String>> properties = new LinkedHashMap<>();

        private Style set(String element, String property, String value) {
            properties.computeIfAbsent(element, each -> new LinkedHashMap<>()).put(property, value);
            return this;
        }

        /** What a chart's part is said to be. */
        Style chart(String property, String value) {
            return set("style:chart-properties", property, value);
        }

        Style graphic(String property, String value) {
            return set("style:graphic-properties", property, value);
        }

        Style text(String property, String value) {
            return set("style:text-properties", property, value);
        }

        /** The number format that its figures are written in. */
        Style format(CellFormat format) {
            numbers.name(format).ifPresent(name -> set("", "style:data-style-name", name));
            return chart("chart:link-data-style-to-source", "false");
        }

        /** The size, weight and colour of words. */
        Style words(TextLook look) {
            text("fo:font-size", PartWriter.points(look.size() / HUNDREDTHS));
            look.bold().ifPresent(bold -> text("fo:font-weight", bold ? "bold" : "normal"));
            text("fo:color", look.color().toString());
            look.font().ifPresent(font -> text("fo:font-family", font));
            return this;
        }

        /** Fill and outline of a shape. */
        Style shape(Fill fill, Optional<SheetChart.Line> outline) {
            return fill.match(() -> graphic("draw:fill", "none"), solid -> graphic("draw:fill", "solid").graphic("draw:fill-color", solid.color().toString()),
                    picture -> graphic("draw:fill", "bitmap").graphic("draw:fill-image-name", pictures.computeIfAbsent(picture, each -> "Picture" + (pictures.size() + 1))).graphic("style:repeat", "stretch")).line(outline);
        }

        Style line(Optional<SheetChart.Line> line) {
            if (line.isEmpty()) {
                return graphic("draw:stroke", "none");
            }
            graphic("draw:stroke", line.get().dashed() ? "dash" : "solid").graphic("svg:stroke-color", line.get().color().toString());
            if (line.get().dashed()) {
                graphic("draw:stroke-dash", DASHES);
            }
            return graphic("svg:stroke-width", PartWriter.points(line.get().points().orElse(0.75)));
        }

        /** Its name; styles that say the same have the same. */
        String name() {
            return names.computeIfAbsent(properties, each -> "ch" + (names.size() + 1));
        }
    }

    Style style() {
        return new Style();
    }

    /** The pictures that fill shapes, with their names. */
    Map<Fill.Picture, String> pictures() {
        return pictures;
    }

    /** Writes all styles that were named, where automatic styles stand. */
    void write(PartWriter part) {
        numbers.write(part);
        names.forEach((style, name) -> {
            part.open("style:style", "style:name", name, "style:family", "chart");
            style.getOrDefault("", Map.of()).forEach(part::with);
            for (String element : new String[] {"style:chart-properties", "style:graphic-properties", "style:text-properties"}) {
                if (style.containsKey(element)) {
                    part.open(element);
                    style.get(element).forEach(part::with);
                    part.close(1);
                }
            }
            part.close(1);
        });
    }

    /** Writes the dashes and pictures that styles refer to, where styles with names stand. */
    void writeNamed(PartWriter part, Consumer<String> picture) {
        part.leaf("draw:stroke-dash", "draw:name", DASHES, "draw:style", "rect", "draw:dots1", "1", "draw:dots1-length", "4pt", "draw:distance", "3pt");
        pictures.values().forEach(picture);
    }
}
