package dev.trellisgorge.formula;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BinaryOperator;

/** The oracle: works a formula out for one row, the slow and obvious way. A number, a text or a truth; null is missing. */
final class NaiveFormula extends Formula.SomeCases<Object> {
    private final Table table;
    private final Settings settings;
    private final int row;

    NaiveFormula(Table table, Settings settings, int row) {
        this.table = table;
        this.settings = settings;
        this.row = row;
    }

    @Override
    protected Object refuse(Formula f) {
        throw new UnsupportedOperationException(f.toString());
    }


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

    private Object on(int otherRow, Formula f) {
        return f.match(new NaiveFormula(table, settings, otherRow));
    }

    private List<Double> all(Formula f) {
        List<Double> cells = new ArrayList<>();
        for (int i = 0; i < table.rowCount(); i++) {
            if (on(i, f) instanceof Double cell) {
                cells.add(cell);
            }
        }
        return cells;
    }

    @Override
    public Object row(Formula.Row f) {
        return (double) row + 1;
    }

    @Override
    public Object whole(Formula.Whole f) {
        List<Double> cells = all(f.of());
        if (f.fold() == Formula.Fold.COUNT) {
            return (double) cells.size();
        }
        return cells.stream().reduce((a, b) -> switch (f.fold()) {
            case LEAST -> a < b ? a : b;
            case GREATEST -> a > b ? a : b;
            default -> a + b;
        }).orElse(null);
    }

    @Override
    public Object running(Formula.Running f) {
        double sum = 0;
        for (int i = 0; i <= row; i++) {
            sum = Boolean.TRUE.equals(on(i, f.restart())) ? 0 : sum;
            sum += on(i, f.of()) instanceof Double cell ? cell : 0;
        }
        return sum + 0.0;
    }

    @Override
    public Object previous(Formula.Previous f) {
        return row == 0 ? null : on(row - 1, f.of());
    }

    @Override
    public Object rank(Formula.Rank f) {
        Double own = number(f.of());
        if (own == null) {
            return null;
        }
        double rank = 1;
        for (int i = 0; i < table.rowCount(); i++) {
            if (on(i, f.of()) instanceof Double other) {
                boolean before = f.direction() == Formula.Direction.DESCENDING ? other > own : other < own;
                boolean earlier = f.equals() == Formula.Equals.BY_ROW && i < row && other.doubleValue() == own;
                rank += before || earlier ? 1 : 0;
            }
        }
        return rank;
    }

    @Override
    public Object rounded(Formula.Rounded f) {
        Double of = number(f.of());
        if (of == null) {
            return null;
        }
        java.math.BigDecimal exact = new java.math.BigDecimal(of);
        java.math.BigDecimal whole = exact.setScale(0, java.math.RoundingMode.FLOOR);
        boolean up = f.rounding() == Formula.Rounding.HALF_UP && exact.subtract(whole).compareTo(new java.math.BigDecimal("0.5")) >= 0;
        return (up ? whole.add(java.math.BigDecimal.ONE) : whole).doubleValue() + 0.0;
    }

    @Override
    public Object lookup(Formula.Lookup f) {
        Double wanted = number(f.wanted());
        for (int i = 0; wanted != null && i < table.rowCount(); i++) {
            if (wanted.equals(on(i, f.key()))) {
                return on(i, f.of());
            }
        }
        return null;
    }

    @Override
    public Object repeated(Formula.Repeated f) {
        Object text = f.text().match(this);
        Double count = number(f.count());
        return text == null || count == null ? null : ((String) text).repeat((int) Math.max(0, count));
    }

    @Override
    public Object joined(Formula.Joined f) {
        Object left = f.left().match(this);
        Object right = f.right().match(this);
        return left == null || right == null ? null : (Object) (left.toString() + right);
    }

    @Override
    public Object written(Formula.Written f) {
        Object of = f.of().match(this);
        return of == null ? null : of instanceof Double number ? dev.trellisgorge.table.Numbers.shortest(number) : of.toString();
    }
}
