package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.always;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.largest;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Scale;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Watch;
import dev.trellisgorge.pattern.Key.Takes;
import java.util.List;
import java.util.Map;

/**
 * Losses to the left, gains to the right, in two panes with one common scale. Series {@code negative}, the size of what is
 * below zero, and {@code positive}. A zero is absent in both, as is a missing value.
 *
 * @param value the figure
 */
public record Diverging(Formula value) implements Pattern {
    private static final String END = "end of both scales";
    private static final double GAP = 0.4;

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
    public HelperTable addTo(HelperTable table) {
        return table.with("negative", only(value.below(number(0)), magnitude(value)))
                .with("positive", only(value.above(number(0)), value))
                .working(END, largest(magnitude(value)))
                .proving(List.of(Identity.everywhere("positive − negative = " + value,
                        orZero(helper("positive")).minus(orZero(helper("negative"))), orZero(value))))
                .watching(List.of(new Watch("zero, drawn in neither pane", value.equalTo(number(0)), value)));
    }

    @Override
    public List<LabelSpot> labelled(HelperTable table) {
        return List.of(LabelSpot.of("negative", always(), value), LabelSpot.of("positive", always(), value));
    }

    @Override
    public Drawing arrange(HelperTable table, Look look) {
        Panel negative = look.panel(Placing.OVERLAPPING, GAP, List.of(look.series("negative", Role.BAD, false)));
        Panel positive = look.panel(Placing.OVERLAPPING, GAP, List.of(look.series("positive", Role.BASE, false)));
        return Panels.of(negative.scale(Scale.reaching(END).runBackwards()), positive.scale(Scale.reaching(END)));
    }
}
