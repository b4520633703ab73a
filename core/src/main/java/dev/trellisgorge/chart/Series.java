package dev.trellisgorge.chart;

import java.util.Optional;

/**
 * One series of bars.
 *
 * @param column   the helper column with its lengths
 * @param name     what a reader calls it
 * @param fill     its colour; none for a spacer, which takes up room and is never seen
 * @param label    the text beside each bar, or none
 * @param inLegend whether the legend names it
 */
public record Series(String column, String name, Optional<Color> fill, Optional<Label> label, boolean inLegend) {
}
