package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Formula.Arithmetic;
import dev.trellisgorge.formula.Formula.Fold;
import dev.trellisgorge.formula.Formula.Operator;
import dev.trellisgorge.formula.Formula.Rounding;

/** The words that formulas start with; import them statically. */
public final class Formulas {
    private Formulas() {
    }

    /** The cell of a column of the shaped table. */
    public static Formula column(String name) {
        return new Formula.Input(name);
    }

    /** The cell of a helper column that was computed before. */
    public static Formula helper(String name) {
        return new Formula.Helper(name);
    }

    public static Formula number(double value) {
        return new Formula.Constant(value);
    }

    public static Formula words(String text) {
        return new Formula.Words(text);
    }

    /** A named number that a reader may change. */
    public static Formula setting(String name) {
        return new Formula.Setting(name);
    }

    public static Formula absent() {
        return new Formula.Absent();
    }

    public static Formula present(Formula of) {
        return new Formula.Present(of);
    }

    public static Formula missing(Formula of) {
        return not(present(of));
    }

    public static Formula not(Formula of) {
        return new Formula.Not(of);
    }

    public static Formula magnitude(Formula of) {
        return new Formula.Magnitude(of);
    }

    public static Formula least(Formula left, Formula right) {
        return new Arithmetic(Operator.LEAST, left, right);
    }

    public static Formula greatest(Formula left, Formula right) {
        return new Arithmetic(Operator.GREATEST, left, right);
    }

    /** {@code then} where {@code when} is true; {@code otherwise} where it is false or unknown. */
    public static Formula choose(Formula when, Formula then, Formula otherwise) {
        return new Formula.Choose(when, then, otherwise);
    }

    /** {@code then} where {@code when} is true, and absent elsewhere: a part masked by a class. */
    public static Formula only(Formula when, Formula then) {
        return choose(when, then, absent());
    }

    /** The value, or zero where it is missing. */
    public static Formula orZero(Formula of) {
        return choose(present(of), of, number(0));
    }

    /** The row's number, from 1. */
    public static Formula row() {
        return new Formula.Row();
    }

    public static Formula sum(Formula of) {
        return new Formula.Whole(Fold.SUM, of);
    }

    /** The smallest cell of all rows. */
    public static Formula smallest(Formula of) {
        return new Formula.Whole(Fold.LEAST, of);
    }

    /** The largest cell of all rows. */
    public static Formula largest(Formula of) {
        return new Formula.Whole(Fold.GREATEST, of);
    }

    /** How many rows have a cell. */
    public static Formula count(Formula of) {
        return new Formula.Whole(Fold.COUNT, of);
    }

    public static Formula running(Formula of) {
        return new Formula.Running(of, absent());
    }

    public static Formula runningFrom(Formula of, Formula restart) {
        return new Formula.Running(of, restart);
    }

    public static Formula previous(Formula of) {
        return new Formula.Previous(of);
    }

    public static Formula round(Formula of) {
        return new Formula.Rounded(of, Rounding.HALF_UP);
    }

    public static Formula floor(Formula of) {
        return new Formula.Rounded(of, Rounding.DOWN);
    }

    public static Formula repeat(String text, Formula count) {
        return new Formula.Repeated(words(text), count);
    }

    /** True on every row. */
    public static Formula always() {
        return present(number(0));
    }

    /** True on no row. */
    public static Formula never() {
        return not(always());
    }

    /** One where it is there, else zero. */
    public static Formula oneIfPresent(Formula of) {
        return choose(present(of), number(1), number(0));
    }
}
