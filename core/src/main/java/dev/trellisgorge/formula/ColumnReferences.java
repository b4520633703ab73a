package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.LinkedHashSet;
import java.util.Set;
import java.util.function.Consumer;

/** What a formula reads. Thread-safe. */
public final class ColumnReferences {
    private ColumnReferences() {
    }

    /** The columns of the shaped table that a formula reads, first use first. */
    public static Set<String> columns(Formula formula) {
        Set<String> names = new LinkedHashSet<>();
        walk(formula, node -> {
            if (node instanceof Leaf.Column column) {
                names.add(column.name());
            }
        });
        return names;
    }

    /** The computed columns that a formula reads, first use first. */
    public static Set<String> computed(Formula formula) {
        Set<String> names = new LinkedHashSet<>();
        walk(formula, node -> {
            if (node instanceof Leaf.Computed made) {
                names.add(made.name());
            }
        });
        return names;
    }

    /** The settings that a formula reads, first use first. */
    public static Set<String> settings(Formula formula) {
        Set<String> names = new LinkedHashSet<>();
        walk(formula, node -> {
            if (node instanceof Leaf.Setting setting) {
                names.add(setting.name());
            }
        });
        return names;
    }

    /** The running sums and sums of all rows in a formula, first one first. */
    public static Set<Formula> sums(Formula formula) {
        Set<Formula> sums = new LinkedHashSet<>();
        walk(formula, node -> {
            if (node instanceof Window.Cumulative || node instanceof Window.Aggregate all && all.fold() == Window.Fold.SUM) {
                sums.add(node);
            }
        });
        return sums;
    }

    /** The numbers that are stated in a formula, first one first. */
    public static Set<Double> figures(Formula formula) {
        Set<Double> figures = new LinkedHashSet<>();
        walk(formula, node -> {
            if (node instanceof Leaf.Literal stated && stated.kind() == Kind.NUMBER) {
                figures.add(stated.figure());
            }
        });
        return figures;
    }

    /** Whether a formula is made of stated values alone, so that it is the same on every row and whatever the settings are. */
    public static boolean onlyLiterals(Formula formula) {
        boolean[] only = {true};
        walk(formula, node -> only[0] &= !(node instanceof Leaf) || node instanceof Leaf.Literal);
        return only[0];
    }

    private static void walk(Formula formula, Consumer<Formula> visitor) {
        visitor.accept(formula);
        formula.operands().forEach(operand -> walk(operand, visitor));
    }
}
