package dev.trellisgorge.tables;

import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * A table whose layout was looked for beyond what each reading finds: title lines above its header, its charset, how its dates
 * are written, a last row that is a total, and which sheet it stands on. Immutable and thread-safe.
 *
 * @param table    as it is read by the keys
 * @param keys     what a brief says of the file so that it is read like this, by the brief's keys; none where nothing needs to be said
 * @param comments a sentence for each choice
 */
public record Found(Table table, Map<String, List<String>> keys, List<String> comments) {
    public Found {
        Objects.requireNonNull(table, "table");
        keys = Collections.unmodifiableMap(new LinkedHashMap<>(keys));
        comments = List.copyOf(comments);
    }
}
