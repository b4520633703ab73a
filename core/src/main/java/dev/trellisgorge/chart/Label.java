package dev.trellisgorge.chart;

/**
 * The text beside each bar or point of a series: a true figure, never the length of a helper piece. None is
 * drawn where the series' own cell is absent.
 *
 * @param column the helper column whose figures are written
 * @param format how they are written
 * @param at     where they stand
 */
public record Label(String column, Format format, At at) {

    /** Where a label stands on its bar. */
    public enum At {
        /** Just past the end. */
        END,
        /** Within the bar, at its end. */
        INSIDE,
        /** Within the bar, where it starts. */
        BASE
    }
}
