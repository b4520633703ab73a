package dev.trellisgorge.chart;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.table.Characters;
import java.util.Objects;

/**
 * A line across a panel at one value. Immutable and thread-safe.
 *
 * @param name  what the line is: {@code goal}
 * @param at   the value, as a formula that reads no row
 */
public record ReferenceLine(String name, Formula at) {
    public ReferenceLine {
        name = Characters.shown(name);
        Objects.requireNonNull(at, "at");
    }
}
