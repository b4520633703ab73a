package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import java.util.Objects;
import java.util.Optional;

/**
 * A series that carries labels: on which rows, and the true figure that they show. Immutable.
 *
 * @param series the series; on a row where it is absent, nothing is written
 * @param when   true on the rows that are labelled
 * @param figure what is written: the figure that a reader asks about, never the length of a piece
 * @param main   whether it is the chart's own figure, which {@code labels} may change; not a second one, such as a change
 * @param at     where it stands, where that is not as the user says
 * @param format how it is written where the user's format is not for it; empty for the plainest
 * @param ofEnd  whether the figure is the place on the value axis at which the bar ends
 */
public record LabelSpot(String series, Formula when, Formula figure, boolean main, Optional<At> at, Optional<Format> format, boolean ofEnd) {

    public LabelSpot {
        Objects.requireNonNull(at, "at");
        Objects.requireNonNull(format, "format");
        Objects.requireNonNull(series, "series");
        Objects.requireNonNull(when, "when");
        Objects.requireNonNull(figure, "figure");
    }

    public static LabelSpot of(String series, Formula when, Formula figure) {
        return new LabelSpot(series, when, figure, true, Optional.empty(), Optional.empty(), false);
    }

    /** A second figure, with a format of its own. */
    public static LabelSpot second(String series, Formula when, Formula figure, Format format) {
        return new LabelSpot(series, when, figure, false, Optional.empty(), Optional.of(format), false);
    }

    /** Whether every row of the series is labelled. */
    boolean isEverywhere() {
        return when instanceof Leaf.Literal truth && Boolean.TRUE.equals(truth.value());
    }

    public LabelSpot at(At place) {
        return new LabelSpot(series, when, figure, main, Optional.of(place), format, ofEnd);
    }

    /** The same figure, which is the place on the value axis at which the bar ends. */
    public LabelSpot whereItEnds() {
        return new LabelSpot(series, when, figure, main, at, format, true);
    }
}
