package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import java.util.Objects;

/**
 * A column that a plan computes. Immutable.
 *
 * @param name    unique in the plan
 * @param formula over the shaped table, and over the columns that stand before it
 * @param use     what it is for
 */
public record Derived(String name, Formula formula, Use use) {

    /** What a computed column is for. */
    public enum Use {
        /** Drawn and printed. */
        SERIES,
        /** Read by other columns, by identities and notes. */
        WORKING,
        /** Read by labels and by the drawing alone. */
        LABEL
    }

    public Derived {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(formula, "formula");
        Objects.requireNonNull(use, "use");
    }

    @Override
    public String toString() {
        return name + " = " + formula;
    }
}
