package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.NUMBER;
import static dev.trellisgorge.brief.JsonSchemas.oneOrSeveral;
import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.WORDS;
import static dev.trellisgorge.brief.JsonSchemas.choice;
import static dev.trellisgorge.brief.JsonSchemas.described;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.ref;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Points;
import java.util.List;
import java.util.Map;

/** What the keys take that say how a chart looks, or all of them. */
final class LooksSchema {
    static final Map<String, Object> COLORS_BY_NAME = schema("type", "object", "additionalProperties", schema("type", "string", "pattern", "^(#([0-9a-fA-F]{3}|[0-9a-fA-F]{6})|[a-zA-Z]+)$"));
    private static final Map<String, Object> WHETHER = choice(LooksReader.Figures.class);
    static final MappingKeys AXIS = MappingKeys.NONE.optional("figures", WHETHER, "Whether the figures along it are written; where bars have no labels by default.")
            .optional("title", TEXT, "What it is of.").optional("format", TEXT, "How its figures are written, as a number pattern.")
            .optional("dates", TEXT, "How dates and periods are written along the base, as a CLDR pattern: MMM yyyy.");
    static final MappingKeys LINE = MappingKeys.NONE.optional("name", WORDS, "What readers call it; not in a theme.").optional("color", TEXT, "Its colour.");
    static final MappingKeys MARKER = MappingKeys.NONE.optional("size", NUMBER, "As a share of the usual size.").optional("color", TEXT, "Of all points.")
            .optional("shape", choice(Points.Shape.class), "Of all points.");
    static final MappingKeys TEXTS = texts();
    /** Of a chart; of a theme these are all but the scale, and the colours of roles. */
    static final MappingKeys LOOKS = MappingKeys.NONE.optional("legend", choice(Looks.Legend.class), "Where the names of the series stand; at the top, where there are several, by default.")
            .optional("axis", either(WHETHER, ref("axis")), "The axis of figures: whether they are written, or more; and the dates along the base.")
            .optional("gap", NUMBER, "The room between two bars, as a share of their width.")
            .optional("reference", schema("anyOf", List.of(WHETHER, ref("line"), schema("type", "object", "additionalProperties", either(WHETHER, ref("line"))))),
                    "The lines of a rule's limits: all of them, or each by its name.")
            .optional("marker", ref("marker"), "How points look.").optional("text", ref("text"), "The size and weight of text by its purpose.")
            .optional("title-at", choice(Looks.Align.class), "Where the lines above the chart stand.")
            .optional("scale", schema("type", "array", "items", NUMBER, "minItems", 2, "maxItems", 2), "What the axis covers, [from, to]; what lies beyond is cut off, and marked.")
            .optional("good", choice(Looks.Good.class), "Whether more is good or less: down where a target is a limit; the colours that judge change places.");
    static final MappingKeys THEME = LOOKS.without("scale").optional("colors", COLORS_BY_NAME, "The colours of roles: {good: seagreen, base: \"#335577\"}.");

    private LooksSchema() {
    }

    static Map<String, Object> axis() {
        return titled("Axis", described(AXIS.schema(), "The axis of figures, and the dates along the base."));
    }

    static Map<String, Object> line() {
        return titled("Line", described(LINE.schema(), "A reference line."));
    }

    static Map<String, Object> marker() {
        return titled("Marker", described(MARKER.schema(), "The points of a chart."));
    }

    static Map<String, Object> text() {
        return titled("Text", described(TEXTS.schema(), "The size and weight of text by its purpose."));
    }

    static Map<String, Object> theme() {
        return titled("Theme", described(THEME.schema(), "How all charts look that say nothing else; what has no effect on a chart is passed over."));
    }

    private static MappingKeys texts() {
        MappingKeys texts = MappingKeys.NONE;
        for (Looks.Purpose purpose : Looks.Purpose.values()) {
            texts = texts.optional(LooksReader.word(purpose), NUMBER, "Its size in pixels of a picture, 6 to 400, however large that is.");
        }
        return texts.optional("bold", oneOrSeveral(choice(Looks.Purpose.class)), "What is bold; the title alone by default.");
    }
}
