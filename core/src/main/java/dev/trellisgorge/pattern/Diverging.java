package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Scale;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.RowWarning;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * Losses to the left, gains to the right, in two panes with one common scale. Series {@code negative}, the size of what is
 * below zero, and {@code positive}. A zero is absent in both, as is a missing value. Immutable and thread-safe.
 *
 * @param value the figure
 */
public record Diverging(Formula value) implements Pattern {
    private static final String END = "end of both scales";
    private static final double GAP = 0.4;

    public Diverging {
        Objects.requireNonNull(value, "value");
    }

    public static final PatternType TYPE = new PatternType("diverging", "Losses to the left, gains to the right, on one scale",
            List.of(Key.required("value", Takes.FIGURE, "the figure")), false, true, "negative (its size) and positive", """
                       0.4 ████│
                       0.1    █│
                               │██████ 0.6
                    """, """
                    pattern: diverging
                    category: day
                    value: level_m
                    """, given -> new Diverging(given.figure("value")));

    /** A table's column. */
    public static Diverging of(String value) {
        return new Diverging(column(value));
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
        return Map.of("value", value);
    }

    @Override
    public List<String> seriesNames() {
        return List.of("negative", "positive");
    }

    @Override
    public void describe(PlanBuilder plan) {
        plan.series("negative", only(value.below(number(0)), negate(value)))
                .series("positive", only(value.above(number(0)), value))
                .forLabels(END, max(abs(value)))
                .prove(Identity.everywhere("positive − negative = " + value,
                        orZero(computed("positive")).minus(orZero(computed("negative"))), orZero(value)))
                .watch(new RowWarning("zero, drawn in neither pane", value.equalTo(number(0)), value));
        plan.say(value.below(number(0)), plan.shownName(), " is ", value, ", drawn ", abs(value), " long to the left.")
                .say(value.above(number(0)), plan.shownName(), " is ", value, ", drawn as long to the right.")
                .say(value.equalTo(number(0)), plan.shownName(), " is 0, drawn in neither pane.");
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return List.of(LabelSpot.of("negative", truth(true), value), LabelSpot.of("positive", truth(true), value));
    }

    @Override
    public Drawing arrange(Look look) {
        Panel negative = look.panel(Placing.OVERLAPPING, GAP, List.of(look.series("negative", Role.BAD, false)));
        Panel positive = look.panel(Placing.OVERLAPPING, GAP, List.of(look.series("positive", Role.BASE, false)));
        return Panels.of(negative.scale(Scale.reaching(END).runBackwards()).heading(look.given("negative").orElse("")), positive.scale(Scale.reaching(END)).heading(look.given("positive").orElse("")));
    }
}
