package dev.trellisgorge.chart;

import dev.trellisgorge.formula.Formula;

/**
 * A line across a panel at one value.
 *
 * @param name  what the line is: {@code goal}
 * @param at    the value as a formula without columns, for engines that stay live
 * @param value the value, drawn and written beside the name
 */
public record ReferenceLine(String name, Formula at, double value) {
}
