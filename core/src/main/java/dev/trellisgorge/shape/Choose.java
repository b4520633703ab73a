package dev.trellisgorge.shape;

import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.List;

/**
 * Keeps some columns, in that order. Immutable and thread-safe.
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
    public Schema schema(Schema before, Catalog known) {
        return before.with(columns.stream().map(before::field).toList());
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.NONE;
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.choose(this);
    }

    @Override
    public String sentence() {
        return "keep the columns " + Keys.listed(columns);
    }

    @Override
    public Table apply(Table table, Run run) {
        return table.withColumns(Keys.columns(table, columns));
    }
}
