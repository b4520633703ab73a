package dev.trellisgorge.chart;

import java.util.Objects;

/**
 * A point a category, at the middle of it; none where the series is absent. Points are not joined. Immutable and thread-safe.
 *
 * @param series their places on the value axis
 * @param shape  what each looks like
 * @param size   as a share of what is usual, above 0
 */
public record Points(Series series, Shape shape, double size) {
    public Points {
        Objects.requireNonNull(series, "series");
        Objects.requireNonNull(shape, "shape");
    }

    /** Points of the usual size. */
    public Points(Series series, Shape shape) {
        this(series, shape, 1);
    }

    /** What a point looks like. */
    public enum Shape {
        DOT,
        /** A short line across the category's place. */
        DASH
    }
}
