package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * A full ring of how much is done. Rows {@code met} and {@code remaining}. The centre says the true share, also above 1. Immutable and thread-safe.
 *
 * @param value  not below zero; one row
 * @param target above zero
 */
public record Ring(Formula value, Formula target) implements Pattern {
    public Ring {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(target, "target");
    }

    public static final PatternType TYPE = new PatternType("ring", "A full ring of how much is done",
            List.of(Key.required("value", Takes.FIGURE, "the figure, not below zero; one row"),
                    Key.required("target", Takes.FIGURE, "what makes up the whole ring, above zero")),
            false, false, "rows: met, remaining; columns: slice, size, role", """
                       ▒▒███
                     ▒▒     ██
                     ██ 72% ██
                     ██     ██
                       █████
                    """, """
                    pattern: ring
                    value: generated_mwh
                    target: licensed_mwh
                    slice: {station: Otter Bend}
                    """, given -> new Ring(given.figure("value"), given.figure("target")));

    /** Two columns of a table with one row. */
    public static Ring of(String value, String target) {
        return new Ring(column(value), column(target));
    }

    @Override
    public PatternType type() {
        return TYPE;
    }

    @Override
    public Orientation orientation() {
        return Orientation.VERTICAL;
    }

    @Override
    public Map<String, Formula> figures() {
        return FiguresRead.of("value", value, "target", target);
    }

    @Override
    public List<String> seriesNames() {
        return slices().names();
    }

    @Override
    public List<Refusal> refusals() {
        return List.of(new Refusal(value.below(number(0)), Map.of("value", value), "a ring shows a share, which is not below zero"),
                new Refusal(target.atMost(number(0)), Map.of("target", target), "a ring's target is above zero"));
    }

    private Slices slices() {
        return new Slices(List.of(new Slices.Slice("met", least(value, target), Slices.Role.FILL),
                new Slices.Slice("remaining", greatest(target.minus(value), number(0)), Slices.Role.REST)));
    }

    @Override
    public void describe(PlanBuilder plan) {
        slices().describe(plan);
        plan.working("attainment", value.over(target))
                .prove(new Identity("met + remaining = " + target, present(value).and(present(target)), computed("met").plus(computed("remaining")), target))
                .watch(new RowWarning("past its target: drawn as a full ring, labelled with the true share", value.above(target), value.over(target)));
        RowWarning.ofRounding(value, "the target", target).forEach(plan::watch);
        plan.say(value.atMost(target), value, " of ", target, " is met, ", plan.percent(computed("attainment")), "; ", computed("remaining"), " remains.")
                .say(value.above(target), value, " is met of ", target, ", ", plan.percent(computed("attainment")), ": the ring is full.");
    }

    @Override
    public Optional<Formula> share() {
        return Optional.of(computed("attainment"));
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return List.of(LabelSpot.second("met", truth(true), computed("attainment"), new Format("0.#%")).at(At.CENTRE));
    }

    @Override
    public Drawing arrange(Look look) {
        Series met = look.series("met", Role.BASE, false);
        return new dev.trellisgorge.chart.Ring(0.65, 0, List.of(List.of(met, look.series("remaining", Role.MUTED, false))), Optional.of(met));
    }
}
