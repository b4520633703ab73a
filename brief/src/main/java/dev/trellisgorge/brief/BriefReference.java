package dev.trellisgorge.brief;

import java.io.PrintStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** The reference of all keys of a brief in Markdown, written from {@link BriefSchema}, so that the two say the same. */
public final class BriefReference {
    private static final String DEFINITION = "#/$defs/";
    private static final Set<String> IN_MOST = Set.of("category", "classify");

    private final Map<String, Object> root = BriefSchema.root();
    private final PrintStream out;

    private BriefReference(PrintStream out) {
        this.out = out;
    }

    /** Writes it; the stream is left open. */
    public static void write(PrintStream out) {
        BriefReference reference = new BriefReference(out);
        reference.section(reference.root, 1);
        out.println("The tables say what each key takes and means; keys in **bold** must be there. Written by `gorge patterns --as reference` from the"
                + " [JSON Schema](" + BriefSchema.FILE + ") of briefs; each pattern's own keys stand in [patterns.md](patterns.md).\n");
        mapping(reference.root, "$defs").values().stream().map(BriefReference::schema).filter(definition -> definition.containsKey("title"))
                .forEach(definition -> reference.section(definition, 2));
    }

    private void section(Map<String, Object> schema, int level) {
        heading((String) schema.get("title"), level);
        if (schema.containsKey("description")) {
            out.println(escaped((String) schema.get("description")) + "\n");
        }
        List<Map<String, Object>> ways = BriefReference.<Map<String, Object>>list(schema, "oneOf").stream().filter(way -> way.containsKey("title")).toList();
        if (ways.stream().allMatch(way -> mapping(way, "properties").containsKey("pattern")) && !ways.isEmpty()) {
            table(common(ways), Set.of("pattern", "category"));
        } else {
            ways.forEach(way -> section(way.get("title").equals(only(way)) ? titled(way) : way, level + 1));
        }
        if (schema.containsKey("properties")) {
            keys(schema, level);
        } else if (level > 2 && ways.isEmpty()) {
            out.println("Takes " + takes(schema) + ".\n");
        }
    }

    private void heading(String title, int level) {
        out.println("#".repeat(level) + " " + title + "\n");
    }

    private void keys(Map<String, Object> schema, int level) {
        Map<String, Object> keys = mapping(schema, "properties");
        Set<String> required = Set.copyOf(BriefReference.<String>list(schema, "required"));
        boolean rules = keys.values().stream().allMatch(key -> schema(key).containsKey("properties"));
        if (!rules) {
            table(keys, required);
        } else {
            keys.forEach((name, key) -> section(titled(name, schema(key)), level + 1));
        }
    }

    private void table(Map<String, Object> keys, Set<String> required) {
        out.println("| key | takes | what it is |\n|---|---|---|");
        keys.forEach((name, key) -> out.println("| " + (required.contains(name) ? "**`" + name + "`**" : "`" + name + "`") + " | " + takes(schema(key)) + " | "
                + escaped((String) schema(key).get("description")) + " |"));
        out.println();
    }

    /** A step is a mapping of its one key, and what that takes is told in its place. */
    private static Map<String, Object> titled(Map<String, Object> step) {
        String name = only(step);
        return titled(name, schema(mapping(step, "properties").get(name)));
    }

    private static Map<String, Object> titled(String title, Map<String, Object> schema) {
        return JsonSchemas.titled("`" + title + "`", schema);
    }

    /** The one key of a mapping; empty where it has others too. */
    private static String only(Map<String, Object> schema) {
        Map<String, Object> keys = mapping(schema, "properties");
        return keys.size() == 1 ? keys.keySet().iterator().next() : "";
    }

    /** The keys that all of the patterns have, and the two that most have, which say of which they are not. */
    private static Map<String, Object> common(List<Map<String, Object>> ways) {
        Map<String, Object> common = new LinkedHashMap<>();
        mapping(ways.get(0), "properties").forEach((key, takes) -> {
            List<String> without = ways.stream().filter(way -> !mapping(way, "properties").containsKey(key)).map(way -> "`" + way.get("title") + "`").toList();
            if (without.isEmpty()) {
                common.put(key, takes);
            } else if (IN_MOST.contains(key)) {
                common.put(key, JsonSchemas.described(schema(takes), schema(takes).get("description") + " Not of " + String.join(", ", without) + "."));
            }
        });
        common.put("pattern", JsonSchemas.described(JsonSchemas.schema("enum", ways.stream().map(way -> way.get("title")).toList()), "What the chart shows, and by which arithmetic."));
        return common;
    }

    private String takes(Map<String, Object> schema) {
        if (schema.containsKey("$ref")) {
            String name = ((String) schema.get("$ref")).substring(DEFINITION.length());
            Map<String, Object> definition = schema(mapping(root, "$defs").get(name));
            return definition.containsKey("title") ? linked(name, (String) definition.get("title")) : takes(definition);
        }
        if (schema.containsKey("oneOf") || schema.containsKey("anyOf")) {
            return BriefReference.<Map<String, Object>>list(schema, schema.containsKey("oneOf") ? "oneOf" : "anyOf").stream().map(this::takes).collect(Collectors.joining(" or "));
        }
        if (schema.containsKey("enum") || schema.containsKey("const")) {
            List<Object> words = new ArrayList<>(list(schema, "enum"));
            words.addAll(schema.containsKey("const") ? List.of(schema.get("const")) : List.of());
            return words.stream().map(word -> "`" + word + "`").collect(Collectors.joining(", "));
        }
        if (schema.containsKey("properties")) {
            return "`{" + String.join(", ", mapping(schema, "properties").keySet()) + "}`";
        }
        return switch (String.valueOf(schema.get("type"))) {
            case "array" -> "a list" + (!schema.containsKey("items") ? "" : mapping(schema, "items").containsKey("enum") ? " of them" : " of " + several(takes(mapping(schema, "items"))));
            case "object" -> "`{name: …}`, each " + takes(mapping(schema, "additionalProperties"));
            case "number" -> "a number";
            case "integer" -> "a whole number from " + schema.get("minimum") + (schema.containsKey("maximum") ? " to " + schema.get("maximum") : "");
            case "boolean" -> "true or false";
            default -> "a text";
        };
    }

    private static String linked(String name, String title) {
        String article = name.endsWith("s") ? "" : "aeiou".indexOf(name.charAt(0)) >= 0 ? "an " : "a ";
        return article + "[" + name + "](#" + title.toLowerCase(Locale.ROOT).replace(' ', '-') + ")";
    }

    /** {@code a text} to {@code texts}. */
    private static String several(String one) {
        String bare = one.replaceFirst("^an? ", "");
        return bare.contains("s](") ? bare : bare.contains("](") ? bare.replace("](", "s](") : bare + "s";
    }

    private static String escaped(String text) {
        return text.replace("|", "\\|").replace("*", "\\*").replace("<", "&lt;");
    }

    @SuppressWarnings("unchecked") // what this library's own schema is made of
    private static Map<String, Object> schema(Object value) {
        return (Map<String, Object>) value;
    }

    private static Map<String, Object> mapping(Map<String, Object> schema, String key) {
        return schema(schema.getOrDefault(key, Map.of()));
    }

    @SuppressWarnings("unchecked") // the same
    private static <T> List<T> list(Map<String, Object> schema, String key) {
        return (List<T>) schema.getOrDefault(key, List.of());
    }
}
