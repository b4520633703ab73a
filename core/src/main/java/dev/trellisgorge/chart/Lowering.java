package dev.trellisgorge.chart;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.largest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.smallest;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;

/**
 * Rewrites a plain chart into one that needs nothing but certain abilities, or refuses it with a sentence. What it adds are
 * helper columns with formulas, so that a chart stays live in engines that keep formulas.
 */
public final class Lowering {
    private static final double THIN = 0.006;
    private static final double LABEL_ROOM = 0.14;

    private final Set<Ability> has;

    public Lowering(Set<Ability> abilities) {
        this.has = abilities.isEmpty() ? EnumSet.noneOf(Ability.class) : EnumSet.copyOf(abilities);
    }

    /**
     * The chart as one that needs the abilities alone; several, with the same categories in the same order, where it has
     * panels and they are drawn one by one.
     *
     * @throws BadInput with a sentence that says what is missing
     */
    public List<PlainChart> lower(PlainChart chart) {
        if (chart.drawing() instanceof TextCells) {
            require(Ability.TEXT_CELLS, chart, "texts beside the categories");
            return List.of(chart);
        }
        if (chart.drawing() instanceof Ring ring) {
            require(Ability.RINGS, chart, "rings");
            return List.of(lacks(Ability.START_ANGLE) && ring.start() != 0 ? turned(chart, ring) : chart).stream().map(this::withoutTheUnseen).toList();
        }
        Panels panels = (Panels) chart.drawing();
        if (panels.panels().size() == 1 || !lacks(Ability.PANELS)) {
            PlainChart whole = lowered(chart, panels);
            boolean reversed = lacks(Ability.REVERSED_CATEGORIES) && chart.orientation() == Orientation.HORIZONTAL;
            return List.of(reversed ? whole.over(whole.data().reversed()) : whole);
        }
        List<PlainChart> parts = new ArrayList<>();
        HelperTable data = chart.data();
        for (Panel panel : panels.panels()) {
            PlainChart part = lowered(chart.over(data), new Panels(List.of(panel), panels.categoriesShown()));
            data = part.data();
            parts.add(part);
        }
        HelperTable shared = lacks(Ability.REVERSED_CATEGORIES) && chart.orientation() == Orientation.HORIZONTAL ? data.reversed() : data;
        return parts.stream().map(part -> part.over(shared)).toList();
    }

    private boolean lacks(Ability ability) {
        return !has.contains(ability);
    }

    private void require(Ability ability, PlainChart chart, String what) {
        if (lacks(ability)) {
            throw refused(chart, what);
        }
    }

    private static BadInput refused(PlainChart chart, String what) {
        return new BadInput(Place.of("chart '" + chart.name() + "'"), "files of this kind can't show " + what
                + ", which the chart needs; draw it to another kind, such as .svg");
    }

    private PlainChart lowered(PlainChart chart, Panels panels) {
        PlainChart whole = chart;
        List<Panel> done = new ArrayList<>();
        for (Panel panel : panels.panels()) {
            Work work = new Work(whole, panel);
            done.add(work.lower());
            whole = work.chart;
        }
        whole = whole.drawing(new Panels(done, panels.categoriesShown()));
        whole = lacks(Ability.LABEL_TEXT) ? labelledAtTheBase(whole) : whole;
        whole = lacks(Ability.ABSENT_CELLS) ? withoutAbsentCells(whole) : whole;
        return withoutTheUnseen(whole);
    }

    /** What has no fill gets the ground's. */
    private PlainChart withoutTheUnseen(PlainChart chart) {
        return lacks(Ability.NO_FILL) ? each(chart, series -> series.fill().isPresent() || series.outline().isPresent() ? series
                : series.filled(Optional.of(Role.PAPER.color()))) : chart;
    }

    /** The true figures go into the category's text, as the engine labels a bar with its own length or not at all. */
    private static PlainChart labelledAtTheBase(PlainChart chart) {
        List<Series> labelled = chart.series().stream().filter(series -> series.label().isPresent()).toList();
        if (labelled.isEmpty()) {
            return chart;
        }
        String[] texts = new String[chart.data().rowCount()];
        for (int row = 0; row < texts.length; row++) {
            StringBuilder text = new StringBuilder(noteOf(chart, row));
            for (Series series : labelled) {
                String label = chart.labelText(series, row);
                text.append(label.isEmpty() ? "" : (text.length() == 0 ? "" : ", ") + label);
            }
            texts[row] = text.length() == 0 ? null : text.toString();
        }
        String column = free(chart.data(), "figures in words");
        HelperTable data = chart.data().withCells(column, absent(), Column.texts(column, texts));
        PlainChart named = new PlainChart(chart.name(), chart.title(), chart.subtitle(), chart.orientation(), data, chart.printed(), chart.labels(),
                Optional.of(new Label(column, labelled.get(0).label().orElseThrow().format(), Label.At.BASE)), chart.drawing(), chart.stamp());
        return each(named, series -> series.labelled(Optional.empty()));
    }

    private static String noteOf(PlainChart chart, int row) {
        return chart.note().map(note -> chart.text(note, row)).orElse("");
    }

    /** Absent cells become zeros, and their labels absent. */
    private static PlainChart withoutAbsentCells(PlainChart chart) {
        HelperTable[] data = {chart.data()};
        PlainChart filled = each(chart, series -> {
            if (isFull(data[0].column(series.column()).cells())) {
                return series;
            }
            String zeroes = free(data[0], series.column() + " or zero");
            data[0] = data[0].working(zeroes, orZero(helper(series.column())));
            Optional<Label> label = series.label().map(shown -> {
                String text = free(data[0], shown.column() + " where drawn");
                data[0] = data[0].working(text, only(present(helper(series.column())), helper(shown.column())));
                return new Label(text, shown.format(), shown.at());
            });
            return series.named(zeroes).labelled(label);
        });
        return filled.over(data[0]);
    }

    private static boolean isFull(Column cells) {
        return IntStream.range(0, cells.size()).allMatch(cells::isPresent);
    }

    /** Rewrites every series of a chart. */
    private static PlainChart each(PlainChart chart, Function<Series, Series> change) {
        if (chart.drawing() instanceof Ring ring) {
            return chart.drawing(new Ring(ring.hole(), ring.start(),
                    ring.tracks().stream().map(track -> track.stream().map(change).toList()).toList(), ring.centre()));
        }
        Panels panels = (Panels) chart.drawing();
        List<Panel> changed = panels.panels().stream().map(panel -> panel
                .lines(panel.lines().stream().map(line -> new Line(change.apply(line.series()), line.dashed(), line.guide())).toList())
                .bars(panel.bars().stream().map(group -> new BarGroup(group.placing(), group.gap(), group.series().stream().map(change).toList())).toList())
                .points(panel.points().stream().map(points -> new Points(change.apply(points.series()), points.shape())).toList())).toList();
        return chart.drawing(new Panels(changed, panels.categoriesShown()));
    }

    private static String free(HelperTable data, String wanted) {
        String name = wanted;
        for (int i = 2; data.find(name).isPresent(); i++) {
            name = wanted + " " + i;
        }
        return name;
    }

    /** The ring cut at the top, and begun there: each slice as the piece past the top and the piece before it. */
    private static PlainChart turned(PlainChart chart, Ring ring) {
        HelperTable data = chart.data();
        List<List<Series>> tracks = new ArrayList<>();
        for (List<Series> track : ring.tracks()) {
            Formula whole = track.stream().map(slice -> orZero(helper(slice.column()))).reduce(Formula::plus).orElse(number(0));
            List<Series> past = new ArrayList<>();
            List<Series> before = new ArrayList<>();
            Formula at = whole.times(number(ring.start() / 360));
            for (Series slice : track) {
                Formula size = orZero(helper(slice.column()));
                Formula end = at.plus(size);
                Formula beyond = greatest(number(0), end.minus(greatest(at, whole)));
                String second = free(data, slice.column() + " past the top");
                data = data.working(second, beyond);
                String first = free(data, slice.column() + " before the top");
                data = data.working(first, size.minus(helper(second)));
                past.add(slice.named(second).inLegend(false));
                before.add(slice.named(first));
                at = end;
            }
            past.addAll(before);
            tracks.add(past);
        }
        return chart.over(data).drawing(new Ring(ring.hole(), 0, tracks, ring.centre()));
    }

    /** One panel on its way down; {@link #chart} gathers the columns that it needs. */
    private final class Work {
        private final boolean upright;
        private final double extent;
        private PlainChart chart;
        private Panel panel;

        Work(PlainChart chart, Panel panel) {
            this.chart = chart;
            this.panel = panel;
            this.upright = chart.orientation() == Orientation.VERTICAL;
            PlainChart.Extent covered = chart.extent(panel);
            this.extent = covered.high() > covered.low() ? covered.high() - covered.low() : 1;
        }

        Panel lower() {
            if (panel.scale().backwards() && lacks(Ability.BACKWARDS_SCALE)) {
                turnRound();
            }
            if (!panel.references().isEmpty() && lacks(Ability.REFERENCE_LINES)) {
                references();
            }
            if (!panel.points().isEmpty() && lacks(upright ? Ability.POINTS : Ability.LYING_POINTS)) {
                points();
            }
            if (!panel.lines().isEmpty() && lacks(Ability.LINES)) {
                lines();
            }
            if (panel.bars().size() > 1 && lacks(Ability.LAYERS) || panel.bars().size() > 2 && lacks(Ability.MANY_LAYERS)) {
                throw refused(chart, panel.bars().size() + " groups of bars over each other");
            }
            groups(this::signedStacks, Ability.SIGNED_STACKS);
            groups(this::withoutOverlap, Ability.OVERLAP);
            if (lacks(Ability.STACK_END_LABELS)) {
                panel = panel.bars(panel.bars().stream().map(this::withLabelCarriers).toList());
            }
            if (lacks(Ability.REACHING_SCALE) && (panel.bars().size() > 1 || !panel.scale().reaches().isEmpty())) {
                reaches();
            }
            return panel;
        }

        private interface Split {
            List<BarGroup> of(BarGroup group);
        }

        private void groups(Split split, Ability ability) {
            if (lacks(ability)) {
                panel = panel.bars(panel.bars().stream().flatMap(group -> split.of(group).stream()).toList());
            }
        }

        private String column(String wanted, Formula formula) {
            String name = free(chart.data(), wanted);
            chart = chart.over(chart.data().working(name, formula));
            return name;
        }

        /** Each figure of a panel that runs backwards as its opposite, on a scale that runs forwards. */
        private void turnRound() {
            Function<Series, Series> opposite = series -> series.named(column("opposite of " + series.column(), number(0).minus(helper(series.column()))));
            List<String> reached = panel.scale().reaches().stream().map(reach -> column("opposite of " + reach, number(0).minus(helper(reach)))).toList();
            PlainChart turned = each(chart.drawing(new Panels(List.of(panel), true)), opposite);
            panel = turned.panels().get(0).scale(new Scale(reached, false)).references(panel.references().stream()
                    .map(line -> new ReferenceLine(line.name(), number(0).minus(line.at()), -line.value())).toList());
        }

        /** A line through the middle of every category; over lying bars, which lines can't cross, a thin bar without gaps. */
        private void references() {
            List<Line> lines = new ArrayList<>(panel.lines());
            List<Points> points = new ArrayList<>(panel.points());
            List<BarGroup> bars = new ArrayList<>(panel.bars());
            List<Series> marks = new ArrayList<>();
            for (ReferenceLine reference : panel.references()) {
                String level = column(reference.name(), reference.at());
                Series drawn = new Series(level, reference.name(), Role.INK, Optional.of(Role.INK.color()), Optional.empty(), false, Optional.empty(), true);
                if (upright && !lacks(Ability.LINES)) {
                    lines.add(new Line(drawn, true, false));
                } else if (!lacks(Ability.LAYERS) && !lacks(Ability.SIGNED_STACKS)) {
                    marks.add(drawn);
                } else if (!lacks(upright ? Ability.POINTS : Ability.LYING_POINTS)) {
                    points.add(new Points(drawn, Points.Shape.DASH));
                } else {
                    throw refused(chart, "the line '" + reference.name() + "'");
                }
            }
            if (!marks.isEmpty()) {
                bars.add(new BarGroup(Placing.STACKED, 0, thin(marks)));
            }
            panel = panel.lines(lines).points(points).bars(bars).references(List.of());
        }

        private void points() {
            List<BarGroup> bars = new ArrayList<>(panel.bars());
            double gap = bars.isEmpty() ? 0 : bars.get(0).gap();
            if (lacks(Ability.LAYERS) || lacks(Ability.SIGNED_STACKS)) {
                throw refused(chart, "points over these bars");
            }
            bars.add(new BarGroup(Placing.STACKED, gap, thin(panel.points().stream().map(Points::series).toList())));
            panel = panel.points(List.of()).bars(bars);
        }

        /**
         * A thin slice around each figure, on one stack: a spacer goes from the slice before to the next one. Figures that are
         * absent on a row take up nothing there; the others must not come nearer to zero than the ones before them.
         */
        private List<Series> thin(List<Series> all) {
            Formula half = number(extent * THIN / 2);
            Formula up = number(0);
            Formula down = number(0);
            List<Series> stack = new ArrayList<>();
            for (Series series : inOrder(all)) {
                Formula figure = helper(series.column());
                Formula above = figure.atLeast(number(0));
                Formula spacer = choose(above, greatest(number(0), figure.minus(half).minus(up)), least(number(0), figure.plus(half).minus(down)));
                String below = column("up to " + series.column(), spacer);
                String mark = column("mark of " + series.column(), only(present(figure), choose(above, half.plus(half), number(0).minus(half).minus(half))));
                Formula reached = orZero(helper(below)).plus(orZero(helper(mark)));
                up = up.plus(greatest(number(0), reached));
                down = down.plus(least(number(0), reached));
                stack.add(Series.spacer(below));
                stack.add(series.named(mark));
            }
            return stack;
        }

        /** The nearest to zero first, by the largest size of each. */
        private List<Series> inOrder(List<Series> all) {
            return all.stream().sorted(Comparator.comparingDouble(series -> {
                Column cells = chart.data().column(series.column()).cells();
                return IntStream.range(0, cells.size()).mapToDouble(cells::number).filter(figure -> !Double.isNaN(figure)).map(Math::abs).max().orElse(0);
            })).toList();
        }

        private void lines() {
            List<Points> points = new ArrayList<>(panel.points());
            for (Line line : panel.lines()) {
                if (!line.guide() && lacks(upright ? Ability.POINTS : Ability.LYING_POINTS)) {
                    throw refused(chart, "the line '" + line.series().name() + "'");
                }
                if (!line.guide()) {
                    points.add(new Points(line.series(), Points.Shape.DASH));
                }
            }
            panel = panel.lines(List.of()).points(points);
        }

        /** Bars in one place, as a stack: right where a row has at most one on each side of zero. */
        private List<BarGroup> withoutOverlap(BarGroup group) {
            if (group.placing() != Placing.OVERLAPPING) {
                return List.of(group);
            }
            for (int row = 0; row < chart.data().rowCount(); row++) {
                if (count(group, row, 1) > 1 || count(group, row, -1) > 1
                        || lacks(Ability.SIGNED_STACKS) && count(group, row, 1) + count(group, row, -1) > 1) {
                    throw refused(chart, "several bars in one place (row '" + chart.data().category().written(row) + "')");
                }
            }
            return List.of(new BarGroup(Placing.STACKED, group.gap(), group.series()));
        }

        private long count(BarGroup group, int row, int sign) {
            return group.series().stream().filter(series -> Math.signum(chart.data().column(series.column()).cells().number(row)) == sign).count();
        }

        /** A stack with pieces on both sides of zero as two stacks in one place: what is above it, and what is below. */
        private List<BarGroup> signedStacks(BarGroup group) {
            boolean both = IntStream.range(0, chart.data().rowCount()).anyMatch(row -> count(group, row, 1) > 0 && count(group, row, -1) > 0);
            if (group.placing() != Placing.STACKED || !both) {
                return List.of(group);
            }
            if (lacks(Ability.LAYERS)) {
                throw refused(chart, "stacks on both sides of zero");
            }
            return List.of(side(group, "above zero", figure -> figure.atLeast(number(0)), true), side(group, "below zero", figure -> figure.below(number(0)), false));
        }

        private BarGroup side(BarGroup group, String words, Function<Formula, Formula> kept, boolean named) {
            return new BarGroup(Placing.STACKED, group.gap(), group.series().stream().map(series -> {
                Formula figure = helper(series.column());
                return series.named(column(series.column() + " " + words, only(kept.apply(figure), figure))).inLegend(named && series.inLegend());
            }).toList());
        }

        /** A label past the end of a stack stands at the base of an unseen piece there. */
        private BarGroup withLabelCarriers(BarGroup group) {
            if (group.placing() != Placing.STACKED) {
                return group;
            }
            List<Series> all = new ArrayList<>();
            List<Series> carriers = new ArrayList<>();
            for (Series series : group.series()) {
                Optional<Label> past = series.label().filter(label -> label.at() == Label.At.END);
                all.add(past.isPresent() ? series.labelled(Optional.empty()) : series);
                past.ifPresent(label -> {
                    Formula figure = helper(series.column());
                    Formula room = choose(figure.below(number(0)), number(-extent * LABEL_ROOM), number(extent * LABEL_ROOM));
                    String carrier = column("room for the label of " + series.column(), only(present(figure), room));
                    carriers.add(Series.spacer(carrier).labelled(Optional.of(new Label(label.column(), label.format(), Label.At.BASE))));
                });
            }
            all.addAll(carriers);
            return new BarGroup(group.placing(), group.gap(), all);
        }

        /** Unseen pieces that make every group of bars reach equally far, so that each gets the same scale. */
        private void reaches() {
            Formula high = number(0);
            Formula low = number(0);
            for (String reach : panel.scale().reaches()) {
                high = greatest(high, orZero(largest(helper(reach))));
                low = least(low, orZero(smallest(helper(reach))));
            }
            for (BarGroup group : panel.bars()) {
                Formula up = top(group, true);
                Formula down = top(group, false);
                high = greatest(high, orZero(largest(up)));
                low = least(low, orZero(smallest(down)));
            }
            String highest = column("high end of the scale", high);
            String lowest = column("low end of the scale", low);
            panel = panel.bars(panel.bars().stream().map(group -> reaching(group, highest, lowest)).toList());
        }

        private BarGroup reaching(BarGroup group, String highest, String lowest) {
            List<Series> all = new ArrayList<>(group.series());
            boolean stacked = group.placing() == Placing.STACKED;
            Formula up = helper(highest).minus(stacked ? top(group, true) : number(0));
            Formula down = helper(lowest).minus(stacked ? top(group, false) : number(0));
            all.add(Series.spacer(column("up to the scale's end", only(up.above(number(0)), up))));
            all.add(Series.spacer(column("down to the scale's end", only(down.below(number(0)), down))));
            return new BarGroup(group.placing(), group.gap(), all);
        }

        /** How far a row's bars reach above zero, or below it. */
        private Formula top(BarGroup group, boolean above) {
            Formula reached = number(0);
            for (Series series : group.series()) {
                Formula figure = orZero(helper(series.column()));
                Formula side = above ? greatest(number(0), figure) : least(number(0), figure);
                reached = group.placing() == Placing.STACKED ? reached.plus(side) : above ? greatest(reached, side) : least(reached, side);
            }
            return reached;
        }
    }
}
