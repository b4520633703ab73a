package dev.trellisgorge.brief;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.coalesce;
import static dev.trellisgorge.formula.Formulas.concat;
import static dev.trellisgorge.formula.Formulas.floor;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.round;
import static dev.trellisgorge.formula.Formulas.setting;
import static dev.trellisgorge.formula.Formulas.truth;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import net.sf.jsqlparser.expression.AnalyticExpression;
import net.sf.jsqlparser.expression.BinaryExpression;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.CaseExpression;
import net.sf.jsqlparser.expression.DateTimeLiteralExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.ExtractExpression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.JdbcNamedParameter;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.WhenClause;
import net.sf.jsqlparser.expression.operators.arithmetic.Addition;
import net.sf.jsqlparser.expression.operators.arithmetic.Concat;
import net.sf.jsqlparser.expression.operators.arithmetic.Division;
import net.sf.jsqlparser.expression.operators.arithmetic.Multiplication;
import net.sf.jsqlparser.expression.operators.arithmetic.Subtraction;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.EqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.GreaterThan;
import net.sf.jsqlparser.expression.operators.relational.GreaterThanEquals;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsBooleanExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.MinorThan;
import net.sf.jsqlparser.expression.operators.relational.MinorThanEquals;
import net.sf.jsqlparser.expression.operators.relational.NotEqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ParenthesedExpressionList;
import net.sf.jsqlparser.parser.CCJSqlParser;
import net.sf.jsqlparser.parser.ParseException;
import net.sf.jsqlparser.parser.StringProvider;
import net.sf.jsqlparser.parser.Token;
import net.sf.jsqlparser.parser.TokenMgrException;
import net.sf.jsqlparser.schema.Column;
import net.sf.jsqlparser.statement.select.AllColumns;
import net.sf.jsqlparser.statement.select.OrderByElement;

/**
 * Reads ISO SQL value expressions (ISO/IEC 9075-2, 6) as formulas. What it takes:
 * <ul>
 *   <li>columns, in double quotes where they look like something else; {@code :goal}, a setting
 *   <li>{@code 400}, {@code 'North'}, {@code DATE '2031-03-01'}, {@code TRUE}, {@code FALSE}, {@code NULL}
 *   <li>{@code + - * /}, {@code ||}, {@code = <> < <= > >=}, {@code AND}, {@code OR}, {@code NOT}, in brackets or not
 *   <li>{@code IS NULL}, {@code IN (…)}, {@code BETWEEN … AND …}, each also with {@code NOT}
 *   <li>{@code CASE WHEN … THEN … ELSE … END}, {@code COALESCE}, {@code NULLIF}
 *   <li>{@code ABS}, {@code LEAST}, {@code GREATEST}, {@code FLOOR}, {@code ROUND} (halves away from zero), {@code EXTRACT} of
 *       {@code YEAR}, {@code QUARTER}, {@code MONTH} and {@code DAY}
 * </ul>
 * Truth has three values, as in SQL: what reads a missing cell is unknown, and what is unknown is not true. A division by zero
 * is missing.
 */
final class SqlExpression {
    static final String TAKEN = "An expression takes columns, numbers, 'texts', DATE '2031-03-01', :settings, + - * / ||, comparisons,"
            + " AND, OR, NOT, IS NULL, IN, BETWEEN, CASE, COALESCE, NULLIF, ABS, LEAST, GREATEST, FLOOR, ROUND and EXTRACT.";
    private static final List<String> FUNCTIONS = List.of("COALESCE", "NULLIF", "ABS", "LEAST", "GREATEST", "FLOOR", "ROUND", "EXTRACT");
    private static final int MOST_NESTED = Bound.EXPRESSION_DEPTH.count();
    private static final int MOST_DIGITS = 15;

    private final Names names;
    private final boolean aggregates;
    private int depth;

    /** What the words of an expression stand for. */
    interface Names {
        /** A column by its exact name. */
        Formula column(String name) throws NotTaken;

        /** Empty where it is not known. */
        Optional<Kind> kind(String column);

        Formula setting(String name) throws NotTaken;

        boolean isColumn(String name);
    }

    /** A sentence that says why an expression is none. */
    static final class NotTaken extends Exception {
        private static final long serialVersionUID = 1L;

        NotTaken(String sentence) {
            super(sentence);
        }
    }

    /** @param aggregates whether it may be over all rows */
    SqlExpression(Names names, boolean aggregates) {
        this.names = names;
        this.aggregates = aggregates;
    }

    Formula read(String text) throws NotTaken {
        QuotedNames quoted = QuotedNames.in(text, names::isColumn);
        try {
            CCJSqlParser parser = new CCJSqlParser(new StringProvider(quoted.text()));
            Expression parsed = parsed(parser, text);
            Token next = parser.getNextToken();
            if (next.kind != 0) {
                throw new NotTaken("'" + next.image + "' is not expected at character " + quoted.before(next.beginColumn) + " of '" + text + "'. " + TAKEN);
            }
            return formula(parsed);
        } catch (ParseException e) {
            Token next = e.currentToken == null ? null : e.currentToken.next;
            boolean ends = next == null || next.kind == 0;
            throw new NotTaken((ends ? "'" + text + "' is not complete (within { } a text with a comma stands in quotes)" : "'" + next.image + "' is not expected at character " + quoted.before(next.beginColumn)
                    + " of '" + text + "'") + ". " + TAKEN);
        } catch (TokenMgrException e) {
            throw new NotTaken("'" + text + "' has a quote that is never closed, or a character that no expression has. " + TAKEN);
        } catch (StackOverflowError e) {
            throw new NotTaken("more than " + MOST_NESTED + " of its parts stand within each other");
        }
    }

    /** The parser ends in an error of the run time at names that are made of dots. */
    private static Expression parsed(CCJSqlParser parser, String text) throws ParseException, NotTaken {
        try {
            return parser.Expression();
        } catch (TokenMgrException e) {
            throw e;
        } catch (RuntimeException e) {
            throw new NotTaken("'" + text + "' can't be read. " + TAKEN);
        }
    }

    private Formula formula(Expression e) throws NotTaken {
        if (++depth > MOST_NESTED) {
            throw new NotTaken("more than " + MOST_NESTED + " of its parts stand within each other");
        }
        try {
            return e instanceof BinaryExpression both ? binary(both) : other(e);
        } finally {
            depth--;
        }
    }

    private Formula binary(BinaryExpression e) throws NotTaken {
        if (!(e instanceof Concat) && (e.getLeftExpression() instanceof NullValue || e.getRightExpression() instanceof NullValue)) {
            throw new NotTaken("'" + e + "' is never true, as nothing equals a missing cell; write IS NULL or IS NOT NULL");
        }
        Formula left = formula(e.getLeftExpression());
        Formula right = formula(e.getRightExpression());
        if (e instanceof Addition) {
            return left.plus(right);
        } else if (e instanceof Subtraction) {
            return left.minus(right);
        } else if (e instanceof Multiplication) {
            return left.times(right);
        } else if (e instanceof Division) {
            return left.over(right);
        } else if (e instanceof Concat) {
            return concat(asText(left), asText(right));
        } else if (e instanceof AndExpression) {
            return left.and(right);
        } else if (e instanceof OrExpression) {
            return left.or(right);
        }
        return new Condition.Comparison(relation(e), left, right);
    }

    private static Condition.Relation relation(Expression e) throws NotTaken {
        if (e instanceof EqualsTo) {
            return Condition.Relation.EQUAL;
        } else if (e instanceof NotEqualsTo) {
            return Condition.Relation.UNEQUAL;
        } else if (e instanceof GreaterThan) {
            return Condition.Relation.ABOVE;
        } else if (e instanceof GreaterThanEquals) {
            return Condition.Relation.AT_LEAST;
        } else if (e instanceof MinorThan) {
            return Condition.Relation.BELOW;
        } else if (e instanceof MinorThanEquals) {
            return Condition.Relation.AT_MOST;
        }
        throw notTaken(e);
    }

    private static NotTaken notTaken(Expression e) {
        return new NotTaken("'" + e + "' is not taken here. " + TAKEN);
    }

    private Formula other(Expression e) throws NotTaken {
        if (e instanceof Column column) {
            return column(column);
        } else if (e instanceof LongValue value) {
            return number(Double.parseDouble(value.getStringValue()));
        } else if (e instanceof DoubleValue value) {
            return number(value.getValue());
        } else if (e instanceof StringValue stated) {
            return Formulas.text(stated.getNotExcapedValue());
        } else if (e instanceof BooleanValue stated) {
            return truth(stated.getValue());
        } else if (e instanceof NullValue) {
            return Formulas.absent();
        } else if (e instanceof JdbcNamedParameter setting) {
            return names.setting(setting.getName());
        } else if (e instanceof SignedExpression signed) {
            return signed(signed);
        } else if (e instanceof NotExpression inverse) {
            return not(formula(inverse.getExpression()));
        } else if (e instanceof ParenthesedExpressionList<?> list && list.size() == 1) {
            return formula(list.get(0));
        } else if (e instanceof DateTimeLiteralExpression literal) {
            return day(literal);
        }
        return test(e);
    }

    private Formula test(Expression e) throws NotTaken {
        if (e instanceof IsNullExpression isNull) {
            Formula of = formula(isNull.getLeftExpression());
            return isNull.isNot() ? present(of) : missing(of);
        } else if (e instanceof IsBooleanExpression is) {
            Formula of = formula(is.getLeftExpression());
            return choose(is.isTrue() ? of : not(of), truth(!is.isNot()), truth(is.isNot()));
        } else if (e instanceof InExpression in) {
            return in(in);
        } else if (e instanceof Between between) {
            Formula of = formula(between.getLeftExpression());
            Formula within = of.atLeast(formula(between.getBetweenExpressionStart())).and(of.atMost(formula(between.getBetweenExpressionEnd())));
            return between.isNot() ? not(within) : within;
        } else if (e instanceof CaseExpression cases) {
            return cases(cases);
        } else if (e instanceof ExtractExpression extract) {
            return extracted(extract);
        } else if (e instanceof Function function) {
            return aggregates && isTotal(function.getName().toUpperCase(Locale.ROOT)) ? aggregate(function) : function(function);
        } else if (aggregates && e instanceof AnalyticExpression first) {
            return firstValue(first);
        }
        throw notTaken(e);
    }

    private Formula column(Column column) throws NotTaken {
        if (column.getTable() != null && column.getTable().getName() != null) {
            String whole = column.getFullyQualifiedName().replace("\"", ""); // the parser divides a name at its points, in quotes too
            if (!names.isColumn(whole)) {
                throw new NotTaken("'" + column + "' names a table; after a join its columns stand here by their own names");
            }
            return names.column(whole);
        }
        String name = column.getColumnName();
        boolean quoted = name.length() > 1 && name.startsWith("\"") && name.endsWith("\"");
        return names.column(quoted ? name.substring(1, name.length() - 1).replace("\"\"", "\"") : name);
    }

    private Formula signed(SignedExpression signed) throws NotTaken {
        if (signed.getSign() != '-' && signed.getSign() != '+') {
            throw notTaken(signed);
        }
        Formula of = formula(signed.getExpression());
        if (signed.getSign() == '+') {
            return of;
        }
        return of instanceof Leaf.Literal stated && stated.kind() == Kind.NUMBER ? number(-stated.figure()) : negate(of);
    }

    private static Formula day(DateTimeLiteralExpression literal) throws NotTaken {
        String value = literal.getValue().replaceAll("^'|'$", "");
        try {
            if (literal.getType() == DateTimeLiteralExpression.DateTime.DATE) {
                return Formulas.date(LocalDate.parse(value));
            }
        } catch (DateTimeParseException e) {
            throw new NotTaken("'" + value + "' is no date; write DATE '2031-03-01'");
        }
        throw notTaken(literal);
    }

    private Formula in(InExpression given) throws NotTaken {
        if (!(given.getRightExpression() instanceof ExpressionList<?> list) || list.isEmpty()) {
            throw notTaken(given);
        }
        List<Formula> among = new ArrayList<>();
        for (Expression each : list) {
            among.add(formula(each));
        }
        Formula in = new Condition.In(formula(given.getLeftExpression()), among);
        return given.isNot() ? not(in) : in;
    }

    private Formula cases(CaseExpression cases) throws NotTaken {
        List<Choice.When> whens = new ArrayList<>();
        Formula switched = cases.getSwitchExpression() == null ? null : formula(cases.getSwitchExpression());
        for (WhenClause clause : cases.getWhenClauses()) {
            Formula when = formula(clause.getWhenExpression());
            whens.add(new Choice.When(switched == null ? when : switched.equalTo(when), formula(clause.getThenExpression())));
        }
        return new Choice.Case(whens, cases.getElseExpression() == null ? Formulas.absent() : formula(cases.getElseExpression()));
    }

    private Formula extracted(ExtractExpression extract) throws NotTaken {
        Formula of = formula(extract.getExpression());
        return switch (extract.getName().toUpperCase(Locale.ROOT)) {
            case "YEAR" -> new Calendar.CalendarField(of, Calendar.Part.YEAR);
            case "QUARTER" -> new Calendar.CalendarField(of, Calendar.Part.QUARTER);
            case "MONTH" -> new Calendar.CalendarField(of, Calendar.Part.MONTH);
            case "DAY" -> new Calendar.CalendarField(of, Calendar.Part.DAY);
            default -> throw new NotTaken("EXTRACT takes YEAR, QUARTER, MONTH or DAY, not " + extract.getName());
        };
    }

    private Formula function(Function function) throws NotTaken {
        String name = function.getName().toUpperCase(Locale.ROOT);
        List<Formula> given = new ArrayList<>();
        if (function.getParameters() != null) {
            for (Expression each : function.getParameters()) {
                given.add(formula(each));
            }
        }
        return switch (name) {
            case "ABS" -> abs(one(name, given));
            case "FLOOR" -> floor(one(name, given));
            case "LEAST" -> least(some(name, given));
            case "GREATEST" -> greatest(some(name, given));
            case "COALESCE" -> coalesce(some(name, given));
            case "NULLIF" -> nullIf(given);
            case "ROUND" -> rounded(given);
            default -> throw new NotTaken("there is no function '" + function.getName() + "' here. "
                    + Nearest.hint(name, FUNCTIONS) + (isTotal(name) ? " Rows are totalled by a 'total' step." : ""));
        };
    }

    private Formula aggregate(Function function) throws NotTaken {
        String name = function.getName().toUpperCase(Locale.ROOT);
        if (name.equals("COUNT") && function.getParameters() != null && function.getParameters().size() == 1 && function.getParameters().get(0) instanceof AllColumns) {
            return Formulas.rowCount();
        }
        if (function.isDistinct() || function.getParameters() == null || function.getParameters().size() != 1) {
            throw new NotTaken(name + " takes one value, as in " + name + "(mwh)");
        }
        Formula of = formula(function.getParameters().get(0));
        return switch (name) {
            case "SUM" -> Formulas.sum(of);
            case "AVG" -> Formulas.sum(of).over(Formulas.count(of));
            case "MIN" -> Formulas.min(of);
            case "MAX" -> Formulas.max(of);
            default -> Formulas.count(of);
        };
    }

    /** {@code FIRST_VALUE(station) OVER (ORDER BY mwh DESC)}; rows with equal keys are in table order. */
    private Formula firstValue(AnalyticExpression e) throws NotTaken {
        boolean first = e.getName().equalsIgnoreCase("FIRST_VALUE") && e.getExpression() != null && e.getOffset() == null;
        if (!first || e.getPartitionExpressionList() != null && !e.getPartitionExpressionList().isEmpty() || e.getWindowElement() != null || e.getOrderByElements() == null || e.getOrderByElements().size() != 1) {
            throw new NotTaken("'" + e + "' is not taken here; over all rows there are SUM, AVG, MIN, MAX, COUNT, and FIRST_VALUE(station) OVER (ORDER BY mwh DESC)");
        }
        OrderByElement by = e.getOrderByElements().get(0);
        Formula rank = new Window.Rank(formula(by.getExpression()), by.isAsc() ? Window.Direction.ASCENDING : Window.Direction.DESCENDING, Window.Ties.BY_ROW);
        return new Window.Lookup(formula(e.getExpression()), rank, number(1));
    }

    private static boolean isTotal(String name) {
        return List.of("SUM", "AVG", "COUNT", "MIN", "MAX").contains(name);
    }

    private static Formula one(String name, List<Formula> given) throws NotTaken {
        if (given.size() != 1) {
            throw new NotTaken(name + " takes one value, not " + given.size());
        }
        return given.get(0);
    }

    private static Formula[] some(String name, List<Formula> given) throws NotTaken {
        if (given.isEmpty()) {
            throw new NotTaken(name + " takes one value or more");
        }
        return given.toArray(Formula[]::new);
    }

    private static Formula nullIf(List<Formula> given) throws NotTaken {
        if (given.size() != 2) {
            throw new NotTaken("NULLIF takes two values, not " + given.size());
        }
        return new Choice.NullIf(given.get(0), given.get(1));
    }

    private static Formula rounded(List<Formula> given) throws NotTaken {
        if (given.size() == 1) {
            return round(given.get(0));
        }
        if (given.size() != 2 || !(given.get(1) instanceof Leaf.Literal digits) || digits.kind() != Kind.NUMBER || digits.figure() != Math.rint(digits.figure())
                || Math.abs(digits.figure()) > MOST_DIGITS) {
            throw new NotTaken("ROUND takes a value, and after it a number of decimals or nothing");
        }
        return round(given.get(0), (int) digits.figure());
    }

    /** A text as it is, all else written as one; a text that is written stays as it is. */
    private Formula asText(Formula formula) {
        return isText(formula) ? formula : Formulas.written(formula);
    }

    private boolean isText(Formula formula) {
        if (formula instanceof Leaf.Column column) {
            return names.kind(column.name()).orElse(Kind.TEXT) == Kind.TEXT;
        }
        return formula instanceof Leaf.Literal stated && stated.kind() == Kind.TEXT || formula instanceof Textual || formula instanceof Leaf.Absent
                || formula instanceof Choice.Case chosen && chosen.whens().stream().allMatch(when -> isText(when.result())) && isText(chosen.otherwise())
                || formula instanceof Choice.Coalesce first && first.of().stream().allMatch(this::isText)
                || formula instanceof Choice.NullIf either && isText(either.left());
    }
}
