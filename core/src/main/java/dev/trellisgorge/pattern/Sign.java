package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.RowWarning;
import java.util.List;
import java.util.Map;

/** Values below zero, and the others: classes {@code negative} and {@code positive}. Zero is positive. Immutable and thread-safe. */
public record Sign() implements Classifier {

    @Override
    public List<RowClass> classes(Formula value, Formula category) {
        return List.of(new RowClass("negative", value.below(number(0)), Role.BAD),
                new RowClass("positive", value.atLeast(number(0)), Role.BASE));
    }

    @Override
    public Formula judged(Formula value, Formula category) {
        return truth(true);
    }

    @Override
    public Map<String, Formula> figures() {
        return Map.of();
    }

    @Override
    public List<RowWarning> watches(Formula value, Formula category) {
        return List.of();
    }
}
