package dev.trellisgorge.brief;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Writes the JSON Schema of one mapping of a brief key by key, each with what it means; and holds the small schemas that keys
 * share. A schema is a map in the order in which it is written.
 */
final class SchemaKeys {
    static final Map<String, Object> TEXT = schema("type", List.of("string", "number", "boolean"));
    static final Map<String, Object> NUMBER = schema("type", "number");
    static final Map<String, Object> TRUTH = schema("type", "boolean");
    static final Map<String, Object> NAMES = list(TEXT);
    static final Map<String, Object> ONE_OR_SEVERAL = either(TEXT, NAMES);
    static final Map<String, Object> TEXTS_BY_NAME = schema("type", "object", "additionalProperties", TEXT);
    static final Map<String, Object> EXPRESSION = ref("expression");

    private final List<String> required = new ArrayList<>();
    private final Map<String, Object> keys = new LinkedHashMap<>();

    SchemaKeys required(String key, Map<String, Object> takes, String means) {
        required.add(key);
        return optional(key, takes, means);
    }

    SchemaKeys optional(String key, Map<String, Object> takes, String means) {
        keys.put(key, described(takes, means));
        return this;
    }

    /** The mapping that has these keys and no other. */
    Map<String, Object> mapping() {
        Map<String, Object> mapping = schema("type", "object", "additionalProperties", false);
        if (!required.isEmpty()) {
            mapping.put("required", required);
        }
        mapping.put("properties", keys);
        return mapping;
    }

    /** Keys and values, in that order. */
    static Map<String, Object> schema(Object... pairs) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put((String) pairs[i], pairs[i + 1]);
        }
        return map;
    }

    static Map<String, Object> described(Map<String, Object> schema, String means) {
        Map<String, Object> described = schema("description", means);
        schema.forEach(described::putIfAbsent);
        return described;
    }

    static Map<String, Object> titled(String title, Map<String, Object> schema) {
        Map<String, Object> titled = schema("title", title);
        titled.putAll(schema);
        return titled;
    }

    static Map<String, Object> list(Map<String, Object> items) {
        return schema("type", "array", "items", items);
    }

    static Map<String, Object> byName(Map<String, Object> each) {
        return schema("type", "object", "minProperties", 1, "additionalProperties", each);
    }

    /** The words, or the constants of an enum in lower case. */
    static Map<String, Object> choice(Object... words) {
        return schema("enum", Arrays.stream(words).map(word -> word.toString().toLowerCase(Locale.ROOT)).toList());
    }

    @SafeVarargs
    static Map<String, Object> either(Map<String, Object>... schemas) {
        List<Object> ways = new ArrayList<>();
        for (Map<String, Object> way : schemas) {
            ways.add(way);
        }
        return schema("oneOf", ways);
    }

    static Map<String, Object> whole(int least, int most) {
        Map<String, Object> whole = schema("type", "integer", "minimum", least);
        if (most < Integer.MAX_VALUE) {
            whole.put("maximum", most);
        }
        return whole;
    }

    static Map<String, Object> ref(String name) {
        return schema("$ref", "#/$defs/" + name);
    }
}
