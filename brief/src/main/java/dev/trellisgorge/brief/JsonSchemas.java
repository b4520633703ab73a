package dev.trellisgorge.brief;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The small JSON Schemas of which those of keys are made. A schema is a map in the order in which it is written. */
final class JsonSchemas {
    static final Map<String, Object> TEXT = schema("type", List.of("string", "number", "boolean"));
    static final Map<String, Object> NUMBER = schema("type", "number");
    static final Map<String, Object> COUNT = whole(Integer.MAX_VALUE);
    static final Map<String, Object> TRUTH = schema("type", "boolean");
    static final Map<String, Object> NAMES = list(TEXT);
    static final Map<String, Object> ONE_OR_SEVERAL = oneOrSeveral(TEXT);
    static final Map<String, Object> TEXTS_BY_NAME = schema("type", "object", "additionalProperties", TEXT);
    static final Map<String, Object> EXPRESSION = ref("expression");
    static final Map<String, Object> WORDS = ref("words");

    private JsonSchemas() {
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

    static Map<String, Object> oneOrSeveral(Map<String, Object> each) {
        return either(each, list(each));
    }

    static Map<String, Object> byName(Map<String, Object> each) {
        return schema("type", "object", "minProperties", 1, "additionalProperties", each);
    }

    static Map<String, Object> choice(List<String> words) {
        return schema("enum", words);
    }

    /** The constants of an enum in lower case. */
    static Map<String, Object> choice(Class<? extends Enum<?>> choices) {
        return choice(Arrays.stream(choices.getEnumConstants()).map(each -> each.name().toLowerCase(Locale.ROOT)).toList());
    }

    @SafeVarargs
    static Map<String, Object> either(Map<String, Object>... schemas) {
        List<Object> ways = new ArrayList<>();
        for (Map<String, Object> way : schemas) {
            ways.add(way);
        }
        return schema("oneOf", ways);
    }

    /** A whole number from 1 up. */
    static Map<String, Object> whole(int most) {
        Map<String, Object> whole = schema("type", "integer", "minimum", 1);
        if (most < Integer.MAX_VALUE) {
            whole.put("maximum", most);
        }
        return whole;
    }

    static Map<String, Object> ref(String name) {
        return schema("$ref", "#/$defs/" + name);
    }
}
