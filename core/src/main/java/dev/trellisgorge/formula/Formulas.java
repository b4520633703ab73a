package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Numeric.End;
import dev.trellisgorge.formula.Window.Fold;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** The words that formulas start with; import them statically. Thread-safe. */
public final class Formulas {
    private Formulas() {
    }

    /** The cell of a column of the shaped table. */
    public static Formula column(String name) {
        return new Leaf.Column(name);
    }

    /** The cell of a column that was computed before. */
    public static Formula computed(String name) {
        return new Leaf.Computed(name);
    }

    public static Formula number(double value) {
        return new Leaf.Literal(Kind.NUMBER, value + 0.0);
    }

    public static Formula text(String text) {
        return new Leaf.Literal(Kind.TEXT, text);
    }

    public static Formula date(LocalDate date) {
        return new Leaf.Literal(Kind.DATE, date);
    }

    public static Formula truth(boolean value) {
        return new Leaf.Literal(Kind.TRUTH, value);
    }

    /** A named value that a reader may change. */
    public static Formula setting(String name) {
        return new Leaf.Setting(name);
    }

    public static Formula absent() {
        return new Leaf.Absent();
    }

    public static Formula present(Formula of) {
        return new Condition.Present(of);
    }

    public static Formula missing(Formula of) {
        return not(present(of));
    }

    public static Formula not(Formula of) {
        return new Condition.Not(of);
    }

    public static Formula abs(Formula of) {
        return new Numeric.Abs(of);
    }

    public static Formula negate(Formula of) {
        return new Numeric.Negate(of);
    }

    public static Formula least(Formula... of) {
        return new Numeric.Extreme(End.LEAST, List.of(of));
    }

    public static Formula greatest(Formula... of) {
        return new Numeric.Extreme(End.GREATEST, List.of(of));
    }

    /** {@code then} where {@code when} is true; {@code otherwise} where it is false or unknown. */
    public static Formula choose(Formula when, Formula then, Formula otherwise) {
        Choice.When first = new Choice.When(when, then);
        if (otherwise instanceof Choice.Case more) {
            List<Choice.When> whens = new ArrayList<>(List.of(first));
            whens.addAll(more.whens());
            return new Choice.Case(whens, more.otherwise());
        }
        return new Choice.Case(List.of(first), otherwise);
    }

    /** {@code then} where {@code when} is true, and absent elsewhere: a part masked by a class. */
    public static Formula only(Formula when, Formula then) {
        return choose(when, then, absent());
    }

    /** The first of several that is there. */
    public static Formula coalesce(Formula... of) {
        return new Choice.Coalesce(Arrays.asList(of));
    }

    /** The value, or zero where it is missing. */
    public static Formula orZero(Formula of) {
        return coalesce(of, number(0));
    }

    /** One where it is there, else zero. */
    public static Formula oneIfPresent(Formula of) {
        return choose(present(of), number(1), number(0));
    }

    /** The row's number, from 1. */
    public static Formula rowNumber() {
        return new Leaf.RowNumber();
    }

    public static Formula sum(Formula of) {
        return new Window.Aggregate(Fold.SUM, of);
    }

    /** The smallest cell of all rows. */
    public static Formula min(Formula of) {
        return new Window.Aggregate(Fold.MIN, of);
    }

    /** The largest cell of all rows. */
    public static Formula max(Formula of) {
        return new Window.Aggregate(Fold.MAX, of);
    }

    /** How many rows have a cell. */
    public static Formula count(Formula of) {
        return new Window.Aggregate(Fold.COUNT, of);
    }

    /** How many rows there are. */
    public static Formula rowCount() {
        return count(number(0));
    }

    /** The sum of the rows so far. */
    public static Formula cumulative(Formula of) {
        return new Window.Cumulative(of, absent());
    }

    /** The same, begun anew on each row where {@code restart} is true. */
    public static Formula cumulative(Formula of, Formula restart) {
        return new Window.Cumulative(of, restart);
    }

    /** The cell on the row before. */
    public static Formula lag(Formula of) {
        return new Window.Lag(of);
    }

    /** To a whole number, halves away from zero. */
    public static Formula round(Formula of) {
        return round(of, 0);
    }

    /** @param digits after the decimal point; before it where below zero */
    public static Formula round(Formula of, int digits) {
        return new Numeric.Round(of, digits);
    }

    public static Formula floor(Formula of) {
        return new Numeric.Floor(of);
    }

    public static Formula repeat(String text, Formula count) {
        return new Textual.Repeat(text(text), count);
    }

    public static Formula concat(Formula... of) {
        return new Textual.Concat(List.of(of));
    }

    /** A number in its shortest form, an ISO date, a truth as a word; a text as it is. */
    public static Formula written(Formula of) {
        return new Textual.Text(of);
    }

    /** A number or a date by a CLDR pattern, with {@code .} and {@code ,}. */
    public static Formula formatted(Formula of, String pattern) {
        return formatted(of, pattern, Locale.ROOT);
    }

    /** The same by the signs and names of a locale; a text that names a period is written by its first day, and another as it is. */
    public static Formula formatted(Formula of, String pattern, Locale locale) {
        return new Textual.Formatted(of, pattern, locale);
    }
}
