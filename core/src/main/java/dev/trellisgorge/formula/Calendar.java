package dev.trellisgorge.formula;

import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Objects;

/** Formulas of numbers over dates, or over texts that name dates and periods. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Calendar extends Formula {

    /** A field of a date. */
    enum Part {
        YEAR, QUARTER, MONTH, DAY
    }

    record CalendarField(Formula of, Part part) implements Calendar {
        public CalendarField {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(part, "part");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.calendarField(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return operands.get(0) == Kind.TEXT;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new CalendarField(operands.get(0), part);
        }

        @Override
        public String toString() {
            return "EXTRACT(" + part + " FROM " + of + ")";
        }
    }

    record Period(Formula of, CalendarUnit unit) implements Calendar {
        public Period {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(unit, "unit");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.period(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return operands.get(0) == Kind.TEXT;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Period(operands.get(0), unit);
        }

        @Override
        public String toString() {
            return "PERIOD(" + unit + " FROM " + of + ")";
        }
    }
}
