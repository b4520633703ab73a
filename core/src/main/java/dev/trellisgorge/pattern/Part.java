package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import java.util.Objects;

/**
 * One piece of a figure: what it is called, and how long it is on each row; absent where it is not drawn. Immutable and thread-safe.
 *
 * @param role its colour; a rule colours a part whose role is {@link Role#BASE}
 */
public record Part(String name, Formula length, Role role) {
    public Part {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(length, "length");
        Objects.requireNonNull(role, "role");
    }

    Part(String name, Formula length) {
        this(name, length, Role.BASE);
    }
}
