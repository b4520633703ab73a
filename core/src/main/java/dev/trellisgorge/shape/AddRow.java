package dev.trellisgorge.shape;

import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Adds a row that has a name and nothing else. Immutable and thread-safe.
 *
 * @param column the column with the name; one of another kind becomes one of texts
 * @param name   the name
 * @param first  whether it stands before the others, and not after them
 */
public record AddRow(String column, String name, boolean first) implements Step {

    public AddRow {
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(name, "name");
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        return named(before, column);
    }

    /** The columns once a row has a text in one of them. */
    static Schema named(Schema before, String column) {
        Field named = before.field(column);
        return named.kind() == Kind.TEXT ? before
                : before.with(before.fields().stream().map(field -> field == named ? Field.of(column, Kind.TEXT) : field).toList());
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
        return cases.addRow(this);
    }

    @Override
    public String sentence() {
        return "add the row " + name + (first ? " before the others" : " after the others");
    }

    @Override
    public Table apply(Table table, Run run) {
        return table.withRow(first ? 0 : table.rowCount(), Map.of(column, name), new int[0], Set.of());
    }
}
