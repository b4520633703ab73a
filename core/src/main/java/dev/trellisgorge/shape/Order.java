package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.Objects;

/**
 * Puts the rows in the order of a key: numbers and dates by size, texts by their Unicode characters. Equal keys keep their order,
 * missing ones come last. Immutable and thread-safe.
 *
 * @param by         the key
 * @param descending whether the largest comes first
 */
public record Order(Formula by, boolean descending) implements Step {
    public Order {
        Objects.requireNonNull(by, "by");
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        new Typing(before, known.settings()).kind(by);
        return before;
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return SortKey.before(new SortKey(by, descending), before);
    }

    @Override
    public Traits traits() {
        return Traits.of(List.of(by)).sorting();
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.order(this);
    }

    @Override
    public String sentence() {
        return "order the rows by " + by + (descending ? ", largest first" : ", smallest first");
    }

    @Override
    public Table apply(Table table, Run run) {
        return table.rows(RowOrder.of(run.evaluate(table, "order", by), descending));
    }
}
