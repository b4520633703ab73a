package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.always;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.count;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.previous;
import static dev.trellisgorge.formula.Formulas.row;
import static dev.trellisgorge.formula.Formulas.running;
import static dev.trellisgorge.formula.Formulas.sum;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.Watch;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A total, then its parts stepping down to nothing. The total's row is added, first. Series {@code spacer}, {@code part},
 * {@code total}. A part below zero steps back up. A missing part is absent, and the level carries on.
 *
 * @param value     the parts, one a row
 * @param totalName the name of the added row
 */
public record Breakdown(Formula value, String totalName) implements Pattern {

    public static final PatternType TYPE = new PatternType("breakdown", "A total, then its parts stepping down to nothing",
            List.of(Key.required("value", Takes.FIGURE, "the parts"), Key.optional("total-name", Takes.TEXT, "Total", "the name of the added first row")),
            false, true, "spacer, part, total", """
                     ███ ▒▒▒
                     ███ ▒▒▒
                     ███     ▒▒▒
                     ███         ▒▒▒
                    """, """
                    pattern: breakdown
                    category: use
                    value: energy_mwh
                    """, given -> new Breakdown(given.figure("value"), given.text("total-name").orElse("Total")));

    /** The parts in a table's column. */
    public static Breakdown of(String value) {
        return new Breakdown(column(value), "Total");
    }

    public Breakdown totalName(String name) {
        return new Breakdown(value, name);
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
        return List.of("spacer", "part", "total");
    }

    @Override
    public Table shape(Table table, Optional<String> category) {
        return category.map(column -> table.withRowFirst(column, totalName)).orElse(table);
    }

    @Override
    public HelperTable addTo(HelperTable table) {
        Formula first = row().equalTo(number(1));
        HelperTable more = table.working("given", only(row().above(number(1)), value))
                .working("level", sum(helper("given")).minus(running(helper("given"))))
                .working("level before", previous(helper("level")));
        Formula given = helper("given");
        Formula size = sum(magnitude(given));
        Formula last = row().equalTo(count(number(0)));
        Formula negative = given.below(number(0));
        return more.with("spacer", choose(negative, helper("level before"), only(present(given), helper("level"))))
                .with("part", magnitude(given))
                .with("total", only(first, sum(given)))
                .proving(List.of(
                        new Identity("spacer + part is the level before a part", given.atLeast(number(0)),
                                orZero(helper("spacer")).plus(orZero(helper("part"))), helper("level before")).amid(size),
                        new Identity("spacer + part is the level after a part below zero", negative,
                                orZero(helper("spacer")).plus(orZero(helper("part"))), helper("level")).amid(size),
                        new Identity("the parts step down to nothing", last.and(present(size)), helper("level").plus(size), size),
                        new Identity("total is the sum of the parts", first.and(present(size)), helper("total"), sum(given))))
                .watching(List.of(
                        new Watch("no part given; the level carries on", row().above(number(1)).and(missing(given)), given),
                        new Watch("a part below zero, which steps back up", negative, given),
                        new Watch("a level below zero, which stacked pieces can't show right", helper("level").below(size.times(number(-1e-9))), helper("level"))));
    }

    @Override
    public List<LabelSpot> labelled(HelperTable table) {
        return List.of(LabelSpot.of("part", always(), helper("given")), LabelSpot.of("total", always(), helper("total")));
    }

    @Override
    public Drawing arrange(HelperTable table, Look look) {
        return Panels.of(look.panel(Placing.STACKED, 0.4, List.of(Series.spacer("spacer"), look.series("part", Role.ACCENT, false),
                look.series("total", Role.BASE, false))));
    }
}
