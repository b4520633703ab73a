package dev.trellisgorge.formula;

import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.number;

/**
 * An equation that must hold on every row; where a cell that it reads may be missing, it says what counts for it. It reads the helper cells themselves, not the formulas that made
 * them, so that it can fail.
 *
 * @param statement the equation in words, as a user reads it
 * @param left      what the helper cells come to
 * @param right     what they must come to
 */
public record Identity(String statement, Formula left, Formula right) {
    private static final double TOLERANCE = 1e-9;

    /** True on a row where both sides are there and equal to a relative 1e-9; false or unknown where it fails. */
    public Formula holds() {
        return magnitude(left.minus(right))
                .atMost(greatest(magnitude(left), magnitude(right)).times(number(TOLERANCE)));
    }
}
