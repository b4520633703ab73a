package dev.trellisgorge.chart;

import dev.trellisgorge.formula.Formula;

/**
 * A line across a panel at one value.
 *
 * @param name  what the line is: {@code goal}
 * @param at   the value, as a formula that reads no row
 */
public record ReferenceLine(String name, Formula at) {
}
