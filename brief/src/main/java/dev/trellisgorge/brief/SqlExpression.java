package dev.trellisgorge.brief;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.floor;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.magnitude;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.not;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.round;
import static dev.trellisgorge.formula.Formulas.words;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BinaryOperator;
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
    private static final int MOST_NESTED = 200;

    private final Names names;
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

    SqlExpression(Names names) {
        this.names = names;
    }

    Formula read(String text) throws NotTaken {
        QuotedNames quoted = QuotedNames.in(text, names::isColumn);
        try {
            CCJSqlParser parser = new CCJSqlParser(new StringProvider(quoted.text()));
            Expression parsed = parser.Expression();
            Token next = parser.getNextToken();
            if (next.kind != 0) {
                throw new NotTaken("'" + next.image + "' is not expected at sign " + quoted.before(next.beginColumn) + " of '" + text + "'. " + TAKEN);
            }
            return formula(parsed);
        } catch (ParseException e) {
            Token next = e.currentToken == null ? null : e.currentToken.next;
            boolean ends = next == null || next.kind == 0;
            throw new NotTaken((ends ? "'" + text + "' is not complete (within { } a text with a comma stands in quotes)" : "'" + next.image + "' is not expected at sign " + quoted.before(next.beginColumn)
                    + " of '" + text + "'") + ". " + TAKEN);
        } catch (TokenMgrException e) {
            throw new NotTaken("'" + text + "' has a quote that is never closed, or a sign that no expression has. " + TAKEN);
        } catch (StackOverflowError e) {
            throw new NotTaken("the expression is nested too deeply");
        }
    }

    private Formula formula(Expression e) throws NotTaken {
        if (++depth > MOST_NESTED) {
            throw new NotTaken("the expression is nested too deeply");
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
            return new Formula.Joined(asText(left), asText(right));
        } else if (e instanceof AndExpression) {
            return left.and(right);
        } else if (e instanceof OrExpression) {
            return left.or(right);
        }
        return new Formula.Comparison(relation(e), left, right);
    }

    private static Formula.Relation relation(Expression e) throws NotTaken {
        if (e instanceof EqualsTo) {
            return Formula.Relation.EQUAL;
        } else if (e instanceof NotEqualsTo) {
            return Formula.Relation.UNEQUAL;
        } else if (e instanceof GreaterThan) {
            return Formula.Relation.ABOVE;
        } else if (e instanceof GreaterThanEquals) {
            return Formula.Relation.AT_LEAST;
        } else if (e instanceof MinorThan) {
            return Formula.Relation.BELOW;
        } else if (e instanceof MinorThanEquals) {
            return Formula.Relation.AT_MOST;
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
        } else if (e instanceof StringValue text) {
            return words(text.getNotExcapedValue());
        } else if (e instanceof BooleanValue truth) {
            return truth.getValue() ? Formulas.always() : Formulas.never();
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
            Formula truth = choose(formula(is.getLeftExpression()), number(1), number(0));
            return is.isTrue() ? truth.equalTo(number(is.isNot() ? 0 : 1)) : isFalse(is);
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
            return function(function);
        }
        throw notTaken(e);
    }

    private Formula isFalse(IsBooleanExpression is) throws NotTaken {
        Formula untrue = choose(not(formula(is.getLeftExpression())), number(1), number(0));
        return untrue.equalTo(number(is.isNot() ? 0 : 1));
    }

    private Formula column(Column column) throws NotTaken {
        if (column.getTable() != null && column.getTable().getName() != null) {
            throw new NotTaken("'" + column + "' names a table; after a join its columns stand here by their own names");
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
        return of instanceof Formula.Constant constant ? number(-constant.value()) : number(0).minus(of);
    }

    private static Formula day(DateTimeLiteralExpression literal) throws NotTaken {
        String value = literal.getValue().replaceAll("^'|'$", "");
        try {
            if (literal.getType() == DateTimeLiteralExpression.DateTime.DATE) {
                return new Formula.Day(LocalDate.parse(value));
            }
        } catch (DateTimeParseException e) {
            throw new NotTaken("'" + value + "' is no date; write DATE '2031-03-01'");
        }
        throw notTaken(literal);
    }

    private Formula in(InExpression in) throws NotTaken {
        if (!(in.getRightExpression() instanceof ExpressionList<?> list) || list.isEmpty()) {
            throw notTaken(in);
        }
        Formula of = formula(in.getLeftExpression());
        Formula any = null;
        for (Expression each : list) {
            Formula same = of.equalTo(formula(each));
            any = any == null ? same : any.or(same);
        }
        return in.isNot() ? not(any) : any;
    }

    private Formula cases(CaseExpression cases) throws NotTaken {
        Formula otherwise = cases.getElseExpression() == null ? Formulas.absent() : formula(cases.getElseExpression());
        List<WhenClause> clauses = cases.getWhenClauses();
        for (int i = clauses.size() - 1; i >= 0; i--) {
            Formula when = formula(clauses.get(i).getWhenExpression());
            Formula condition = cases.getSwitchExpression() == null ? when : formula(cases.getSwitchExpression()).equalTo(when);
            otherwise = choose(condition, formula(clauses.get(i).getThenExpression()), otherwise);
        }
        return otherwise;
    }

    private Formula extracted(ExtractExpression extract) throws NotTaken {
        Formula of = formula(extract.getExpression());
        Formula month = new Formula.Period(of, CalendarUnit.MONTH);
        return switch (extract.getName().toUpperCase(Locale.ROOT)) {
            case "YEAR" -> new Formula.Period(of, CalendarUnit.YEAR);
            case "QUARTER" -> within(new Formula.Period(of, CalendarUnit.QUARTER), 4);
            case "MONTH" -> within(month, 12);
            case "DAY" -> new Formula.Period(of, CalendarUnit.DAY).minus(firstDay(month)).plus(number(1));
            default -> throw new NotTaken("EXTRACT takes YEAR, QUARTER, MONTH or DAY, not " + extract.getName());
        };
    }

    /** Periods are numbered on; the place of one within its year counts from 1. */
    private static Formula within(Formula period, int aYear) {
        return period.minus(number(aYear).times(floor(period.over(number(aYear))))).plus(number(1));
    }

    /** The day number of a month's first day, by the proleptic Gregorian calendar with years that start in March. */
    private static Formula firstDay(Formula month) {
        Formula fromMarch = month.minus(number(2));
        Formula year = floor(fromMarch.over(number(12)));
        Formula ofYear = fromMarch.minus(number(12).times(year));
        return number(365).times(year).plus(floor(year.over(number(4)))).minus(floor(year.over(number(100)))).plus(floor(year.over(number(400))))
                .plus(floor(number(153).times(ofYear).plus(number(2)).over(number(5)))).minus(number(719_468));
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
            case "ABS" -> magnitude(one(name, given));
            case "FLOOR" -> floor(one(name, given));
            case "LEAST" -> folded(name, given, Formulas::least);
            case "GREATEST" -> folded(name, given, Formulas::greatest);
            case "COALESCE" -> folded(name, given, (a, b) -> choose(present(a), a, b));
            case "NULLIF" -> nullIf(given);
            case "ROUND" -> rounded(given);
            default -> throw new NotTaken("there is no function '" + function.getName() + "' here. "
                    + Nearest.hint(name, FUNCTIONS) + (isTotal(name) ? " Rows are totalled by a 'total' step." : ""));
        };
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

    /** From the last to the first, as COALESCE looks at the first one first. */
    private static Formula folded(String name, List<Formula> given, BinaryOperator<Formula> fold) throws NotTaken {
        if (given.isEmpty()) {
            throw new NotTaken(name + " takes one value or more");
        }
        Formula result = given.get(given.size() - 1);
        for (int i = given.size() - 2; i >= 0; i--) {
            result = fold.apply(given.get(i), result);
        }
        return result;
    }

    private static Formula nullIf(List<Formula> given) throws NotTaken {
        if (given.size() != 2) {
            throw new NotTaken("NULLIF takes two values, not " + given.size());
        }
        return choose(given.get(0).equalTo(given.get(1)), Formulas.absent(), given.get(0));
    }

    private static Formula rounded(List<Formula> given) throws NotTaken {
        boolean whole = given.size() == 1;
        if (!whole && (given.size() != 2 || !(given.get(1) instanceof Formula.Constant c) || c.value() != Math.rint(c.value()) || Math.abs(c.value()) > 15)) {
            throw new NotTaken("ROUND takes a value, and after it a number of decimals or nothing");
        }
        Formula of = given.get(0);
        double scale = whole ? 1 : Math.pow(10, ((Formula.Constant) given.get(1)).value());
        Formula size = whole ? round(magnitude(of)) : round(magnitude(of).times(number(scale))).over(number(scale));
        return choose(of.below(number(0)), number(0).minus(size), size);
    }

    private Formula asText(Formula formula) {
        return isText(formula) ? formula : new Formula.Written(formula);
    }

    private boolean isText(Formula formula) {
        if (formula instanceof Formula.Input input) {
            return names.kind(input.column()).orElse(Kind.TEXT) == Kind.TEXT;
        }
        return formula instanceof Formula.Words || formula instanceof Formula.Joined || formula instanceof Formula.Written || formula instanceof Formula.Absent
                || formula instanceof Formula.Choose chosen && isText(chosen.then()) && isText(chosen.otherwise());
    }
}
