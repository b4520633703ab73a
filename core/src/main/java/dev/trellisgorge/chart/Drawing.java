package dev.trellisgorge.chart;

import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** What is on the sheet below the titles: panels with axes, a ring, or texts in a row of columns. Immutable and thread-safe. */
public sealed interface Drawing permits Panels, Ring, TextCells {

    /** Every series, in drawing order. */
    List<Series> series();

    /** The same with each series changed. */
    Drawing each(UnaryOperator<Series> change);

    /** The same without some series. */
    Drawing without(Predicate<Series> gone);
}
