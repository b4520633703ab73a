package dev.trellisgorge.formula;

import java.util.LinkedHashSet;
import java.util.Set;
import java.util.function.Consumer;

/** Finds what a formula reads. */
public final class Inputs {
    private Inputs() {
    }

    /** The columns of the shaped table that a formula reads, first use first. */
    public static Set<String> columnsOf(Formula formula) {
        Set<String> names = new LinkedHashSet<>();
        walk(formula, leaf -> {
            if (leaf instanceof Formula.Input input) {
                names.add(input.column());
            }
        });
        return names;
    }

    /** The settings that a formula reads, first use first. */
    public static Set<String> settingsOf(Formula formula) {
        Set<String> names = new LinkedHashSet<>();
        walk(formula, leaf -> {
            if (leaf instanceof Formula.Setting setting) {
                names.add(setting.name());
            }
        });
        return names;
    }

    /** Whether a formula is the same on every row because it reads nothing but constants and settings. */
    static boolean readsNoRow(Formula formula) {
        boolean[] none = {true};
        walk(formula, leaf -> none[0] &= leaf instanceof Formula.Constant || leaf instanceof Formula.Setting || leaf instanceof Formula.Present
                || leaf instanceof Formula.Logic || leaf instanceof Formula.Not || leaf instanceof Formula.Comparison);
        return none[0];
    }

    private static void walk(Formula formula, Consumer<Formula> visitor) {
        visitor.accept(formula);
        formula.operands().forEach(operand -> walk(operand, visitor));
    }
}
