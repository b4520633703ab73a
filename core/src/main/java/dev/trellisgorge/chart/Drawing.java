package dev.trellisgorge.chart;

import java.util.List;

/** What is on the sheet below the titles: panels with axes, a ring, or texts in a row of columns. */
public sealed interface Drawing permits Panels, Ring, TextCells {

    /** Every series, in drawing order. */
    List<Series> series();
}
