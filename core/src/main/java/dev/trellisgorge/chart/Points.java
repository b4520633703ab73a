package dev.trellisgorge.chart;

/**
 * A point a category, at the middle of it; none where the series is absent. Points are not joined.
 *
 * @param series their places on the value axis
 * @param shape  what each looks like
 */
public record Points(Series series, Shape shape) {

    /** What a point looks like. */
    public enum Shape {
        DOT,
        /** A short line across the category's place. */
        DASH
    }
}
