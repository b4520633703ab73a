package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import java.util.Objects;

/**
 * One side of a rule. Immutable.
 *
 * @param name what its series are called
 * @param when true on its rows
 * @param role the colour of its series
 */
public record RowClass(String name, Formula when, Role role) {
    public RowClass {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(when, "when");
        Objects.requireNonNull(role, "role");
    }
}
