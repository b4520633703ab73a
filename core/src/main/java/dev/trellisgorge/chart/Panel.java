package dev.trellisgorge.chart;

import java.util.List;

/**
 * One field of a chart with a value axis of its own. All panels of a chart hold the same categories in the
 * same order.
 *
 * @param bars           drawn in this order
 * @param lines          drawn over the bars
 * @param even           whether the value axis runs as far below zero as above it
 * @param valueAxisShown whether the figures along the value axis are written; not needed where bars are labelled
 */
public record Panel(List<BarGroup> bars, List<ReferenceLine> lines, boolean even, boolean valueAxisShown) {

    public Panel {
        bars = List.copyOf(bars);
        lines = List.copyOf(lines);
    }

    /** Every series, in drawing order. */
    public List<Series> series() {
        return bars.stream().flatMap(group -> group.series().stream()).toList();
    }
}
