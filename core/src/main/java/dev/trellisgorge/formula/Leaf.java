package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/** Formulas that are made of no others: cells, stated values, settings, the number of the row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Leaf extends Formula {

    @Override
    default boolean failsOn(List<Kind> operands) {
        return false;
    }

    record Column(String name) implements Leaf {
        public Column {
            Objects.requireNonNull(name, "name");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.column(this, kind);
        }

        @Override
        public String toString() {
            return Names.quoted(name);
        }
    }

    record Computed(String name) implements Leaf {
        public Computed {
            Objects.requireNonNull(name, "name");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.computed(this, kind);
        }

        @Override
        public String toString() {
            return "\"" + name.replace("\"", "\"\"") + "\"";
        }
    }

    /**
     * A cell that is stated.
     *
     * @param kind  what it is
     * @param value a Double, a String, a LocalDate or a Boolean, as {@code kind} says
     */

    record Literal(Kind kind, Object value) implements Leaf {
        /** @throws IllegalArgumentException where the value is not of the kind, or is no number */
        public Literal {
            Objects.requireNonNull(kind, "kind");
            Objects.requireNonNull(value, "value");
            Class<?> wanted = kind == Kind.NUMBER ? Double.class : kind == Kind.TEXT ? String.class : kind == Kind.DATE ? LocalDate.class : Boolean.class;
            if (!wanted.isInstance(value) || kind == Kind.NUMBER && ((Double) value).isNaN()) {
                throw new IllegalArgumentException(value + " is not " + kind.phrase());
            }
        }

        /** The number, the epoch day of the date, or 1 for true and 0 for false. */
        public double figure() {
            return switch (kind) {
                case NUMBER -> (Double) value;
                case DATE -> ((LocalDate) value).toEpochDay();
                case TRUTH -> (Boolean) value ? 1 : 0;
                case TEXT -> throw new IllegalStateException("a text is not a figure");
            };
        }

        @Override
        public <R> R match(Cases<R> cases, Kind ofCells) {
            return cases.literal(this, ofCells);
        }

        @Override
        public String toString() {
            return switch (kind) {
                case NUMBER -> Numbers.shortest((Double) value);
                case TEXT -> Names.text((String) value);
                case DATE -> "DATE '" + value + "'";
                case TRUTH -> value.toString().toUpperCase(Locale.ROOT);
            };
        }
    }

    record Absent() implements Leaf {
        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.absent(this, kind);
        }

        @Override
        public String toString() {
            return "NULL";
        }
    }

    record Setting(String name) implements Leaf {
        public Setting {
            Objects.requireNonNull(name, "name");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.setting(this, kind);
        }

        @Override
        public String toString() {
            return ":" + name;
        }
    }

    record RowNumber() implements Leaf {
        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.rowNumber(this, kind);
        }

        @Override
        public String toString() {
            return "ROW_NUMBER()";
        }
    }
}
