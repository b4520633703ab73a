package dev.trellisgorge.plan;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.formula.Formula;
import java.util.Objects;

/**
 * An equation that must hold. It reads the helper cells themselves, not the formulas that made them, so that it can
 * fail. Where a cell that it reads may be absent, its sides say what counts for it. Immutable and thread-safe.
 *
 * @param statement the equation in words, as a user reads it
 * @param where     true on the rows on which it must hold
 * @param left      what the helper cells come to
 * @param right     what they must come to
 * @param scale     the size of what was added up on the way, where that may be larger than either side: the rounding of
 *                  large figures is no fault of a small difference between them
 */
public record Identity(String statement, Formula where, Formula left, Formula right, Formula scale) {
    private static final double TOLERANCE = 1e-9;
    private static final double ROUNDING = 1e-15;

    public Identity {
        Objects.requireNonNull(statement, "statement");
        Objects.requireNonNull(where, "where");
        Objects.requireNonNull(left, "left");
        Objects.requireNonNull(right, "right");
        Objects.requireNonNull(scale, "scale");
    }

    public Identity(String statement, Formula where, Formula left, Formula right) {
        this(statement, where, left, right, number(0));
    }

    /** This equation, which may be off by the rounding of figures of this size: by their last digit, no more. */
    public Identity amid(Formula size) {
        return new Identity(statement, where, left, right, abs(size));
    }

    /** An equation that must hold on every row. */
    public static Identity everywhere(String statement, Formula left, Formula right) {
        return new Identity(statement, truth(true), left, right);
    }

    /** True on a row where both sides are there and equal to 1e-9 of the larger one, or to the last digit of the scale; false or unknown where it fails. */
    public Formula holds() {
        Formula larger = greatest(abs(left), abs(right)).times(number(TOLERANCE));
        return abs(left.minus(right)).atMost(scale.equals(number(0)) ? larger : greatest(larger, scale.times(number(ROUNDING))));
    }

    /** True on the rows where it need not hold, or holds. */
    public Formula holdsOrNeedNot() {
        return choose(where, choose(holds(), truth(true), truth(false)), truth(true));
    }
}
