package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.setting;

import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.RowWarning;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * Values below a limit, and values above it: classes {@code below} and {@code above}. The comparison is exact,
 * on doubles. A value without a limit is {@code unjudged}; a missing value is in no class. Immutable and thread-safe.
 *
 * @param at   the limit: a number, a setting, a column, or any formula of one number a row
 * @param ties which side a value equal to the limit is counted on
 */
public record Split(Formula at, Ties ties) implements Classifier {
    public Split {
        Objects.requireNonNull(at, "at");
        Objects.requireNonNull(ties, "ties");
    }

    /** Splits at a formula; a value equal to it counts as above. */
    public static Split at(Formula limit) {
        return new Split(limit, Ties.ABOVE);
    }

    public static Split at(double limit) {
        return at(number(limit));
    }

    /** Splits at a named number that a reader may change. */
    public static Split atSetting(String name) {
        return at(setting(name));
    }

    public Split ties(Ties side) {
        return new Split(at, side);
    }

    @Override
    public List<RowClass> classes(Formula value, Formula category) {
        boolean up = ties == Ties.ABOVE;
        return List.of(
                new RowClass("below", up ? value.below(at) : value.atMost(at), Role.ACCENT),
                new RowClass("above", up ? value.atLeast(at) : value.above(at), Role.BASE));
    }

    @Override
    public Formula judged(Formula value, Formula category) {
        return present(at);
    }

    @Override
    public Map<String, Formula> figures() {
        return Map.of("at", at);
    }

    @Override
    public List<RowWarning> watches(Formula value, Formula category) {
        List<RowWarning> watches = new ArrayList<>(List.of(new RowWarning("equal to the limit, counted as " + ties, value.equalTo(at), value)));
        watches.addAll(RowWarning.ofRounding(value, "the limit", at));
        watches.addAll(unjudgedWatch(value, category, "no limit to compare with"));
        return watches;
    }

    @Override
    public List<ReferenceLine> lines() {
        return Classifier.line(at, "limit");
    }
}
