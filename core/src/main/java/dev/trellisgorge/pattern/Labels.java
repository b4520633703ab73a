package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label.At;
import java.util.Optional;

/**
 * What is written beside the bars.
 *
 * @param show   which figure, or none
 * @param format how it is written; where empty, the plainest format that shows the chart's figures
 * @param at     where it stands
 */
public record Labels(Show show, Optional<Format> format, At at) {

    /** The value of each row at the end of its bar. */
    public static final Labels VALUE = new Labels(Show.VALUE, Optional.empty(), At.END);
    public static final Labels NONE = new Labels(Show.NONE, Optional.empty(), At.END);

    /** The figure a label shows. */
    public enum Show {
        VALUE, NONE
    }

    /** These labels, written by a CLDR number pattern. Throws {@link IllegalArgumentException} where it is malformed. */
    public Labels format(String pattern) {
        return new Labels(show, Optional.of(new Format(pattern)), at);
    }

    public Labels at(At place) {
        return new Labels(show, format, place);
    }
}
