package dev.trellisgorge.brief;

import static dev.trellisgorge.brief.JsonSchemas.schema;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Writes what may be one of several things as branches, of which a validator follows one: a misspelt key is then one error, and not one for
 * each thing that it could have been a part of. Which branch it is the value tells by its type, by the key that only one of them has, or by the
 * constant of a key.
 */
final class SchemaBranches {
    private static final String WAYS = "oneOf";
    private static final String PROPERTIES = "properties";
    private static final String DEFINITION = "#/$defs/";

    private final Map<String, Object> definitions;

    private SchemaBranches(Map<String, Object> root) {
        this.definitions = map(root.get("$defs"));
    }

    /** A schema with its definitions, in which {@code oneOf} is written as branches. */
    static Map<String, Object> of(Map<String, Object> root) {
        return map(new SchemaBranches(root).branched(root));
    }

    private Object branched(Object value) {
        if (value instanceof List<?> items) {
            return items.stream().map(this::branched).toList();
        } else if (!(value instanceof Map<?, ?>)) {
            return value;
        }
        Map<String, Object> written = new LinkedHashMap<>();
        map(value).forEach((key, inside) -> {
            if (key.equals(WAYS)) {
                written.putAll(map(branched(branches(ways(inside)))));
            } else {
                written.put(key, branched(inside));
            }
        });
        return written;
    }

    private Map<String, Object> branches(List<Map<String, Object>> ways) {
        if (ways.stream().allMatch(way -> properties(way).size() == 1)) {
            return single(ways);
        }
        Optional<String> constant = properties(ways.get(0)).keySet().stream().filter(key -> ways.stream().allMatch(way -> map(properties(way).getOrDefault(key, Map.of())).containsKey("const"))).findFirst();
        if (constant.isPresent()) {
            return byConstant(constant.get(), ways);
        }
        Set<String> types = new LinkedHashSet<>();
        ways.forEach(way -> types.addAll(types(way)));
        Map<String, Object> chain = schema("type", types.size() == 1 ? types.iterator().next() : List.copyOf(types));
        chain.putAll(chain(ways));
        return chain;
    }

    /** Mappings of one key each are a mapping of one of those keys. */
    private static Map<String, Object> single(List<Map<String, Object>> ways) {
        Map<String, Object> keys = new LinkedHashMap<>();
        ways.forEach(way -> keys.putAll(properties(way)));
        return schema("type", "object", "minProperties", 1, "maxProperties", 1, "additionalProperties", false, PROPERTIES, keys);
    }

    private static Map<String, Object> byConstant(String key, List<Map<String, Object>> ways) {
        List<Object> constants = new ArrayList<>();
        List<Object> branches = new ArrayList<>();
        for (Map<String, Object> way : ways) {
            Object constant = map(properties(way).get(key)).get("const");
            constants.add(constant);
            branches.add(schema("if", schema(PROPERTIES, schema(key, schema("const", constant)), "required", List.of(key)), "then", way));
        }
        return schema("type", "object", "required", List.of(key), PROPERTIES, schema(key, schema("enum", constants)), "allOf", branches);
    }

    private Map<String, Object> chain(List<Map<String, Object>> ways) {
        Map<String, Object> first = ways.get(0);
        List<Map<String, Object>> others = ways.subList(1, ways.size());
        if (others.isEmpty()) {
            return first;
        }
        Set<String> types = types(first);
        boolean ofOwnType = others.stream().noneMatch(way -> types(way).stream().anyMatch(types::contains));
        Map<String, Object> condition = ofOwnType ? schema("type", types.size() == 1 ? types.iterator().next() : List.copyOf(types)) : has(own(first, others));
        return schema("if", condition, "then", first, "else", chain(others));
    }

    /** That a key is there; of a mapping, and stated as strict validators ask. */
    private static Map<String, Object> has(String key) {
        return schema("type", "object", PROPERTIES, schema(key, true), "required", List.of(key));
    }

    /** A key that a mapping must have, and no other mapping has. */
    private static String own(Map<String, Object> way, List<Map<String, Object>> others) {
        return SchemaBranches.<String>list(way.getOrDefault("required", List.of())).stream().filter(key -> others.stream().noneMatch(other -> properties(other).containsKey(key))).findFirst()
                .orElseThrow(() -> new IllegalStateException("nothing tells apart what may stand in one place: " + way.keySet()));
    }

    private Set<String> types(Map<String, Object> way) {
        Set<String> types = new LinkedHashSet<>();
        if (way.get("$ref") instanceof String name) {
            return types(map(definitions.get(name.substring(DEFINITION.length()))));
        } else if (way.get("type") instanceof List<?> several) {
            several.forEach(type -> types.add((String) type));
        } else if (way.get("type") instanceof String type) {
            types.add(type);
        } else if (way.containsKey("enum")) {
            types.add("string");
        } else {
            ways(way.get(WAYS)).forEach(each -> types.addAll(types(each)));
        }
        return types;
    }

    private static Map<String, Object> properties(Map<String, Object> way) {
        return map(way.getOrDefault(PROPERTIES, Map.of()));
    }

    @SuppressWarnings("unchecked") // what this library's own schema is made of
    private static Map<String, Object> map(Object value) {
        return (Map<String, Object>) value;
    }

    private static List<Map<String, Object>> ways(Object value) {
        return list(value);
    }

    @SuppressWarnings("unchecked") // the same
    private static <T> List<T> list(Object value) {
        return (List<T>) value;
    }
}
