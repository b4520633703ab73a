package dev.trellisgorge.shape;

import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Gives columns other names; all at once, so that two can change places. Immutable and thread-safe.
 *
 * @param names the new name of each
 */
public record Rename(Map<String, String> names) implements Step {

    public Rename {
        names = Collections.unmodifiableMap(new LinkedHashMap<>(names));
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        names.keySet().forEach(before::field);
        return before.with(before.fields().stream().map(field -> field.named(names.getOrDefault(field.name(), field.name()))).toList());
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before.stream().map(key -> new SortKey(Lineage.renamed(key.by(), names), key.descending())).toList();
    }

    @Override
    public Traits traits() {
        return Traits.NONE;
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.rename(this);
    }

    @Override
    public String sentence() {
        return "rename " + names.entrySet().stream().map(each -> each.getKey() + " to " + each.getValue()).collect(Collectors.joining(", "));
    }

    @Override
    public Table apply(Table table, Run run) {
        return table.withColumns(table.columns().stream().map(column -> column.named(names.getOrDefault(column.name(), column.name()))).toList());
    }
}
