package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.SchemaKeys.EXPRESSION;
import static dev.trellisgorge.brief.SchemaKeys.NAMES;
import static dev.trellisgorge.brief.SchemaKeys.NUMBER;
import static dev.trellisgorge.brief.SchemaKeys.ONE_OR_SEVERAL;
import static dev.trellisgorge.brief.SchemaKeys.TEXT;
import static dev.trellisgorge.brief.SchemaKeys.TEXTS_BY_NAME;
import static dev.trellisgorge.brief.SchemaKeys.TRUTH;
import static dev.trellisgorge.brief.SchemaKeys.choice;
import static dev.trellisgorge.brief.SchemaKeys.described;
import static dev.trellisgorge.brief.SchemaKeys.either;
import static dev.trellisgorge.brief.SchemaKeys.list;
import static dev.trellisgorge.brief.SchemaKeys.ref;
import static dev.trellisgorge.brief.SchemaKeys.schema;
import static dev.trellisgorge.brief.SchemaKeys.titled;
import static dev.trellisgorge.brief.SchemaKeys.whole;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The schema of charts and of the board, from what the patterns say of themselves. */
final class ChartSchema {

    private static final Map<String, Object> COLORS_BY_NAME = schema("type", "object", "additionalProperties", schema("type", "string", "pattern", "^(#([0-9a-fA-F]{3}|[0-9a-fA-F]{6})|[a-zA-Z]+)$"));
    private static final Map<String, Object> SPAN = either(whole(1, BoardReader.MOST_COLUMNS), schema("type", "array", "items", whole(1, BoardReader.MOST_COLUMNS), "minItems", 1, "maxItems", 2));
    private static final String SPANS = "How many places of the grid it takes: so many across, or [across, down]; 1 by default.";
    private static final String CHARTED = "A table of data, with its own shape; the first one, with the brief's shape, by default.";

    private ChartSchema() {
    }

    static Map<String, Object> chart() {
        return titled("Charts", schema("description", "A chart is called by its key: files, sheets and pages are.", "oneOf",
                Patterns.all().stream().map(ChartSchema::chart).toList()));
    }

    private static Map<String, Object> chart(PatternType type) {
        SchemaKeys keys = new SchemaKeys().required("pattern", schema("const", type.name()), type.purpose() + ".");
        if (type.categories()) {
            keys.required("category", TEXT, "The column along the chart's base: texts or dates, each on one row only.");
        }
        for (Key key : type.keys()) {
            if (key.required()) {
                keys.required(key.name(), takes(key), key.meaning());
            } else {
                keys.optional(key.name(), takes(key), key.meaning());
            }
        }
        if (type.classified()) {
            keys.optional("classify", ref("rule"), "A rule; each of its classes becomes a series.");
        }
        keys.optional("title", ref("words"), "One line above the chart.")
                .optional("subtitle", ref("words"), "One line below the title.")
                .optional("table", TEXT, CHARTED)
                .optional("shape", ref("shape"), "Steps that go on from the table's, for this chart alone.")
                .optional("slice", ref("slice"), "Only some rows, before anything is computed.")
                .optional("rank", ref("rank"), "Another order of the rows, and how many of them.")
                .optional("labels", either(ref("labels"), list(ref("labels"))), "What stands at the bars; a list of them for several on one bar.")
                .optional("beside", list(either(EXPRESSION, ref("figure-column"))), "Figures in columns between the names and bars that lie, as in a table; not of upright bars, `dial` and `ring`.")
                .optional("in-cells", TRUTH, "Whether the bars stand in cells beside those figures, a column of cells for each series, with the end of their scale below them: a workbook's own data bars. Other files draw them as any bars.")
                .optional("names", TEXTS_BY_NAME, "What readers call a series, a class or a part: {below: Below the goal}.")
                .optional("colors", COLORS_BY_NAME, "The fill of a series, a class or a part: {below: \"#9e2b4b\"}, a name of CSS or a role: good, bad, caution, base, muted, accent, ink.")
                .optional("orientation", choice("vertical", "horizontal"), "Which way the bars go; the pattern's own by default.")
                .optional("at", TEXT, "Where it goes in a workbook that is drawn into (`--into`), and how many cells it takes: Summary!B4:J20, or Summary!B4 for 9 by 20; on a sheet of its own by default, as in all other files.");
        return titled(type.name(), looks(keys, type.keys().stream().map(Key::name).toList()).mapping());
    }

    /** How a chart looks, or all of them. */
    private static SchemaKeys looks(SchemaKeys keys, List<String> taken) {
        keys.optional("legend", choice("none", "top", "bottom", "left", "right"), "Where the names of the series stand; at the top, where there are several, by default.")
                .optional("axis", either(choice("none", "shown"), ref("axis")), "The axis of figures: whether they are written, or more; and the dates along the base.")
                .optional("gap", NUMBER, "The room between two bars, as a share of their width.")
                .optional("reference", schema("anyOf", List.of(choice("none", "shown"), ref("line"), schema("type", "object", "additionalProperties", either(choice("none", "shown"), ref("line"))))),
                        "The lines of a rule's limits: all of them, or each by its name.")
                .optional("marker", ref("marker"), "How points look.").optional("text", ref("text"), "The size and weight of text by its purpose.")
                .optional("title-at", choice("left", "centre", "right"), "Where the lines above the chart stand.");
        if (!taken.contains("scale")) {
            keys.optional("scale", schema("type", "array", "items", NUMBER, "minItems", 2, "maxItems", 2), "What the axis covers, [from, to]; what lies beyond is cut off, and marked.");
        }
        return keys.optional("good", choice("up", "down"), "Whether more is good or less: down where a target is a limit; the colours that judge change places.");
    }

    static Map<String, Object> axis() {
        return titled("Axis", described(new SchemaKeys().optional("figures", choice("none", "shown"), "Whether the figures along it are written; where bars have no labels by default.")
                .optional("title", TEXT, "What it is of.").optional("format", TEXT, "How its figures are written, as a number pattern.")
                .optional("dates", TEXT, "How dates and periods are written along the base, as a CLDR pattern: MMM yyyy.").mapping(), "The axis of figures, and the dates along the base."));
    }

    static Map<String, Object> line() {
        return titled("Line", described(new SchemaKeys().optional("name", ref("words"), "What readers call it; not in a theme.").optional("color", TEXT, "Its colour.").mapping(), "A reference line."));
    }

    static Map<String, Object> marker() {
        return titled("Marker", described(new SchemaKeys().optional("size", NUMBER, "As a share of the usual size.").optional("color", TEXT, "Of all points.")
                .optional("shape", choice("dot", "dash"), "Of all points.").mapping(), "The points of a chart."));
    }

    static Map<String, Object> text() {
        SchemaKeys text = new SchemaKeys();
        for (Looks.Purpose purpose : Looks.Purpose.values()) {
            text.optional(purpose.name().toLowerCase(Locale.ROOT), NUMBER, "Its size in pixels of a picture, 6 to 400, however large that is.");
        }
        return titled("Text", described(text.optional("bold", ONE_OR_SEVERAL, "What is bold: title, subtitle, labels, axis, legend; the title alone by default.").mapping(),
                "The size and weight of text by its purpose."));
    }

    static Map<String, Object> theme() {
        SchemaKeys keys = looks(new SchemaKeys(), List.of("scale"));
        return titled("Theme", described(keys.optional("colors", COLORS_BY_NAME, "The colours of roles: {good: seagreen, base: \"#335577\"}.").mapping(),
                "How all charts look that say nothing else; what a chart has no use for is passed over."));
    }

    private static Map<String, Object> takes(Key key) {
        return switch (key.takes()) {
            case FIGURE, EXPRESSION -> key.name().equals("against") ? either(EXPRESSION,
                    new SchemaKeys().required("previous", choice("row", "period"), "The row before, or the calendar period before.").mapping()) : EXPRESSION;
            case COLUMN, TEXT, CHOICE -> TEXT;
            case CHOICES -> ONE_OR_SEVERAL;
            case NUMBER -> NUMBER;
            case NAMES -> NAMES;
            case MAPPING -> schema("type", "object");
            case LIST -> schema("type", "array");
            case TRUTH -> TRUTH;
        };
    }

    static Map<String, Object> words() {
        return titled("Words", described(schema("type", List.of("string", "number", "boolean"), "pattern", "^(?:[^{}]|\\{\\{|\\}\\}|\\{(?:[^{}'\"]|'[^']*'|\"[^\"]*\")+\\})*$"),
                "A line that says what the rows are: words, with expressions in braces, as in {station} made {SUM(mwh) | #,##0} MWh in {month | MMMM yyyy}. There are columns that have the same cell on every"
                        + " row or of which a slice or --each keeps one, settings ({:goal}), and over the chart's rows SUM, AVG, MIN, MAX, COUNT and FIRST_VALUE(station) OVER (ORDER BY mwh DESC);"
                        + " after a bar a CLDR pattern for numbers or dates. What has no value is a dash; {{ and }} stand for braces."));
    }

    static Map<String, Object> slice() {
        Map<String, Object> range = new SchemaKeys().optional("from", TEXT, "The first; open by default.").optional("to", TEXT, "The last; open by default.").mapping();
        Map<String, Object> slice = schema("type", "object", "properties", schema(SliceReader.ON_RAW, described(TRUTH, "Whether the raw table is sliced, before all steps; else what they make of it.")));
        slice.put("additionalProperties", either(TEXT, NAMES, range));
        return titled("Slice", described(slice, "{column: cell, …}: only the rows whose cells are these. A cell is one as it is written, a setting (\":month\"), a list of them, or {from: …, to: …}, both"
                + " included: numbers by size, dates and periods by time, texts by code point. What is left out is reported by check."));
    }

    static Map<String, Object> rank() {
        return titled("Rank", described(new SchemaKeys().optional("by", EXPRESSION, "The key; ties stay in table order, and missing keys are last. Needed unless the order is table.")
                .optional("order", choice("descending", "ascending", "table"), "descending by default; table only cuts.")
                .optional("top", whole(1, Integer.MAX_VALUE), "So many rows stay.")
                .optional("rest", TEXT, "The name of one last row in which the rows after top are totalled, column by column; left out by default. What is computed is "
                        + "computed after.").mapping(), "The order of a chart's rows."));
    }

    static Map<String, Object> labels() {
        return titled("Labels", described(new SchemaKeys()
                .optional("on", ONE_OR_SEVERAL, "The series, parts or classes that have this label; by default, those that carry the chart's figure.")
                .optional("show", EXPRESSION, "value, share, change, category, part (the piece's own figure), none, or an expression; what the pattern shows by default.")
                .optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0; + alone for the plainest with a sign. The signs of the locale stand for . and , and \u00A4 for its currency.")
                .optional("at", choice("end", "inside", "base", "centre"), "Where it stands on its bar, or in the middle of a ring; where the pattern puts it by default.")
                .optional("name", TRUTH, "Whether what readers call the series stands before the figure: Progress 80%.").mapping(),
                "What stands at a chart's bars: one mapping, or a list of them for several labels, each with a place of its own."));
    }

    static Map<String, Object> figureColumn() {
        return titled("Figure column", described(new SchemaKeys().required("figure", EXPRESSION, "The figure; a text or a date, too.")
                .optional("name", TEXT, "What stands over the column; the expression by default.")
                .optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0; as plain as the figures allow by default.").mapping(),
                "A column between the names and the bars; an expression alone stands for its figure."));
    }

    static Map<String, Object> rule() {
        Map<String, Object> ties = choice("above", "below");
        String onTie = "Which class a value equal to a limit is in; above by default.";
        Map<String, Object> rules = new SchemaKeys()
                .optional("split", new SchemaKeys().required("at", EXPRESSION, "The limit.").optional("ties", ties, onTie).mapping(), "Classes below and above a limit.")
                .optional("bands", new SchemaKeys().required("limits", list(EXPRESSION), "The limits, lowest first.")
                        .optional("of", EXPRESSION, "The value divided by this is compared; the value itself by default.")
                        .optional("names", NAMES, "What the classes are called, lowest first.").optional("ties", ties, onTie).mapping(),
                        "One class more than there are limits.")
                .optional("highlight", new SchemaKeys().optional("largest", whole(1, Integer.MAX_VALUE), "So many of the largest values.")
                        .optional("smallest", whole(1, Integer.MAX_VALUE), "So many of the smallest values.")
                        .optional("first", whole(1, Integer.MAX_VALUE), "So many of the first rows.")
                        .optional("last", whole(1, Integer.MAX_VALUE), "So many of the last rows.")
                        .optional("names", NAMES, "These categories.")
                        .optional("where", EXPRESSION, "The rows on which this is true.")
                        .optional("ties", choice("all", "first"), "Whether all that equal the last of the largest or smallest are highlighted, as by default, "
                                + "or just as many as asked for.").mapping(), "Classes rest and highlighted, by one of largest, smallest, first, last, names and where.")
                .optional("sign", new SchemaKeys().mapping(), "Classes negative and positive.").mapping();
        rules.put("minProperties", 1);
        rules.put("maxProperties", 1);
        return titled("Rules", described(rules, "One rule. A value whose rule can't be computed is in none of the classes, but unjudged."));
    }

    static Map<String, Object> board() {
        return titled("Board", described(new SchemaKeys().required("tiles", schema("type", "array", "minItems", 1, "items", ref("tile")), "What stands on it, row by row.")
                .optional("title", ref("words"), "One line above all.").optional("subtitle", ref("words"), "One line below the title.")
                .optional("source", ref("words"), "One line at the foot: where the figures come from.")
                .optional("columns", whole(1, BoardReader.MOST_COLUMNS), "How many tiles stand beside each other; 2 by default.").mapping(),
                "Several charts and big figures on one page. Charts that are not on it keep a page of their own."));
    }

    static Map<String, Object> tile() {
        return titled("Tiles", schema("description", "A tile of the board.", "oneOf", List.of(titled("A chart", described(TEXT, "A chart, by its name.")),
                titled("A chart of another size", described(new SchemaKeys().required("chart", TEXT, "The chart, by its name.").optional("span", SPAN, SPANS).mapping(), "A chart that takes several places of the grid.")),
                titled("A figure", described(new SchemaKeys().required("figure", EXPRESSION, "The figure.").optional("table", TEXT, CHARTED)
                        .optional("total", choice((Object[]) Figure.Total.values()), "How several rows become one figure; there must be one row by default.")
                        .optional("title", ref("words"), "One line above it.").optional("text", ref("words"), "One line below it.").optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0.")
                        .optional("slice", ref("slice"), "Only some rows.").optional("span", SPAN, SPANS).mapping(), "One big figure; a row of figures alone is no higher than they need.")))));
    }
}
