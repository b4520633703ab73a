package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Table;
import java.util.List;

/**
 * Keeps some columns, in that order.
 *
 * @param columns at least one
 */
public record Choose(List<String> columns) implements Step {

    public Choose {
        columns = List.copyOf(columns);
        if (columns.isEmpty()) {
            throw new IllegalArgumentException("a table has at least one column");
        }
    }

    @Override
    public Table apply(Table table, Settings settings) {
        return table.withColumns(Keys.columns(table, columns));
    }
}
