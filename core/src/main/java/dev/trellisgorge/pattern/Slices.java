package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.List;

/**
 * The slices of a ring, clockwise: each is a column of the one row while it is computed, and a row when it is printed.
 *
 * @param all in drawing order
 */
record Slices(List<Slice> all) {

    /** What a slice is to a reader. */
    enum Role {
        FILL, REST, HIDDEN, POINTER;

        @Override
        public String toString() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /** A slice: its name, its size on the scale, and its role. A pointer's size is the place that it points to. */
    record Slice(String name, Formula size, Role role) {
    }

    HelperTable addTo(HelperTable table) {
        HelperTable more = table;
        for (Slice slice : all) {
            more = more.with(slice.name(), slice.size());
        }
        return more;
    }

    List<String> names() {
        return all.stream().map(Slice::name).toList();
    }

    /** Columns {@code slice}, {@code size} and {@code role}, a row a slice; no row where the table has none. */
    Table printed(HelperTable table) {
        List<Slice> there = table.rowCount() == 0 ? List.of() : all;
        return Table.of(table.inputs().name(), Source.MEMORY, List.of(
                Column.texts("slice", there.stream().map(Slice::name).toArray(String[]::new)),
                Column.numbers("size", there.stream().mapToDouble(slice -> table.column(slice.name()).cells().number(0)).toArray()),
                Column.texts("role", there.stream().map(slice -> slice.role().toString()).toArray(String[]::new))));
    }
}
