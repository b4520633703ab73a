package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * A bar from one figure to another. Parts {@code spacer}, {@code span}, {@code span under} (the piece below zero of a bar
 * that crosses it). Where one end is missing all are absent. Two dates are days since 1970-01-01. A rule judges
 * {@code to − from}. Immutable and thread-safe.
 *
 * @param from       where the bar starts; not above {@code to}
 * @param to         where it ends
 * @param classifier the rule that colours the bars, or none
 */
public record Range(Formula from, Formula to, Optional<Classifier> classifier) implements Pattern {
    public Range {
        Objects.requireNonNull(from, "from");
        Objects.requireNonNull(to, "to");
        Objects.requireNonNull(classifier, "classifier");
    }

    public static final PatternType TYPE = new PatternType("range", "A bar from one figure to another",
            List.of(Key.required("from", Takes.FIGURE, "where the bar starts, a number or a date; not above 'to'"),
                    Key.required("to", Takes.FIGURE, "where it ends")),
            true, true, "spacer, span, span under; with a rule three a class", """
                     North Sluice      ██████
                     Heron Weir   ████████
                     Mill Race             ███
                    """, """
                    pattern: range
                    category: station
                    from: low_m
                    to: high_m
                    """, given -> new Range(given.figure("from"), given.figure("to"), Classifiers.given(given)));

    public static Range of(Formula from, Formula to) {
        return new Range(from, to, Optional.empty());
    }

    /** Two columns of a table, of numbers or of dates. */
    public static Range of(String from, String to) {
        return of(column(from), column(to));
    }

    public Range classify(Classifier rule) {
        return new Range(from, to, Optional.of(rule));
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
        return Map.of();
    }

    @Override
    public Map<String, Formula> figuresOrDates() {
        return FiguresRead.of("from", from, "to", to);
    }

    /** The same bar in numbers: dates become days. */
    private Range inNumbers(PlanBuilder plan) {
        boolean dates = plan.kind(from).equals(Optional.of(Kind.DATE)) || plan.kind(to).equals(Optional.of(Kind.DATE));
        return dates ? new Range(new Calendar.Period(from, CalendarUnit.DAY), new Calendar.Period(to, CalendarUnit.DAY), classifier) : this;
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
        return List.of(new Refusal(from.above(to), FiguresRead.of("from", from, "to", to), "a bar ends where it starts or after it"));
    }

    private static Floating bar() {
        return new Floating(computed("lower end"), computed("upper end"));
    }

    private Combination combination() {
        return new Combination("bar", to.minus(from), List.of(new Part("spacer", bar().spacer()), new Part("span", bar().piece()),
                new Part("span under", bar().under())), classifier);
    }

    @Override
    public void describe(PlanBuilder plan) {
        inNumbers(plan).describeNumbers(plan);
    }

    private void describeNumbers(PlanBuilder plan) {
        Formula both = present(from).and(present(to));
        plan.working("lower end", only(both, from)).working("upper end", only(both, to));
        combination().describe(plan);
        Formula spacer = combination().whole("spacer");
        Formula span = combination().whole("span");
        plan.prove(new Identity("spacer + span reaches the end of the bar that is farther from zero", both, spacer.plus(span), bar().farEnd()),
                        new Identity("the pieces are as long as the bar", both, abs(span).plus(abs(combination().whole("span under"))), to.minus(from)))
                .watch(new RowWarning("one end is missing, so no bar", present(from).and(missing(to)).or(missing(from).and(present(to))), absent()),
                        new RowWarning("a bar that crosses zero", bar().crosses(), to.minus(from)));
        plan.say(both, plan.shownName(), " runs from ", from, " to ", to, ": a span of ", to.minus(from), ".");
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        Range numbers = inNumbers(plan);
        return combination().made().stream().filter(made -> made.is("span"))
                .map(made -> LabelSpot.of(made.column(), truth(true), numbers.to.minus(numbers.from))).toList();
    }

    @Override
    public Drawing arrange(Look look) {
        return Panels.of(look.panel(Placing.STACKED, 0.6, look.series(combination())));
    }
}
