package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A rule that puts each present value in exactly one class. It builds conditions; it never sees a row. Immutable and thread-safe. */
public sealed interface Classifier permits Split, Bands, Highlight, Sign {

    /** The name of the class of values whose rule can't be computed. */
    String UNJUDGED = "unjudged";

    /**
     * The classes in drawing order, without {@link #unjudged}: exclusive, and exhaustive where {@link #judged}. A row
     * without a value is in none.
     *
     * @param value    the figure that is judged
     * @param category the row's name
     */
    List<RowClass> classes(Formula value, Formula category);

    /** True on the rows where all that the rule needs is there, the value itself aside. */
    Formula judged(Formula value, Formula category);

    /** The formulas that the rule reads beside the value, by their key in a brief; each must be a number. */
    Map<String, Formula> figures();

    /** What a reader should know about the rows, ties and the unjudged. */
    List<RowWarning> watches(Formula value, Formula category);

    /** What the rule can't work with. */
    default List<Refusal> refusals() {
        return List.of();
    }

    /** The category names that the rule reads; each must be one. */
    default List<String> categories() {
        return List.of();
    }

    /** The limits that are the same on every row, as lines. */
    default List<ReferenceLine> lines() {
        return List.of();
    }

    /** The class of the values that are there but can't be judged; empty where the rule is made of stated values alone, which always can. */
    default Optional<RowClass> unjudged(Formula value, Formula category) {
        Formula judged = judged(value, category);
        return ColumnReferences.onlyLiterals(judged) ? Optional.empty() : Optional.of(new RowClass(UNJUDGED, present(value).and(not(judged)), Role.INK));
    }

    /** The note on the unjudged values. */
    default List<RowWarning> unjudgedWatch(Formula value, Formula category, String why) {
        return unjudged(value, category).map(unjudged -> new RowWarning(why + ", so unjudged", unjudged.when(), value)).stream().toList();
    }

    /** A limit that is a number or a setting, as a line; none where it differs from row to row. */
    static List<ReferenceLine> line(Formula limit, String name) {
        return limit instanceof Leaf.Setting setting ? List.of(new ReferenceLine(setting.name(), limit))
                : limit instanceof Leaf.Literal ? List.of(new ReferenceLine(name, limit)) : List.of();
    }
}
