package dev.trellisgorge.formula;

import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;

/**
 * What a cell of a helper column is, as data: a small immutable tree over one row of a shaped table.
 * One tree serves every back end, and all of them give the same cells.
 *
 * <p>The nodes, how {@code toString()} writes them, and what a missing cell does:
 * <ul>
 *   <li>{@link Input} {@code generated_mwh}: the cell of a column of the shaped table; missing as it is
 *   <li>{@link Helper} {@code [below]}: the cell of a helper column computed before; absent as it is
 *   <li>{@link Constant} {@code 400}: a number
 *   <li>{@link Words} {@code 'North'}: a text
 *   <li>{@link Setting} {@code :goal}: a named number that a reader may change; missing where it has none
 *   <li>{@link Absent} {@code absent}: no bar, no point, no label
 *   <li>{@link Arithmetic} {@code (a + b)}: also {@code - * / least greatest}; missing where either side is,
 *       and where a divisor is zero
 *   <li>{@link Magnitude} {@code |a|}: the size without the sign; missing where {@code a} is
 *   <li>{@link Comparison} {@code a < b}: exact, on doubles; unknown where either side is missing
 *   <li>{@link Logic} {@code (p and q)}, {@code (p or q)}; {@link Not} {@code not p}: three-valued, as in
 *       ISO SQL
 *   <li>{@link Present} {@code present(a)}: true or false, never unknown
 *   <li>{@link Choose} {@code if p then a else b}: {@code b} where {@code p} is false or unknown
 *   <li>{@link Row} {@code row()}: the row's number, from 1
 *   <li>{@link Whole} {@code sum(a)}, also {@code least greatest count}: over all rows, passing over missing cells; missing
 *       where no cell is there (a count is then 0)
 *   <li>{@link Running} {@code running(a)}: the sum of the rows so far, this one too, passing over missing cells;
 *       {@code running(a from p)} starts anew on each row where {@code p} is true
 *   <li>{@link Previous} {@code previous(a)}: the cell on the row before; missing on the first
 *   <li>{@link Rank} {@code rank(a, descending)}: from 1; missing where {@code a} is. Equal cells share the first of
 *       their ranks, or with {@code by row} take them in table order
 *   <li>{@link Period} {@code month(a)}: the number of the calendar period that a date lies in, so that periods that
 *       follow each other differ by 1; of a text such as {@code 2031-03} too. Missing where it can't be read
 *   <li>{@link Lookup} {@code a where k = b}: the cell on the first row whose {@code k} is {@code b}; missing where there is none
 *   <li>{@link Rounded} {@code round(a)} halves up, {@code floor(a)} down
 *   <li>{@link Day} {@code DATE '2031-03-01'}: a date
 *   <li>{@link Repeated} {@code repeat(t, a)}: a text {@code a} times; {@link Joined} {@code (t || u)}: one text after
 *       another; missing where either side is
 *   <li>{@link Written} {@code text(a)}: a number in its shortest form, an ISO date, {@code true} or {@code false} as text
 * </ul>
 *
 * <p>Formulas are built with {@link Formulas} and the methods here; nothing is evaluated while building.
 */
public sealed interface Formula {

    /** One method for each node: a back end that forgets one does not compile. */
    interface Cases<R> {
        R input(Input f);

        R helper(Helper f);

        R constant(Constant f);

        R words(Words f);

        R setting(Setting f);

        R absent(Absent f);

        R arithmetic(Arithmetic f);

        R magnitude(Magnitude f);

        R comparison(Comparison f);

        R logic(Logic f);

        R not(Not f);

        R present(Present f);

        R choose(Choose f);

        R row(Row f);

        R whole(Whole f);

        R running(Running f);

        R previous(Previous f);

        R rank(Rank f);

        R period(Period f);

        R lookup(Lookup f);

        R rounded(Rounded f);

        R day(Day f);

        R repeated(Repeated f);

        R joined(Joined f);

        R written(Written f);
    }

    /** A back end that takes some nodes only: each of the others is {@linkplain #refuse refused}. */
    abstract class SomeCases<R> implements Cases<R> {
        protected abstract R refuse(Formula f);

        @Override
        public R input(Input f) {
            return refuse(f);
        }

        @Override
        public R helper(Helper f) {
            return refuse(f);
        }

        @Override
        public R constant(Constant f) {
            return refuse(f);
        }

        @Override
        public R words(Words f) {
            return refuse(f);
        }

        @Override
        public R setting(Setting f) {
            return refuse(f);
        }

        @Override
        public R absent(Absent f) {
            return refuse(f);
        }

        @Override
        public R arithmetic(Arithmetic f) {
            return refuse(f);
        }

        @Override
        public R magnitude(Magnitude f) {
            return refuse(f);
        }

        @Override
        public R comparison(Comparison f) {
            return refuse(f);
        }

        @Override
        public R logic(Logic f) {
            return refuse(f);
        }

        @Override
        public R not(Not f) {
            return refuse(f);
        }

        @Override
        public R present(Present f) {
            return refuse(f);
        }

        @Override
        public R choose(Choose f) {
            return refuse(f);
        }

        @Override
        public R row(Row f) {
            return refuse(f);
        }

        @Override
        public R whole(Whole f) {
            return refuse(f);
        }

        @Override
        public R running(Running f) {
            return refuse(f);
        }

        @Override
        public R previous(Previous f) {
            return refuse(f);
        }

        @Override
        public R rank(Rank f) {
            return refuse(f);
        }

        @Override
        public R period(Period f) {
            return refuse(f);
        }

        @Override
        public R lookup(Lookup f) {
            return refuse(f);
        }

        @Override
        public R rounded(Rounded f) {
            return refuse(f);
        }

        @Override
        public R day(Day f) {
            return refuse(f);
        }

        @Override
        public R repeated(Repeated f) {
            return refuse(f);
        }

        @Override
        public R joined(Joined f) {
            return refuse(f);
        }

        @Override
        public R written(Written f) {
            return refuse(f);
        }
    }

    <R> R match(Cases<R> cases);

    /** The formulas that this one is made of, left to right; none for a leaf. */
    default List<Formula> operands() {
        return List.of();
    }

    record Input(String column) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.input(this);
        }

        @Override
        public String toString() {
            return column;
        }
    }

    record Helper(String column) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.helper(this);
        }

        @Override
        public String toString() {
            return "[" + column + "]";
        }
    }

    record Constant(double value) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.constant(this);
        }

        @Override
        public String toString() {
            return Numbers.shortest(value);
        }
    }

    record Words(String text) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.words(this);
        }

        @Override
        public String toString() {
            return "'" + text.replace("'", "''") + "'";
        }
    }

    record Setting(String name) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.setting(this);
        }

        @Override
        public String toString() {
            return ":" + name;
        }
    }

    record Absent() implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.absent(this);
        }

        @Override
        public String toString() {
            return "absent";
        }
    }

    /** The two-sided operations on numbers. */
    enum Operator {
        PLUS, MINUS, TIMES, OVER, LEAST, GREATEST
    }

    record Arithmetic(Operator operator, Formula left, Formula right) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.arithmetic(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public String toString() {
            return switch (operator) {
                case PLUS -> "(" + left + " + " + right + ")";
                case MINUS -> "(" + left + " - " + right + ")";
                case TIMES -> "(" + left + " * " + right + ")";
                case OVER -> "(" + left + " / " + right + ")";
                case LEAST -> "least(" + left + ", " + right + ")";
                case GREATEST -> "greatest(" + left + ", " + right + ")";
            };
        }
    }

    record Magnitude(Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.magnitude(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "|" + of + "|";
        }
    }

    /** How two cells may compare; the sign is the one that reads in every formula language. */
    enum Relation {
        BELOW("<"), AT_MOST("<="), ABOVE(">"), AT_LEAST(">="), EQUAL("="), UNEQUAL("<>");

        private final String sign;

        Relation(String sign) {
            this.sign = sign;
        }

        public String sign() {
            return sign;
        }
    }

    record Comparison(Relation relation, Formula left, Formula right) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.comparison(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public String toString() {
            return left + " " + relation.sign() + " " + right;
        }
    }

    /** The two ways to connect truths. */
    enum Connective {
        AND, OR
    }

    record Logic(Connective connective, Formula left, Formula right) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.logic(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public String toString() {
            return "(" + left + (connective == Connective.AND ? " and " : " or ") + right + ")";
        }
    }

    record Not(Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.not(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "not " + of;
        }
    }

    record Present(Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.present(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "present(" + of + ")";
        }
    }

    record Choose(Formula when, Formula then, Formula otherwise) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.choose(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(when, then, otherwise);
        }

        @Override
        public String toString() {
            return "if " + when + " then " + then + " else " + otherwise;
        }
    }

    record Row() implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.row(this);
        }

        @Override
        public String toString() {
            return "row()";
        }
    }

    /** What is made of all rows. */
    enum Fold {
        SUM, LEAST, GREATEST, COUNT
    }

    record Whole(Fold fold, Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.whole(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return fold.name().toLowerCase(Locale.ROOT) + "(" + of + ")";
        }
    }

    record Running(Formula of, Formula restart) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.running(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of, restart);
        }

        @Override
        public String toString() {
            return "running(" + of + (restart instanceof Absent ? "" : " from " + restart) + ")";
        }
    }

    record Previous(Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.previous(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "previous(" + of + ")";
        }
    }

    /** Which end is first. */
    enum Direction {
        DESCENDING, ASCENDING
    }

    /** How equal cells are ranked. */
    enum Equals {
        /** All take the first of their ranks. */
        SHARED,
        /** Each takes its own, in table order. */
        BY_ROW
    }

    record Rank(Formula of, Direction direction, Equals equals) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.rank(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "rank(" + of + ", " + direction.name().toLowerCase(Locale.ROOT) + (equals == Equals.BY_ROW ? ", by row" : "") + ")";
        }
    }

    record Period(Formula of, CalendarUnit unit) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.period(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return unit.name().toLowerCase(Locale.ROOT) + "(" + of + ")";
        }
    }

    record Lookup(Formula of, Formula key, Formula wanted) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.lookup(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of, key, wanted);
        }

        @Override
        public String toString() {
            return "(" + of + " where " + key + " = " + wanted + ")";
        }
    }

    /** To which whole number. */
    enum Rounding {
        HALF_UP, DOWN
    }

    record Rounded(Formula of, Rounding rounding) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.rounded(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return (rounding == Rounding.HALF_UP ? "round(" : "floor(") + of + ")";
        }
    }

    record Day(LocalDate date) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.day(this);
        }

        @Override
        public String toString() {
            return "DATE '" + date + "'";
        }
    }

    record Repeated(Formula text, Formula count) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.repeated(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(text, count);
        }

        @Override
        public String toString() {
            return "repeat(" + text + ", " + count + ")";
        }
    }

    record Joined(Formula left, Formula right) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.joined(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public String toString() {
            return "(" + left + " || " + right + ")";
        }
    }

    record Written(Formula of) implements Formula {
        @Override
        public <R> R match(Cases<R> cases) {
            return cases.written(this);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public String toString() {
            return "text(" + of + ")";
        }
    }

    default Formula plus(Formula right) {
        return new Arithmetic(Operator.PLUS, this, right);
    }

    default Formula minus(Formula right) {
        return new Arithmetic(Operator.MINUS, this, right);
    }

    default Formula times(Formula right) {
        return new Arithmetic(Operator.TIMES, this, right);
    }

    default Formula over(Formula right) {
        return new Arithmetic(Operator.OVER, this, right);
    }

    default Formula below(Formula right) {
        return new Comparison(Relation.BELOW, this, right);
    }

    default Formula atMost(Formula right) {
        return new Comparison(Relation.AT_MOST, this, right);
    }

    default Formula above(Formula right) {
        return new Comparison(Relation.ABOVE, this, right);
    }

    default Formula atLeast(Formula right) {
        return new Comparison(Relation.AT_LEAST, this, right);
    }

    default Formula equalTo(Formula right) {
        return new Comparison(Relation.EQUAL, this, right);
    }

    default Formula and(Formula right) {
        return new Logic(Connective.AND, this, right);
    }

    default Formula or(Formula right) {
        return new Logic(Connective.OR, this, right);
    }
}
