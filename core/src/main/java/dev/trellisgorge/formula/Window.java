package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Objects;

/** Formulas that read other rows too: each is computed over whole columns, or carries something on from row to row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Window extends Formula {

    /** What is made of all rows. */
    enum Fold {
        SUM, MIN, MAX, COUNT
    }

    record Aggregate(Fold fold, Formula of) implements Window {
        public Aggregate {
            Objects.requireNonNull(fold, "fold");
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.aggregate(this, kind);
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
            return new Aggregate(fold, operands.get(0));
        }

        @Override
        public String toString() {
            return fold + "(" + (fold == Fold.COUNT && of instanceof Leaf.Literal ? "*" : of) + ") OVER ()";
        }
    }

    record Cumulative(Formula of, Formula restart) implements Window {
        public Cumulative {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(restart, "restart");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.cumulative(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of, restart);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Cumulative(operands.get(0), operands.get(1));
        }

        @Override
        public String toString() {
            return "SUM(" + of + ") OVER (ROWS UNBOUNDED PRECEDING" + (restart instanceof Leaf.Absent ? "" : " RESTART WHERE " + restart) + ")";
        }
    }

    record Lag(Formula of) implements Window {
        public Lag {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.lag(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return true;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Lag(operands.get(0));
        }

        @Override
        public String toString() {
            return "LAG(" + of + ")";
        }
    }

    /** Which end is first. */
    enum Direction {
        DESCENDING, ASCENDING
    }

    /** How equal cells are ranked. */
    enum Ties {
        /** All take the first of their ranks. */
        SHARED,
        /** Each takes its own, in the order of the rows. */
        BY_ROW
    }

    record Rank(Formula of, Direction direction, Ties ties) implements Window {
        public Rank {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(direction, "direction");
            Objects.requireNonNull(ties, "ties");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.rank(this, kind);
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
            return new Rank(operands.get(0), direction, ties);
        }

        @Override
        public String toString() {
            return (ties == Ties.SHARED ? "RANK" : "ROW_NUMBER") + "() OVER (ORDER BY " + of + (direction == Direction.DESCENDING ? " DESC)" : ")");
        }
    }

    record Lookup(Formula of, Formula key, Formula wanted) implements Window {
        public Lookup {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(key, "key");
            Objects.requireNonNull(wanted, "wanted");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.lookup(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return true;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of, key, wanted);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Lookup(operands.get(0), operands.get(1), operands.get(2));
        }

        @Override
        public String toString() {
            return "LOOKUP(" + of + " WHERE " + key.within(ADDED) + " = " + wanted.within(ADDED) + ")";
        }
    }
}
