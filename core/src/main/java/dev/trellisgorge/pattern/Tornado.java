package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.coalesce;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Scale;
import dev.trellisgorge.chart.Series;
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
 * Two figures back to back. Parts {@code left} (drawn below zero, so −left) and {@code right}. A missing figure is absent
 * on its side. A rule judges what both sides come to together. Immutable and thread-safe.
 *
 * @param left       not below zero
 * @param right      not below zero
 * @param afterName  what is written after the row's name, a number or a text, or none
 * @param classifier the rule that colours the rows, or none
 */
public record Tornado(Formula left, Formula right, Optional<Formula> afterName, Optional<Classifier> classifier) implements Pattern {
    private static final String NOTE = "note";
    private static final String LEFT_END = "left end of the scale";
    private static final String RIGHT_END = "right end of the scale";

    public Tornado {
        Objects.requireNonNull(left, "left");
        Objects.requireNonNull(right, "right");
        Objects.requireNonNull(afterName, "afterName");
        Objects.requireNonNull(classifier, "classifier");
    }

    public static final PatternType TYPE = new PatternType("tornado", "Two figures back to back",
            List.of(Key.required("left", Takes.FIGURE, "the figure on the left, not below zero"),
                    Key.required("right", Takes.FIGURE, "the figure on the right, not below zero"),
                    Key.optional("note", Takes.EXPRESSION, "", "what is written after the row's name: a number or a text")),
            true, true, "left (as −left) and right; with a rule one pair a class", """
                       120 ████████│██████ 90
                        80   ██████│████ 60
                        20       ██│█ 12
                    """, """
                    pattern: tornado
                    category: station
                    left: generated_mwh
                    right: licensed_mwh
                    """, given -> new Tornado(given.figure("left"), given.figure("right"), given.expression("note"), Classifiers.given(given)));

    public static Tornado of(Formula left, Formula right) {
        return new Tornado(left, right, Optional.empty(), Optional.empty());
    }

    /** Two columns of a table. */
    public static Tornado of(String left, String right) {
        return of(column(left), column(right));
    }

    /** A number or a text after the row's name. */
    public Tornado note(Formula figure) {
        return new Tornado(left, right, Optional.of(figure), classifier);
    }

    public Tornado classify(Classifier rule) {
        return new Tornado(left, right, afterName, Optional.of(rule));
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
        return FiguresRead.of("left", left, "right", right);
    }

    @Override
    public Map<String, List<String>> groups() {
        return combination().groups();
    }

    @Override
    public List<String> seriesNames() {
        return combination().columns();
    }

    @Override
    public List<Refusal> refusals() {
        String expected = "a tornado shows sizes, which are not below zero";
        return List.of(new Refusal(left.below(number(0)), Map.of("left", left), expected),
                new Refusal(right.below(number(0)), Map.of("right", right), expected));
    }

    private Combination combination() {
        Formula both = coalesce(left.plus(right), left, right);
        return new Combination("row with a figure", both,
                List.of(new Part("left", negate(left)), new Part("right", right, classifier.isPresent() ? Role.BASE : Role.ACCENT)), classifier);
    }

    @Override
    public Map<String, Formula> remarks() {
        return afterName.map(formula -> Map.of(NOTE, formula)).orElse(Map.of());
    }

    @Override
    public void describe(PlanBuilder plan) {
        combination().describe(plan);
        afterName.ifPresent(formula -> plan.forLabels(NOTE, formula));
        Formula larger = greatest(orZero(max(left)), orZero(max(right)));
        plan.forLabels(RIGHT_END, larger).forLabels(LEFT_END, negate(computed(RIGHT_END)))
                .prove(Identity.everywhere("left = −" + left, combination().whole("left"), negate(orZero(left))),
                        Identity.everywhere("right = " + right, combination().whole("right"), orZero(right)))
                .watch(new RowWarning("one side is missing", missing(left).and(present(right)).or(present(left).and(missing(right))), absent()));
        plan.say(present(left), plan.shownName(), " has ", left, " to the left (" + left.title() + ").").say(present(right), plan.shownName(), " has ", right, " to the right (" + right.title() + ").");
    }

    @Override
    public Optional<String> note() {
        return afterName.map(formula -> NOTE);
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return combination().made().stream().map(made -> LabelSpot.of(made.column(), truth(true),
                made.is("left") ? left : right)).toList();
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> sides = combination().made().stream().map(made -> {
            boolean isLeft = made.is("left");
            Series side = look.series(made.column(), made.role(), classifier.isEmpty() || isLeft);
            // A rule colours both sides alike, so the legend names the class, once.
            return made.of().isPresent() && isLeft && side.name().equals(made.column()) ? side.called(made.of().get().name()) : side;
        }).toList();
        return Panels.of(Panel.of(new BarGroup(Placing.OVERLAPPING, 0.4, sides)).scale(Scale.reaching(LEFT_END, RIGHT_END)));
    }
}
