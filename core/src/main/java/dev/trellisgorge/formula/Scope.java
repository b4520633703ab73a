package dev.trellisgorge.formula;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.Map;
import java.util.function.Supplier;

/**
 * What the names in a formula stand for: the shaped table, the helper columns so far, the settings.
 *
 * @param kept what whole-column formulas came to, so that several columns that read one compute it once
 */
record Scope(Table inputs, Map<String, Column> helpers, Settings settings, Map<Formula, double[]> kept) {

    Column input(String name) {
        return inputs.column(name);
    }

    Column helper(String name) {
        Column column = helpers.get(name);
        if (column == null) {
            throw new IllegalStateException("helper column '" + name + "' is used before it is computed; so far: "
                    + helpers.keySet());
        }
        return column;
    }

    /** The result of a whole-column formula, computed where it was not before. */
    double[] kept(Formula formula, Supplier<double[]> computed) {
        double[] result = kept.get(formula);
        if (result == null) {
            result = computed.get();
            kept.put(formula, result);
        }
        return result;
    }
}
