package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;

/**
 * One piece of a figure: what it is called, and how long it is on each row; absent where it is not drawn.
 *
 * @param role its colour; a rule colours a part whose role is {@link Role#BASE}
 */
public record Part(String name, Formula length, Role role) {

    Part(String name, Formula length) {
        this(name, length, Role.BASE);
    }
}
