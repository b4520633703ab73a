package dev.trellisgorge.formula;

import dev.trellisgorge.table.Numbers;
import java.util.List;

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
