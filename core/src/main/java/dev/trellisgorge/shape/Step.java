package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Table;

/** One step from a table to the next; each has one meaning. Immutable, and applied any number of times. */
@FunctionalInterface
public interface Step {

    /**
     * @param table    any number of rows and columns; left as it is
     * @param settings what the step's formulas may read
     * @return a table with the notes of {@code table}, and what a reader should know of this step
     * @throws BadInput where the table has not what the step names, or the step would lose or double something unasked
     */
    Table apply(Table table, Settings settings);

    /** This step, and another one after it. */
    default Step then(Step next) {
        return (table, settings) -> next.apply(apply(table, settings), settings);
    }
}
