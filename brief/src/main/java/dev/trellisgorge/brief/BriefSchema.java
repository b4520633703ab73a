package dev.trellisgorge.brief;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Key;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.CalendarUnit;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The JSON Schema (draft 2020-12) of briefs, written from what the patterns say of themselves, for editors and other programs. */
public final class BriefSchema {
    private static final Object EXPRESSION = Map.of("type", List.of("string", "number", "boolean"));
    private static final Object TEXT = Map.of("type", List.of("string", "number", "boolean"));
    private static final Object NUMBER = Map.of("type", "number");
    private static final Object TRUTH = Map.of("type", "boolean");
    private static final Object NAMES = array(TEXT);
    private static final Object ONE_OR_SEVERAL = Map.of("oneOf", List.of(TEXT, NAMES));
    private static final Object TEXTS_BY_NAME = map("type", "object", "additionalProperties", TEXT);

    private BriefSchema() {
    }

    /** Writes it; the stream is left open. */
    public static void write(OutputStream out) throws IOException {
        DefaultPrettyPrinter lines = new DefaultPrettyPrinter();
        lines.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        lines.indentObjectsWith(new DefaultIndenter("  ", "\n"));
        try (JsonGenerator json = new JsonFactory().createGenerator(out).setPrettyPrinter(lines)) {
            json.disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
            write(root(), json);
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
        } else if (value instanceof List<?> list) {
            json.writeStartArray();
            for (Object item : list) {
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

    /** Keys and values, in that order. */
    private static Map<String, Object> map(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put((String) pairs[i], pairs[i + 1]);
        }
        return map;
    }

    private static Map<String, Object> object(List<String> required, Map<String, Object> properties) {
        Map<String, Object> object = map("type", "object", "additionalProperties", false);
        if (!required.isEmpty()) {
            object.put("required", required);
        }
        object.put("properties", properties);
        return object;
    }

    private static Map<String, Object> array(Object items) {
        return map("type", "array", "items", items);
    }

    private static Map<String, Object> choice(Object... words) {
        return map("enum", Arrays.stream(words).map(word -> word.toString().toLowerCase(Locale.ROOT)).toList());
    }

    private static Map<String, Object> described(Object schema, String words) {
        Map<String, Object> described = map("description", words);
        ((Map<?, ?>) schema).forEach((key, value) -> described.put((String) key, value));
        return described;
    }

    private static Map<String, Object> byName(Object each) {
        return map("type", "object", "minProperties", 1, "additionalProperties", each);
    }

    private static Object ref(String name) {
        return map("$ref", "#/$defs/" + name);
    }

    private static Map<String, Object> root() {
        Map<String, Object> root = map("$schema", "https://json-schema.org/draft/2020-12/schema", "title", "A brief",
                "description", "What to make of which tables: helper series, and the charts that are drawn with them.");
        root.putAll(object(List.of("brief", "data", "charts"), map("brief", map("const", 1),
                "data", described(byName(ref("source")), "The raw tables; the first one is shaped and charted."),
                "settings", map("type", "object", "additionalProperties", NUMBER, "description", "Named numbers that a reader may change; :name in expressions."),
                "shape", ref("shape"), "charts", byName(ref("chart")), "board", ref("board"))));
        Map<String, Object> definitions = map("source", source(), "shape", described(array(ref("step")), "Steps from the first table to the charted one."),
                "step", map("oneOf", steps()), "slice", described(TEXTS_BY_NAME, "Only the rows whose cells are these."), "classify", classify(),
                "labels", object(List.of(), map("show", described(EXPRESSION, "value, share, change, category, none, or an expression"), "format", TEXT,
                        "at", choice("end", "inside", "base"))),
                "rank", object(List.of(), map("by", EXPRESSION, "order", choice("descending", "ascending", "table"), "top", NUMBER, "rest", TEXT)),
                "chart", map("oneOf", Patterns.all().stream().map(BriefSchema::chart).toList()), "board", board());
        root.put("$defs", definitions);
        return root;
    }

    private static Object source() {
        return map("oneOf", List.of(map("type", "string"),
                object(List.of("file"), map("file", map("type", "string"), "delimiter", map("type", "string", "minLength", 1, "maxLength", 1), "charset", TEXT, "sheet", TEXT,
                        "header-row", NUMBER, "decimal", map("enum", List.of(".", ",")), "dates", TEXT, "missing", ONE_OR_SEVERAL,
                        "total-row", choice("told", "keep", "drop"))),
                object(List.of("jdbc", "query"), map("jdbc", TEXT, "query", TEXT, "user", TEXT, "password-variable", TEXT))));
    }

    private static List<Object> steps() {
        Map<String, Object> total = map("by", ONE_OR_SEVERAL);
        Arrays.stream(Total.Fold.values()).forEach(fold -> total.put(fold.toString(), ONE_OR_SEVERAL));
        List<Object> steps = new ArrayList<>();
        step(steps, "keep", EXPRESSION);
        step(steps, "derive", byName(EXPRESSION));
        step(steps, "join", object(List.of("table", "on"), map("table", TEXT, "on", map("oneOf", List.of(TEXT, NAMES, TEXTS_BY_NAME)), "way", choice("left", "inner"),
                "many", TRUTH)));
        step(steps, "total", object(List.of(), total));
        step(steps, "period", object(List.of("of", "unit"), map("of", TEXT, "unit", choice((Object[]) CalendarUnit.values()), "as", TEXT, "fill", TRUTH,
                "by", ONE_OR_SEVERAL)));
        step(steps, "previous", object(List.of("of"), map("of", TEXT, "as", TEXT, "period", TEXT, "by", ONE_OR_SEVERAL)));
        step(steps, "pivot", object(List.of("by", "names", "values"), map("by", ONE_OR_SEVERAL, "names", TEXT, "values", TEXT)));
        step(steps, "unpivot", object(List.of("columns"), map("columns", ONE_OR_SEVERAL, "names", TEXT, "values", TEXT)));
        step(steps, "order", object(List.of("by"), map("by", EXPRESSION, "order", choice("ascending", "descending"))));
        step(steps, "top", NUMBER);
        step(steps, "rename", TEXTS_BY_NAME);
        step(steps, "choose", ONE_OR_SEVERAL);
        return steps;
    }

    private static void step(List<Object> steps, String name, Object takes) {
        steps.add(object(List.of(name), map(name, takes)));
    }

    private static Object classify() {
        Object ties = choice("above", "below");
        Map<String, Object> rules = object(List.of(), map("split", object(List.of("at"), map("at", EXPRESSION, "ties", ties)),
                "bands", object(List.of("limits"), map("limits", array(EXPRESSION), "of", EXPRESSION, "names", NAMES, "ties", ties)),
                "highlight", object(List.of(), map("largest", NUMBER, "smallest", NUMBER, "first", NUMBER, "last", NUMBER, "names", NAMES, "where", EXPRESSION,
                        "ties", choice("all", "first"))),
                "sign", object(List.of(), map())));
        rules.put("minProperties", 1);
        rules.put("maxProperties", 1);
        return rules;
    }

    private static Object chart(PatternType type) {
        List<String> required = new ArrayList<>(List.of("pattern"));
        Map<String, Object> keys = map("pattern", described(map("const", type.name()), type.purpose()));
        if (type.categories()) {
            required.add("category");
            keys.put("category", described(TEXT, "The column along the chart's base."));
        }
        for (Key key : type.keys()) {
            if (key.required()) {
                required.add(key.name());
            }
            keys.put(key.name(), described(takes(key), key.meaning()));
        }
        if (type.classified()) {
            keys.put("classify", ref("classify"));
        }
        keys.putAll(map("title", TEXT, "subtitle", TEXT, "shape", ref("shape"), "slice", ref("slice"), "rank", ref("rank"), "labels", ref("labels"),
                "names", described(TEXTS_BY_NAME, "What readers call a series."),
                "colors", map("type", "object", "additionalProperties", map("type", "string", "pattern", "^#([0-9a-fA-F]{3}|[0-9a-fA-F]{6})$")),
                "orientation", choice("vertical", "horizontal")));
        return object(required, keys);
    }

    private static Object takes(Key key) {
        return switch (key.takes()) {
            case FIGURE, EXPRESSION -> key.name().equals("against") ? map("oneOf", List.of(EXPRESSION,
                    object(List.of("previous"), map("previous", choice("row", "period"))))) : EXPRESSION;
            case COLUMN, TEXT, CHOICE -> TEXT;
            case NUMBER -> NUMBER;
            case NAMES -> NAMES;
            case MAPPING -> map("type", "object");
            case LIST -> map("type", "array");
            case TRUTH -> TRUTH;
        };
    }

    private static Object board() {
        return object(List.of("tiles"), map("title", TEXT, "columns", NUMBER, "tiles", map("type", "array", "minItems", 1, "items", map("oneOf", List.of(
                described(TEXT, "A chart, by its name."),
                object(List.of("figure"), map("figure", EXPRESSION, "total", choice((Object[]) Figure.Total.values()), "title", TEXT, "text", TEXT, "format", TEXT,
                        "slice", ref("slice"))))))));
    }
}
