package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import static dev.trellisgorge.chart.Role.ACCENT;
import static dev.trellisgorge.chart.Role.BASE;
import static dev.trellisgorge.chart.Role.MUTED;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
import dev.trellisgorge.pattern.Slices.Role;
import dev.trellisgorge.pattern.Slices.Slice;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * A half ring read like a gauge. Rows are its slices, clockwise from the left end, and last the hidden half. Where the
 * scale has zero inside, the fill goes from zero to the value; else from the low end. With bands there is a slice a band
 * and a pointer at the value. The value is held within the scale; the centre says the true figure. A missing value leaves
 * the slices that show it absent. Immutable and thread-safe.
 *
 * @param value one row
 * @param low   the left end of the scale
 * @param high  the right end, above {@code low}
 * @param bands from the low end up to {@code high}, or none
 */
public record Dial(Formula value, double low, double high, List<Band> bands) implements Pattern {
    private static final String POINTER = "pointer";
    private static final String NEEDLE = "needle";
    private static final String TO_POINTER = "up to the needle";
    private static final String PAST_POINTER = "past the needle";
    private static final double NEEDLE_SHARE = 0.016;
    private static final double LEFT = 270;

    public static final PatternType TYPE = new PatternType("dial", "A half ring read like a gauge",
            List.of(Key.required("value", Takes.FIGURE, "the figure; one row"),
                    Key.required("scale", Takes.NUMBERS, "[low, high]: the two ends"),
                    Key.optional("bands", Takes.LIST, "", "[{name: low, to: 20}, …] up to the high end: coloured bands and a pointer")
                            .of(Key.required("name", Takes.TEXT, "what the band is called"), Key.required("to", Takes.NUMBER, "where it ends"))),
            false, false, "rows: the slices clockwise from the left end, then the hidden half; columns: slice, size, role", """
                        ▒▒▒▒▒███
                      ▒▒▒     ░░░
                     ▒▒▒  15   ░░░
                    """, """
                    pattern: dial
                    value: generated_mwh
                    scale: [0, 600]
                    slice: {station: Otter Bend}
                    """, Dial::of);

    /** A band: its name, and the end of the scale's stretch that it takes up. */
    public record Band(String name, double to) {
        public Band {
            Objects.requireNonNull(name, "name");
        }
    }

    /** @throws IllegalArgumentException where the ends do not rise, or the bands do not rise from low up to high */
    public Dial {
        Objects.requireNonNull(value, "value");
        bands = List.copyOf(bands);
        if (!(low < high)) {
            throw new IllegalArgumentException("the scale must rise, and goes from " + Numbers.shortest(low) + " to " + Numbers.shortest(high));
        }
        double from = low;
        for (Band band : bands) {
            if (!(band.to() > from)) {
                throw new IllegalArgumentException("band '" + band.name() + "' ends at " + Numbers.shortest(band.to())
                        + ", which is not above " + Numbers.shortest(from));
            }
            from = band.to();
        }
        if (!bands.isEmpty() && from != high) {
            throw new IllegalArgumentException("the bands end at " + Numbers.shortest(from) + " and the scale at " + Numbers.shortest(high));
        }
    }

    /** A column of a table with one row. */
    public static Dial of(String value, double low, double high) {
        return new Dial(column(value), low, high, List.of());
    }

    private static Pattern of(Given given) {
        Formula value = given.figure("value");
        List<Band> bands = given.mappings("bands").stream()
                .map(band -> new Band(band.text("name").orElse(""), band.number("to").orElse(0))).toList();
        List<Double> scale = given.numbers("scale");
        if (given.has("scale") && scale.size() != 2) {
            given.refuse("scale", ProblemKind.INVALID, "takes two numbers, the low end and the high one");
        } else if (given.has("scale")) {
            try {
                return new Dial(value, scale.get(0), scale.get(1), bands);
            } catch (IllegalArgumentException e) {
                given.refuse(bands.isEmpty() || !(scale.get(0) < scale.get(1)) ? "scale" : "bands", ProblemKind.INVALID, e.getMessage());
            }
        }
        return new Dial(value, 0, 1, List.of());
    }

    public Dial bands(Band... some) {
        return new Dial(value, low, high, List.of(some));
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
        return slices().names();
    }

    private Slices slices() {
        Formula held = least(number(high), greatest(number(low), value));
        Slice hidden = new Slice("hidden", number(high).minus(number(low)), Role.HIDDEN);
        if (!bands.isEmpty()) {
            List<Slice> slices = new ArrayList<>();
            double from = low;
            for (Band band : bands) {
                slices.add(new Slice(band.name(), number(band.to()).minus(number(from)), Role.REST));
                from = band.to();
            }
            slices.add(hidden);
            slices.add(new Slice(POINTER, held, Role.POINTER));
            return new Slices(slices);
        }
        if (low < 0 && high > 0) {
            return new Slices(List.of(
                    new Slice("below rest", least(held, number(0)).minus(number(low)), Role.REST),
                    new Slice("below fill", negate(least(held, number(0))), Role.FILL),
                    new Slice("above fill", greatest(held, number(0)), Role.FILL),
                    new Slice("above rest", number(high).minus(greatest(held, number(0))), Role.REST), hidden));
        }
        return new Slices(List.of(new Slice("fill", held.minus(number(low)), Role.FILL),
                new Slice("rest", number(high).minus(held), Role.REST), hidden));
    }

    @Override
    public void describe(PlanBuilder plan) {
        Formula shown = slices().all().stream().filter(slice -> slice.role() == Role.FILL || slice.role() == Role.REST)
                .map(slice -> computed(slice.name())).reduce(Formula::plus).orElseThrow();
        Formula scale = number(high).minus(number(low));
        slices().describe(plan);
        if (!bands.isEmpty()) {
            needle(plan);
        }
        plan.prove(new Identity("the slices that are shown fill the scale", present(value), shown, scale),
                        Identity.everywhere("the hidden half is as large as the scale", computed("hidden"), scale))
                .watch(new RowWarning("past its scale: drawn at the end, labelled with the true figure",
                        value.below(number(low)).or(value.above(number(high))), value));
        plan.say(present(value), value, " on a scale from ", number(low), " to ", number(high), ".");
    }

    /** The pointer as a thin slice between two spacers that fill the scale. */
    private void needle(PlanBuilder plan) {
        Formula scale = number(high - low);
        Formula half = number((high - low) * NEEDLE_SHARE / 2);
        plan.forLabels(NEEDLE, only(present(computed(POINTER)), half.plus(half)))
                .forLabels(TO_POINTER, least(scale.minus(half).minus(half), greatest(number(0), computed(POINTER).minus(number(low)).minus(half))))
                .forLabels(PAST_POINTER, scale.minus(computed(TO_POINTER)).minus(computed(NEEDLE)));
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return List.of(LabelSpot.of("hidden", present(value), value).at(At.CENTRE));
    }

    @Override
    public Drawing arrange(Look look) {
        List<List<Series>> tracks = new ArrayList<>();
        List<Series> slices = new ArrayList<>();
        int band = 0;
        for (Slice slice : slices().all()) {
            if (slice.role() == Role.HIDDEN) {
                slices.add(Series.spacer(slice.name()));
            } else if (slice.role() != Role.POINTER) {
                slices.add(bands.isEmpty() ? look.series(slice.name(), slice.role() == Role.FILL ? BASE : MUTED, false)
                        : look.band(slice.name(), band++, bands.size()));
            }
        }
        tracks.add(slices);
        if (!bands.isEmpty()) {
            tracks.add(List.of(Series.spacer(TO_POINTER), look.series(POINTER, ACCENT, false).named(NEEDLE).labelled(List.of()),
                    Series.spacer(PAST_POINTER), Series.spacer("hidden")));
        }
        return new Ring(bands.isEmpty() ? 0.6 : 0.5, LEFT, tracks, Optional.of(look.series("hidden", MUTED, false)));
    }
}
