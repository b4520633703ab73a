package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.concat;
import static dev.trellisgorge.formula.Formulas.floor;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.min;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.oneIfPresent;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.repeat;
import static dev.trellisgorge.formula.Formulas.round;
import static dev.trellisgorge.formula.Formulas.text;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.TextCells.TextColumn;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.ProblemKind;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A bar made of characters, for a cell, a terminal or an e-mail. Parts {@code bar left}, for values below zero: padded with
 * spaces on its left to the longest one; and {@code bar}, of which {@code rest} is what fills it up. A zero has an empty
 * text, a missing value none. Where nothing is said of its characters (width, per, glyph, rest, smooth) and no rule parts it, engines that
 * draw bars into cells do so, as long as the figure is. Immutable and thread-safe.
 *
 * @param value      the figure
 * @param width      the glyphs in the longest bar, where {@code per} is not given; at least 1, 40 where it is empty
 * @param per        the units that a glyph stands for, or none for the greatest |value| ÷ width
 * @param glyph      what the bar is made of; blocks where it is empty
 * @param rest       what fills it up to {@code of}, or none
 * @param of         the figure that the rest goes up to, or none
 * @param smooth     whether the end is drawn in eighths of a block; in halves where some bar goes below zero, as the characters for eighths fill a place from the left alone
 * @param classifier the rule that parts the bars, or none
 */
public record TextBar(Formula value, OptionalInt width, Optional<Formula> per, Optional<Glyph> glyph, Optional<Glyph> rest, Optional<Formula> of,
        boolean smooth, Optional<Classifier> classifier) implements Pattern {
    private static final Glyph BLOCK = new Glyph("█");
    private static final String EIGHTHS = "▏▎▍▌▋▊▉";
    private static final String HALF_AT_RIGHT = "▐";
    private static final int HALF = 4;
    private static final String LEFT = "bar left";
    private static final String REST = "rest";
    private static final String FIGURE = "figure";
    private static final int STANDARD_WIDTH = 40;
    private static final int LONGEST = Bound.BAR_GLYPHS.count();
    private static final int EIGHT = 8;

    public static final PatternType TYPE = new PatternType("text-bar", "A bar made of characters, for a cell, a terminal or an e-mail",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.optional("width", Takes.NUMBER, "40", "the glyphs in the longest bar"),
                    Key.optional("per", Takes.FIGURE, "the greatest size ÷ width", "the units that a glyph stands for, instead of 'width'"),
                    Key.optional("glyph", Takes.TEXT, "█", "one character; an emoji too"),
                    Key.optional("rest", Takes.TEXT, "", "a character for what is left to 'of'"),
                    Key.optional("of", Takes.FIGURE, "", "the figure that the rest goes up to"),
                    Key.optional("smooth", Takes.TRUTH, "false", "end in eighths of a block; in halves where some value is below zero, so that both sides are as exact")),
            true, true, "bar left (for values below zero), bar; with a rule a pair a class", """
                     Mon ████████████ 400
                     Tue ██████▌ 215
                     Wed ▏ 4
                    """, """
                    pattern: text-bar
                    category: day
                    value: fish
                    width: 24
                    smooth: true
                    """, TextBar::of);

    /** @throws IllegalArgumentException where the width is below 1, or eighths are asked of another glyph than the block */
    public TextBar {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(per, "per");
        Objects.requireNonNull(glyph, "glyph");
        Objects.requireNonNull(rest, "rest");
        Objects.requireNonNull(of, "of");
        Objects.requireNonNull(classifier, "classifier");
        if (width.orElse(STANDARD_WIDTH) < 1) {
            throw new IllegalArgumentException("a bar is at least 1 glyph wide, not " + width.getAsInt());
        }
        if (smooth && !glyph.orElse(BLOCK).equals(BLOCK)) {
            throw new IllegalArgumentException("eighths go with the glyph █, not with " + glyph.get().text());
        }
    }

    /** Bars of blocks of a table's column, 40 wide. */
    public static TextBar of(String value) {
        return of(column(value));
    }

    public static TextBar of(Formula value) {
        return new TextBar(value, OptionalInt.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), false, Optional.empty());
    }

    private static Pattern of(Given given) {
        Formula value = given.figure("value");
        if (given.has("width") && given.has("per")) {
            given.refuse("width", ProblemKind.CONFLICT, "stands in for 'per'; give one of them");
        }
        if (given.has("rest") != given.has("of")) {
            given.refuse(given.has("rest") ? "rest" : "of", ProblemKind.CONFLICT, "goes together with '" + (given.has("rest") ? "of" : "rest") + "'");
        }
        double width = given.number("width").orElse(STANDARD_WIDTH);
        Optional<Formula> per = given.has("per") ? Optional.of(given.figure("per")) : Optional.empty();
        Optional<Formula> of = given.has("of") ? Optional.of(given.figure("of")) : Optional.empty();
        Optional<Glyph> glyph = glyph(given, "glyph");
        Optional<Glyph> rest = glyph(given, "rest");
        if (!(width >= 1 && width <= LONGEST && width == Math.rint(width))) {
            given.refuse("width", ProblemKind.INVALID, "must be a whole number from 1 to " + LONGEST);
            return of(value);
        }
        try {
            return new TextBar(value, given.has("width") ? OptionalInt.of((int) width) : OptionalInt.empty(), per, glyph, rest, of, given.truth("smooth"), Classifiers.given(given));
        } catch (IllegalArgumentException e) {
            given.refuse("smooth", ProblemKind.INVALID, e.getMessage());
            return of(value);
        }
    }

    private static Optional<Glyph> glyph(Given given, String key) {
        return given.text(key).flatMap(text -> {
            try {
                return Optional.of(new Glyph(text));
            } catch (IllegalArgumentException e) {
                given.refuse(key, ProblemKind.INVALID, e.getMessage());
                return Optional.empty();
            }
        });
    }

    public TextBar width(int glyphs) {
        return new TextBar(value, OptionalInt.of(glyphs), per, glyph, rest, of, smooth, classifier);
    }

    public TextBar per(Formula units) {
        return new TextBar(value, width, Optional.of(units), glyph, rest, of, smooth, classifier);
    }

    public TextBar glyph(String character) {
        return new TextBar(value, width, per, Optional.of(new Glyph(character)), rest, of, smooth, classifier);
    }

    public TextBar rest(String character, Formula upTo) {
        return new TextBar(value, width, per, glyph, Optional.of(new Glyph(character)), Optional.of(upTo), smooth, classifier);
    }

    public TextBar inEighths() {
        return new TextBar(value, width, per, glyph, rest, of, true, classifier);
    }

    public TextBar classify(Classifier rule) {
        return new TextBar(value, width, per, glyph, rest, of, smooth, Optional.of(rule));
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
        Map<String, Formula> figures = new LinkedHashMap<>();
        figures.put("value", value);
        per.ifPresent(units -> figures.put("per", units));
        of.ifPresent(upTo -> figures.put("of", upTo));
        return figures;
    }

    @Override
    public Map<String, List<String>> groups() {
        Map<String, List<String>> groups = new LinkedHashMap<>(combination().groups());
        rest.ifPresent(character -> groups.put(REST, List.of(REST)));
        return groups;
    }

    @Override
    public List<String> seriesNames() {
        return combination().columns();
    }

    @Override
    public List<Refusal> refusals() {
        List<Refusal> refusals = new ArrayList<>();
        per.ifPresent(units -> refusals.add(new Refusal(units.atMost(number(0)), Map.of("per", units), "a glyph stands for more than zero units")));
        Formula characters = glyphs(value).times(number(sign().text().length()));
        refusals.add(new Refusal(characters.above(number(LONGEST)), Map.of("the number of characters", characters),
                "a cell holds at most " + LONGEST + "; give a larger 'per'"));
        of.ifPresent(upTo -> {
            Formula filled = glyphs(upTo).times(number(rest.map(character -> character.text().length()).orElse(1)));
            refusals.add(new Refusal(filled.above(number(LONGEST)), Map.of("the number of characters", filled),
                    "a cell holds at most " + LONGEST + "; give a larger 'per'"));
        });
        return refusals;
    }

    private Glyph sign() {
        return glyph.orElse(BLOCK);
    }

    /** Whether it was asked to be of characters, or can't be anything else: a bar in a cell has one colour in all rows. */
    private boolean isOfCharacters() {
        return glyph.isPresent() || width.isPresent() || per.isPresent() || rest.isPresent() || smooth || classifier.isPresent();
    }

    private Formula unit() {
        return per.orElse(max(abs(value)).over(number(width.orElse(STANDARD_WIDTH))));
    }

    /** How many glyphs a figure takes: none for a zero, whatever the unit. */
    private Formula glyphs(Formula figure) {
        return choose(figure.equalTo(number(0)), number(0), round(abs(figure).over(unit())));
    }

    /** The whole glyphs of a bar. */
    private Formula full() {
        return smooth ? floor(computed("eighths").over(number(EIGHT))) : computed("glyphs");
    }

    /** The eighths of the last place, 0 where it is whole. */
    private Formula eighths() {
        return computed("eighths").minus(full().times(number(EIGHT)));
    }

    /** The places of a bar. */
    private Formula taken() {
        return smooth ? full().plus(choose(eighths().above(number(0)), number(1), number(0))) : full();
    }

    private Formula bar() {
        Formula bar = repeat(sign().text(), full());
        Formula ended = smooth ? concat(bar, eighthsSign(eighths())) : bar;
        return rest.isPresent() ? concat(ended, computed(REST)) : ended;
    }

    /** What fills a bar up to {@code of}; empty where there is nothing to fill. */
    private Formula left(Formula upTo) {
        Formula places = choose(present(upTo), greatest(number(0), glyphs(upTo).minus(taken())), number(0));
        return only(value.atLeast(number(0)), repeat(rest.orElseThrow().text(), places));
    }

    private static Formula eighthsSign(Formula eighths) {
        Formula character = text("");
        for (int i = EIGHT - 1; i >= 1; i--) {
            character = choose(eighths.equalTo(number(i)), text(EIGHTHS.substring(i - 1, i)), character);
        }
        return character;
    }

    private Combination combination() {
        Formula longest = max(only(value.below(number(0)), taken()));
        Formula padding = longest.minus(taken()).times(number(sign().width()));
        Formula whole = repeat(sign().text(), full());
        Formula left = concat(repeat(" ", padding), smooth ? concat(choose(eighths().above(number(0)), text(HALF_AT_RIGHT), text("")), whole) : whole);
        return new Combination(value.toString(), value, List.of(new Part(LEFT, only(value.below(number(0)), left)),
                new Part("bar", only(value.atLeast(number(0)), bar()))), classifier);
    }

    @Override
    public void describe(PlanBuilder plan) {
        plan.working("glyphs", glyphs(value));
        if (!isOfCharacters()) {
            plan.working(FIGURE, value);
        }
        if (smooth) {
            Formula places = abs(value).over(unit());
            plan.working("eighths", choose(value.equalTo(number(0)), number(0), choose(min(value).below(number(0)), round(places.times(number(EIGHT / HALF))).times(number(HALF)),
                    round(places.times(number(EIGHT))))));
        }
        of.filter(upTo -> rest.isPresent()).ifPresent(upTo -> plan.forLabels(REST, left(upTo)));
        combination().describe(plan);
        Formula held = combination().made().stream().map(made -> oneIfPresent(computed(made.column()))).reduce(Formula::plus).orElseThrow();
        Formula half = unit().times(number(0.5));
        plan.prove(Identity.everywhere("each " + value + " has one bar", held, oneIfPresent(value)),
                        new Identity("glyphs × per is " + value + " to half a glyph", value.above(number(0)).or(value.below(number(0))),
                                greatest(half, abs(abs(value).minus(computed("glyphs").times(unit())))), half))
                .watch(new RowWarning("too small for a glyph: an empty bar, though not zero",
                        computed("glyphs").equalTo(number(0)).and(abs(value).above(number(0))), value));
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return combination().made().stream().map(made -> LabelSpot.of(made.column(), truth(true), value)).toList();
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> all = look.series(combination());
        return new TextCells(combination().parts().stream().map(part -> new TextColumn(
                all.stream().filter(series -> combination().partOf(series.column()).equals(part.name())).toList(), part.name().equals(LEFT),
                part.name().equals(LEFT) ? Optional.empty() : rest.map(character -> look.series(REST, Role.MUTED, false)))).toList(), isOfCharacters() ? Optional.empty() : Optional.of(FIGURE));
    }
}
