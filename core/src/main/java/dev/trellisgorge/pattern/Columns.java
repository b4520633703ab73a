package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.min;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * One bar a category, from zero to its value; with a classifier, one series a class, in the same place. One
 * part, {@code value}; with a cap two, {@code body} and {@code cap}: every bar that is above zero ends in a piece of one
 * same height. A missing value is absent in every series; a zero is a zero. Immutable and thread-safe.
 *
 * @param value      the figure, one number a row
 * @param classifier the rule that colours the bars, or none
 * @param cap        the height of the piece at the end, as a figure, or none; a bar that is lower is all cap
 */
public record Columns(Formula value, Optional<Classifier> classifier, Optional<Formula> cap) implements Pattern {
    private static final double GAP = 0.6;

    public Columns {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(classifier, "classifier");
        Objects.requireNonNull(cap, "cap");
    }

    public static final PatternType TYPE = new PatternType("columns", "One bar a category, coloured by a rule",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.optional("cap", Takes.MAPPING, "", "{share: 0.5} of the smallest bar, or {height: EXPRESSION}: every bar ends in "
                            + "a piece of one same height").of(Key.optional("share", Takes.NUMBER, "0.5", "of the smallest bar, above 0 and at most 1"),
                            Key.optional("height", Takes.FIGURE, "", "in the figure's unit"))),
            true, true, "value, or body and cap; with a rule one column (or pair) a class", """
                     520
                     ███ 400
                     ███ ▒▒▒
                     ███ ▒▒▒ 150
                     ███ ▒▒▒ ░░░
                    """, """
                    pattern: columns
                    category: station
                    value: generated_mwh
                    classify:
                      split: {at: 400}
                    """, Columns::of);

    /** Columns of any formula of one number a row. */
    public static Columns of(Formula value) {
        return new Columns(value, Optional.empty(), Optional.empty());
    }

    /** Columns of a table's column. */
    public static Columns of(String value) {
        return of(column(value));
    }

    private static Pattern of(Given given) {
        Columns columns = new Columns(given.figure("value"), Classifiers.given(given), Optional.empty());
        Optional<Given> cap = given.mapping("cap");
        if (cap.isPresent() && cap.get().has("share") && cap.get().has("height")) {
            given.refuse("cap", ProblemKind.CONFLICT, "takes 'share' or 'height', not both");
        } else if (cap.isPresent() && cap.get().has("height")) {
            return columns.cap(cap.get().figure("height"));
        } else if (cap.isPresent()) {
            double share = cap.get().number("share").orElse(0.5);
            if (share > 0 && share <= 1) {
                return columns.cap(share);
            }
            cap.get().refuse("share", ProblemKind.INVALID, "must be above 0 and at most 1");
        }
        return columns;
    }

    public Columns classify(Classifier rule) {
        return new Columns(value, Optional.of(rule), cap);
    }

    /** A cap as high as a share (above 0, at most 1) of the smallest value above zero. */
    public Columns cap(double share) {
        if (!(share > 0 && share <= 1)) {
            throw new IllegalArgumentException("a cap's share is above 0 and at most 1, not " + share);
        }
        return cap(number(share).times(min(only(value.above(number(0)), value))));
    }

    /** A cap of this height; where it is missing a bar has none. */
    public Columns cap(Formula height) {
        return new Columns(value, classifier, Optional.of(height));
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
        Map<String, Formula> figures = new LinkedHashMap<>();
        figures.put("value", value);
        cap.ifPresent(height -> figures.put("cap", height));
        return figures;
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
        return cap.map(height -> List.of(new Refusal(height.atMost(number(0)), Map.of("the cap's height", height), "it must be above zero")))
                .orElse(List.of());
    }

    @Override
    public void describe(PlanBuilder plan) {
        combination().describe(plan);
        Formula sum = parts().stream().map(part -> combination().whole(part.name())).reduce(Formula::plus).orElseThrow();
        String pieces = String.join(" + ", parts().stream().map(part -> combination().named(part.name())).toList());
        plan.prove(Identity.everywhere(pieces + " = " + value, sum, orZero(value)));
    }

    private List<Part> parts() {
        if (cap.isEmpty()) {
            return List.of(new Part("value", value));
        }
        return List.of(new Part("body", value.minus(orZero(capLength()))), new Part("cap", capLength()));
    }

    private Formula capLength() {
        return only(value.above(number(0)), least(cap.orElseThrow(), value));
    }

    private Combination combination() {
        return new Combination(value.toString(), value, parts(), classifier);
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return combination().made().stream().map(made -> LabelSpot.of(made.column(), made.is("body") ? missing(capLength()) : truth(true), value).whereItEnds()).toList();
    }

    @Override
    public Drawing arrange(Look look) {
        Placing placing = cap.isPresent() ? Placing.STACKED : Placing.OVERLAPPING;
        List<Series> series = look.series(combination()).stream()
                .map(s -> cap.isPresent() && combination().partOf(s.column()).equals("cap") ? s.rounded() : s).toList();
        return Panels.of(look.panel(placing, GAP, series, classifier));
    }
}
