package dev.trellisgorge.formula;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.Map;

/** What the names in a formula stand for: the shaped table, the helper columns so far, the settings. */
record Scope(Table inputs, Map<String, Column> helpers, Settings settings) {

    Column input(String name) {
        return inputs.column(name);
    }

    Column helper(String name) {
        Column column = helpers.get(name);
        if (column == null) {
            throw new IllegalStateException("helper column '" + name + "' is used before it is computed; so far: "
                    + helpers.keySet());
        }
        return column;
    }
}
