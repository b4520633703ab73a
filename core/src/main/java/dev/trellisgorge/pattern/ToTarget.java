package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * What is met of a target, what remains, and what goes past it. Parts {@code met}, {@code remaining}, {@code above}: they
 * are absent where nothing is met, remains or goes past. A value below zero is met as it is, and all of the target remains.
 * A value without a target is {@code unjudged}; a missing value is absent in every part. Immutable and thread-safe.
 *
 * @param value      the figure
 * @param target     what it is held against; not below zero
 * @param classifier the rule that colours what is met, or none
 * @param outline    whether the whole stack up to the target has an outline
 */
public record ToTarget(Formula value, Formula target, Optional<Classifier> classifier, boolean outline) implements Pattern {
    private static final String UNJUDGED = Classifier.UNJUDGED;
    private static final String OUTLINE = "outline";
    private static final double GAP = 0.6;

    public ToTarget {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(target, "target");
        Objects.requireNonNull(classifier, "classifier");
    }

    public static final PatternType TYPE = new PatternType("to-target", "What is met of a target, what remains, what goes past",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.required("target", Takes.FIGURE, "what it is held against; not below zero"),
                    Key.optional("outline", Takes.TRUTH, "false", "an outline round the whole stack up to the target")),
            true, true, "met, remaining, above; unjudged where a target is missing", """
                    North Sluice ██████████████▓▓ 520
                    Heron Weir   ██████████████ 400
                    Mill Race    █████░░░░░░░░░ 150
                    """, """
                    pattern: to-target
                    category: station
                    value: generated_mwh
                    target: licensed_mwh
                    """,
            given -> new ToTarget(given.figure("value"), given.figure("target"), Classifiers.given(given), given.truth("outline")));

    public static ToTarget of(Formula value, Formula target) {
        return new ToTarget(value, target, Optional.empty(), false);
    }

    /** Two columns of a table. */
    public static ToTarget of(String value, String target) {
        return of(column(value), column(target));
    }

    public ToTarget classify(Classifier rule) {
        return new ToTarget(value, target, Optional.of(rule), outline);
    }

    public ToTarget outlined() {
        return new ToTarget(value, target, classifier, true);
    }

    @Override
    public PatternType type() {
        return TYPE;
    }

    @Override
    public Orientation orientation() {
        return Orientation.HORIZONTAL;
    }

    @Override
    public Map<String, Formula> figures() {
        return FiguresRead.of("value", value, "target", target);
    }

    @Override
    public Map<String, List<String>> groups() {
        return combination().groups();
    }

    @Override
    public List<String> seriesNames() {
        List<String> names = new ArrayList<>(combination().columns());
        if (mayLackTarget()) {
            names.add(UNJUDGED);
        }
        return names;
    }

    @Override
    public List<Refusal> refusals() {
        return List.of(new Refusal(target.below(number(0)), Map.of("target", target),
                "a target is not below zero; the pattern 'variance' shows a figure against one that may be"));
    }

    private Combination combination() {
        return new Combination(value + " with a target", only(present(target), value), List.of(
                new Part("met", least(value, target)),
                new Part("remaining", only(value.below(target), target.minus(greatest(value, number(0)))), Role.MUTED),
                new Part("above", only(value.above(target), value.minus(target)), Role.GOOD)), classifier);
    }

    private Formula withoutTarget() {
        return present(value).and(missing(target));
    }

    @Override
    public void describe(PlanBuilder plan) {
        combination().describe(plan);
        if (mayLackTarget()) {
            plan.series(UNJUDGED, only(withoutTarget(), value));
        }
        if (outline) {
            plan.forLabels(OUTLINE, only(present(value), target));
        }
        Formula met = combination().whole("met");
        Formula remaining = combination().whole("remaining");
        Formula above = combination().whole("above");
        Formula judged = present(target);
        if (mayLackTarget()) {
            plan.prove(new Identity("unjudged = " + value + ", where the target is missing", withoutTarget(), computed(UNJUDGED), value))
                    .watch(new RowWarning("no target, so unjudged", withoutTarget(), value));
        }
        plan.working("attainment", value.over(target)).working("share remaining", greatest(target.minus(value), number(0)).over(target))
                .prove(new Identity("met + remaining = " + target + ", where the figure is from zero up to its target",
                                judged.and(value.atLeast(number(0))).and(value.atMost(target)), met.plus(remaining), target),
                        new Identity("met + above = " + value + ", where the figure is at least its target",
                                value.atLeast(target).and(value.atLeast(number(0))), met.plus(above), value),
                        new Identity("met = " + value + " and remaining = " + target + ", where the figure is below zero",
                                judged.and(value.below(number(0))), remaining.minus(met), target.minus(value)))
                .watch(new RowWarning("equal to the target", value.equalTo(target), value),
                        new RowWarning("a figure below zero, drawn left of it", value.below(number(0)), value),
                        new RowWarning("a target of zero, so no attainment", target.equalTo(number(0)), absent()));
        RowWarning.ofRounding(value, "the target", target).forEach(plan::watch);
        Formula name = plan.shownName();
        Formula share = plan.percent(computed("attainment"));
        Formula fromZero = value.atLeast(number(0));
        plan.say(fromZero.and(value.below(target)), name, " has met ", value, " of ", target, " (", share, "); ", target.minus(value), " remain.")
                .say(value.equalTo(target), name, " has met its target of ", target, " exactly.")
                .say(value.above(target).and(target.above(number(0))), name, " has met its target of ", target, " and gone ", value.minus(target), " past it (", share, ").")
                .say(value.above(target).and(target.equalTo(number(0))), name, " has gone ", value, " past a target of zero.")
                .say(value.below(number(0)).and(present(target)), name, " is at ", value, ", drawn left of zero; to its target of ", target, " it lacks ", target.minus(value), ".")
                .say(present(value).and(missing(target)), name, " is at ", value, " and has no target to be judged by.");
    }

    /** A stated target is never missing. */
    private boolean mayLackTarget() {
        return !ColumnReferences.onlyLiterals(target);
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        List<LabelSpot> spots = new ArrayList<>();
        Formula negative = value.below(number(0));
        for (Combination.Made made : combination().made()) {
            switch (made.part().name()) {
                case "met" -> spots.add(LabelSpot.of(made.column(), value.atMost(target), value).at(At.INSIDE));
                case "above" -> spots.add(LabelSpot.of(made.column(), truth(true), value).whereItEnds());
                default -> spots.add(LabelSpot.of(made.column(), negative, target.minus(value)));
            }
        }
        if (mayLackTarget()) {
            spots.add(LabelSpot.of(UNJUDGED, truth(true), value).whereItEnds());
        }
        return spots;
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> series = new ArrayList<>();
        Set<String> named = new HashSet<>();
        for (Combination.Made made : combination().made()) {
            // What is met has a colour for each class; what remains or goes past has one, which the legend names once.
            boolean inLegend = made.is("met") || named.add(made.part().name());
            series.add(look.series(made.column(), made.role(), inLegend));
        }
        if (mayLackTarget()) {
            series.add(look.series(UNJUDGED, Role.INK, true));
        }
        Panel panel = look.panel(Placing.STACKED, GAP, series, classifier);
        if (!outline) {
            return Panels.of(panel);
        }
        List<BarGroup> layers = new ArrayList<>(panel.bars());
        layers.add(new BarGroup(Placing.OVERLAPPING, GAP, List.of(Series.spacer(OUTLINE).outlined(Role.INK.color()))));
        return Panels.of(panel.bars(layers));
    }
}
