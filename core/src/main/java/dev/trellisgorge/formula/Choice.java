package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;

/** Formulas that choose among cells of the same row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Choice extends Formula {

    /** A condition, and what the cell is where it is the first that is true. */

    record When(Formula condition, Formula result) {
        public When {
            Objects.requireNonNull(condition, "condition");
            Objects.requireNonNull(result, "result");
        }
    }

    record Case(List<When> whens, Formula otherwise) implements Choice {
        public Case {
            Objects.requireNonNull(otherwise, "otherwise");
            whens = List.copyOf(whens);
            if (whens.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.cases(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            List<Formula> all = new ArrayList<>();
            whens.forEach(when -> all.addAll(List.of(when.condition(), when.result())));
            all.add(otherwise);
            return all;
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            List<When> changed = new ArrayList<>();
            for (int i = 0; i + 1 < operands.size(); i += 2) {
                changed.add(new When(operands.get(i), operands.get(i + 1)));
            }
            return new Case(changed, operands.get(operands.size() - 1));
        }

        @Override
        public String toString() {
            return "CASE " + whens.stream().map(when -> "WHEN " + when.condition() + " THEN " + when.result() + " ").collect(Collectors.joining())
                    + (otherwise instanceof Leaf.Absent ? "" : "ELSE " + otherwise + " ") + "END";
        }
    }

    record Coalesce(List<Formula> of) implements Choice {
        public Coalesce {
            of = List.copyOf(of);
            if (of.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.coalesce(this, kind);
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
            return new Coalesce(operands);
        }

        @Override
        public String toString() {
            return "COALESCE(" + Names.listed(of) + ")";
        }
    }

    record NullIf(Formula left, Formula right) implements Choice {
        public NullIf {
            Objects.requireNonNull(left, "left");
            Objects.requireNonNull(right, "right");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.nullIf(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return true;
        }

        @Override
        public List<Formula> operands() {
            return List.of(left, right);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new NullIf(operands.get(0), operands.get(1));
        }

        @Override
        public String toString() {
            return "NULLIF(" + left + ", " + right + ")";
        }
    }
}
