package dev.trellisgorge.formula;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.function.BinaryOperator;

/** The oracle: works a formula out for one row, the slow and obvious way. A number, a text or a truth; null is missing. */
record NaiveFormula(Table table, Settings settings, int row) implements Formula.Cases<Object> {

    private Double number(Formula f) {
        return (Double) f.match(this);
    }

    private Boolean truth(Formula f) {
        return (Boolean) f.match(this);
    }

    @Override
    public Object input(Formula.Input f) {
        Column column = table.column(f.column());
        if (!column.isPresent(row)) {
            return null;
        }
        return column.kind() == Kind.TEXT ? (Object) column.written(row) : column.kind() == Kind.TRUTH
                ? (Object) (column.number(row) == 1) : (Object) column.number(row);
    }

    @Override
    public Object helper(Formula.Helper f) {
        throw new UnsupportedOperationException();
    }

    @Override
    public Object constant(Formula.Constant f) {
        return f.value();
    }

    @Override
    public Object words(Formula.Words f) {
        return f.text();
    }

    @Override
    public Object setting(Formula.Setting f) {
        double value = settings.value(f.name());
        return Double.isNaN(value) ? null : (Object) value;
    }

    @Override
    public Object absent(Formula.Absent f) {
        return null;
    }

    @Override
    public Object arithmetic(Formula.Arithmetic f) {
        Double a = number(f.left());
        Double b = number(f.right());
        if (a == null || b == null || f.operator() == Formula.Operator.OVER && b == 0) {
            return null;
        }
        BinaryOperator<Double> operation = switch (f.operator()) {
            case PLUS -> (x, y) -> x + y;
            case MINUS -> (x, y) -> x - y;
            case TIMES -> (x, y) -> x * y;
            case OVER -> (x, y) -> x / y;
            case LEAST -> (x, y) -> x < y ? x : y;
            case GREATEST -> (x, y) -> x > y ? x : y;
        };
        double result = operation.apply(a, b);
        return Double.isNaN(result) ? null : (Object) (result + 0.0);
    }

    @Override
    public Object magnitude(Formula.Magnitude f) {
        Double of = number(f.of());
        return of == null ? null : of < 0 ? (Object) (-of) : of;
    }

    @Override
    public Object comparison(Formula.Comparison f) {
        Object a = f.left().match(this);
        Object b = f.right().match(this);
        if (a == null || b == null) {
            return null;
        }
        int order = a instanceof String text ? text.compareTo((String) b)
                : ((Double) a).doubleValue() == (Double) b ? 0 : (Double) a < (Double) b ? -1 : 1;
        return switch (f.relation()) {
            case BELOW -> order < 0;
            case AT_MOST -> order <= 0;
            case ABOVE -> order > 0;
            case AT_LEAST -> order >= 0;
            case EQUAL -> order == 0;
            case UNEQUAL -> order != 0;
        };
    }

    @Override
    public Object logic(Formula.Logic f) {
        Boolean a = truth(f.left());
        Boolean b = truth(f.right());
        boolean decisive = f.connective() == Formula.Connective.OR;
        if (a != null && a == decisive || b != null && b == decisive) {
            return decisive;
        }
        return a == null || b == null ? null : (Object) !decisive;
    }

    @Override
    public Object not(Formula.Not f) {
        Boolean of = truth(f.of());
        return of == null ? null : (Object) !of;
    }

    @Override
    public Object present(Formula.Present f) {
        return f.of().match(this) != null;
    }

    @Override
    public Object choose(Formula.Choose f) {
        return Boolean.TRUE.equals(truth(f.when())) ? f.then().match(this) : f.otherwise().match(this);
    }
}
