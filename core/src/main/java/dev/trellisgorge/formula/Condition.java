package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Formulas of truths over cells of the same row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Condition extends Formula {

    @Override
    default boolean failsOn(List<Kind> operands) {
        return false;
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

        /** Whether it asks for more than sameness. */
        public boolean isOrdered() {
            return this != EQUAL && this != UNEQUAL;
        }

        /** Whether it holds, where {@code order} is below, at or above zero as the left side is to the right one. */
        public boolean holds(int order) {
            return switch (this) {
                case BELOW -> order < 0;
                case AT_MOST -> order <= 0;
                case ABOVE -> order > 0;
                case AT_LEAST -> order >= 0;
                case EQUAL -> order == 0;
                case UNEQUAL -> order != 0;
            };
        }
    }

    record Comparison(Relation relation, Formula left, Formula right) implements Condition {
        public Comparison {
            Objects.requireNonNull(relation, "relation");
            Objects.requireNonNull(left, "left");
            Objects.requireNonNull(right, "right");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.comparison(this, kind);
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Comparison(relation, operands.get(0), operands.get(1));
        }

        @Override
        public int strength() {
            return COMPARED;
        }

        @Override
        public String toString() {
            return left.within(ADDED) + " " + relation.sign() + " " + right.within(ADDED);
        }
    }

    record In(Formula of, List<Formula> list) implements Condition {
        public In {
            Objects.requireNonNull(of, "of");
            list = List.copyOf(list);
            if (list.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.in(this, kind);
        }

        @Override
        public List<Formula> operands() {
            return Stream.concat(Stream.of(of), list.stream()).toList();
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new In(operands.get(0), operands.subList(1, operands.size()));
        }

        @Override
        public int strength() {
            return COMPARED;
        }

        @Override
        public String toString() {
            return of.within(ADDED) + " IN (" + Names.listed(list) + ")";
        }
    }

    /** The two ways to connect truths. */
    enum Connective {
        AND, OR
    }

    record Logic(Connective connective, List<Formula> of) implements Condition {
        public Logic {
            Objects.requireNonNull(connective, "connective");
            of = List.copyOf(of);
            if (of.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        /** Both sides under one connective; a side that is under the same one already is taken apart, so that long lists stay flat. */
        static Logic of(Connective connective, Formula left, Formula right) {
            return new Logic(connective, Stream.of(left, right)
                    .flatMap(side -> side instanceof Logic logic && logic.connective() == connective ? logic.of().stream() : Stream.of(side)).toList());
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.logic(this, kind);
        }

        @Override
        public List<Formula> operands() {
            return of;
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Logic(connective, operands);
        }

        @Override
        public int strength() {
            return connective == Connective.AND ? AND : OR;
        }

        @Override
        public String toString() {
            return of.stream().map(each -> each.within(strength() + 1)).collect(Collectors.joining(" " + connective + " "));
        }
    }

    record Not(Formula of) implements Condition {
        public Not {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.not(this, kind);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Not(operands.get(0));
        }

        @Override
        public int strength() {
            return NOT;
        }

        @Override
        public String toString() {
            return of instanceof Present present ? present.of().within(ADDED) + " IS NULL" : "NOT " + of.within(NOT);
        }
    }

    record Present(Formula of) implements Condition {
        public Present {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.present(this, kind);
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Present(operands.get(0));
        }

        @Override
        public int strength() {
            return COMPARED;
        }

        @Override
        public String toString() {
            return of.within(ADDED) + " IS NOT NULL";
        }
    }
}
