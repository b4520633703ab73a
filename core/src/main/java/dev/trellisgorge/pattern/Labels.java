package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * What is written beside the bars. A chart may have several of these, each on parts or classes of its own. Immutable and thread-safe.
 *
 * @param on         series, classes, parts or other groups of the pattern that are labelled; where it is empty, those that carry the chart's figure
 * @param show       which figure; where it is empty, the one that the pattern shows
 * @param expression the figure or text, where {@code show} is {@link Show#EXPRESSION}
 * @param format     how a figure is written; where empty, the plainest format that shows the chart's figures
 * @param at         where it stands; where it is empty, where the pattern puts it
 * @param named      whether what readers call the series stands before the figure
 */
public record Labels(List<String> on, Optional<Show> show, Optional<Formula> expression, Optional<Format> format, Optional<At> at, boolean named) {
    public Labels {
        on = List.copyOf(on);
        Objects.requireNonNull(show, "show");
        Objects.requireNonNull(expression, "expression");
        Objects.requireNonNull(format, "format");
        Objects.requireNonNull(at, "at");
    }

    /** The value of each row at the end of its bar, or what the pattern shows in its place. */
    public static final Labels VALUE = new Labels(List.of(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), false);
    public static final Labels NONE = of(Show.NONE);

    /** What a label shows. */
    public enum Show {
        /** The figure that the pattern is about. */
        VALUE,
        /** The figure's share of the sum of all rows; of a pattern with a target, of that. */
        SHARE,
        /** The change against the reference; of a pattern that has one. */
        CHANGE,
        /** The row's name. */
        CATEGORY,
        /** The piece's own figure. */
        PART,
        NONE,
        /** What an expression gives: a number or a text. */
        EXPRESSION
    }

    public static Labels of(Show show) {
        return new Labels(List.of(), Optional.of(show), Optional.empty(), Optional.empty(), Optional.empty(), false);
    }

    public static Labels of(Formula expression) {
        return new Labels(List.of(), Optional.of(Show.EXPRESSION), Optional.of(expression), Optional.empty(), Optional.empty(), false);
    }

    /** These labels on some series, classes, parts or groups alone. */
    public Labels on(String... some) {
        return new Labels(List.of(some), show, expression, format, at, named);
    }

    /** These labels, written by a CLDR number pattern. Throws {@link IllegalArgumentException} where it is malformed. */
    public Labels format(String pattern) {
        return new Labels(on, show, expression, Optional.of(new Format(pattern)), at, named);
    }

    public Labels at(At place) {
        return new Labels(on, show, expression, format, Optional.of(place), named);
    }

    /** These labels with the name of the series before the figure. */
    public Labels withName() {
        return new Labels(on, show, expression, format, at, true);
    }

    boolean shows(Show what) {
        return show.equals(Optional.of(what));
    }
}
