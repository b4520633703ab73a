package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What a step does with rows. Immutable and thread-safe.
 *
 * @param formulas   the formulas that it reads rows with
 * @param tables     the other tables that it reads
 * @param filter     the columns that it reads to leave out rows, where it does nothing else
 * @param sorts      whether it puts the rows in an order, so that they are in one after it whatever they were in before
 * @param readsOrder whether its outcome depends on the order of the rows before it, but for its formulas
 * @param folds      whether it makes few rows of many, so that it needs all of them
 */
public record Traits(List<Formula> formulas, List<Pipeline> tables, Optional<Set<String>> filter, boolean sorts, boolean readsOrder, boolean folds) {
    /** Each row by itself, without a formula. */
    public static final Traits NONE = new Traits(List.of(), List.of(), Optional.empty(), false, false, false);

    public Traits {
        formulas = List.copyOf(formulas);
        tables = List.copyOf(tables);
        filter = filter.map(Set::copyOf);
    }

    static Traits of(List<Formula> formulas) {
        return new Traits(formulas, List.of(), Optional.empty(), false, false, false);
    }

    Traits reading(Pipeline table) {
        return new Traits(formulas, List.of(table), filter, sorts, readsOrder, folds);
    }

    Traits filtering(Set<String> columns) {
        return new Traits(formulas, tables, Optional.of(columns), sorts, readsOrder, folds);
    }

    Traits sorting() {
        return new Traits(formulas, tables, filter, true, readsOrder, folds);
    }

    Traits readingOrder(boolean reads) {
        return new Traits(formulas, tables, filter, sorts, reads, folds);
    }

    Traits folding(boolean all) {
        return new Traits(formulas, tables, filter, sorts, readsOrder, all);
    }
}
