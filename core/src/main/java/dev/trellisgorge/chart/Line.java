package dev.trellisgorge.chart;

import java.util.Objects;

/**
 * A line from category to category, at the middle of each; it is broken where its series is absent. Immutable and thread-safe.
 *
 * @param series its levels
 * @param dashed whether it is broken into dashes
 * @param guide  whether it only leads the eye between figures that are shown otherwise: an engine without lines may leave it out
 */
public record Line(Series series, boolean dashed, boolean guide) {
    public Line {
        Objects.requireNonNull(series, "series");
    }
}
