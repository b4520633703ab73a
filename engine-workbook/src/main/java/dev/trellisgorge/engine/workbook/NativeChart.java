package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.CellFormat;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.SheetChart.Axes;
import dev.trellisgorge.sheet.SheetChart.Axis;
import dev.trellisgorge.sheet.SheetChart.Bar;
import dev.trellisgorge.sheet.SheetChart.Crossing;
import dev.trellisgorge.sheet.SheetChart.Data;
import dev.trellisgorge.sheet.SheetChart.Fill;
import dev.trellisgorge.sheet.SheetChart.LabelAt;
import dev.trellisgorge.sheet.SheetChart.Layer;
import dev.trellisgorge.sheet.SheetChart.Names;
import dev.trellisgorge.sheet.SheetChart.Range;
import dev.trellisgorge.sheet.SheetChart.Side;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A native chart (DrawingML) of one panel, over the ranges of a helper sheet. */
final class NativeChart {
    private static final int DOT_SIZE = 10;
    private static final int DASH_SIZE = 24;

    private final PlainChart plain;
    private final Panel panel;
    private final HelperSheet helpers;
    private final ChartFrame frame;
    private final Plot place;
    private final boolean upright;
    /** In 1/100 point; empty where the categories stand too close for any label. */
    private final OptionalInt labelSize;
    private final List<Series> drawn = new ArrayList<>();
    private final List<Layer> layers = new ArrayList<>();
    private final Range<String> names;
    /** How many series are described. */
    private int described;
    /** The number of an unseen one at 0; below 0 where none is. */
    private int zeroAt = -1;

    /** @param place how large its plot is, for the size of its texts */
    NativeChart(PlainChart plain, Panel panel, HelperSheet helpers, Plot place) {
        this.plain = plain;
        this.panel = panel;
        this.helpers = helpers;
        this.place = place;
        this.frame = new ChartFrame(plain, place.isSmall());
        this.upright = plain.orientation() == Orientation.VERTICAL;
        OptionalInt fitting = place.labelSize(plain, panel);
        this.names = Cached.categories(plain, helpers);
        this.labelSize = fitting.isEmpty() ? fitting : OptionalInt.of(frame.size(Looks.Purpose.LABELS, fitting.getAsInt()));
    }

    /**
     * The chart, as a description.
     *
     * @param titled whether it carries the chart's titles
     * @param named  whether it carries the names of the categories
     * @param keyed  whether the key stands over it, and not in a native legend
     */
    SheetChart describe(boolean titled, boolean named, boolean keyed) {
        Names shown = !named || !((Panels) plain.drawing()).categoriesShown() ? Names.NONE : panel.scale().backwards() ? Names.END : Names.START;
        Axis values = valueAxis();
        for (int i = 0; i < panel.bars().size(); i++) {
            layers.add(bars(panel.bars().get(i), i > 0));
        }
        // Beside others an unseen bar at 0 would take room.
        boolean fixed = isFromZero() && !upright && plain.extent(panel).low() >= 0 && panel.bars().stream().anyMatch(group -> group.placing() == Placing.BESIDE);
        List<Axes> axes = new ArrayList<>(List.of(new Axes(categoryAxis(true, shown), fixed ? from(values) : values)));
        panel.bars().stream().skip(1).forEach(group -> axes.add(second(shown, values)));
        panel.lines().forEach(this::line);
        panel.points().forEach(this::points);
        if (upright && isFromZero()) {
            layers.add(new Layer.OfLine(zero(), Optional.empty(), Optional.empty()));
        }
        Optional<SheetChart.Title> title = titled ? frame.title(upright ? panel.heading() : "") : upright && !panel.heading().isEmpty() ? frame.heading(panel.heading()) : Optional.empty();
        return new SheetChart(title, Optional.empty(), axes, layers, titled && !keyed ? legend() : Optional.empty(), frame.text(), Optional.of(Role.PAPER.color()));
    }

    private Optional<SheetChart.Legend> legend() {
        Looks.Legend legend = plain.looks().legend().orElse(Looks.Legend.TOP);
        if (legend == Looks.Legend.NONE || drawn.stream().noneMatch(Series::inLegend)) {
            return Optional.empty();
        }
        Set<Integer> without = zeroAt >= 0 && panel.bars().size() == 1 ? Set.of(zeroAt) : Set.of(); // with two scales, programs don't agree on the order of the entries
        return Optional.of(new SheetChart.Legend(switch (legend) {
            case BOTTOM -> Side.BOTTOM;
            case LEFT -> Side.LEFT;
            case RIGHT -> Side.RIGHT;
            default -> Side.TOP;
        }, without, frame.asked(Looks.Purpose.LEGEND)));
    }

    private Axis categoryAxis(boolean seen, Names names) {
        boolean away = panel.scale().covered().filter(covered -> covered.from() > 0 || covered.to() < 0).isPresent();
        return new Axis(upright ? Side.BOTTOM : Side.LEFT, !upright, seen, names, Optional.of(new SheetChart.Line(Role.INK.color(), 1)), away ? Crossing.START : Crossing.ZERO,
                OptionalDouble.empty(), OptionalDouble.empty(), "", CellFormat.GENERAL, frame.asked(Looks.Purpose.AXIS));
    }

    private Axis valueAxis() {
        String title = axisTitle(panel, upright);
        Optional<Looks.Covered> covered = panel.scale().covered();
        return new Axis(upright ? Side.LEFT : Side.BOTTOM, panel.scale().backwards(), panel.valueAxisShown() || !title.isEmpty(), !panel.valueAxisShown() && !title.isEmpty() ? Names.NONE : Names.BESIDE,
                Optional.empty(), upright ? Crossing.ZERO : Crossing.END, covered.isPresent() ? OptionalDouble.of(covered.get().from()) : OptionalDouble.empty(),
                covered.isPresent() ? OptionalDouble.of(covered.get().to()) : OptionalDouble.empty(), title, panel.axis().format().isFitting() ? CellFormat.GENERAL : NumberFormats.of(panel.axis().format()), frame.asked(Looks.Purpose.AXIS));
    }

    private static Axis from(Axis values) {
        return new Axis(values.at(), values.backwards(), values.shown(), values.names(), values.line(), values.crosses(), OptionalDouble.of(0), values.largest(), values.title(), values.format(), values.text());
    }

    /** What the axis is of; the line over a pane whose bars lie stands there too. */
    static String axisTitle(Panel panel, boolean upright) {
        return Stream.of(upright ? "" : panel.heading(), panel.axis().title()).filter(words -> !words.isEmpty()).collect(Collectors.joining(", "));
    }

    /**
     * A group over the first has axes of its own, unseen; what it holds reaches as far, so their scales are one. The value axis is there,
     * without labels and line: where it were not, some programs would put its bars on the first axis.
     */
    private Axes second(Names names, Axis first) {
        return new Axes(categoryAxis(false, names), new Axis(first.at(), first.backwards(), true, Names.NONE, first.line(), Crossing.END, first.least(), first.largest(), first.title(), first.format(), first.text()));
    }

    private Layer bars(BarGroup group, boolean second) {
        List<Bar> bars = new ArrayList<>();
        boolean stacked = group.placing() == Placing.STACKED;
        if (isFromZero() && (!upright || second) && group.placing() != Placing.BESIDE) {
            bars.add(new Bar(zero(), new Fill.None(), Optional.empty())); // the first of a stack, as its other ends may all be far from 0
        }
        BarGroup first = panel.bars().get(0);
        // Some programs stack over the last of the bars that share a place in the first group, and lay out as many before it.
        for (int before = 0; second && stacked && first.placing() != Placing.STACKED && before < first.series().size(); before++) {
            bars.add(new Bar(zero(), new Fill.None(), Optional.empty()));
        }
        for (Series series : group.series()) {
            bars.add(new Bar(data(series, labels(series, group)), fill(series, group), series.outline().map(color -> new SheetChart.Line(color, 1.5))));
        }
        return new Layer.Bars(upright, stacked, (int) Math.round(group.gap() * 100), group.placing() == Placing.BESIDE ? 0 : 100, second, bars);
    }

    private Fill fill(Series series, BarGroup group) {
        Optional<PlainChart.Bar> rounded = series.round() && series.fill().isPresent() ? plain.bars(group).stream().filter(piece -> piece.series().equals(series)).findFirst() : Optional.empty();
        return rounded.map(piece -> RoundedTop.fill(series.fill().get(), place.shape(plain, panel, group, piece), upright, piece.end() < piece.start())).orElseGet(() -> Fill.of(series.fill()));
    }

    private Optional<SheetChart.Labels> labels(Series series, BarGroup group) {
        return series.label().filter(label -> labelSize.isPresent() && helpers.isLabelled(series)).map(label -> new PointLabels(plain, series, helpers, labelSize.getAsInt(),
                switch (label.at()) {
                    case END -> group.placing() == Placing.STACKED ? LabelAt.INSIDE_END : LabelAt.OUTSIDE_END;
                    case INSIDE -> LabelAt.INSIDE_END;
                    case BASE, CENTRE -> LabelAt.INSIDE_BASE;
                }, mayBeCrossed(series, group), tooShort(series, group)).labels());
    }

    /** Whether a line may run behind a label, or other bars lie there. */
    private boolean mayBeCrossed(Series series, BarGroup group) {
        boolean pastEnd = series.fill().isEmpty() || series.label().orElseThrow().at() == Label.At.END;
        return pastEnd && (!panel.lines().stream().allMatch(Line::guide) || group != panel.bars().get(0));
    }

    /** The rows on which a bar is too short for the label within it. */
    private Set<Integer> tooShort(Series series, BarGroup group) {
        Label label = series.label().orElseThrow();
        if (label.at() == Label.At.END || series.fill().isEmpty()) {
            return Set.of();
        }
        PlainChart.Extent extent = plain.extent(panel);
        double scale = extent.high() - extent.low();
        return plain.bars(group).stream().filter(bar -> bar.series().equals(series)).filter(bar -> {
            double room = upright ? 0.05 : 0.014 * plain.labelText(series, bar.row()).length();
            return Math.abs(bar.end() - bar.start()) < room * scale;
        }).map(PlainChart.Bar::row).collect(Collectors.toSet());
    }

    private Data data(Series series, Optional<SheetChart.Labels> labels) {
        drawn.add(series);
        return new Data(described++, new Range<>(helpers.titleOf(series), List.of(helpers.titleText(series))), names, Cached.figures(plain, series, helpers), labels);
    }

    private void line(Line line) {
        layers.add(new Layer.OfLine(data(line.series(), Optional.empty()), line.series().fill().map(color -> new SheetChart.Line(color, OptionalDouble.of(line.guide() ? 0.75 : 1.5), line.dashed())), Optional.empty()));
    }

    /** Markers of a line series that has no line. */
    private void points(Points points) {
        boolean dot = points.shape() == Points.Shape.DOT;
        int size = (int) Math.max(2, Math.min(72, Math.round((dot ? DOT_SIZE : DASH_SIZE) * points.size())));
        Optional<SheetChart.Labels> labels = points.series().label().filter(label -> labelSize.isPresent() && helpers.isLabelled(points.series())).map(label -> new PointLabels(plain, points.series(), helpers, labelSize.getAsInt(), switch (label.at()) {
            case END -> upright ? LabelAt.ABOVE : LabelAt.RIGHT;
            case INSIDE -> upright ? LabelAt.RIGHT : LabelAt.ABOVE;
            case BASE, CENTRE -> upright ? LabelAt.BELOW : LabelAt.LEFT;
        }, !panel.lines().isEmpty(), Set.of()).labels());
        layers.add(new Layer.OfLine(data(points.series(), labels), Optional.empty(), points.series().fill().map(fill -> new SheetChart.Marker(dot, size, fill, dot ? Role.PAPER.color() : fill))));
    }

    /** Programs begin the scale of figures that are close together above 0, and bars then lie about their length. */
    private boolean isFromZero() {
        return !panel.bars().isEmpty() && panel.scale().covered().isEmpty() && helpers.zero().isPresent();
    }

    /** An unseen point at 0: the scale then takes it in, whatever the figures become. */
    private Data zero() {
        zeroAt = described++;
        return new Data(zeroAt, new Range<>(helpers.zeroTitle(), List.of(HelperSheet.UNNAMED)), names, Cached.zero(plain, helpers.zero().orElseThrow()), Optional.empty());
    }
}
