package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.always;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.previous;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Refusal;
import dev.trellisgorge.formula.Watch;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.CalendarUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * A figure and its change against another: series {@code value} and {@code reference}, then the change as {@code up},
 * {@code down} or {@code level}. A missing value is absent in all of them. A value without a previous one has a change of
 * zero, in {@code level}; one whose other reference is missing is {@code unjudged}. Where the reference is zero, a change
 * in per cent is absent.
 *
 * @param value   the figure
 * @param against what it is compared with
 * @param as      amount, value − reference; or share, that divided by the size of the reference
 * @param good    which way is coloured good
 */
public record Variance(Formula value, Against against, As as, Good good) implements Pattern {
    private static final String REFERENCE = "reference";
    private static final double GAP = 0.6;
    private static final List<String> CHANGES = List.of("up", "down", "level");

    public static final PatternType TYPE = new PatternType("variance", "A figure and its change against another",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.required("against", Takes.FIGURE, "{previous: row}, {previous: period} (the calendar period before, by the "
                            + "category; or day, week, month, quarter, year), or an expression"),
                    Key.optional("as", Takes.CHOICE, "percent", "percent or amount"),
                    Key.optional("good", Takes.CHOICE, "up", "up or down: which way is coloured good")),
            false, true, "value, reference, then the change as up, down or level; unjudged where an expression to compare with is missing", """
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
    public sealed interface Against permits PreviousRow, PreviousPeriod, Other {
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
    }

    /** Another figure of the same row. */
    public record Other(Formula figure) implements Against {
    }

    /** How a change is given. */
    public enum As {
        PERCENT, AMOUNT
    }

    /** Which way is good. */
    public enum Good {
        UP, DOWN
    }

    /** The words for what a previous figure is of. */
    private enum Step {
        ROW, PERIOD, DAY, WEEK, MONTH, QUARTER, YEAR
    }

    /** A column's figures against the row before, in per cent. */
    public static Variance of(String value) {
        return new Variance(column(value), new PreviousRow(), As.PERCENT, Good.UP);
    }

    private static Pattern of(Given given) {
        As as = given.choice("as", As.class).orElse(As.PERCENT);
        Good good = given.choice("good", Good.class).orElse(Good.UP);
        Formula value = given.figure("value");
        if (!given.isMapping("against")) {
            return new Variance(value, new Other(given.figure("against")), as, good);
        }
        Step step = given.mapping("against", List.of("previous"), List.of()).flatMap(a -> a.choice("previous", Step.class)).orElse(Step.ROW);
        Against against = step == Step.ROW ? new PreviousRow()
                : new PreviousPeriod(step == Step.PERIOD ? Optional.empty() : Optional.of(CalendarUnit.valueOf(step.name())));
        return new Variance(value, against, as, good);
    }

    public Variance against(Formula figure) {
        return new Variance(value, new Other(figure), as, good);
    }

    /** Against the calendar period before. */
    public Variance againstPreviousPeriod() {
        return new Variance(value, new PreviousPeriod(Optional.empty()), as, good);
    }

    public Variance as(As way) {
        return new Variance(value, against, way, good);
    }

    public Variance good(Good way) {
        return new Variance(value, against, as, way);
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
        return List.of("value", REFERENCE, "up", "down", "level", Classifier.UNJUDGED);
    }

    @Override
    public HelperTable addTo(HelperTable table) {
        Optional<CalendarUnit> unit = against instanceof PreviousPeriod p ? Optional.of(p.unit().orElseGet(() -> CalendarUnit.of(table.category())))
                : Optional.empty();
        Formula compared = unit.map(u -> periodBefore(table, u)).orElseGet(() -> against instanceof Other other ? other.figure() : previous(value));
        boolean own = against instanceof Other;
        Formula without = present(value).and(missing(compared));
        Formula difference = value.minus(compared);
        Formula change = as == As.AMOUNT ? difference : difference.over(magnitude(compared));
        Formula delta = own ? change : choose(without, number(0), change);

        HelperTable made = table.with("value", own ? only(present(compared), value) : value)
                .with(REFERENCE, only(present(value), compared)).working("change", delta)
                .with("up", only(helper("change").above(number(0)), helper("change")))
                .with("down", only(helper("change").below(number(0)), helper("change")))
                .with("level", only(helper("change").equalTo(number(0)), helper("change")));
        if (own && table.anyRow(without)) {
            made = made.with(Classifier.UNJUDGED, only(without, value));
        }
        return made.proving(identities(made)).watching(watches(compared, own))
                .noting(unit.map(u -> new Note("compared with the " + u.name().toLowerCase(Locale.ROOT) + " before", List.of())).stream().toList());
    }

    private Formula periodBefore(HelperTable table, CalendarUnit unit) {
        String category = table.categoryName().orElseThrow();
        Formula period = new Formula.Period(column(category), unit);
        InputCheck.refuse(table, List.of(new Refusal(missing(period), Map.of(category, table.categoryText()),
                "it names no " + unit.name().toLowerCase(Locale.ROOT) + ", so the period before it can't be told")));
        return new Formula.Lookup(value, period, period.minus(number(1)));
    }

    private List<Identity> identities(HelperTable made) {
        Formula change = CHANGES.stream().map(name -> orZero(helper(name))).reduce(Formula::plus).orElseThrow();
        Formula amount = as == As.AMOUNT ? change : change.times(magnitude(helper(REFERENCE)));
        List<Identity> identities = new ArrayList<>();
        identities.add(new Identity(as == As.AMOUNT ? "reference + change = value" : "reference + change × |reference| = value",
                present(helper("change")).and(present(helper(REFERENCE))), helper(REFERENCE).plus(amount), helper("value")).amid(helper(REFERENCE)));
        Formula held = made.find(Classifier.UNJUDGED).isPresent() ? orZero(helper("value")).plus(orZero(helper(Classifier.UNJUDGED)))
                : orZero(helper("value"));
        identities.add(Identity.everywhere(made.find(Classifier.UNJUDGED).isPresent() ? "value + unjudged = " + value : "value = " + value,
                held, orZero(value)));
        return identities;
    }

    private List<Watch> watches(Formula compared, boolean own) {
        Formula without = present(value).and(missing(compared));
        List<Watch> watches = new ArrayList<>();
        watches.add(new Watch(own ? "nothing to compare with, so unjudged" : "no previous figure, so a change of zero", without, value));
        if (as == As.PERCENT) {
            watches.add(new Watch("compared with zero, so no change in per cent", present(value).and(compared.equalTo(number(0))), value));
        }
        return watches;
    }

    @Override
    public List<LabelSpot> labelled(HelperTable table) {
        List<LabelSpot> spots = new ArrayList<>(List.of(LabelSpot.of("value", always(), value)));
        table.find(Classifier.UNJUDGED).ifPresent(c -> spots.add(LabelSpot.of(Classifier.UNJUDGED, always(), value)));
        CHANGES.forEach(name -> spots.add(LabelSpot.second(name, always(), helper("change"), format(name))));
        return spots;
    }

    /** A change has its sign, and no change has none. */
    private String format(String series) {
        String figure = as == As.PERCENT ? "0.#%" : "#,##0.##";
        return series.equals("level") ? figure : "+" + figure + ";-" + figure;
    }

    @Override
    public Optional<Formula> change() {
        return Optional.of(helper("change"));
    }

    @Override
    public Drawing arrange(HelperTable table, Look look) {
        Role up = good == Good.UP ? Role.GOOD : Role.BAD;
        Role down = good == Good.UP ? Role.BAD : Role.GOOD;
        List<Series> figures = new ArrayList<>(List.of(look.series("value", Role.BASE, false)));
        table.find(Classifier.UNJUDGED).ifPresent(c -> figures.add(look.series(Classifier.UNJUDGED, Role.INK, true)));
        List<Series> changes = List.of(look.series("up", up, false), look.series("down", down, false), look.series("level", Role.MUTED, false));
        return Panels.of(look.panel(Placing.OVERLAPPING, GAP, changes).share(0.4), look.panel(Placing.OVERLAPPING, GAP, figures));
    }
}
