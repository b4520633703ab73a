package dev.trellisgorge.formula;

import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.number;

/**
 * An equation that must hold. It reads the helper cells themselves, not the formulas that made them, so that it can
 * fail. Where a cell that it reads may be absent, its sides say what counts for it.
 *
 * @param statement the equation in words, as a user reads it
 * @param where     true on the rows on which it must hold
 * @param left      what the helper cells come to
 * @param right     what they must come to
 */
public record Identity(String statement, Formula where, Formula left, Formula right) {
    private static final double TOLERANCE = 1e-9;

    /** An equation that must hold on every row. */
    public static Identity everywhere(String statement, Formula left, Formula right) {
        return new Identity(statement, Formulas.always(), left, right);
    }

    /** True on a row where both sides are there and equal to a relative 1e-9; false or unknown where it fails. */
    public Formula holds() {
        return magnitude(left.minus(right))
                .atMost(greatest(magnitude(left), magnitude(right)).times(number(TOLERANCE)));
    }

    /** True on the rows where it need not hold, or holds. */
    public Formula holdsOrNeedNot() {
        return Formulas.choose(where, Formulas.choose(holds(), Formulas.always(), Formulas.not(Formulas.always())), Formulas.always());
    }
}
