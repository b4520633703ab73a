package dev.trellisgorge.brief;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The keys of one mapping of a brief, each with what it takes and means: what a reader lets stand there and what the schema and the
 * reference say of it. Immutable.
 *
 * @param all      the keys with the schemas of their values, described
 * @param required those that can't be left out
 */
record MappingKeys(Map<String, Map<String, Object>> all, Set<String> required) {
    static final MappingKeys NONE = new MappingKeys(Map.of(), Set.of());

    MappingKeys required(String key, Map<String, Object> takes, String means) {
        MappingKeys more = optional(key, takes, means);
        more.required.add(key);
        return more;
    }

    MappingKeys optional(String key, Map<String, Object> takes, String means) {
        MappingKeys more = new MappingKeys(new LinkedHashMap<>(all), new LinkedHashSet<>(required));
        more.all.put(key, JsonSchemas.described(takes, means));
        return more;
    }

    /** These and those. */
    MappingKeys and(MappingKeys others) {
        MappingKeys more = new MappingKeys(new LinkedHashMap<>(all), new LinkedHashSet<>(required));
        more.all.putAll(others.all);
        more.required.addAll(others.required);
        return more;
    }

    MappingKeys without(String key) {
        MappingKeys less = and(NONE);
        less.all.remove(key);
        less.required.remove(key);
        return less;
    }

    List<String> names() {
        return List.copyOf(all.keySet());
    }

    /** The mapping that has these keys and no other. */
    Map<String, Object> schema() {
        Map<String, Object> mapping = JsonSchemas.schema("type", "object", "additionalProperties", false);
        if (!required.isEmpty()) {
            mapping.put("required", List.copyOf(required));
        }
        mapping.put("properties", all);
        return mapping;
    }
}
