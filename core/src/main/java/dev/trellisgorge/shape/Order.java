package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Table;
import java.util.Optional;

/**
 * Puts the rows in the order of a key: numbers and dates by size, texts by their Unicode signs. Equal keys keep their order,
 * missing ones come last.
 *
 * @param by         the key
 * @param descending whether the largest comes first
 */
public record Order(Formula by, boolean descending) implements Step {

    @Override
    public Table apply(Table table, Settings settings) {
        return table.rows(RowOrder.of(HelperTable.over(table, settings, Optional.empty()).evaluate("order", by), descending));
    }
}
