package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.cumulative;
import static dev.trellisgorge.formula.Formulas.floor;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.lag;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.oneIfPresent;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.rowCount;
import static dev.trellisgorge.formula.Formulas.rowNumber;
import static dev.trellisgorge.formula.Formulas.text;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
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
 * How a start becomes an end: each movement is a bar from the level before it to the level after it, and each start and
 * total a bar from zero. Series {@code spacer}, {@code rise}, {@code fall}, {@code start},
 * {@code subtotal}, {@code total}, {@code rise under}, {@code fall under} (the pieces of a bar that crosses zero), and
 * {@code level}, the running level after the row. A missing movement is absent, and the level carries on. A ranking moves
 * movements alone, within their run between two anchors: starts, subtotals and totals. Immutable and thread-safe.
 *
 * @param value      signed movements; levels for a start and for a stated total, which need none
 * @param kinds      which rows are what
 * @param closing    the name of a computed total that is added at the end, or none
 * @param connectors whether the levels are joined from bar to bar
 */
public record Waterfall(Formula value, Kinds kinds, Optional<String> closing, boolean connectors) implements Pattern {
    private static final List<String> SERIES = List.of("spacer", "rise", "fall", "start", "subtotal", "total", "rise under", "fall under", "level");
    private static final int GUIDES = 3;
    private static final List<String> WORDS = List.of("start", "change", "subtotal", "total");

    public Waterfall {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(kinds, "kinds");
        Objects.requireNonNull(closing, "closing");
    }

    public static final PatternType TYPE = new PatternType("waterfall", "How a start becomes an end, movement by movement",
            List.of(Key.required("value", Takes.FIGURE, "signed movements; levels for starts and stated totals"),
                    Key.optional("kind", Takes.COLUMN, "", "a column of the words start, change, subtotal and total; blank is a change"),
                    Key.optional("starts", Takes.NAMES, "", "the rows that are starts, instead of 'kind'"),
                    Key.optional("subtotals", Takes.NAMES, "", "the rows that are subtotals"),
                    Key.optional("totals", Takes.NAMES, "", "the rows that are totals"),
                    Key.optional("closing", Takes.TEXT, "", "adds a computed total of this name at the end"),
                    Key.optional("connectors", Takes.TRUTH, "false", "join the levels from bar to bar")),
            false, true, "spacer, rise, fall, start, subtotal, total, rise under, fall under, level", """
                                    ▒▒▒
                         ▒▒▒ ░░░    ▒▒▒ ███
                     ███ ▒▒▒ ░░░    ▒▒▒ ███
                     ███     ░░░    ▒▒▒ ███
                     ────────░░░────▒▒▒────
                             ░░░░░░ ▒▒▒
                    """, """
                    pattern: waterfall
                    category: item
                    value: volume_ml
                    kind: kind
                    """, Waterfall::of);

    /** Which rows are starts and which totals; the others are movements. */
    public sealed interface Kinds permits ByColumn, ByName {
    }

    /** A column of the words {@code start}, {@code change}, {@code subtotal}, {@code total}; missing is a change. */
    public record ByColumn(String column) implements Kinds {
        public ByColumn {
            Objects.requireNonNull(column, "column");
        }
    }

    /** Lists of category names. */
    public record ByName(List<String> starts, List<String> subtotals, List<String> totals) implements Kinds {
        public ByName {
            starts = List.copyOf(starts);
            subtotals = List.copyOf(subtotals);
            totals = List.copyOf(totals);
        }

        private List<String> of(String kind) {
            return kind.equals("start") ? starts : kind.equals("subtotal") ? subtotals : totals;
        }
    }

    /** Movements alone, from zero. */
    public static Waterfall of(String value) {
        return new Waterfall(column(value), new ByName(List.of(), List.of(), List.of()), Optional.empty(), false);
    }

    private static Pattern of(Given given) {
        Kinds kinds = new ByName(given.names("starts"), given.names("subtotals"), given.names("totals"));
        boolean lists = given.has("starts") || given.has("subtotals") || given.has("totals");
        if (given.has("kind") && lists) {
            given.refuse("kind", ProblemKind.CONFLICT, "stands in for 'starts', 'subtotals' and 'totals'; give it or them, not both");
        } else if (given.has("kind")) {
            kinds = given.column("kind").<Kinds>map(ByColumn::new).orElse(kinds);
        }
        return new Waterfall(given.figure("value"), kinds, given.text("closing"), given.truth("connectors"));
    }

    public Waterfall kinds(String column) {
        return new Waterfall(value, new ByColumn(column), closing, connectors);
    }

    public Waterfall kinds(List<String> starts, List<String> subtotals, List<String> totals) {
        return new Waterfall(value, new ByName(starts, subtotals, totals), closing, connectors);
    }

    public Waterfall closing(String name) {
        return new Waterfall(value, kinds, Optional.of(name), connectors);
    }

    /** With the levels joined from bar to bar. */
    public Waterfall connected() {
        return new Waterfall(value, kinds, closing, true);
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
    public List<String> seriesNames() {
        return SERIES;
    }

    @Override
    public List<String> categories() {
        return kinds instanceof ByName names ? Stream.of(names.starts(), names.subtotals(), names.totals()).flatMap(List::stream).toList() : List.of();
    }

    @Override
    public List<Refusal> refusals() {
        if (!(kinds instanceof ByColumn by)) {
            return List.of();
        }
        Formula cell = column(by.column());
        Formula known = new Condition.In(cell, WORDS.stream().map(Formulas::text).toList());
        return List.of(new Refusal(not(known), Map.of(by.column(), cell), "a row is a start, change, subtotal or total"));
    }

    @Override
    public Map<String, Formula> remarks() {
        return kinds instanceof ByColumn by ? Map.of("kind", column(by.column())) : Map.of();
    }

    @Override
    public Optional<Formula> totals(Formula category) {
        return Optional.of(is("subtotal", category).or(is("total", category)));
    }

    @Override
    public Optional<Anchors> anchors(Formula category) {
        Formula anchors = is("start", category).or(is("subtotal", category)).or(is("total", category));
        return Optional.of(new Anchors(anchors, "the ranking leaves the level at each start, subtotal and total as it was", level(category)));
    }

    @Override
    public List<Step> rows(Optional<String> category) {
        return closing.flatMap(name -> category.<Step>map(column -> new AddRow(column, name, false))).stream().toList();
    }

    /** True on the rows of a kind. */
    private Formula is(String kind, Formula category) {
        Formula stated = kinds instanceof ByColumn by ? column(by.column()).equalTo(text(kind)) : named(category, ((ByName) kinds).of(kind));
        return kind.equals("total") ? closing.map(name -> stated.or(category.equalTo(text(name)))).orElse(stated) : stated;
    }

    private static Formula named(Formula category, List<String> names) {
        return names.isEmpty() ? truth(false) : new Condition.In(category, names.stream().map(Formulas::text).toList());
    }

    /** The running level after a row. */
    private Formula level(Formula category) {
        return cumulative(choose(is("subtotal", category).or(is("total", category)), absent(), value), is("start", category));
    }

    @Override
    public void describe(PlanBuilder plan) {
        Formula category = plan.categoryText();
        Formula start = is("start", category);
        Formula subtotal = is("subtotal", category);
        Formula total = is("total", category);
        Formula anchor = start.or(subtotal).or(total);
        plan.working("movement", choose(anchor, absent(), value)).working("level", level(category)).working("level before", orZero(lag(computed("level"))));
        Formula movement = computed("movement");
        Formula before = computed("level before");
        Formula after = only(present(movement), computed("level"));
        plan.working("lower end", least(before, after)).working("upper end", greatest(before, after));
        Floating bar = new Floating(computed("lower end"), computed("upper end"));
        plan.working("piece", bar.piece()).working("piece under", bar.under());
        Formula rises = movement.atLeast(number(0));
        Formula falls = movement.below(number(0));
        plan.series("spacer", bar.spacer())
                .series("rise", only(rises, computed("piece")))
                .series("fall", only(falls, computed("piece")))
                .series("start", only(start, value))
                .series("subtotal", only(subtotal, computed("level")))
                .series("total", only(total, computed("level")))
                .series("rise under", only(rises, computed("piece under")))
                .series("fall under", only(falls, computed("piece under")))
                .showing("level")
                .prove(pieces(bar))
                .prove(runs(start, subtotal.or(total), anchor))
                .watch(new RowWarning("no movement given; the level carries on", choose(anchor, truth(false), missing(value)), absent()),
                        new RowWarning("no level given for a start; it begins at zero", start.and(missing(value)), absent()),
                        new RowWarning("a level that crosses zero", bar.crosses(), computed("level")));
        if (connectors) {
            guides(plan);
        }
        tell(plan, start, subtotal.or(total), rises, falls);
    }

    private void tell(PlanBuilder plan, Formula start, Formula anchors, Formula rises, Formula falls) {
        Formula name = plan.shownName();
        plan.say(start.and(present(value)), name, " starts the level at ", value, ".")
                .say(anchors.and(present(computed("level"))), name, " is where the level has come to: ", computed("level"), ".")
                .say(choose(start.or(anchors), truth(false), missing(value)), name, " has no figure; the level stays at ", computed("level"), ".");
        Floating bar = new Floating(computed("lower end"), computed("upper end"));
        bar.tell(plan, rises, name, " takes the level from ", computed("level before"), " to ", computed("level"), ": a rise of ", abs(computed("movement")));
        bar.tell(plan, falls, name, " takes the level from ", computed("level before"), " to ", computed("level"), ": a fall of ", abs(computed("movement")));
    }

    private Identity[] pieces(Floating bar) {
        Formula moved = present(computed("movement"));
        Formula piece = orZero(computed("rise")).plus(orZero(computed("fall")));
        Formula under = orZero(computed("rise under")).plus(orZero(computed("fall under")));
        Formula size = greatest(abs(computed("level before")), abs(computed("level")));
        return new Identity[] {
            new Identity("spacer and piece reach the farther end of the bar", moved, orZero(computed("spacer")).plus(piece), bar.farEnd()).amid(size),
            new Identity("the pieces of a movement are as long as it is", moved, abs(piece).plus(abs(under)), abs(computed("movement"))).amid(size),
            new Identity("the level after a movement is the level before it and the movement", moved,
                    computed("level before").plus(computed("movement")), computed("level")).amid(size)};
    }

    /** What each run of movements begins and ends with. */
    private Identity[] runs(Formula start, Formula closes, Formula anchor) {
        Formula movements = choose(anchor, number(0), oneIfPresent(value));
        Formula starts = choose(start, number(1), number(0));
        Formula open = orZero(lag(cumulative(movements, anchor))).plus(orZero(lag(cumulative(starts, closes))));
        return new Identity[] {
            new Identity("no movement and no other start is lost before a start", start, open, number(0)),
            new Identity("each stated total is the level that the movements reach", closes.and(present(value)), computed("level"), value)
                    .amid(max(abs(computed("level"))))};
    }

    /** One line would join a level to the next one too, so the lines are three: each joins two rows and leaves one out. */
    private void guides(PlanBuilder plan) {
        Formula place = rowNumber().minus(number(1));
        plan.forLabels("turn", place.minus(floor(place.over(number(GUIDES))).times(number(GUIDES))));
        for (int i = 0; i < GUIDES; i++) {
            Formula begins = computed("turn").equalTo(number(i)).and(rowNumber().below(rowCount()));
            Formula ends = computed("turn").equalTo(number((i + 1) % GUIDES)).and(rowNumber().above(number(1)));
            plan.forLabels(guide(i), choose(begins, computed("level"), only(ends, lag(computed("level")))));
        }
    }

    private static String guide(int i) {
        return "level line " + (i + 1);
    }

    private List<Line> guides() {
        List<Line> lines = new ArrayList<>();
        for (int i = 0; connectors && i < GUIDES; i++) {
            lines.add(new Line(Series.spacer(guide(i)).filled(Optional.of(Role.MUTED.color())), false, true));
        }
        return lines;
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return List.of(LabelSpot.of("rise", truth(true), value), LabelSpot.of("fall", truth(true), value), LabelSpot.of("start", truth(true), computed("start")).whereItEnds(),
                LabelSpot.of("subtotal", truth(true), computed("subtotal")).whereItEnds(), LabelSpot.of("total", truth(true), computed("total")).whereItEnds());
    }

    @Override
    public Optional<Formula> change() {
        return Optional.of(value);
    }

    @Override
    public Drawing arrange(Look look) {
        // Starts, subtotals and totals look alike, so the legend names one of them.
        return Panels.of(look.panel(Placing.STACKED, 0.4, List.of(Series.spacer("spacer"), look.series("rise", Role.GOOD, true),
                look.series("fall", Role.BAD, true), look.series("start", Role.BASE, false), look.series("subtotal", Role.BASE, false),
                look.series("total", Role.BASE, true), look.series("rise under", Role.GOOD, false), look.series("fall under", Role.BAD, false)))
                .lines(guides()));
    }
}
