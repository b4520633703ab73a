package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Keeps the rows on which a condition is true, in their order; one that can't be told, as a cell is missing, is not.
 *
 * @param condition gives true or false
 */
public record Keep(Formula condition) implements Step {

    @Override
    public Table apply(Table table, Settings settings) {
        Column truth = HelperTable.over(table, settings, Optional.empty()).evaluate("keep", condition);
        if (truth.kind() != Kind.TRUTH) {
            throw new BadInput(table.place(), "'keep' takes a condition, and " + condition + " is " + truth.kind().phrase());
        }
        return table.rows(IntStream.range(0, table.rowCount()).filter(row -> truth.number(row) == 1).toArray());
    }
}
