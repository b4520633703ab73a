package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.PlanBuilder;
import java.util.Arrays;
import java.util.stream.Stream;

/**
 * A bar from one level to another, as pieces that a stack can show: a spacer from zero to the end that is nearer to it,
 * and a piece on from there. A bar that crosses zero has no spacer, a piece above zero and one under it.
 *
 * @param low  the lower level
 * @param high the higher level
 */
record Floating(Formula low, Formula high) {
    private static final Formula ZERO = number(0);

    Formula spacer() {
        return greatest(low, least(high, ZERO));
    }

    /** Below zero where the whole bar is, so that it hangs from its spacer. */
    Formula piece() {
        return choose(high.above(ZERO), high.minus(greatest(low, ZERO)), low.minus(high));
    }

    /** The piece under zero of a bar that crosses it; absent of any other. */
    Formula under() {
        return only(crosses(), low);
    }

    Formula crosses() {
        return low.below(ZERO).and(high.above(ZERO));
    }

    /** The end of the bar that is farther from zero; of a bar that crosses it, the high one. */
    Formula farEnd() {
        return choose(high.above(ZERO), high, low);
    }

    /** Says of a bar what is given, and then where it stands. */
    void tell(PlanBuilder plan, Formula when, Object... what) {
        Formula zero = number(0);
        say(plan, when.and(low.above(zero)), what, ", standing on the spacer that ends at ", low, ".");
        say(plan, when.and(high.below(zero)), what, ", hanging from the spacer that ends at ", high, ".");
        say(plan, when.and(crosses()), what, ", across zero: ", high, " above it and ", negate(low), " below.");
        say(plan, when.and(low.equalTo(zero).or(high.equalTo(zero))), what, ", with one end at zero.");
    }

    private static void say(PlanBuilder plan, Formula when, Object[] what, Object... more) {
        plan.say(when, Stream.concat(Arrays.stream(what), Arrays.stream(more)).toArray());
    }
}
