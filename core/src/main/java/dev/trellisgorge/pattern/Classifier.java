package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Watch;
import java.util.List;
import java.util.Map;

/** A rule that puts each present value in exactly one class. It builds conditions; it never sees a row. */
public sealed interface Classifier permits Split {

    /** The name of the class of values whose rule can't be computed. */
    String UNJUDGED = "unjudged";

    /** The classes in drawing order, without {@link #unjudged}: exclusive, and exhaustive where {@link #judged}. */
    List<RowClass> classes(Formula value);

    /** True on the rows where all that the rule needs is there, the value itself aside. */
    Formula judged();

    /** The formulas that the rule reads beside the value, by their key in a brief; each must be a number. */
    Map<String, Formula> figures();

    /** What a reader should be told about the rows. */
    List<Watch> watches(Formula value);

    /** The limits that are the same on every row, as lines. */
    List<ReferenceLine> lines(Settings settings);

    /** The class of the values that are there but can't be judged. */
    default RowClass unjudged(Formula value) {
        return new RowClass(UNJUDGED, present(value).and(not(judged())), Role.MUTED, false);
    }
}
