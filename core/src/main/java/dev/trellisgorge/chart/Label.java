package dev.trellisgorge.chart;

import java.util.Objects;
import java.util.Optional;

/**
 * The text beside each bar or point of a series: a true figure, never the length of a helper piece. None is
 * drawn where the series' own cell is absent. Immutable.
 *
 * @param column   the computed column whose figures or texts are written
 * @param words    the computed column of what is written
 * @param format   how figures are written; {@link Format#FITTING} in a plan whose figures decide
 * @param decimals the computed column that says which format fits, where that is so
 * @param at       where they stand
 * @param ofEnd    whether the figure is the place on the value axis at which the bar ends, so that a point at the figure is there
 */
public record Label(String column, String words, Format format, Optional<String> decimals, At at, boolean ofEnd) {

    /** Where a label stands on its bar. */
    public enum At {
        /** Just past the end. */
        END,
        /** Within the bar, at its end. */
        INSIDE,
        /** Within the bar, where it starts. */
        BASE,
        /** In the middle of a ring. */
        CENTRE
    }

    public Label {
        Objects.requireNonNull(format, "format");
        Objects.requireNonNull(decimals, "decimals");
        Objects.requireNonNull(at, "at");
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(words, "words");
    }

    /** The same label with its figures written so. */
    public Label written(Format other) {
        return new Label(column, words, other, decimals, at, ofEnd);
    }

    public Label at(At place) {
        return new Label(column, words, format, decimals, place, ofEnd);
    }

    /** The same words beside another column, which holds the same figure on the rows where it is present. */
    public Label of(String same) {
        return new Label(same, words, format, decimals, at, ofEnd);
    }
}
