package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.lag;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.CalendarUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A figure and its change against another: series {@code value} and {@code reference}, then the change as {@code up},
 * {@code down} or {@code level}; where it is given in two ways, three series for each. A missing value is absent in all of
 * them. A value that has no reference, or in per cent one of zero, has no change. Immutable and thread-safe.
 *
 * @param value   the figure
 * @param against what it is compared with
 * @param as      amount, value − reference; or per cent, that divided by the size of the reference; a panel each, at least one
 * @param zero    whether a change without a reference is drawn as none, and not left out
 */
public record Variance(Formula value, Against against, List<As> as, boolean zero) implements Pattern {
    private static final String REFERENCE = "reference";
    private static final double GAP = 0.6;
    private static final List<String> CHANGES = List.of("up", "down", "level");

    public static final PatternType TYPE = new PatternType("variance", "A figure and its change against another",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.required("against", Takes.FIGURE, "{previous: row}, {previous: period} (the calendar period before, by the "
                            + "category; or day, week, month, quarter, year), or an expression")
                            .of(Key.required("previous", Takes.CHOICE, "the row before, or the calendar period before").among(Step.class)),
                    Key.optional("as", Takes.CHOICES, "percent", "percent or amount, or both as a list: a panel each").among(As.class),
                    Key.optional("without-reference", Takes.CHOICE, "absent", "absent or zero: the change where there is nothing to compare with").among(Without.class)),
            false, true, "value, reference, then the change as up, down or level (three for each of as)", """
                         ▲20%
                                 ▼25%
                     50   60   45
                     ██   ██   ██
                    """, """
                    pattern: variance
                    category: month
                    value: generated_mwh
                    against: {previous: period}
                    """, Variance::of);

    /** What a figure is compared with. */
    public sealed interface Against permits PreviousRow, PreviousPeriod, Other, Earlier {
    }

    /** The row before, whatever it is. */
    public record PreviousRow() implements Against {
    }

    /**
     * The calendar period before; a period that is not in the table is no reference.
     *
     * @param unit its length; empty for the one that the categories go by
     */
    public record PreviousPeriod(Optional<CalendarUnit> unit) implements Against {
        public PreviousPeriod {
            Objects.requireNonNull(unit, "unit");
        }
    }

    /** Another figure of the same row. */
    public record Other(Formula figure) implements Against {
        public Other {
            Objects.requireNonNull(figure, "figure");
        }
    }

    /**
     * A column of the table in which the earlier row's figure stands.
     *
     * @param instead what it was looked up as
     */
    public record Earlier(String column, Against instead) implements Against {
        public Earlier {
            Objects.requireNonNull(column, "column");
            Objects.requireNonNull(instead, "instead");
        }
    }

    /** How a change is given. */
    public enum As {
        PERCENT, AMOUNT
    }

    /** What a change without a reference is. */
    private enum Without {
        ABSENT, ZERO
    }

    /** The words for what a previous figure is of. */
    private enum Step {
        ROW, PERIOD, DAY, WEEK, MONTH, QUARTER, YEAR
    }

    /** @throws IllegalArgumentException where the change is given in no way, or twice in the same */
    public Variance {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(against, "against");
        as = List.copyOf(as);
        if (as.isEmpty() || as.stream().distinct().count() < as.size()) {
            throw new IllegalArgumentException("a change is given as amount, as percent, or as both");
        }
    }

    /** A column's figures against the row before, in per cent. */
    public static Variance of(String value) {
        return new Variance(column(value), new PreviousRow(), List.of(As.PERCENT), false);
    }

    private static Pattern of(Given given) {
        List<As> as = given.choices("as", As.class);
        if (as.stream().distinct().count() < as.size()) {
            given.refuse("as", ProblemKind.CONFLICT, "names one way twice");
            as = List.of();
        }
        Variance bare = new Variance(given.figure("value"), new PreviousRow(), as.isEmpty() ? List.of(As.PERCENT) : as,
                given.choice("without-reference", Without.class).orElse(Without.ABSENT) == Without.ZERO);
        if (!given.isMapping("against")) {
            return bare.against(given.figure("against"));
        }
        Step step = given.mapping("against").flatMap(a -> a.choice("previous", Step.class)).orElse(Step.ROW);
        return step == Step.ROW ? bare : bare.with(new PreviousPeriod(step == Step.PERIOD ? Optional.empty() : Optional.of(CalendarUnit.valueOf(step.name()))));
    }

    private Variance with(Against other) {
        return new Variance(value, other, as, zero);
    }

    public Variance against(Formula figure) {
        return with(new Other(figure));
    }

    /** Against the calendar period before. */
    public Variance againstPreviousPeriod() {
        return with(new PreviousPeriod(Optional.empty()));
    }

    public Variance as(As... ways) {
        return new Variance(value, against, List.of(ways), zero);
    }

    /** With a change without a reference drawn as none. */
    public Variance zeroWithoutReference() {
        return new Variance(value, against, as, true);
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
        if (against instanceof Other other) {
            figures.put("against", other.figure());
        }
        return figures;
    }

    @Override
    public List<String> seriesNames() {
        List<String> names = new ArrayList<>(List.of("value", REFERENCE));
        as.forEach(way -> CHANGES.forEach(name -> names.add(named(name, way))));
        return names;
    }

    /** A series of a change: by the way it is given too, where there are two. */
    private String named(String name, As way) {
        return as.size() == 1 ? name : name + " " + way.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public Optional<Lookback> lookback() {
        return against instanceof Other ? Optional.empty()
                : Optional.of(new Lookback(value, against instanceof PreviousPeriod, against instanceof PreviousPeriod period ? period.unit() : Optional.empty()));
    }

    @Override
    public Pattern comparedWith(String column) {
        return with(new Earlier(column, against));
    }

    @Override
    public void describe(PlanBuilder plan) {
        Formula compared = compared(plan);
        plan.series("value", value).series(REFERENCE, only(present(value), compared));
        Formula reference = computed(REFERENCE);
        for (As way : as) {
            Formula difference = value.minus(reference);
            Formula change = way == As.AMOUNT ? difference : difference.over(abs(reference));
            Formula delta = computed(named("change", way));
            plan.working(named("change", way), zero ? choose(present(value).and(missing(reference)), number(0), change) : change)
                    .series(named("up", way), only(delta.above(number(0)), delta))
                    .series(named("down", way), only(delta.below(number(0)), delta))
                    .series(named("level", way), only(delta.equalTo(number(0)), delta))
                    .prove(identity(way));
            Formula size = way == As.AMOUNT ? abs(delta) : plan.percent(abs(delta));
            Formula name = plan.shownName();
            plan.say(delta.above(number(0)), name, " is ", value, ", against ", reference, ": up by ", size, ".")
                    .say(delta.below(number(0)), name, " is ", value, ", against ", reference, ": down by ", size, ".")
                    .say(delta.equalTo(number(0)).and(present(reference)), name, " is ", value, ", as much as what it is compared with.");
        }
        plan.say(present(value).and(missing(reference)), plan.shownName(), " is ", value, "; there is nothing to compare it with.");
        plan.prove(Identity.everywhere("value = " + value, orZero(computed("value")), orZero(value)))
                .watch(new RowWarning((against instanceof Other ? "nothing to compare with" : "no previous figure") + (zero ? ", so a change of zero" : ", so no change"),
                        present(value).and(missing(reference)), value));
        if (as.contains(As.PERCENT)) {
            plan.watch(new RowWarning("compared with zero, so no change in per cent", reference.equalTo(number(0)), value));
        }
    }

    /** What the value is compared with, as a formula over the plan's rows. */
    private Formula compared(PlanBuilder plan) {
        if (against instanceof Other other) {
            return other.figure();
        } else if (against instanceof PreviousRow) {
            return lag(value);
        }
        Optional<PreviousPeriod> period = against instanceof PreviousPeriod own ? Optional.of(own)
                : ((Earlier) against).instead() instanceof PreviousPeriod instead ? Optional.of(instead) : Optional.empty();
        Optional<CalendarUnit> unit = period.map(p -> unit(plan, p));
        unit.ifPresent(u -> plan.tell(new Note("compared with the " + u.name().toLowerCase(Locale.ROOT) + " before", List.of())));
        return against instanceof Earlier earlier ? column(earlier.column()) : before(plan, unit.orElseThrow());
    }

    private static CalendarUnit unit(PlanBuilder plan, PreviousPeriod period) {
        String category = plan.category().orElseThrow();
        return period.unit().or(() -> plan.schema().field(category).unit()).orElseThrow(() -> new BadInput(plan.schema().place().within("column '" + category + "'"), ProblemKind.MISSING,
                "it can't be told from a computed column which period is before; name it, as in {previous: month}"));
    }

    private Formula before(PlanBuilder plan, CalendarUnit unit) {
        String category = plan.category().orElseThrow();
        Formula period = new Calendar.Period(column(category), unit);
        plan.refuse(List.of(new Refusal(missing(period), Map.of(category, plan.categoryText()),
                "it names no " + unit.name().toLowerCase(Locale.ROOT) + ", so the period before it can't be told")));
        return new Window.Lookup(value, period, period.minus(number(1)));
    }

    private Identity identity(As way) {
        Formula change = CHANGES.stream().map(name -> orZero(computed(named(name, way)))).reduce(Formula::plus).orElseThrow();
        Formula amount = way == As.AMOUNT ? change : change.times(abs(computed(REFERENCE)));
        return new Identity(way == As.AMOUNT ? "reference + change = value" : "reference + change × |reference| = value",
                present(computed(named("change", way))).and(present(computed(REFERENCE))), computed(REFERENCE).plus(amount), computed("value")).amid(computed(REFERENCE));
    }

    @Override
    public Map<String, List<String>> groups() {
        Map<String, List<String>> groups = new LinkedHashMap<>();
        as.forEach(way -> groups.put(as.size() == 1 ? "change" : named("change", way), CHANGES.stream().map(name -> named(name, way)).toList()));
        return groups;
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        List<LabelSpot> spots = new ArrayList<>(List.of(LabelSpot.of("value", truth(true), value)));
        as.forEach(way -> CHANGES.forEach(name -> spots.add(LabelSpot.second(named(name, way), truth(true), computed(named("change", way)), format(name, way)))));
        return spots;
    }

    /** A change has its sign, and no change has none. All have as many decimals, so that they read as one column. */
    private static Format format(String series, As way) {
        boolean isSigned = !series.equals("level");
        if (way == As.AMOUNT) {
            return isSigned ? Format.FITTING_SIGNED : Format.FITTING;
        }
        return new Format(isSigned ? "+0.0%;-0.0%" : "0.0%");
    }

    @Override
    public Optional<Formula> change() {
        return Optional.of(computed(named("change", as.get(0))));
    }

    @Override
    public OptionalInt scaled(int panels) {
        return OptionalInt.of(panels - 1);
    }

    private String heading(Look look, As way) {
        return look.given(as.size() == 1 ? "change" : named("change", way)).orElse(way == As.PERCENT ? "change in %" : "change");
    }

    @Override
    public Drawing arrange(Look look) {
        List<Panel> panels = new ArrayList<>();
        as.forEach(way -> panels.add(look.panel(Placing.OVERLAPPING, GAP, List.of(look.series(named("up", way), Role.GOOD, false), look.series(named("down", way), Role.BAD, false),
                look.series(named("level", way), Role.MUTED, false))).share(0.4).heading(heading(look, way))));
        panels.add(look.panel(Placing.OVERLAPPING, GAP, List.of(look.series("value", Role.BASE, false))).heading(look.given("value").orElse(value.title())));
        return new Panels(panels, true);
    }
}
