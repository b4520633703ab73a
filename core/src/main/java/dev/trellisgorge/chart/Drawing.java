package dev.trellisgorge.chart;

import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** What is on the sheet below the titles: panels with axes, a ring, or texts in a row of columns. Immutable and thread-safe. */
public sealed interface Drawing permits Panels, Ring, TextCells {

    /** What is done with a drawing of one sort. */
    @FunctionalInterface
    interface Case<D, E extends Exception> {
        void of(D drawing) throws E;
    }

    /** Does what is given for its sort: what forgets one does not compile. */
    <E extends Exception> void match(Case<Panels, E> panels, Case<Ring, E> ring, Case<TextCells, E> texts) throws E;

    /** The same with an outcome. */
    <R> R matched(Function<Panels, R> panels, Function<Ring, R> ring, Function<TextCells, R> texts);

    /** Every series, in drawing order. */
    List<Series> series();

    /** The same with each series changed. */
    Drawing each(UnaryOperator<Series> change);

    /** The same without some series. */
    Drawing without(Predicate<Series> gone);
}
