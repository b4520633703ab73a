package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.shape.Step;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A named arrangement of helper series. It describes, as formulas and by column names, which columns there are and how a plain
 * chart shows them; it sees no row and knows no engine. What it says depends on its own keys and on the kinds of columns alone.
 *
 * <p>A pattern of one's own implements {@link #type} (see {@link PatternType#named}), {@link #orientation}, {@link #figures},
 * {@link #seriesNames}, {@link #describe}, {@link #labelled} and {@link #arrange}, and goes into {@link Chart#of}. It is
 * immutable and thread-safe.
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

    /** What it reads beside its figures, of any kind: what is only said, and not drawn. */
    default Map<String, Formula> remarks() {
        return Map.of();
    }

    /** The rule that colours it, or none. */
    default Optional<Classifier> classifier() {
        return Optional.empty();
    }

    /** Every series, in drawing order: the names that may be renamed and coloured. */
    List<String> seriesNames();

    /** What several series are called together, a class or a part, with their names: names, colours and labels may go to all of them. */
    default Map<String, List<String>> groups() {
        return Map.of();
    }

    /** The category names that it reads; each must be one. */
    default List<String> categories() {
        return classifier().map(Classifier::categories).orElse(List.of());
    }

    /** What it can't show, the rule's refusals aside. */
    default List<Refusal> refusals() {
        return List.of();
    }

    /**
     * True on the rows that are taken as a total of others, and not as one more figure; empty where there are none.
     *
     * @param category the row's name
     */
    default Optional<Formula> totals(Formula category) {
        return Optional.empty();
    }

    /**
     * True on the rows that a ranking leaves where they are; empty where it may move all of them.
     *
     * @param category the row's name
     */
    default Optional<Anchors> anchors(Formula category) {
        return Optional.empty();
    }

    /**
     * Rows that a ranking leaves where they are.
     *
     * @param rows      true on them
     * @param statement what the ranking must leave as it was there, in words
     * @param figure    what that is
     */
    record Anchors(Formula rows, String statement, Formula figure) {
        public Anchors {
            Objects.requireNonNull(rows, "rows");
            Objects.requireNonNull(statement, "statement");
            Objects.requireNonNull(figure, "figure");
        }
    }

    /** What it compares each row's figure with, where that may stand on a row that filters take away. */
    default Optional<Lookback> lookback() {
        return Optional.empty();
    }

    /** The same pattern, comparing with a column of the table. */
    default Pattern comparedWith(String column) {
        return this;
    }

    /** The steps that add its rows, taken after the ranking. */
    default List<Step> rows(Optional<String> category) {
        return List.of();
    }

    /**
     * Adds the columns in drawing order, the identities they meet, and what a reader should know.
     *
     * @throws dev.trellisgorge.problem.BadInput where it can't be told from the kinds of the columns what is meant
     */
    void describe(PlanBuilder plan);

    /** Which of the described series carry labels. */
    List<LabelSpot> labelled(PlanBuilder plan);

    /** The change that {@code labels} may show; empty where the pattern has none. */
    default Optional<Formula> change() {
        return Optional.empty();
    }

    /** The share that {@code labels} may show; empty where it is the figure's of the sum of all rows. */
    default Optional<Formula> share() {
        return Optional.empty();
    }

    /** What is written after a category's name: a described column, or none. */
    default Optional<String> note() {
        return Optional.empty();
    }

    /**
     * Which of its panels has the axis that a reader may set; empty where none has, as the panels have one scale together.
     *
     * @param panels how many it has
     */
    default OptionalInt scaled(int panels) {
        return panels == 1 ? OptionalInt.of(0) : OptionalInt.empty();
    }

    /** The plain chart of the described columns. */
    Drawing arrange(Look look);
}
