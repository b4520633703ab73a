package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import java.util.List;
import java.util.Map;

/**
 * A named arrangement of helper series. It says which columns there are, as formulas, and how a plain chart shows
 * them; it never loops over rows and knows no engine.
 */
public interface Pattern {

    /** Its name in a brief. */
    String name();

    /** The way that reads best. */
    Orientation orientation();

    /** The formulas that it reads, by their key in a brief; each must be a number on every row, or missing. */
    Map<String, Formula> figures();

    /** Every series that there could be, in drawing order: the names that may be renamed and coloured. */
    List<String> seriesNames();

    /** Adds the helper columns in drawing order, the identities they meet, and what a reader should know. */
    HelperTable addTo(HelperTable table);

    /** Arranges the helper columns of {@code table}, which {@link #addTo} made. */
    List<Panel> arrange(HelperTable table, Look look);
}
