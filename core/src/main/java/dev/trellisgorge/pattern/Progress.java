package dev.trellisgorge.pattern;

import dev.trellisgorge.problem.ProblemKind;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Key.Takes;
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
 * Where a figure stands on a row of bands. Each band's column holds its width on every row; {@code position} is the
 * value as a share of its target, held within 0 and 1, absent where either is missing or the target is not above zero. Immutable and thread-safe.
 *
 * @param value  the figure
 * @param target what makes up the whole row
 * @param bands  from the left; their widths add up to 1
 */
public record Progress(Formula value, Formula target, List<Band> bands) implements Pattern {
    private static final String POSITION = "position";
    private static final double TOLERANCE = 1e-9;

    public static final PatternType TYPE = new PatternType("progress", "Where a figure stands on a row of bands",
            List.of(Key.required("value", Takes.FIGURE, "the figure"),
                    Key.required("target", Takes.FIGURE, "what makes up the whole row"),
                    Key.required("bands", Takes.LIST, "[{name: low, width: 0.5}, …]: from the left; the widths add up to 1")
                            .of(Key.required("name", Takes.TEXT, "what the band is called"), Key.required("width", Takes.NUMBER, "its share of the row"))),
            false, true, "one column a band, then position", """
                    Mill Race  ░░░░░░░▒▒▒▒▓▓▓┃▓
                    Fern Pool  ┃░░░░░░▒▒▒▒▓▓▓▓▓
                    """, """
                    pattern: progress
                    category: station
                    value: generated_mwh
                    target: licensed_mwh
                    bands: [{name: low, width: 0.5}, {name: fair, width: 0.3}, {name: good, width: 0.2}]
                    """, Progress::of);

    /** A band, and the share of the row that it takes up: above 0, 1 at most. */
    public record Band(String name, double width) {
        public Band {
            Objects.requireNonNull(name, "name");
        }
    }

    /** @throws IllegalArgumentException where there is no band, a width is not above 0, or they do not add up to 1 */
    public Progress {
        Objects.requireNonNull(value, "value");
        Objects.requireNonNull(target, "target");
        bands = List.copyOf(bands);
        double sum = bands.stream().mapToDouble(Band::width).sum();
        if (!bands.stream().allMatch(band -> band.width() > 0)) {
            throw new IllegalArgumentException("every band's width must be above 0");
        }
        if (!(Math.abs(sum - 1) <= TOLERANCE)) {
            throw new IllegalArgumentException("the bands' widths must add up to 1, not " + Numbers.shortest(sum));
        }
    }

    /** Two columns of a table. */
    public static Progress of(String value, String target, Band... bands) {
        return new Progress(column(value), column(target), List.of(bands));
    }

    private static Pattern of(Given given) {
        List<Band> bands = given.mappings("bands").stream()
                .map(band -> new Band(band.text("name").orElse(""), band.number("width").orElse(1))).toList();
        try {
            return new Progress(given.figure("value"), given.figure("target"), bands);
        } catch (IllegalArgumentException e) {
            given.refuse("bands", ProblemKind.INVALID, e.getMessage());
            return new Progress(given.figure("value"), given.figure("target"), List.of(new Band("band", 1)));
        }
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
        return FiguresRead.of("value", value, "target", target);
    }

    @Override
    public List<String> seriesNames() {
        List<String> names = new ArrayList<>(bands.stream().map(Band::name).toList());
        names.add(POSITION);
        return names;
    }

    @Override
    public void describe(PlanBuilder plan) {
        bands.forEach(band -> plan.series(band.name(), number(band.width())));
        Formula share = only(target.above(number(0)), value.over(target));
        Formula widths = bands.stream().map(band -> computed(band.name())).reduce(Formula::plus).orElseThrow();
        plan.working("attainment", share)
                .series(POSITION, least(number(1), greatest(number(0), computed("attainment"))))
                .prove(Identity.everywhere("the bands add up to 1", widths, number(1)),
                        new Identity("position × target = " + value + ", where it is on the scale",
                                value.atLeast(number(0)).and(value.atMost(target)).and(target.above(number(0))),
                                computed(POSITION).times(target), value))
                .watch(new RowWarning("past its scale: drawn at the end, labelled with the true share", share.above(number(1)).or(share.below(number(0))), share),
                        new RowWarning("no target above zero, so no position", present(value).and(not(present(share))), value));
        Formula name = plan.shownName();
        Formula attained = plan.percent(computed("attainment"));
        Formula onScale = share.atLeast(number(0)).and(share.atMost(number(1)));
        plan.say(onScale, name, " is at ", value, " of ", target, ": ", attained, " of the scale.")
                .say(share.above(number(1)), name, " is at ", value, " of ", target, ": ", attained, ", so the marker is held at the end of the scale.")
                .say(share.below(number(0)), name, " is at ", value, " of ", target, ": ", attained, ", so the marker is held at the start of the scale.");
    }

    @Override
    public Optional<Formula> share() {
        return Optional.of(computed("attainment"));
    }

    @Override
    public List<LabelSpot> labelled(PlanBuilder plan) {
        return List.of(LabelSpot.second(POSITION, truth(true), computed("attainment"), new Format("0.#%")));
    }

    @Override
    public Drawing arrange(Look look) {
        List<Series> stack = new ArrayList<>();
        for (int band = 0; band < bands.size(); band++) {
            stack.add(look.band(bands.get(band).name(), band, bands.size()));
        }
        return Panels.of(Panel.of(new BarGroup(Placing.STACKED, 0.8, stack))
                .points(List.of(new Points(look.series(POSITION, Role.ACCENT, false), Points.Shape.DASH))));
    }
}
