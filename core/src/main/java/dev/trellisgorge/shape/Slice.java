package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Objects;
import java.util.stream.IntStream;

/**
 * Keeps the rows whose cell in a column is written as a value (see {@link Column#written}); a number matches any spelling of
 * the same number. That no row has it is an error. Immutable and thread-safe.
 *
 * @param column the column
 * @param value  the cell
 */
public record Slice(String column, String value) implements Step {

    public Slice {
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(value, "value");
    }

    @Override
    public Schema schema(Schema before, Known known) {
        before.field(column);
        return before;
    }

    @Override
    public String sentence() {
        return "keep the rows whose " + column + " is " + value;
    }

    @Override
    public Table apply(Table table, Run run) {
        Column cells = table.column(column);
        String wanted = cells.kind() != Kind.NUMBER ? value : Numbers.parse(value).stream().mapToObj(Numbers::shortest).findFirst().orElse(value);
        int[] rows = IntStream.range(0, table.rowCount()).filter(row -> cells.written(row).equals(wanted)).toArray();
        if (rows.length == 0) {
            throw new BadInput(table.place().within("column '" + column + "'"), "no row holds '" + value + "'. "
                    + Nearest.hint(value, IntStream.range(0, table.rowCount()).mapToObj(cells::written).distinct().toList()));
        }
        return table.rows(rows);
    }
}
