package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.Kind;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;

/**
 * Which formulas may be absent on some row, as far as can be told from the formulas and from which cells are there. What it says can't be
 * absent never is; what it says may be need not. Not thread-safe.
 */
final class Presence {
    private final Typing typing;
    private final Predicate<String> columns;
    private final Predicate<String> settings;
    private final Map<String, Boolean> computed = new HashMap<>();

    /**
     * @param stages   the computed columns
     * @param typing   what they were staged with
     * @param columns  true of the table's columns that have a cell on every row, and of the columns that were computed before
     * @param settings true of the settings that have a value
     */
    Presence(Stages stages, Typing typing, Predicate<String> columns, Predicate<String> settings) {
        this.typing = Objects.requireNonNull(typing, "typing");
        this.columns = Objects.requireNonNull(columns, "columns");
        this.settings = Objects.requireNonNull(settings, "settings");
        stages.columns().forEach(column -> computed.put(column.name(), mayBeAbsent(column.formula())));
    }

    private Presence(Presence other, Predicate<String> columns) {
        this.typing = other.typing;
        this.columns = columns;
        this.settings = other.settings;
        this.computed.putAll(other.computed);
    }

    /** The same for some of the rows: what is said of computed columns is of all. */
    public Presence where(Predicate<String> columnsThere) {
        return new Presence(this, Objects.requireNonNull(columnsThere, "columnsThere"));
    }

    /** Whether a formula may be absent on some row. */
    public boolean mayBeAbsent(Formula formula) {
        return typing.match(formula, new Absences());
    }

    private boolean any(List<Formula> formulas) {
        return formulas.stream().anyMatch(this::mayBeAbsent);
    }

    private boolean anyOperand(Formula formula) {
        return any(formula.operands());
    }

    private boolean anyOperandOrItself(Formula formula) {
        return anyOperand(formula) || typing.fails(formula);
    }

    private final class Absences implements Formula.Cases<Boolean> {
        @Override
        public Boolean column(Leaf.Column f, Kind kind) {
            return !columns.test(f.name());
        }

        @Override
        public Boolean computed(Leaf.Computed f, Kind kind) {
            return computed.containsKey(f.name()) ? computed.get(f.name()) : !columns.test(f.name());
        }

        @Override
        public Boolean literal(Leaf.Literal f, Kind kind) {
            return false;
        }

        @Override
        public Boolean absent(Leaf.Absent f, Kind kind) {
            return true;
        }

        @Override
        public Boolean setting(Leaf.Setting f, Kind kind) {
            return !settings.test(f.name());
        }

        @Override
        public Boolean rowNumber(Leaf.RowNumber f, Kind kind) {
            return false;
        }

        @Override
        public Boolean arithmetic(Numeric.Arithmetic f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean extreme(Numeric.Extreme f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean negate(Numeric.Negate f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean abs(Numeric.Abs f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean floor(Numeric.Floor f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean round(Numeric.Round f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean comparison(Condition.Comparison f, Kind kind) {
            return anyOperand(f);
        }

        @Override
        public Boolean in(Condition.In f, Kind kind) {
            return anyOperand(f);
        }

        @Override
        public Boolean logic(Condition.Logic f, Kind kind) {
            return anyOperand(f);
        }

        @Override
        public Boolean not(Condition.Not f, Kind kind) {
            return anyOperand(f);
        }

        @Override
        public Boolean present(Condition.Present f, Kind kind) {
            return false;
        }

        @Override
        public Boolean cases(Choice.Case f, Kind kind) {
            return mayBeAbsent(f.otherwise()) || f.whens().stream().anyMatch(when -> mayBeAbsent(when.result()));
        }

        @Override
        public Boolean coalesce(Choice.Coalesce f, Kind kind) {
            return f.of().stream().allMatch(Presence.this::mayBeAbsent);
        }

        @Override
        public Boolean nullIf(Choice.NullIf f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean calendarField(Calendar.CalendarField f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean period(Calendar.Period f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean concat(Textual.Concat f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean repeat(Textual.Repeat f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean text(Textual.Text f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean formatted(Textual.Formatted f, Kind kind) {
            return anyOperandOrItself(f);
        }

        /** Over at least one row, as it stands on one. */
        @Override
        public Boolean aggregate(Window.Aggregate f, Kind kind) {
            return f.fold() != Window.Fold.COUNT && anyOperand(f);
        }

        @Override
        public Boolean cumulative(Window.Cumulative f, Kind kind) {
            return false;
        }

        @Override
        public Boolean lag(Window.Lag f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean rank(Window.Rank f, Kind kind) {
            return anyOperandOrItself(f);
        }

        @Override
        public Boolean lookup(Window.Lookup f, Kind kind) {
            return anyOperandOrItself(f);
        }
    }
}
