package dev.trellisgorge.chart;

import dev.trellisgorge.table.Characters;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * One field of a chart with a value axis of its own. Drawn in this order: lines, bars, points, reference lines, labels. Immutable and thread-safe.
 *
 * @param lines          behind the bars
 * @param bars           each group in front of the one before, over the same value axis
 * @param points         in front of the bars
 * @param references     across the panel
 * @param scale          what the value axis covers
 * @param share          how much of the room it has beside the other panels
 * @param axis           the value axis
 * @param heading        one line above it, or empty
 */
public record Panel(List<Line> lines, List<BarGroup> bars, List<Points> points, List<ReferenceLine> references, Scale scale, double share,
        ValueAxis axis, String heading) {

    public Panel {
        Objects.requireNonNull(scale, "scale");
        Objects.requireNonNull(axis, "axis");
        heading = Characters.shown(heading);
        lines = List.copyOf(lines);
        bars = List.copyOf(bars);
        points = List.copyOf(points);
        references = List.copyOf(references);
    }

    /** A panel of bars whose scale fits them. */
    public static Panel of(BarGroup... bars) {
        return new Panel(List.of(), List.of(bars), List.of(), List.of(), Scale.FITTING, 1, ValueAxis.UNSEEN, "");
    }

    public Panel lines(List<Line> some) {
        return new Panel(some, bars, points, references, scale, share, axis, heading);
    }

    public Panel bars(List<BarGroup> some) {
        return new Panel(lines, some, points, references, scale, share, axis, heading);
    }

    public Panel points(List<Points> some) {
        return new Panel(lines, bars, some, references, scale, share, axis, heading);
    }

    public Panel references(List<ReferenceLine> some) {
        return new Panel(lines, bars, points, some, scale, share, axis, heading);
    }

    public Panel scale(Scale covers) {
        return new Panel(lines, bars, points, references, covers, share, axis, heading);
    }

    public Panel share(double ofTheRoom) {
        return new Panel(lines, bars, points, references, scale, ofTheRoom, axis, heading);
    }

    /** The same with or without figures along its value axis. */
    public Panel valueAxisShown(boolean shown) {
        return axis(new ValueAxis(shown, axis.title(), axis.format()));
    }

    public Panel axis(ValueAxis other) {
        return new Panel(lines, bars, points, references, scale, share, other, heading);
    }

    public Panel heading(String line) {
        return new Panel(lines, bars, points, references, scale, share, axis, line);
    }

    /** Whether the figures along the value axis are written; not needed where bars are labelled. */
    public boolean valueAxisShown() {
        return axis.figures();
    }

    /** The same with each series changed. */
    public Panel each(UnaryOperator<Series> change) {
        return lines(lines.stream().map(line -> new Line(change.apply(line.series()), line.dashed(), line.guide())).toList())
                .bars(bars.stream().map(group -> group.series(group.series().stream().map(change).toList())).toList())
                .points(points.stream().map(each -> new Points(change.apply(each.series()), each.shape(), each.size())).toList());
    }

    /** The same without some series. */
    public Panel without(Predicate<Series> gone) {
        return lines(lines.stream().filter(line -> !gone.test(line.series())).toList())
                .bars(bars.stream().map(group -> group.series(group.series().stream().filter(gone.negate()).toList())).toList())
                .points(points.stream().filter(each -> !gone.test(each.series())).toList());
    }

    /** Every series, in drawing order. */
    public List<Series> series() {
        return Stream.of(lines.stream().map(Line::series), bars.stream().flatMap(group -> group.series().stream()), points.stream().map(Points::series))
                .flatMap(s -> s).toList();
    }
}
