package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.coalesce;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.cumulative;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.lag;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.rowCount;
import static dev.trellisgorge.formula.Formulas.rowNumber;
import static dev.trellisgorge.formula.Formulas.sum;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Step;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A total, then its parts stepping down to nothing. The total's row is added, first. Series {@code spacer}, {@code part},
 * {@code part under} (the piece below zero of a bar that crosses it), {@code total}. A part below zero steps back up. A missing
 * part is absent, and the level carries on. Immutable and thread-safe.
 *
 * @param value      the parts, one a row
 * @param totalName  the name of the added row
 * @param classifier the rule that colours the parts, or none
 */
public record Breakdown(Formula value, String totalName, Optional<Classifier> classifier) implements Pattern {
    public Breakdown {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(totalName, "totalName");
        Objects.requireNonNull(classifier, "classifier");
    }

    public static final PatternType TYPE = new PatternType("breakdown", "A total, then its parts stepping down to nothing",
            List.of(Key.required("value", Takes.FIGURE, "the parts"), Key.optional("total-name", Takes.TEXT, "Total", "the name of the added first row")),
            true, true, "spacer, part, part under, total; with a rule a pair of parts a class", """
                     ███ ▒▒▒
                     ███ ▒▒▒
                     ███     ▒▒▒
                     ███         ▒▒▒
                    """, """
                    pattern: breakdown
                    category: use
                    value: energy_mwh
                    """, given -> new Breakdown(given.figure("value"), given.text("total-name").orElse("Total"), Classifiers.given(given)));

    /** The parts in a table's column. */
    public static Breakdown of(String value) {
        return new Breakdown(column(value), "Total", Optional.empty());
    }

    public Breakdown totalName(String name) {
        return new Breakdown(value, name, classifier);
    }

    public Breakdown classify(Classifier rule) {
        return new Breakdown(value, totalName, Optional.of(rule));
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
        return Map.of("value", value);
    }

    @Override
    public Map<String, List<String>> groups() {
        return combination().groups();
    }

    @Override
    public List<String> seriesNames() {
        return Stream.of(List.of("spacer"), combination().columns(), List.of("total")).flatMap(List::stream).toList();
    }

    @Override
    public List<Step> rows(Optional<String> category) {
        return category.<Step>map(column -> new AddRow(column, totalName, true)).stream().toList();
    }

    private static Floating bar() {
        return new Floating(computed("lower end"), computed("upper end"));
    }

    private Combination combination() {
        return new Combination("part", computed("given"), List.of(new Part("part", bar().piece(), Role.BASE), new Part("part under", bar().under(), Role.BASE)), classifier);
    }

    @Override
    public void describe(PlanBuilder plan) {
        Formula first = rowNumber().equalTo(number(1));
        Formula given = computed("given");
        Formula before = computed("level before");
        plan.working("given", only(rowNumber().above(number(1)), value))
                .working("level", sum(given).minus(cumulative(given)))
                .working("level before", only(present(given), computed("level").plus(given)))
                .working("lower end", least(computed("level"), before))
                .working("upper end", greatest(computed("level"), before))
                .series("spacer", bar().spacer());
        combination().describe(plan);
        Formula size = sum(abs(given));
        Formula last = rowNumber().equalTo(rowCount());
        Formula piece = combination().whole("part");
        plan.series("total", only(first, sum(given)))
                .prove(new Identity("spacer and part reach the farther end of the bar", present(given), orZero(computed("spacer")).plus(piece), bar().farEnd()).amid(size),
                        new Identity("the pieces of a part are as long as it is", present(given), abs(piece).plus(abs(combination().whole("part under"))), abs(given)).amid(size),
                        new Identity("each part goes on from the level that the one before it reaches", present(given), before,
                                coalesce(lag(computed("level")), sum(given))).amid(size),
                        new Identity("the parts step down to nothing", last.and(present(size)), computed("level").plus(size), size),
                        new Identity("total is the sum of the parts", first.and(present(size)), computed("total"), sum(given)).amid(size))
                .watch(new RowWarning("no part given; the level carries on", rowNumber().above(number(1)).and(missing(given)), given),
                        new RowWarning("a part below zero, which steps back up", given.below(number(0)), given),
                        new RowWarning("a bar that crosses zero", bar().crosses(), given));
        plan.say(first, plan.shownName(), " is what the parts come to: ", computed("total"), ".");
        bar().tell(plan, given.atLeast(number(0)), plan.shownName(), " takes the level from ", before, " down to ", computed("level"), ": a part of ", given);
        bar().tell(plan, given.below(number(0)), plan.shownName(), " takes the level from ", before, " back up to ", computed("level"), ": a part of ", given);
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        List<LabelSpot> spots = new ArrayList<>();
        combination().made().stream().filter(made -> made.is("part")).forEach(made -> spots.add(LabelSpot.of(made.column(), truth(true), computed("given"))));
        spots.add(LabelSpot.of("total", truth(true), computed("total")).whereItEnds());
        return spots;
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> stack = new ArrayList<>(List.of(Series.spacer("spacer")));
        // A rule's classes are named once each, by their upper pieces.
        combination().made().forEach(made -> stack.add(look.series(made.column(), made.of().isPresent() ? made.role() : Role.ACCENT, made.of().isPresent() && made.is("part"))));
        stack.add(look.series("total", Role.BASE, false));
        return Panels.of(look.panel(Placing.STACKED, 0.4, stack));
    }
}
