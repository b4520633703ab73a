package dev.trellisgorge.chart;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * A ring of slices, clockwise: each series is one slice, as large as its cell on the one row. A slice without a fill takes
 * up its room and is not seen. Immutable and thread-safe.
 *
 * @param hole   the radius of the hole as a share of the ring's, 0 to below 1
 * @param start  where the first slice starts, in degrees clockwise from the top
 * @param tracks rings inside each other, the outermost first, of equal width between rim and hole; all go round together
 * @param centre the series whose label stands in the middle, or none
 */
public record Ring(double hole, double start, List<List<Series>> tracks, Optional<Series> centre) implements Drawing {

    public Ring {
        Objects.requireNonNull(centre, "centre");
        tracks = tracks.stream().map(track -> track.stream().map(series -> series.labelled(labels(series, false))).toList()).toList();
        centre = centre.map(series -> series.labelled(labels(series, true)));
    }

    /** What stands in the middle is no label of a slice. */
    private static List<Label> labels(Series series, boolean inTheMiddle) {
        return series.labels().stream().filter(label -> inTheMiddle == (label.at() == Label.At.CENTRE)).toList();
    }

    @Override
    public Ring each(UnaryOperator<Series> change) {
        return new Ring(hole, start, tracks.stream().map(track -> track.stream().map(change).toList()).toList(), centre.map(change));
    }

    /** A ring keeps its slices: one without a size is not seen. */
    @Override
    public Ring without(Predicate<Series> gone) {
        return this;
    }

    @Override
    public <E extends Exception> void match(Case<Panels, E> panels, Case<Ring, E> ring, Case<TextCells, E> texts) throws E {
        ring.of(this);
    }

    @Override
    public <R> R matched(Function<Panels, R> panels, Function<Ring, R> ring, Function<TextCells, R> texts) {
        return ring.apply(this);
    }

    @Override
    public List<Series> series() {
        return tracks.stream().flatMap(List::stream).toList();
    }

    /**
     * A slice as it is drawn.
     *
     * @param series whose it is; one without a fill is not seen
     * @param start  where it starts, in degrees clockwise from the top
     * @param sweep  how far it goes, in degrees; never 0
     */
    public record Slice(Series series, double start, double sweep) {
        public Slice {
            Objects.requireNonNull(series, "series");
        }
    }
}
