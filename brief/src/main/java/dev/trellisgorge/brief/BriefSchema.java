package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.TEXT;
import static dev.trellisgorge.brief.JsonSchemas.byName;
import static dev.trellisgorge.brief.JsonSchemas.described;
import static dev.trellisgorge.brief.JsonSchemas.either;
import static dev.trellisgorge.brief.JsonSchemas.list;
import static dev.trellisgorge.brief.JsonSchemas.ref;
import static dev.trellisgorge.brief.JsonSchemas.schema;
import static dev.trellisgorge.brief.JsonSchemas.titled;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;

/** The JSON Schema (draft 2020-12) of briefs, written from what the patterns say of themselves, for editors and other programs. */
public final class BriefSchema {
    /** What the schema's file is called where a brief refers to it. */
    public static final String FILE = "brief.schema.json";

    static final MappingKeys BRIEF = MappingKeys.NONE.required("brief", schema("const", 1), "The version of the form.")
            .required("data", byName(ref("source")), "The raw tables by their names; the first one is shaped and charted, the others are there to be joined, or charted by charts that name them.")
            .optional("settings", schema("type", "object", "additionalProperties", either(TEXT, ref("setting"))), "Named values that a reader may change: numbers, ISO dates, or texts; :name in expressions and slices.")
            .optional("shape", ref("shape"), "Steps from the first table to the charted one.")
            .required("charts", byName(ref("chart")), "The charts by their names.")
            .optional("board", ref("board"), "Several charts and figures on one page.")
            .optional("locale", schema("type", "string"), "In whose language figures, currencies, months and dates are written: de-DE, en-GB; de-DE-u-cu-chf names another currency, too. With . and , and ISO dates by default.")
            .optional("theme", ref("theme"), "How all charts look that say nothing else.")
            .optional("run-on", ref("run-on"), "The database in which it is computed.")
            .optional("zone", schema("type", "string"), "The time zone whose days those of moments in a database are, such as Europe/Berlin; UTC by default.")
            .optional("$schema", schema("type", "string"), "Where editors find this schema, in a brief that is JSON; not looked at.");
    static final MappingKeys SETTING = MappingKeys.NONE.required("value", TEXT, "What it is, until somebody changes it.")
            .optional("format", TEXT, "How its figure is written on a sheet of settings, as a number pattern: 0% for 0.5 as 50%.").optional("unit", TEXT, "What it is counted in.")
            .optional("meaning", TEXT, "What it is, in a few words.");

    private BriefSchema() {
    }

    /** Writes it; the stream is left open. */
    public static void write(OutputStream out) throws IOException {
        DefaultPrettyPrinter lines = new DefaultPrettyPrinter();
        lines.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        lines.indentObjectsWith(new DefaultIndenter("  ", "\n"));
        try (JsonGenerator json = new JsonFactory().createGenerator(out).setPrettyPrinter(lines)) {
            json.disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
            write(SchemaBranches.of(root()), json);
            json.writeRaw('\n');
        }
    }

    private static void write(Object value, JsonGenerator json) throws IOException {
        if (value instanceof Map<?, ?> map) {
            json.writeStartObject();
            for (Map.Entry<?, ?> entry : map.entrySet()) {
                json.writeFieldName((String) entry.getKey());
                write(entry.getValue(), json);
            }
            json.writeEndObject();
        } else if (value instanceof List<?> items) {
            json.writeStartArray();
            for (Object item : items) {
                write(item, json);
            }
            json.writeEndArray();
        } else if (value instanceof Integer number) {
            json.writeNumber(number);
        } else if (value instanceof Boolean truth) {
            json.writeBoolean(truth);
        } else {
            json.writeString((String) value);
        }
    }

    static Map<String, Object> root() {
        Map<String, Object> root = schema("$schema", "https://json-schema.org/draft/2020-12/schema", "title", "The brief",
                "description", "What to make of which tables: helper series, and the charts that are drawn with them.");
        root.putAll(BRIEF.schema());
        root.put("$defs", schema("setting", titled("Settings", described(SETTING.schema(), "A setting with a description.")), "source", SourceSchema.source(), "run-on", SourceSchema.runOn(),
                "expression", titled("Expressions", described(TEXT, "An ISO SQL value expression. Text that is exactly a column's name is that column; :goal is a setting, \"own goal\" in "
                        + "double quotes a column, 'North' a text. " + SqlExpression.TAKEN + " What reads a missing cell is missing, or neither true nor false; a division by zero is missing.")),
                "shape", described(list(ref("step")), "Steps, one after the other."), "step", StepSchema.step(), "chart", ChartSchema.chart(),
                "words", ChartSchema.words(), "slice", ChartSchema.slice(), "rank", ChartSchema.rank(),
                "rule", ChartSchema.rule(), "labels", ChartSchema.labels(), "figure-column", ChartSchema.figureColumn(), "axis", LooksSchema.axis(), "line", LooksSchema.line(), "marker", LooksSchema.marker(),
                "text", LooksSchema.text(), "theme", LooksSchema.theme(), "board", BoardSchema.board(), "tile", BoardSchema.tile()));
        return root;
    }
}
