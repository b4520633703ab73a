package dev.trellisgorge.chart;

import java.util.Objects;

/**
 * The axis of figures of a panel. Immutable and thread-safe.
 *
 * @param figures whether its figures are written
 * @param title   what it is of, or empty
 * @param format  how its figures are written; {@link Format#FITTING} where the chart decides
 */
public record ValueAxis(boolean figures, String title, Format format) {
    /** One that is not seen. */
    public static final ValueAxis UNSEEN = new ValueAxis(false, "", Format.FITTING);

    public ValueAxis {
        Objects.requireNonNull(title, "title");
        Objects.requireNonNull(format, "format");
    }
}
