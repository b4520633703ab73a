package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Table;
import java.util.Comparator;
import java.util.Optional;
import java.util.stream.IntStream;

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
        Column keys = HelperTable.over(table, settings, Optional.empty()).evaluate("order", by);
        if (keys.kind() != Kind.TEXT) {
            return table.rows(RowOrder.of(IntStream.range(0, keys.size()).mapToDouble(keys::number).toArray(), descending));
        }
        Comparator<Integer> present = Comparator.comparing(keys::written, Order::bySigns);
        Comparator<Integer> order = Comparator.<Integer, Boolean>comparing(row -> !keys.isPresent(row)).thenComparing(descending ? present.reversed() : present);
        return table.rows(IntStream.range(0, keys.size()).boxed().sorted(order).mapToInt(Integer::intValue).toArray());
    }

    /** The signs beyond the first 65,536 are written as two halves, which stand before some of those. */
    private static int bySigns(String left, String right) {
        for (int i = 0; i < Math.min(left.length(), right.length()); i++) {
            char here = left.charAt(i);
            char there = right.charAt(i);
            if (here != there) {
                return Character.isSurrogate(here) == Character.isSurrogate(there) ? here - there : Character.isSurrogate(here) ? 1 : -1;
            }
        }
        return left.length() - right.length();
    }
}
