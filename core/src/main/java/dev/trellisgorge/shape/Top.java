package dev.trellisgorge.shape;

import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Keeps the first rows. Immutable and thread-safe.
 *
 * @param rows how many, 1 or more; all of them where there are fewer
 */
public record Top(int rows) implements Step {

    public Top {
        if (rows < 1) {
            throw new IllegalArgumentException("at least 1 row is kept, not " + rows);
        }
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        return before;
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.NONE.readingOrder(true);
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.top(this);
    }

    @Override
    public String sentence() {
        return rows == 1 ? "keep the first row" : "keep the first " + rows + " rows";
    }

    @Override
    public Table apply(Table table, Run run) {
        return DroppedRows.told(table, IntStream.range(0, Math.min(rows, table.rowCount())).toArray(), (left, all, amounts, names) -> StepNotes.leftOut(this, left, all, amounts, names));
    }
}
