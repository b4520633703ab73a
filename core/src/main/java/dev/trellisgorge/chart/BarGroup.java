package dev.trellisgorge.chart;

import java.util.List;
import java.util.Objects;

/**
 * Series of bars that share each category's place. Immutable and thread-safe.
 *
 * @param placing how the bars of one category lie
 * @param gap     the room between two categories, as a share of a bar's width
 * @param series  in drawing order: first is the bottom of a stack, and behind where bars overlap
 */
public record BarGroup(Placing placing, double gap, List<Series> series) {

    /** How the bars of one category lie to each other. */
    public enum Placing {
        /** All in the same place, from the base line; right where at most one is present. */
        OVERLAPPING,
        STACKED,
        BESIDE
    }

    public BarGroup {
        Objects.requireNonNull(placing, "placing");
        series = List.copyOf(series);
    }

    public BarGroup gap(double share) {
        return new BarGroup(placing, share, series);
    }

    public BarGroup series(List<Series> others) {
        return new BarGroup(placing, gap, others);
    }
}
