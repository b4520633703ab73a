package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.List;

/**
 * What a cell is, as data: a small immutable tree over one row of a table. One tree serves every back end, and all of
 * them give the same cells. Thread-safe.
 *
 * <p>The nodes, as {@code toString()} writes them, which is how a brief does; and what a missing cell does:
 * <ul>
 *   <li>{@link Leaf.Column Column} {@code generated_mwh}: the cell of a column of the shaped table
 *   <li>{@link Leaf.Computed Computed} {@code "below"}: the cell of a column that was computed before
 *   <li>{@link Leaf.Literal Literal} {@code 400}, {@code 'North'}, {@code DATE '2031-03-01'}, {@code TRUE}
 *   <li>{@link Leaf.Absent Absent} {@code NULL}: no bar, no point, no label
 *   <li>{@link Leaf.Setting Setting} {@code :goal}: a named number, text or date that a reader may change; missing where it has no value
 *   <li>{@link Numeric.Arithmetic Arithmetic} {@code a + b}, also {@code - * /}; missing where a side is, and where a divisor is zero
 *   <li>{@link Numeric.Extreme Extreme} {@code LEAST(a, b)}, {@code GREATEST(a, b)}; missing where one of them is
 *   <li>{@link Numeric.Negate Negate} {@code -a}; {@link Numeric.Abs Abs} {@code ABS(a)}; {@link Numeric.Floor Floor} {@code FLOOR(a)}; {@link Numeric.Round Round}
 *       {@code ROUND(a, 2)}: the decimal number that a reader sees, halves away from zero
 *   <li>{@link Condition.Comparison Comparison} {@code a < b}: exact, on doubles; texts by code point; unknown where a side is missing
 *   <li>{@link Condition.In In} {@code a IN (b, c)}: {@code a = b OR a = c}
 *   <li>{@link Condition.Logic Logic} {@code p AND q}, {@code p OR q}; {@link Condition.Not Not} {@code NOT p}: three-valued, as in ISO SQL
 *   <li>{@link Condition.Present Present} {@code a IS NOT NULL}: never unknown
 *   <li>{@link Choice.Case Case} {@code CASE WHEN p THEN a ELSE b END}: the first result whose condition is true
 *   <li>{@link Choice.Coalesce Coalesce} {@code COALESCE(a, b)}: the first that is there; {@link Choice.NullIf NullIf} {@code NULLIF(a, b)}
 *   <li>{@link Calendar.CalendarField CalendarField} {@code EXTRACT(MONTH FROM a)}; {@link Calendar.Period Period} {@code PERIOD(MONTH FROM a)}: the number of
 *       the calendar period that a date or the text of a period lies in; periods that follow each other differ by 1.
 *       Both are missing where the text can't be read
 *   <li>{@link Textual.Concat Concat} {@code a || b}, missing where one of them is; {@link Textual.Repeat Repeat} {@code REPEAT(a, n)}
 *   <li>{@link Textual.Text Text} {@code TEXT(a)}: a number in its shortest form, an ISO date, {@code true} or {@code false};
 *       {@link Textual.Formatted Formatted} {@code FORMAT(a, '#,##0')}: by a CLDR pattern, in a locale
 *   <li>{@link Leaf.RowNumber RowNumber} {@code ROW_NUMBER()}: from 1, in the order of the rows
 *   <li>{@link Window.Aggregate Aggregate} {@code SUM(a) OVER ()}, also {@code MIN MAX COUNT}: over all rows, passing over missing
 *       cells; missing where no cell is there (a count is then 0)
 *   <li>{@link Window.Cumulative Cumulative} {@code SUM(a) OVER (ROWS UNBOUNDED PRECEDING)}: of the rows so far, this one too, passing over
 *       missing cells; with {@code RESTART WHERE p} it starts anew on each row where {@code p} is true
 *   <li>{@link Window.Lag Lag} {@code LAG(a)}: the cell on the row before; missing on the first
 *   <li>{@link Window.Rank Rank} {@code RANK() OVER (ORDER BY a DESC)}: from 1; missing where {@code a} is. Equal cells share the first
 *       of their ranks, or with {@code ROW_NUMBER()} take them in the order of the rows
 *   <li>{@link Window.Lookup Lookup} {@code LOOKUP(a WHERE k = b)}: the cell on the first row whose {@code k} is {@code b}
 * </ul>
 *
 * <p>Formulas are built with {@link Formulas} and the methods here; nothing is evaluated while building.
 */
public sealed interface Formula permits Leaf, Numeric, Condition, Choice, Calendar, Textual, Window {

    /** One method a node: a back end that forgets one does not compile. Each is given the kind of the node's cells. */
    interface Cases<R> {
        R column(Leaf.Column f, Kind kind);

        R computed(Leaf.Computed f, Kind kind);

        R literal(Leaf.Literal f, Kind kind);

        R absent(Leaf.Absent f, Kind kind);

        R setting(Leaf.Setting f, Kind kind);

        R rowNumber(Leaf.RowNumber f, Kind kind);

        R arithmetic(Numeric.Arithmetic f, Kind kind);

        R extreme(Numeric.Extreme f, Kind kind);

        R negate(Numeric.Negate f, Kind kind);

        R abs(Numeric.Abs f, Kind kind);

        R floor(Numeric.Floor f, Kind kind);

        R round(Numeric.Round f, Kind kind);

        R comparison(Condition.Comparison f, Kind kind);

        R in(Condition.In f, Kind kind);

        R logic(Condition.Logic f, Kind kind);

        R not(Condition.Not f, Kind kind);

        R present(Condition.Present f, Kind kind);

        R cases(Choice.Case f, Kind kind);

        R coalesce(Choice.Coalesce f, Kind kind);

        R nullIf(Choice.NullIf f, Kind kind);

        R calendarField(Calendar.CalendarField f, Kind kind);

        R period(Calendar.Period f, Kind kind);

        R concat(Textual.Concat f, Kind kind);

        R repeat(Textual.Repeat f, Kind kind);

        R text(Textual.Text f, Kind kind);

        R formatted(Textual.Formatted f, Kind kind);

        R aggregate(Window.Aggregate f, Kind kind);

        R cumulative(Window.Cumulative f, Kind kind);

        R lag(Window.Lag f, Kind kind);

        R rank(Window.Rank f, Kind kind);

        R lookup(Window.Lookup f, Kind kind);
    }

    <R> R match(Cases<R> cases, Kind kind);

    /**
     * Whether it may have no value though all of its operands have one: a division by what may be zero, a text that may be no date.
     *
     * @param operands the kinds of {@link #operands()}
     */
    boolean failsOn(List<Kind> operands);

    /** The formulas that this one is made of, left to right; none for a leaf. */
    default List<Formula> operands() {
        return List.of();
    }

    /** The same node with other operands, as many as {@link #operands()} has. */
    default Formula rebuilt(List<Formula> operands) {
        return this;
    }

    /** How strongly it holds together when it is written; what is weaker stands in brackets. */
    default int strength() {
        return ATOM;
    }

    int OR = 1;
    int AND = 2;
    int NOT = 3;
    int COMPARED = 4;
    int ADDED = 5;
    int MULTIPLIED = 6;
    int ATOM = 7;

    /** As it is written within something that holds together so strongly. */
    default String within(int strength) {
        return strength() < strength ? "(" + this + ")" : toString();
    }

    /** What readers call it: a column by its bare name, all else as it is written. */
    default String title() {
        return this instanceof Leaf.Column column ? column.name() : this instanceof Leaf.Computed made ? made.name() : toString();
    }

    default Formula plus(Formula right) {
        return new Numeric.Arithmetic(Numeric.Operator.PLUS, this, right);
    }

    default Formula minus(Formula right) {
        return new Numeric.Arithmetic(Numeric.Operator.MINUS, this, right);
    }

    default Formula times(Formula right) {
        return new Numeric.Arithmetic(Numeric.Operator.TIMES, this, right);
    }

    default Formula over(Formula right) {
        return new Numeric.Arithmetic(Numeric.Operator.OVER, this, right);
    }

    default Formula below(Formula right) {
        return new Condition.Comparison(Condition.Relation.BELOW, this, right);
    }

    default Formula atMost(Formula right) {
        return new Condition.Comparison(Condition.Relation.AT_MOST, this, right);
    }

    default Formula above(Formula right) {
        return new Condition.Comparison(Condition.Relation.ABOVE, this, right);
    }

    default Formula atLeast(Formula right) {
        return new Condition.Comparison(Condition.Relation.AT_LEAST, this, right);
    }

    default Formula equalTo(Formula right) {
        return new Condition.Comparison(Condition.Relation.EQUAL, this, right);
    }

    default Formula and(Formula right) {
        return Condition.Logic.of(Condition.Connective.AND, this, right);
    }

    default Formula or(Formula right) {
        return Condition.Logic.of(Condition.Connective.OR, this, right);
    }
}
