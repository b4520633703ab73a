package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import java.util.Objects;
import java.util.Optional;

/**
 * What is written beside the bars. Immutable and thread-safe.
 *
 * @param show       which figure, or none
 * @param expression the figure or text, where {@code show} is {@link Show#EXPRESSION}
 * @param format     how a figure is written; where empty, the plainest format that shows the chart's figures
 * @param at         where it stands
 */
public record Labels(Show show, Optional<Formula> expression, Optional<Format> format, At at) {
    public Labels {
        Objects.requireNonNull(show, "show");
        Objects.requireNonNull(expression, "expression");
        Objects.requireNonNull(format, "format");
        Objects.requireNonNull(at, "at");
    }

    /** The value of each row at the end of its bar. */
    public static final Labels VALUE = of(Show.VALUE);
    public static final Labels NONE = of(Show.NONE);

    /** What a label shows. */
    public enum Show {
        /** The figure that the pattern is about. */
        VALUE,
        /** The figure's share of the sum of all rows. */
        SHARE,
        /** The change against the reference; of a pattern that has one. */
        CHANGE,
        /** The row's name. */
        CATEGORY,
        NONE,
        /** What an expression gives: a number or a text. */
        EXPRESSION
    }

    public static Labels of(Show show) {
        return new Labels(show, Optional.empty(), Optional.empty(), At.END);
    }

    public static Labels of(Formula expression) {
        return new Labels(Show.EXPRESSION, Optional.of(expression), Optional.empty(), At.END);
    }

    /** These labels, written by a CLDR number pattern. Throws {@link IllegalArgumentException} where it is malformed. */
    public Labels format(String pattern) {
        return new Labels(show, expression, Optional.of(new Format(pattern)), at);
    }

    public Labels at(At place) {
        return new Labels(show, expression, format, place);
    }
}
