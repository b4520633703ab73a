package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Objects;

/** Formulas of numbers over numbers of the same row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Numeric extends Formula {

    /** The two-sided operations on numbers. */
    enum Operator {
        PLUS("+"), MINUS("-"), TIMES("*"), OVER("/");

        private final String sign;

        Operator(String sign) {
            this.sign = sign;
        }
    }

    record Arithmetic(Operator operator, Formula left, Formula right) implements Numeric {
        public Arithmetic {
            Objects.requireNonNull(operator, "operator");
            Objects.requireNonNull(left, "left");
            Objects.requireNonNull(right, "right");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.arithmetic(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return operator == Operator.OVER && !(right instanceof Leaf.Literal literal && literal.value() instanceof Double && literal.figure() != 0);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Arithmetic(operator, operands.get(0), operands.get(1));
        }

        @Override
        public int strength() {
            return operator == Operator.PLUS || operator == Operator.MINUS ? ADDED : MULTIPLIED;
        }

        @Override
        public String toString() {
            return left.within(strength()) + " " + operator.sign + " " + right.within(operator == Operator.PLUS || operator == Operator.TIMES ? strength() : strength() + 1);
        }
    }

    /** Which end of several numbers. */
    enum End {
        LEAST, GREATEST
    }

    record Extreme(End end, List<Formula> of) implements Numeric {
        public Extreme {
            Objects.requireNonNull(end, "end");
            of = List.copyOf(of);
            if (of.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.extreme(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return of;
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Extreme(end, operands);
        }

        @Override
        public String toString() {
            return end + "(" + Names.listed(of) + ")";
        }
    }

    record Negate(Formula of) implements Numeric {
        public Negate {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.negate(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Negate(operands.get(0));
        }

        @Override
        public int strength() {
            return MULTIPLIED;
        }

        @Override
        public String toString() {
            return "-" + of.within(ATOM);
        }
    }

    record Abs(Formula of) implements Numeric {
        public Abs {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.abs(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Abs(operands.get(0));
        }

        @Override
        public String toString() {
            return "ABS(" + of + ")";
        }
    }

    record Floor(Formula of) implements Numeric {
        public Floor {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.floor(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Floor(operands.get(0));
        }

        @Override
        public String toString() {
            return "FLOOR(" + of + ")";
        }
    }

    record Round(Formula of, int digits) implements Numeric {
        public Round {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.round(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Round(operands.get(0), digits);
        }

        @Override
        public String toString() {
            return "ROUND(" + of + (digits == 0 ? "" : ", " + digits) + ")";
        }
    }
}
