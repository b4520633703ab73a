package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * One figure as columns, another as points on them. The parts are named after their columns. A missing figure has no bar,
 * or no point. Immutable and thread-safe.
 *
 * @param columns    the figure with bars
 * @param points     the figure with points
 * @param classifier the rule that colours the points, or none; it judges the points
 */
public record Marker(Formula columns, Formula points, Optional<Classifier> classifier) implements Pattern {
    public Marker {
        Objects.requireNonNull(columns, "columns");
        Objects.requireNonNull(points, "points");
        Objects.requireNonNull(classifier, "classifier");
    }

    public static final PatternType TYPE = new PatternType("marker", "One figure as columns, another as points on them",
            List.of(Key.required("columns", Takes.FIGURE, "the figure with bars"),
                    Key.required("points", Takes.FIGURE, "the figure with points; a rule judges these")),
            true, true, "one column named after each figure; with a rule, a column of points a class", """
                      ●
                     ███  ●
                     ███ ███ ███
                     ███ ███ ███ ●
                    """, """
                    pattern: marker
                    category: station
                    columns: generated_mwh
                    points: licensed_mwh
                    """, given -> new Marker(given.figure("columns"), given.figure("points"), Classifiers.given(given)));

    public static Marker of(Formula columns, Formula points) {
        return new Marker(columns, points, Optional.empty());
    }

    /** Two columns of a table. */
    public static Marker of(String columns, String points) {
        return of(Formulas.column(columns), Formulas.column(points));
    }

    public Marker classify(Classifier rule) {
        return new Marker(columns, points, Optional.of(rule));
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
        return FiguresRead.of("columns", columns, "points", points);
    }

    @Override
    public Map<String, List<String>> groups() {
        return combination().groups();
    }

    @Override
    public List<String> seriesNames() {
        List<String> names = new ArrayList<>(List.of(columns.title()));
        names.addAll(combination().columns());
        return names;
    }

    private Combination combination() {
        return new Combination(points.title(), points, List.of(new Part(points.title(), points)), classifier);
    }

    @Override
    public void describe(PlanBuilder plan) {
        plan.series(columns.title(), columns);
        combination().describe(plan);
        String part = points.title();
        plan.prove(Identity.everywhere("the bars are " + columns, orZero(computed(columns.title())), orZero(columns)),
                Identity.everywhere(combination().named(part) + " = " + points, combination().whole(part), orZero(points)));
        plan.say(present(columns), plan.shownName(), " has a column of ", columns, " (" + columns.title() + ").")
                .say(present(points), plan.shownName(), " has a point at ", points, " (" + points.title() + ").");
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        List<LabelSpot> spots = new ArrayList<>(List.of(LabelSpot.of(columns.title(), truth(true), columns).at(At.BASE)));
        combination().made().forEach(made -> spots.add(LabelSpot.of(made.column(), truth(true), points)));
        return spots;
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> marks = combination().made().stream()
                .map(made -> look.series(made.column(), made.of().isPresent() ? made.role() : Role.ACCENT, true)).toList();
        Series bars = look.series(columns.title(), classifier.isPresent() ? Role.MUTED : Role.BASE, true);
        return Panels.of(look.panel(Placing.OVERLAPPING, 0.6, List.of(bars), classifier)
                .points(marks.stream().map(mark -> new Points(mark, Points.Shape.DOT)).toList()));
    }
}
