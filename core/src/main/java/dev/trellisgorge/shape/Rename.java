package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Gives columns other names; all at once, so that two can change places.
 *
 * @param names the new name of each
 */
public record Rename(Map<String, String> names) implements Step {

    public Rename {
        names = new LinkedHashMap<>(names);
    }

    @Override
    public Table apply(Table table, Settings settings) {
        names.keySet().forEach(table::column);
        return table.withColumns(table.columns().stream().map(column -> column.named(names.getOrDefault(column.name(), column.name()))).toList());
    }
}
