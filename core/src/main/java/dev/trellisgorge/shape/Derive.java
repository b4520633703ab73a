package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Adds a column that is computed from the others, row by row.
 *
 * @param name    of the new column; none has it yet
 * @param formula what its cells are; absent is missing
 */
public record Derive(String name, Formula formula) implements Step {

    @Override
    public Table apply(Table table, Settings settings) {
        if (table.find(name).isPresent()) {
            throw new BadInput(table.place(), "there is a column '" + name + "' already; give the derived one another name");
        }
        List<Column> columns = new ArrayList<>(table.columns());
        columns.add(HelperTable.over(table, settings, Optional.empty()).evaluate(name, formula));
        return table.withColumns(columns);
    }
}
