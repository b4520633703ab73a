package dev.trellisgorge.engine;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.min;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.plan.PlanBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** One panel on its way down; the plan gathers the columns that it needs. */
final class PanelLowering {
    private static final double THIN = 0.006;
    private static final double LABEL_ROOM = 0.14;

    private final Set<Ability> has;
    private final PlanBuilder plan;
    private final boolean upright;
    private final String chart;
    private Panel panel;
    private Optional<String> reach = Optional.empty();

    PanelLowering(Set<Ability> has, PlanBuilder plan, Panel panel, boolean upright, String chart) {
        this.has = has;
        this.plan = plan;
        this.panel = panel;
        this.upright = upright;
        this.chart = chart;
    }

    Panel lower() {
        if (!panel.references().isEmpty() && lacks(Ability.REFERENCE_LINES)) {
            references();
        }
        boolean bars = !upright && lacks(Ability.LYING_MARKS);
        if (!panel.lines().isEmpty() && (bars || lacks(Ability.LINES))) {
            lines();
        }
        if (!panel.points().isEmpty() && bars) {
            points();
        }
        if (panel.bars().size() > 2 && lacks(Ability.MANY_LAYERS)) {
            throw Lowering.refused(chart, panel.bars().size() + " groups of bars over each other");
        }
        if (lacks(Ability.MANY_LAYERS) && !panel.bars().isEmpty() && panel.bars().get(0).placing() == Placing.STACKED) {
            panel = panel.bars(panel.bars().stream().map(PanelLowering::stacked).toList());
        }
        if (lacks(Ability.STACK_END_LABELS)) {
            endLabels();
            panel = panel.bars(panel.bars().stream().map(this::withLabelCarriers).toList());
        }
        if (lacks(Ability.SEVERAL_LABELS)) {
            panel = panel.bars(panel.bars().stream().map(this::withOneLabelEach).toList()).points(onePointLabelEach());
        }
        if (lacks(Ability.REACHING_SCALE) && panel.scale().covered().isEmpty() && (panel.bars().size() > 1 || !panel.scale().reaches().isEmpty())) {
            reaches();
        }
        return panel;
    }

    private boolean lacks(Ability ability) {
        return !has.contains(ability);
    }

    private String column(String wanted, Formula formula) {
        String name = plan.free(wanted);
        plan.forLabels(name, formula);
        return name;
    }

    /** How much the value axis covers, as a column: 1 where that is nothing. */
    private Formula extent() {
        if (panel.scale().covered().isPresent()) {
            return number(panel.scale().covered().get().to() - panel.scale().covered().get().from());
        }
        if (reach.isEmpty()) {
            Formula high = number(0);
            Formula low = number(0);
            for (BarGroup group : panel.bars()) {
                high = greatest(high, orZero(max(top(group, true))));
                low = least(low, orZero(min(top(group, false))));
            }
            List<String> others = new ArrayList<>(panel.scale().reaches());
            panel.points().forEach(points -> others.add(points.series().column()));
            panel.lines().forEach(line -> others.add(line.series().column()));
            for (String other : others) {
                high = greatest(high, orZero(max(computed(other))));
                low = least(low, orZero(min(computed(other))));
            }
            for (ReferenceLine line : panel.references()) {
                high = greatest(high, orZero(line.at()));
                low = least(low, orZero(line.at()));
            }
            Formula covered = high.minus(low);
            reach = Optional.of(column("height of the scale", choose(covered.above(number(0)), covered, number(1))));
        }
        return computed(reach.get());
    }

    /** A line through the middle of every category; over lying bars, which lines can't cross, a thin bar without gaps. */
    private void references() {
        List<Line> lines = new ArrayList<>(panel.lines());
        List<Series> marks = new ArrayList<>();
        boolean anySign = false;
        for (ReferenceLine reference : panel.references()) {
            String level = column(reference.name(), reference.at());
            Series drawn = new Series(level, reference.name(), Role.INK, Optional.of(reference.color().orElse(Role.INK.color())), Optional.empty(), false, List.of(), true);
            if (upright || has.contains(Ability.LYING_MARKS)) {
                lines.add(new Line(drawn, true, false));
            } else {
                marks.add(drawn);
                anySign |= !(reference.at() instanceof Leaf.Literal literal) || literal.figure() < 0;
            }
        }
        List<BarGroup> bars = new ArrayList<>(panel.bars());
        if (!marks.isEmpty()) {
            bars.add(new BarGroup(Placing.STACKED, 0, anySign ? outwards(marks) : thin(marks)));
        }
        panel = panel.lines(lines).bars(bars).references(List.of());
    }

    /** Limits rise, and a stack is filled from zero outwards: those above it in their order, those below it from the last. */
    private List<Series> outwards(List<Series> rising) {
        List<Series> all = new ArrayList<>();
        for (Series series : rising) {
            Formula level = computed(series.column());
            all.add(series.named(column(series.column() + " above zero", only(level.atLeast(number(0)), level))));
        }
        List<Series> falling = new ArrayList<>(rising);
        Collections.reverse(falling);
        for (Series series : falling) {
            Formula level = computed(series.column());
            all.add(series.named(column(series.column() + " below zero", only(level.below(number(0)), level))).inLegend(false));
        }
        return thin(all);
    }

    private void points() {
        List<BarGroup> bars = new ArrayList<>(panel.bars());
        double gap = bars.isEmpty() ? 0 : bars.get(0).gap();
        List<Series> marks = new ArrayList<>(panel.points().stream().map(Points::series).toList());
        if (!bars.isEmpty() && bars.get(0).placing() == Placing.OVERLAPPING) { // their labels are at the ends of unseen bars
            List<Series> behind = new ArrayList<>(bars.get(0).series());
            marks.forEach(mark -> mark.labels().forEach(label -> behind.add(unseen(mark, label))));
            bars.set(0, bars.get(0).series(behind));
            marks.replaceAll(mark -> mark.labelled(List.of()));
        }
        bars.add(new BarGroup(Placing.STACKED, gap, thin(marks)));
        panel = panel.points(List.of()).bars(bars);
    }

    /**
     * A thin slice around each figure, on one stack: a spacer goes from the slice before to the next one. Figures that are
     * absent on a row take up nothing there; the others must not come nearer to zero than the ones before them.
     */
    private List<Series> thin(List<Series> all) {
        Formula half = computed(column("half a mark", extent().times(number(THIN / 2))));
        Formula up = number(0);
        Formula down = number(0);
        List<Series> stack = new ArrayList<>();
        for (Series series : all) {
            Formula figure = computed(series.column());
            Formula above = figure.atLeast(number(0));
            Formula spacer = choose(above, greatest(number(0), figure.minus(half).minus(up)), least(number(0), figure.plus(half).minus(down)));
            String below = column("up to " + series.column(), spacer);
            String mark = column("mark of " + series.column(), only(present(figure), choose(above, half.plus(half), negate(half.plus(half)))));
            Formula reached = orZero(computed(below)).plus(orZero(computed(mark)));
            up = up.plus(greatest(number(0), reached));
            down = down.plus(least(number(0), reached));
            stack.add(Series.spacer(below));
            stack.add(series.named(mark));
        }
        return stack;
    }

    private void lines() {
        List<Points> points = new ArrayList<>(panel.points());
        for (Line line : panel.lines()) {
            if (!line.guide()) {
                points.add(new Points(line.series(), Points.Shape.DASH));
            }
        }
        panel = panel.lines(List.of()).points(points);
    }

    /** Over a stack, programs stack what they draw: of bars that overlap, at most one is present, so they may be a stack as well. */
    private static BarGroup stacked(BarGroup group) {
        return group.placing() == Placing.OVERLAPPING ? new BarGroup(Placing.STACKED, group.gap(), group.series()) : group;
    }

    /** A label that says where its stack ends is the figure of an unseen point there, or of an unseen bar in front of the stack. */
    private void endLabels() {
        boolean ofPoints = !lacks(Ability.LINES) && (upright || !lacks(Ability.LYING_MARKS));
        if (!ofPoints && panel.bars().size() > 1) {
            return;
        }
        List<Points> points = new ArrayList<>(panel.points());
        List<Series> places = new ArrayList<>();
        List<BarGroup> bars = new ArrayList<>();
        for (BarGroup group : panel.bars()) {
            bars.add(group.placing() != Placing.STACKED ? group : group.series(group.series().stream().map(series -> {
                List<Label> ofEnd = series.labels().stream().filter(label -> label.at() == Label.At.END && label.ofEnd()).toList();
                for (Label label : ofEnd) {
                    Formula figure = computed(label.column());
                    Formula there = present(computed(series.column())).and(present(figure));
                    if (ofPoints) {
                        points.add(new Points(place(label, column("end of " + series.column(), only(there.and(figure.atLeast(number(0))), figure)), Label.At.END), Points.Shape.DOT));
                        points.add(new Points(place(label, column("lower end of " + series.column(), only(there.and(figure.below(number(0))), figure)), Label.At.BASE), Points.Shape.DOT));
                    } else {
                        places.add(place(label, column("end of " + series.column(), only(there, figure)), Label.At.END));
                    }
                }
                return series.labelled(series.labels().stream().filter(label -> !ofEnd.contains(label)).toList());
            }).toList()));
        }
        if (!places.isEmpty()) {
            bars.add(new BarGroup(Placing.OVERLAPPING, panel.bars().get(0).gap(), places));
        }
        panel = panel.bars(bars).points(points);
    }

    private static Series place(Label label, String column, Label.At at) {
        return Series.spacer(column).labelled(List.of(label.of(column).at(at)));
    }

    /** A label past the end of a stack stands at the base of an unseen piece there. */
    private BarGroup withLabelCarriers(BarGroup group) {
        if (group.placing() != Placing.STACKED) {
            return group;
        }
        List<Series> all = new ArrayList<>();
        List<Series> carriers = new ArrayList<>();
        for (Series series : group.series()) {
            List<Label> past = series.labels().stream().filter(label -> label.at() == Label.At.END).toList();
            all.add(series.labelled(series.labels().stream().filter(label -> !past.contains(label)).toList()));
            past.forEach(label -> {
                Formula figure = computed(series.column());
                Formula room = extent().times(number(LABEL_ROOM));
                String carrier = column("room for the label of " + series.column(), only(label.column().equals(series.column()) ? present(figure) : present(figure).and(present(computed(label.column()))), choose(figure.below(number(0)), negate(room), room)));
                carriers.add(Series.spacer(carrier).labelled(List.of(label.at(Label.At.BASE))));
            });
        }
        all.addAll(carriers);
        return group.series(all);
    }

    /** A second label of a bar that stands by itself is on an unseen one in its place; a piece of a stack has no such place. */
    private BarGroup withOneLabelEach(BarGroup group) {
        List<Series> all = new ArrayList<>();
        for (Series series : group.series()) {
            if (series.labels().size() > 1 && group.placing() != Placing.OVERLAPPING) {
                throw Lowering.refused(chart, "two labels within one piece of a stack ('" + series.name() + "')");
            }
            all.add(series.labelled(series.labels().stream().limit(1).toList()));
            series.labels().stream().skip(1).forEach(label -> all.add(unseen(series, label)));
        }
        return group.series(all);
    }

    private List<Points> onePointLabelEach() {
        List<Points> all = new ArrayList<>();
        for (Points points : panel.points()) {
            all.add(new Points(points.series().labelled(points.series().labels().stream().limit(1).toList()), points.shape(), points.size()));
            points.series().labels().stream().skip(1).forEach(label -> all.add(new Points(unseen(points.series(), label), points.shape())));
        }
        return all;
    }

    private Series unseen(Series series, Label label) {
        return Series.spacer(column("label place of " + series.column(), computed(series.column()))).labelled(List.of(label));
    }

    /** Unseen pieces that make every group of bars reach equally far, so that each gets the same scale. */
    private void reaches() {
        Formula high = number(0);
        Formula low = number(0);
        for (String column : panel.scale().reaches()) {
            high = greatest(high, orZero(max(computed(column))));
            low = least(low, orZero(min(computed(column))));
        }
        for (BarGroup group : panel.bars()) {
            high = greatest(high, orZero(max(top(group, true))));
            low = least(low, orZero(min(top(group, false))));
        }
        String highest = column("high end of the scale", high);
        String lowest = column("low end of the scale", low);
        panel = panel.bars(panel.bars().stream().map(group -> reaching(group, highest, lowest)).toList());
    }

    private BarGroup reaching(BarGroup group, String highest, String lowest) {
        List<Series> all = new ArrayList<>(group.series());
        boolean stacked = group.placing() == Placing.STACKED;
        Formula up = computed(highest).minus(stacked ? top(group, true) : number(0));
        Formula down = computed(lowest).minus(stacked ? top(group, false) : number(0));
        all.add(Series.spacer(column("up to the scale's end", only(up.above(number(0)), up))));
        all.add(Series.spacer(column("down to the scale's end", only(down.below(number(0)), down))));
        return group.series(all);
    }

    /** How far a row's bars reach above zero, or below it. */
    private static Formula top(BarGroup group, boolean above) {
        Formula reached = number(0);
        for (Series series : group.series()) {
            Formula figure = orZero(computed(series.column()));
            Formula side = above ? greatest(number(0), figure) : least(number(0), figure);
            reached = group.placing() == Placing.STACKED ? reached.plus(side) : above ? greatest(reached, side) : least(reached, side);
        }
        return reached;
    }
}
