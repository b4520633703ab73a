package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Refusal;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A named arrangement of helper series. It says which columns there are, as formulas, and how a plain chart shows
 * them; it never loops over rows and knows no engine.
 */
public interface Pattern {

    /** What there is to know of it. */
    PatternType type();

    /** The way that reads best. */
    Orientation orientation();

    /** The formulas that it reads, by their key in a brief; each must be a number on every row, or missing. */
    Map<String, Formula> figures();

    /** The formulas that it reads and that may be dates too, by their key in a brief. */
    default Map<String, Formula> figuresOrDates() {
        return Map.of();
    }

    /** The rule that colours it, or none. */
    default Optional<Classifier> classifier() {
        return Optional.empty();
    }

    /** Every series that there could be, in drawing order: the names that may be renamed and coloured. */
    List<String> seriesNames();

    /** The category names that it reads; each must be one. */
    default List<String> categories() {
        return classifier().map(Classifier::categories).orElse(List.of());
    }

    /** What it can't show, the rule's refusals aside. */
    default List<Refusal> refusals() {
        return List.of();
    }

    /** Whether a row of the table is taken as a total of others, and not as one more figure. */
    default boolean isTotal(Table table, Optional<String> category, int row) {
        return false;
    }

    /** The table with the rows that the pattern adds to it. */
    default Table shape(Table table, Optional<String> category) {
        return table;
    }

    /** Adds the helper columns in drawing order, the identities they meet, and what a reader should know. */
    HelperTable addTo(HelperTable table);

    /** The helper series as they are printed. */
    default Table printed(HelperTable table) {
        return table.printed();
    }

    /** Which series of {@code table}, which {@link #addTo} made, carry labels. */
    List<LabelSpot> labelled(HelperTable table);

    /** The change that {@code labels} may show; empty where the pattern has none. */
    default Optional<Formula> change() {
        return Optional.empty();
    }

    /** What is written after a category's name: a column of {@code table}, or none. */
    default Optional<String> note() {
        return Optional.empty();
    }

    /** Arranges the helper columns of {@code table}, which {@link #addTo} made. */
    Drawing arrange(HelperTable table, Look look);
}
