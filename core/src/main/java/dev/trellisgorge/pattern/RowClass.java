package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;

/**
 * One side of a rule.
 *
 * @param name       what its series are called
 * @param when       true on its rows
 * @param role       the colour of its series
 * @param alwaysMade whether its columns exist even where no row is in it
 */
public record RowClass(String name, Formula when, Role role, boolean alwaysMade) {
}
