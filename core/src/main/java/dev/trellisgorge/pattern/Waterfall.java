package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.always;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.count;
import static dev.trellisgorge.formula.Formulas.floor;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.never;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.previous;
import static dev.trellisgorge.formula.Formulas.row;
import static dev.trellisgorge.formula.Formulas.runningFrom;
import static dev.trellisgorge.formula.Formulas.words;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Refusal;
import dev.trellisgorge.formula.Watch;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * How a start becomes an end: each movement is a bar from the level before it to the level after it, and each start and
 * total a bar from zero. Series {@code spacer}, {@code rise}, {@code fall}, {@code total}, {@code rise under},
 * {@code fall under} (the pieces of a bar that crosses zero), and {@code level}, the running level after the row. A missing
 * movement is absent, and the level carries on.
 *
 * @param value      signed movements; levels for a start and for a stated total, which need none
 * @param kinds      which rows are what
 * @param closing    the name of a computed total that is added at the end, or none
 * @param connectors whether the levels are joined from bar to bar
 */
public record Waterfall(Formula value, Kinds kinds, Optional<String> closing, boolean connectors) implements Pattern {
    private static final List<String> SERIES = List.of("spacer", "rise", "fall", "total", "rise under", "fall under", "level");
    private static final int GUIDES = 3;
    private static final List<String> WORDS = List.of("start", "change", "subtotal", "total");

    public static final PatternType TYPE = new PatternType("waterfall", "How a start becomes an end, movement by movement",
            List.of(Key.required("value", Takes.FIGURE, "signed movements; levels for starts and stated totals"),
                    Key.optional("kind", Takes.COLUMN, "", "a column of the words start, change, subtotal and total; blank is a change"),
                    Key.optional("starts", Takes.NAMES, "", "the rows that are starts, instead of 'kind'"),
                    Key.optional("subtotals", Takes.NAMES, "", "the rows that are subtotals"),
                    Key.optional("totals", Takes.NAMES, "", "the rows that are totals"),
                    Key.optional("closing", Takes.TEXT, "", "adds a computed total of this name at the end"),
                    Key.optional("connectors", Takes.TRUTH, "false", "join the levels from bar to bar")),
            false, true, "spacer, rise, fall, total, rise under, fall under, level", """
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
    }

    /** Lists of category names. */
    public record ByName(List<String> starts, List<String> totals) implements Kinds {
        public ByName {
            starts = List.copyOf(starts);
            totals = List.copyOf(totals);
        }
    }

    /** Movements alone, from zero. */
    public static Waterfall of(String value) {
        return new Waterfall(column(value), new ByName(List.of(), List.of()), Optional.empty(), false);
    }

    private static Pattern of(Given given) {
        Kinds kinds = new ByName(given.names("starts"), Stream.concat(given.names("subtotals").stream(), given.names("totals").stream()).toList());
        boolean lists = given.has("starts") || given.has("subtotals") || given.has("totals");
        if (given.has("kind") && lists) {
            given.refuse("kind", "stands in for 'starts', 'subtotals' and 'totals'; give it or them, not both");
        } else if (given.has("kind")) {
            kinds = given.column("kind").<Kinds>map(ByColumn::new).orElse(kinds);
        }
        return new Waterfall(given.figure("value"), kinds, given.text("closing"), given.truth("connectors"));
    }

    public Waterfall kinds(String column) {
        return new Waterfall(value, new ByColumn(column), closing, connectors);
    }

    public Waterfall kinds(List<String> starts, List<String> totals) {
        return new Waterfall(value, new ByName(starts, totals), closing, connectors);
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
        return kinds instanceof ByName names ? Stream.concat(names.starts().stream(), names.totals().stream()).toList() : List.of();
    }

    @Override
    public List<Refusal> refusals() {
        if (!(kinds instanceof ByColumn by)) {
            return List.of();
        }
        Formula cell = column(by.column());
        Formula known = WORDS.stream().map(word -> cell.equalTo(words(word))).reduce(Formula::or).orElseThrow();
        return List.of(new Refusal(not(known), Map.of(by.column(), cell), "a row is a start, change, subtotal or total"));
    }

    @Override
    public boolean isTotal(Table table, Optional<String> category, int row) {
        if (kinds instanceof ByName names) {
            return category.map(table::column).filter(cells -> cells.isPresent(row) && names.totals().contains(cells.written(row))).isPresent();
        }
        Column words = table.column(((ByColumn) kinds).column());
        return words.isPresent(row) && words.written(row).endsWith("total");
    }

    @Override
    public Table shape(Table table, Optional<String> category) {
        return closing.flatMap(name -> category.map(column -> table.withRowLast(column, name))).orElse(table);
    }

    private Formula named(HelperTable table, List<String> names) {
        return names.stream().map(name -> table.categoryText().equalTo(words(name))).reduce(Formula::or).orElse(never());
    }

    private Formula start(HelperTable table) {
        return kinds instanceof ByColumn by ? column(by.column()).equalTo(words("start")) : named(table, ((ByName) kinds).starts());
    }

    private Formula total(HelperTable table) {
        Formula stated = kinds instanceof ByColumn by ? column(by.column()).equalTo(words("total")).or(column(by.column()).equalTo(words("subtotal")))
                : named(table, ((ByName) kinds).totals());
        return closing.map(name -> stated.or(named(table, List.of(name)))).orElse(stated);
    }

    @Override
    public HelperTable addTo(HelperTable table) {
        Formula start = start(table);
        Formula total = total(table);
        HelperTable more = table.working("movement", choose(start, absent(), choose(total, absent(), value)))
                .working("level", runningFrom(choose(total, absent(), value), start))
                .working("level before", orZero(previous(helper("level"))));
        Formula movement = helper("movement");
        Formula before = helper("level before");
        Formula level = helper("level");
        more = more.working("lower end", least(before, before.plus(movement)))
                .working("upper end", greatest(before, before.plus(movement)));
        Floating bar = new Floating(helper("lower end"), helper("upper end"));
        more = more.working("piece", bar.piece()).working("piece under", bar.under());
        Formula rises = movement.atLeast(number(0));
        Formula falls = movement.below(number(0));
        HelperTable bars = more.with("spacer", bar.spacer())
                .with("rise", only(rises, helper("piece")))
                .with("fall", only(falls, helper("piece")))
                .with("total", choose(start, value, only(total, level)))
                .with("rise under", only(rises, helper("piece under")))
                .with("fall under", only(falls, helper("piece under")))
                .showing("level");
        return (connectors ? withGuides(bars) : bars).proving(identities(start, total, bar))
                .watching(List.of(
                        new Watch("no movement given; the level carries on", choose(start.or(total), never(), missing(value)), absent()),
                        new Watch("no level given for a start; it begins at zero", start.and(missing(value)), absent()),
                        new Watch("a level that crosses zero", bar.crosses(), level)));
    }

    private List<Identity> identities(Formula start, Formula total, Floating bar) {
        Formula moved = present(helper("movement"));
        Formula piece = orZero(helper("rise")).plus(orZero(helper("fall")));
        Formula under = orZero(helper("rise under")).plus(orZero(helper("fall under")));
        Formula size = greatest(magnitude(helper("level before")), magnitude(helper("level")));
        return List.of(
                new Identity("spacer and piece reach the farther end of the bar", moved, orZero(helper("spacer")).plus(piece), bar.farEnd()).amid(size),
                new Identity("the pieces of a movement are as long as it is", moved, magnitude(piece).plus(magnitude(under)), magnitude(helper("movement"))).amid(size),
                new Identity("the level after a movement is the level before it and the movement", moved,
                        helper("level before").plus(helper("movement")), helper("level")).amid(size),
                new Identity("each stated total is the level that the movements reach", total.and(present(value)), helper("level"), value)
                        .amid(Formulas.largest(magnitude(helper("level")))));
    }

    /** One line would join a level to the next one too, so the lines are three: each joins two rows and leaves one out. */
    private HelperTable withGuides(HelperTable table) {
        Formula place = row().minus(number(1));
        Formula turn = place.minus(floor(place.over(number(GUIDES))).times(number(GUIDES)));
        HelperTable more = table.working("turn", turn);
        for (int i = 0; i < GUIDES; i++) {
            Formula begins = helper("turn").equalTo(number(i)).and(row().below(count(number(0))));
            Formula ends = helper("turn").equalTo(number((i + 1) % GUIDES)).and(row().above(number(1)));
            more = more.working(guide(i), choose(begins, helper("level"), only(ends, previous(helper("level")))));
        }
        return more;
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
    public List<LabelSpot> labelled(HelperTable table) {
        return List.of(LabelSpot.of("rise", always(), value), LabelSpot.of("fall", always(), value), LabelSpot.of("total", always(), helper("total")));
    }

    @Override
    public Optional<Formula> change() {
        return Optional.of(value);
    }

    @Override
    public Drawing arrange(HelperTable table, Look look) {
        return Panels.of(look.panel(Placing.STACKED, 0.4, List.of(Series.spacer("spacer"), look.series("rise", Role.GOOD, true),
                look.series("fall", Role.BAD, true), look.series("total", Role.BASE, true), look.series("rise under", Role.GOOD, false),
                look.series("fall under", Role.BAD, false))).lines(guides()));
    }
}
