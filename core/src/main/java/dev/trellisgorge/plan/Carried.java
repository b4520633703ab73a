package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.shape.Pipeline;
import java.util.Objects;

/**
 * A figure that steps must leave as it was: on the rows that have one name before and after them. Immutable and thread-safe.
 *
 * @param statement the equation in words
 * @param before    the table before the steps
 * @param where     true on the rows on which it must hold, over either table
 * @param figure    over either table
 */
public record Carried(String statement, Pipeline before, Formula where, Formula figure) {
    public Carried {
        Objects.requireNonNull(statement, "statement");
        Objects.requireNonNull(before, "before");
        Objects.requireNonNull(where, "where");
        Objects.requireNonNull(figure, "figure");
    }
}
