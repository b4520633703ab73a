package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** The back end that writes a column of stages as an SQL expression over the relation before it. Missing cells are NULL. */
final class SqlFormula implements Formula.Cases<String> {
    /** Whole numbers below it are written as such. */
    private static final double LONGS = 1e18;

    private final Dialect dialect;
    private final Typing typing;
    private final Names names;
    private final Place place;
    private final SqlSums sums;

    /** What the leaves of a formula are called. */
    interface Names {
        /** As a double, where it is a number. */
        String column(String name);

        /** Where a formula is a column of decimal numbers, its cell as the database keeps it. */
        Optional<String> decimal(Formula of);

        String computed(String name);

        String setting(String name);

        /** The column that numbers the rows from 1. */
        String row();

        /** The relation that the leaves are columns of. */
        String relation();

        /** A column that was computed before for a formula to read. */
        String aid(Relation.Aid aid);

        /** The same names, of one of several relations that an expression reads. */
        Names of(String alias);
    }

    SqlFormula(Dialect dialect, Typing typing, Names names, Place place) {
        this.dialect = dialect;
        this.typing = typing;
        this.names = names;
        this.place = place;
        this.sums = new SqlSums(dialect);
    }

    /** @throws BadInput where the dialect can't say it */
    String write(Formula formula) {
        return typing.match(formula, this);
    }

    private Unsaid refused(Formula f, String why) {
        return new Unsaid(place, "'" + f + "' isn't supported by the dialect " + dialect + ": " + why);
    }

    private String all(List<Formula> of, String between) {
        return of.stream().map(this::write).collect(Collectors.joining(between));
    }

    @Override
    public String column(Leaf.Column f, Kind kind) {
        return names.column(f.name());
    }

    @Override
    public String computed(Leaf.Computed f, Kind kind) {
        return names.computed(f.name());
    }

    @Override
    public String literal(Leaf.Literal f, Kind kind) {
        return dialect.literal(f.value());
    }

    @Override
    public String absent(Leaf.Absent f, Kind kind) {
        return "CAST(NULL AS " + dialect.type(kind) + ")";
    }

    @Override
    public String setting(Leaf.Setting f, Kind kind) {
        return names.setting(f.name());
    }

    @Override
    public String rowNumber(Leaf.RowNumber f, Kind kind) {
        return dialect.cast(names.row(), Kind.NUMBER);
    }

    @Override
    public String arithmetic(Numeric.Arithmetic f, Kind kind) {
        String left = write(f.left());
        String right = write(f.right());
        return switch (f.operator()) {
            case PLUS -> "(" + left + " + " + right + ")";
            case MINUS -> "(" + left + " - " + right + ")";
            case TIMES -> "(" + left + " * " + right + ")";
            case OVER -> "(" + left + " / NULLIF(" + right + ", 0))";
        };
    }

    /** Databases pass over missing sides, or don't: so each is asked for. */
    @Override
    public String extreme(Numeric.Extreme f, Kind kind) {
        List<String> sides = f.of().stream().map(this::write).distinct().toList();
        String end = sides.size() == 1 ? sides.get(0) : f.end() + "(" + String.join(", ", sides) + ")";
        String there = f.of().stream().filter(each -> !(each instanceof Leaf.Literal)).map(each -> write(each) + " IS NOT NULL").distinct().collect(Collectors.joining(" AND "));
        return there.isEmpty() || sides.size() == 1 ? end : "CASE WHEN " + there + " THEN " + end + " END";
    }

    @Override
    public String negate(Numeric.Negate f, Kind kind) {
        return "(-" + write(f.of()) + ")";
    }

    @Override
    public String abs(Numeric.Abs f, Kind kind) {
        return "ABS(" + write(f.of()) + ")";
    }

    @Override
    public String floor(Numeric.Floor f, Kind kind) {
        return dialect.cast("FLOOR(" + write(f.of()) + ")", Kind.NUMBER);
    }

    /** Of the decimal number that a reader sees; a figure that has no such decimals in a double stays as it is. */
    @Override
    public String round(Numeric.Round f, Kind kind) {
        String of = write(f.of());
        return "CASE WHEN ABS(" + of + ") < " + dialect.number(1e15) + " THEN " + dialect.cast("ROUND(" + dialect.decimal(of) + ", " + f.digits() + ")", Kind.NUMBER) + " ELSE " + of + " END";
    }

    @Override
    public String comparison(Condition.Comparison f, Kind kind) {
        String sign = switch (f.relation()) {
            case BELOW -> "<";
            case AT_MOST -> "<=";
            case ABOVE -> ">";
            case AT_LEAST -> ">=";
            case EQUAL -> "=";
            case UNEQUAL -> "<>";
        };
        if (isDecimal(f.left()) && isDecimal(f.right())) {
            return "(" + decimal(f.left()) + " " + sign + " " + decimal(f.right()) + ")";
        }
        Kind sides = f.relation() == Condition.Relation.EQUAL || f.relation() == Condition.Relation.UNEQUAL ? Kind.NUMBER : typing.of(f.left());
        return "(" + dialect.sized(write(f.left()), sides) + " " + sign + " " + dialect.sized(write(f.right()), sides) + ")";
    }

    @Override
    public String in(Condition.In f, Kind kind) {
        Formula of = f.operands().get(0);
        return "(" + f.operands().subList(1, f.operands().size()).stream().map(each -> isDecimal(of) && isDecimal(each) ? decimal(of) + " = " + decimal(each) : write(of) + " = " + write(each)).collect(Collectors.joining(" OR ")) + ")";
    }

    /** What is compared as the database keeps it: a column of decimal numbers, or a whole number that is stated. */
    private boolean isDecimal(Formula f) {
        return names.decimal(f).isPresent() || f instanceof Leaf.Literal literal && literal.value() instanceof Double figure && figure == Math.rint(figure) && Math.abs(figure) < LONGS;
    }

    private String decimal(Formula f) {
        return names.decimal(f).orElseGet(() -> Long.toString(((Double) ((Leaf.Literal) f).value()).longValue()));
    }

    @Override
    public String logic(Condition.Logic f, Kind kind) {
        return "(" + all(f.of(), " " + f.connective() + " ") + ")";
    }

    @Override
    public String not(Condition.Not f, Kind kind) {
        return "(NOT " + write(f.of()) + ")";
    }

    @Override
    public String present(Condition.Present f, Kind kind) {
        return "(" + write(f.of()) + " IS NOT NULL)";
    }

    @Override
    public String cases(Choice.Case f, Kind kind) {
        return "CASE" + f.whens().stream().map(when -> " WHEN " + write(when.condition()) + " THEN " + write(when.result())).collect(Collectors.joining())
                + (f.otherwise() instanceof Leaf.Absent ? "" : " ELSE " + write(f.otherwise())) + " END";
    }

    @Override
    public String coalesce(Choice.Coalesce f, Kind kind) {
        return "COALESCE(" + all(f.of(), ", ") + ")";
    }

    @Override
    public String nullIf(Choice.NullIf f, Kind kind) {
        return "NULLIF(" + write(f.left()) + ", " + write(f.right()) + ")";
    }

    @Override
    public String calendarField(Calendar.CalendarField f, Kind kind) {
        String of = write(f.of());
        String date = typing.of(f.of()) == Kind.DATE ? of : new Periods(dialect).firstDay(of, CalendarUnit.valueOf(f.part().name()));
        return dialect.cast("EXTRACT(" + f.part() + " FROM " + date + ")", Kind.NUMBER);
    }

    @Override
    public String period(Calendar.Period f, Kind kind) {
        Periods periods = new Periods(dialect);
        return typing.of(f.of()) == Kind.DATE ? periods.number(write(f.of()), f.unit()) : periods.numberOfText(write(f.of()), f.unit());
    }

    @Override
    public String concat(Textual.Concat f, Kind kind) {
        return "(" + all(f.of(), " || ") + ")";
    }

    @Override
    public String repeat(Textual.Repeat f, Kind kind) {
        String count = write(f.count());
        return "CASE WHEN " + count + " >= 1 THEN REPEAT(" + write(f.text()) + ", CAST(FLOOR(" + count + ") AS INTEGER)) WHEN " + count + " < 1 AND " + write(f.text()) + " IS NOT NULL THEN '' END";
    }

    @Override
    public String text(Textual.Text f, Kind kind) {
        String of = write(f.of());
        return switch (typing.of(f.of())) {
            case TEXT -> of;
            case DATE -> dialect.cast(of, Kind.TEXT);
            case TRUTH -> "CASE WHEN " + of + " THEN 'true' WHEN NOT " + of + " THEN 'false' END";
            case NUMBER -> new WrittenDigits(dialect, names, f.of()).shortest(of);
        };
    }

    @Override
    public String formatted(Textual.Formatted f, Kind kind) {
        if (f.of() instanceof Leaf.Absent) { // of whatever kind the pattern is for
            return "CAST(NULL AS " + dialect.type(kind) + ")";
        }
        WrittenFigures written = new WrittenFigures(dialect);
        String of = write(f.of());
        Optional<String> text = switch (typing.of(f.of())) {
            case NUMBER -> WrittenDigits.hasExponent(f) ? WrittenDigits.exponential(dialect, f, of, names) : written.number(f, of, names);
            case DATE -> written.day(of, f.pattern(), f.locale());
            default -> written.period(of, f.pattern(), f.locale());
        };
        return text.orElseThrow(() -> refused(f, "the pattern '" + f.pattern() + "' is not made of what databases have in common"));
    }

    @Override
    public String aggregate(Window.Aggregate f, Kind kind) {
        String of = f.fold() == Window.Fold.COUNT && f.of() instanceof Leaf.Literal ? "*" : write(f.of());
        if (f.fold() == Window.Fold.SUM) {
            return names.decimal(f.of()).map(cell -> sums.exactSum(cell, " OVER ()")).orElseGet(() -> sums.sum(of, " OVER ()"));
        }
        String folded = f.fold() + "(" + of + ") OVER ()";
        return f.fold() == Window.Fold.COUNT ? dialect.cast(folded, Kind.NUMBER) : folded;
    }

    private String soFar() {
        return "ORDER BY " + names.row() + " ROWS UNBOUNDED PRECEDING";
    }

    @Override
    public String cumulative(Window.Cumulative f, Kind kind) {
        String over = " OVER (" + (f.restart() instanceof Leaf.Absent ? "" : "PARTITION BY " + names.aid(new Relation.Aid.Part(f)) + " ") + soFar() + ")";
        String sum = names.decimal(f.of()).map(cell -> sums.exactSum(cell, over)).orElseGet(() -> sums.sum(write(f.of()), over));
        return "COALESCE(" + sum + ", " + dialect.number(0) + ")";
    }

    @Override
    public String lag(Window.Lag f, Kind kind) {
        return "LAG(" + write(f.of()) + ") OVER (ORDER BY " + names.row() + ")";
    }

    @Override
    public String rank(Window.Rank f, Kind kind) {
        String of = write(f.of());
        String down = f.direction() == Window.Direction.DESCENDING ? " DESC" : "";
        String over = " OVER (ORDER BY " + dialect.sized(of, typing.of(f.of())) + down + " NULLS LAST" + (f.ties() == Window.Ties.BY_ROW ? ", " + names.row() : "") + ")";
        return "CASE WHEN " + of + " IS NOT NULL THEN " + dialect.cast((f.ties() == Window.Ties.SHARED ? "RANK()" : "ROW_NUMBER()") + over, Kind.NUMBER) + " END";
    }

    @Override
    public String lookup(Window.Lookup f, Kind kind) {
        SqlFormula there = new SqlFormula(dialect, typing, names.of("there"), place);
        SqlFormula here = new SqlFormula(dialect, typing, names.of("here"), place);
        String from = " FROM " + names.relation() + " " + dialect.quoted("there") + " WHERE " + there.write(f.key()) + " = " + here.write(f.wanted());
        return dialect.first(there.write(f.of()), there.names.row(), from);
    }
}
