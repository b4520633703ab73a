package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * Adds a column that is computed from the others, row by row. Immutable and thread-safe.
 *
 * @param name    of the new column; none has it yet
 * @param formula what its cells are; absent is missing
 */
public record AddColumn(String name, Formula formula) implements Step {
    public AddColumn {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(formula, "formula");
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        if (before.has(name)) {
            throw before.taken(name, "added one");
        }
        return before.and(Field.of(name, new Typing(before, known.settings()).kind(formula).orElse(Kind.NUMBER)));
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.of(List.of(formula));
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.addColumn(this);
    }

    @Override
    public String sentence() {
        return "add " + name + " = " + formula;
    }

    @Override
    public Table apply(Table table, Run run) {
        List<Column> columns = new ArrayList<>(table.columns());
        columns.add(run.evaluate(table, name, formula));
        return table.withColumns(columns);
    }
}
