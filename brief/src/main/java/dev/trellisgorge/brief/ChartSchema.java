package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.COUNT;
import static dev.trellisgorge.brief.JsonSchemas.EXPRESSION;
import static dev.trellisgorge.brief.JsonSchemas.NAMES;
import static dev.trellisgorge.brief.JsonSchemas.NUMBER;
import static dev.trellisgorge.brief.JsonSchemas.ONE_OR_SEVERAL;
import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.TEXTS_BY_NAME;
import static dev.trellisgorge.brief.JsonSchemas.TRUTH;
import static dev.trellisgorge.brief.JsonSchemas.WORDS;
import static dev.trellisgorge.brief.JsonSchemas.choice;
import static dev.trellisgorge.brief.JsonSchemas.described;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.list;
import static dev.trellisgorge.brief.JsonSchemas.oneOrSeveral;
import static dev.trellisgorge.brief.JsonSchemas.ref;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.shape.Rank;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The schema of charts and of the board, from what the patterns say of themselves. */
final class ChartSchema {

    private static final Key RULE = Patterns.all().stream().flatMap(type -> type.allKeys().stream()).filter(key -> key.name().equals("classify")).findFirst().orElseThrow();
    static final String CHARTED = "A table of data, with its own shape; the first one, with the brief's shape, by default.";

    /** What every chart takes, beside the keys of its pattern and those of its looks. */
    private static final MappingKeys COMMON = MappingKeys.NONE.optional("title", WORDS, "One line above the chart.")
            .optional("subtitle", WORDS, "One line below the title.")
            .optional("table", TEXT, CHARTED)
            .optional("shape", ref("shape"), "Steps that go on from the table's, for this chart alone.")
            .optional("slice", ref("slice"), "Only some rows, before anything is computed.")
            .optional("rank", ref("rank"), "Another order of the rows, and how many of them.")
            .optional("labels", either(ref("labels"), list(ref("labels"))), "What stands at the bars; a list of them for several on one bar.")
            .optional("beside", list(either(EXPRESSION, ref("figure-column"))), "Figures in columns between the names and bars that lie, as in a table; not of upright bars, `dial` and `ring`.")
            .optional("in-cells", TRUTH, "Whether the bars stand in cells beside those figures, a column of cells for each series, with the end of their scale below them: a workbook's own data bars. Other files draw them as any bars.")
            .optional("names", TEXTS_BY_NAME, "What readers call a series, a class or a part: {below: Below the goal}.")
            .optional("colors", LooksSchema.COLORS_BY_NAME, "The fill of a series, a class or a part: {below: \"#9e2b4b\"}, a name of CSS or a role: good, bad, caution, base, muted, accent, ink.")
            .optional("orientation", choice(Orientation.class), "Which way the bars go; the pattern's own by default.")
            .optional("at", TEXT, "Where it goes in a workbook that is drawn into (`--into`), and how many cells it takes: Summary!B4:J20, or Summary!B4 for 9 by 20; on a sheet of its own by default, as in all other files.");
    static final MappingKeys RANK = MappingKeys.NONE.optional("by", EXPRESSION, "The key; ties stay in table order, and missing keys are last. Needed unless the order is table.")
            .optional("order", choice(Rank.Way.class), "descending by default; table only cuts.")
            .optional("top", COUNT, "So many rows stay.")
            .optional("rest", TEXT, "The name of one last row in which the rows after top are totalled, column by column; left out by default. What is computed is computed after.");
    static final MappingKeys RANGE = MappingKeys.NONE.optional("from", TEXT, "The first; open by default.").optional("to", TEXT, "The last; open by default.");
    static final MappingKeys LABELS = MappingKeys.NONE.optional("on", ONE_OR_SEVERAL, "The series, parts or classes that have this label; by default, those that carry the chart's figure.")
            .optional("show", EXPRESSION, "value, share, change, category, part (the piece's own figure), none, or an expression; what the pattern shows by default.")
            .optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0; + alone for the plainest with a sign. The signs of the locale stand for . and , and \u00A4 for its currency.")
            .optional("at", choice(Label.At.class), "Where it stands on its bar, or in the middle of a ring; where the pattern puts it by default.")
            .optional("name", TRUTH, "Whether what readers call the series stands before the figure: Progress 80%.");
    static final MappingKeys FIGURE_COLUMN = MappingKeys.NONE.required("figure", EXPRESSION, "The figure; a text or a date, too.")
            .optional("name", TEXT, "What stands over the column; the expression by default.")
            .optional("format", TEXT, "A number pattern as CLDR has it: #,##0.0; as plain as the figures allow by default.");

    private ChartSchema() {
    }

    static Map<String, Object> chart() {
        return titled("Charts", schema("description", "A chart is called by its key: files, sheets and pages are.", "oneOf",
                Patterns.all().stream().map(type -> titled(type.name(), keys(type).schema())).toList()));
    }

    /** The keys of a chart of this pattern. */
    static MappingKeys keys(PatternType type) {
        MappingKeys keys = stated(MappingKeys.NONE.required("pattern", schema("const", type.name()), type.purpose() + "."), type.allKeys()).and(COMMON);
        return keys.and(keys.all().containsKey("scale") ? LooksSchema.LOOKS.without("scale") : LooksSchema.LOOKS);
    }

    /** Those of a mapping inside. */
    static MappingKeys keys(List<Key> inside) {
        return stated(MappingKeys.NONE, inside);
    }

    private static MappingKeys stated(MappingKeys first, List<Key> more) {
        MappingKeys keys = first;
        for (Key key : more) {
            String meaning = key.meaning().substring(0, 1).toUpperCase(Locale.ROOT) + key.meaning().substring(1) + (key.fallback().isEmpty() ? "" : "; " + key.fallback() + " by default") + ".";
            keys = key.required() ? keys.required(key.name(), takes(key), meaning) : keys.optional(key.name(), takes(key), meaning);
        }
        return keys;
    }

    private static Map<String, Object> takes(Key key) {
        return switch (key.takes()) {
            case FIGURE, EXPRESSION -> key.keys().isEmpty() ? EXPRESSION : either(EXPRESSION, mapping(key));
            case COLUMN, TEXT -> TEXT;
            case CHOICE -> choice(key.words());
            case CHOICES -> oneOrSeveral(choice(key.words()));
            case NUMBER -> NUMBER;
            case NUMBERS -> list(NUMBER);
            case COUNT -> COUNT;
            case FIGURES -> list(EXPRESSION);
            case NAMES -> NAMES;
            case MAPPING -> key.equals(RULE) ? ref("rule") : mapping(key);
            case LIST -> list(mapping(key));
            case TRUTH -> TRUTH;
        };
    }

    private static Map<String, Object> mapping(Key key) {
        return keys(key.keys()).schema();
    }

    static Map<String, Object> words() {
        return titled("Words", described(schema("type", List.of("string", "number", "boolean"), "pattern", "^(?:[^{}]|\\{\\{|\\}\\}|\\{(?:[^{}'\"]|'[^']*'|\"[^\"]*\")+\\})*$"),
                "A line that says what the rows are: words, with expressions in braces, as in {station} made {SUM(mwh) | #,##0} MWh in {month | MMMM yyyy}. There are columns that have the same cell on every"
                        + " row or of which a slice or --each keeps one, settings ({:goal}), and over the chart's rows SUM, AVG, MIN, MAX, COUNT and FIRST_VALUE(station) OVER (ORDER BY mwh DESC);"
                        + " after a bar a CLDR pattern for numbers or dates. What has no value is a dash; {{ and }} stand for braces."));
    }

    static Map<String, Object> slice() {
        Map<String, Object> slice = schema("type", "object", "properties", schema(SliceReader.ON_RAW, described(TRUTH, "Whether the raw table is sliced, before all steps; else what they make of it.")));
        slice.put("additionalProperties", either(TEXT, NAMES, RANGE.schema()));
        return titled("Slice", described(slice, "{column: cell, …}: only the rows whose cells are these. A cell is one as it is written, a setting (\":month\"), a list of them, or {from: …, to: …}, both"
                + " included: numbers by size, dates and periods by time, texts by code point. What is left out is reported by check."));
    }

    static Map<String, Object> rank() {
        return titled("Rank", described(RANK.schema(), "The order of a chart's rows."));
    }

    static Map<String, Object> labels() {
        return titled("Labels", described(LABELS.schema(), "What stands at a chart's bars: one mapping, or a list of them for several labels, each with a place of its own."));
    }

    static Map<String, Object> figureColumn() {
        return titled("Figure column", described(FIGURE_COLUMN.schema(), "A column between the names and the bars; an expression alone stands for its figure."));
    }

    static Map<String, Object> rule() {
        Map<String, Object> rules = mapping(RULE);
        rules.put("minProperties", 1);
        rules.put("maxProperties", 1);
        return titled("Rules", described(rules, "One rule. A value whose rule can't be computed is in none of the classes, but unjudged."));
    }
}
