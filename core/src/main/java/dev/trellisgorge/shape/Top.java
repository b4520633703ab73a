package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Table;
import java.util.stream.IntStream;

/**
 * Keeps the first rows.
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
    public Table apply(Table table, Settings settings) {
        return table.rows(IntStream.range(0, Math.min(rows, table.rowCount())).toArray());
    }
}
