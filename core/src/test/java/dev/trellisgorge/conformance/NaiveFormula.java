package dev.trellisgorge.conformance;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Numeric;
import dev.trellisgorge.formula.Textual;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;

/**
 * The oracle: works a formula out for one row, the slow and obvious way, with an order of texts, numbers as text and dates of its
 * own. A cell is a Double, a String, a LocalDate or a Boolean; null is missing.
 *
 * @param rows     the table, a map a row
 * @param computed the columns that were computed before, by name
 * @param settings null where one has no value
 * @param row      which row
 */
record NaiveFormula(List<? extends Map<String, Object>> rows, Map<String, List<Object>> computed, Map<String, Object> settings, int row)
        implements Formula.Cases<Object> {

    static List<Object> column(Formula formula, List<? extends Map<String, Object>> rows, Map<String, List<Object>> computed, Map<String, Object> settings) {
        List<Object> cells = new ArrayList<>();
        for (int row = 0; row < rows.size(); row++) {
            cells.add(formula.match(new NaiveFormula(rows, computed, settings, row), null));
        }
        return cells;
    }

    private Object cell(Formula f) {
        return f.match(this, null);
    }

    private Double number(Formula f) {
        return (Double) cell(f);
    }

    private Boolean truth(Formula f) {
        return (Boolean) cell(f);
    }

    private List<Object> all(Formula f) {
        return column(f, rows, computed, settings);
    }

    private static Object figure(double value) {
        return Double.isNaN(value) ? null : (Object) (value + 0.0);
    }

    /** Below, at or above zero; texts code point by code point. */
    static int compare(Object a, Object b) {
        if (a instanceof String left) {
            int[] one = left.codePoints().toArray();
            int[] other = ((String) b).codePoints().toArray();
            for (int i = 0; i < one.length && i < other.length; i++) {
                if (one[i] != other[i]) {
                    return one[i] < other[i] ? -1 : 1;
                }
            }
            return one.length - other.length;
        } else if (a instanceof LocalDate day) {
            return day.isBefore((LocalDate) b) ? -1 : day.equals(b) ? 0 : 1;
        } else if (a instanceof Boolean truth) {
            return truth.equals(b) ? 0 : truth ? 1 : -1;
        }
        double x = (Double) a;
        double y = (Double) b;
        return x < y ? -1 : x > y ? 1 : 0;
    }

    private Boolean compared(Condition.Relation relation, Object a, Object b) {
        if (a == null || b == null) {
            return null;
        }
        int order = compare(a, b);
        return switch (relation) {
            case BELOW -> order < 0;
            case AT_MOST -> order <= 0;
            case ABOVE -> order > 0;
            case AT_LEAST -> order >= 0;
            case EQUAL -> order == 0;
            case UNEQUAL -> order != 0;
        };
    }

    private static Boolean any(List<Boolean> truths) {
        return truths.contains(Boolean.TRUE) ? Boolean.TRUE : truths.contains(null) ? null : Boolean.FALSE;
    }

    private static Boolean all(List<Boolean> truths) {
        return truths.contains(Boolean.FALSE) ? Boolean.FALSE : truths.contains(null) ? null : Boolean.TRUE;
    }

    static String written(Object cell) {
        return cell == null ? null : cell instanceof Double number ? shortest(number) : cell.toString();
    }

    /** The fewest digits that read back to the same double. */
    static String shortest(double x) {
        if (Double.isInfinite(x)) {
            return x > 0 ? "Infinity" : "-Infinity";
        }
        BigDecimal digits = digits(x);
        double size = Math.abs(x);
        if (size == 0 || size >= 1e-7 && size < 1e21) {
            String plain = digits.toPlainString();
            return plain.contains(".") ? plain.replaceAll("0+$", "").replaceAll("\\.$", "") : plain;
        }
        BigDecimal stripped = digits.stripTrailingZeros();
        int exponent = stripped.precision() - stripped.scale() - 1;
        return stripped.scaleByPowerOfTen(-exponent).toPlainString() + "e" + exponent;
    }

    private static BigDecimal digits(double x) {
        BigDecimal exact = new BigDecimal(x + 0.0);
        for (int precision = 1; precision < 17; precision++) {
            BigDecimal fewer = exact.round(new MathContext(precision, RoundingMode.HALF_EVEN));
            if (fewer.doubleValue() == x) {
                return fewer;
            }
        }
        return exact.round(new MathContext(17, RoundingMode.HALF_EVEN));
    }

    /** The day that a text names, or the first one of the period that it names where that is no longer than {@code unit}. */
    private static LocalDate day(Object cell, CalendarUnit unit) {
        if (cell == null || cell instanceof LocalDate) {
            return (LocalDate) cell;
        }
        String text = (String) cell;
        try {
            if (text.matches("\\d{4}-\\d{2}-\\d{2}")) {
                return LocalDate.parse(text);
            } else if (text.matches("\\d{4}-[Ww]\\d{2}") && unit != CalendarUnit.DAY) {
                LocalDate monday = LocalDate.of(Integer.parseInt(text.substring(0, 4)), 1, 4).with(DayOfWeek.MONDAY).plusWeeks(Integer.parseInt(text.substring(6)) - 1L);
                return monday.get(IsoFields.WEEK_BASED_YEAR) == Integer.parseInt(text.substring(0, 4)) && !text.endsWith("00") ? monday : null;
            } else if (text.matches("\\d{4}-\\d{2}") && unit.ordinal() >= CalendarUnit.MONTH.ordinal()) {
                return LocalDate.parse(text + "-01");
            } else if (text.matches("\\d{4}-[Qq][1-4]") && unit.ordinal() >= CalendarUnit.QUARTER.ordinal()) {
                return LocalDate.of(Integer.parseInt(text.substring(0, 4)), Integer.parseInt(text.substring(6)) * 3 - 2, 1);
            } else if (text.matches("\\d{4}") && unit == CalendarUnit.YEAR) {
                return LocalDate.of(Integer.parseInt(text), 1, 1);
            }
        } catch (DateTimeException e) {
            return null;
        }
        return null;
    }

    @Override
    public Object column(Leaf.Column f, Kind kind) {
        return rows.get(row).get(f.name());
    }

    @Override
    public Object computed(Leaf.Computed f, Kind kind) {
        return computed.get(f.name()).get(row);
    }

    @Override
    public Object literal(Leaf.Literal f, Kind kind) {
        return f.value();
    }

    @Override
    public Object absent(Leaf.Absent f, Kind kind) {
        return null;
    }

    @Override
    public Object setting(Leaf.Setting f, Kind kind) {
        return settings.get(f.name());
    }

    @Override
    public Object rowNumber(Leaf.RowNumber f, Kind kind) {
        return row + 1.0;
    }

    @Override
    public Object arithmetic(Numeric.Arithmetic f, Kind kind) {
        Double a = number(f.left());
        Double b = number(f.right());
        if (a == null || b == null) {
            return null;
        }
        return switch (f.operator()) {
            case PLUS -> figure(a + b);
            case MINUS -> figure(a - b);
            case TIMES -> figure(a * b);
            case OVER -> b == 0 ? null : figure(a / b);
        };
    }

    @Override
    public Object extreme(Numeric.Extreme f, Kind kind) {
        Double so = null;
        for (Formula each : f.of()) {
            Double next = number(each);
            if (next == null) {
                return null;
            }
            so = so == null || (f.end() == Numeric.End.LEAST ? next < so : next > so) ? next : so;
        }
        return so;
    }

    @Override
    public Object negate(Numeric.Negate f, Kind kind) {
        Double of = number(f.of());
        return of == null ? null : figure(-of);
    }

    @Override
    public Object abs(Numeric.Abs f, Kind kind) {
        Double of = number(f.of());
        return of == null ? null : of < 0 ? figure(-of) : of;
    }

    @Override
    public Object floor(Numeric.Floor f, Kind kind) {
        Double of = number(f.of());
        return of == null || of.isInfinite() ? of : figure(new BigDecimal(of).setScale(0, RoundingMode.FLOOR).doubleValue());
    }

    @Override
    public Object round(Numeric.Round f, Kind kind) {
        Double of = number(f.of());
        return of == null || of.isInfinite() ? of : figure(digits(of).setScale(f.digits(), RoundingMode.HALF_UP).doubleValue());
    }

    @Override
    public Object comparison(Condition.Comparison f, Kind kind) {
        return compared(f.relation(), cell(f.left()), cell(f.right()));
    }

    @Override
    public Object in(Condition.In f, Kind kind) {
        List<Boolean> each = new ArrayList<>();
        f.list().forEach(one -> each.add(compared(Condition.Relation.EQUAL, cell(f.of()), cell(one))));
        return any(each);
    }

    @Override
    public Object logic(Condition.Logic f, Kind kind) {
        List<Boolean> each = new ArrayList<>();
        f.of().forEach(one -> each.add(truth(one)));
        return f.connective() == Condition.Connective.OR ? any(each) : all(each);
    }

    @Override
    public Object not(Condition.Not f, Kind kind) {
        Boolean of = truth(f.of());
        return of == null ? null : (Object) !of;
    }

    @Override
    public Object present(Condition.Present f, Kind kind) {
        return cell(f.of()) != null;
    }

    @Override
    public Object cases(Choice.Case f, Kind kind) {
        for (Choice.When when : f.whens()) {
            if (Boolean.TRUE.equals(truth(when.condition()))) {
                return cell(when.result());
            }
        }
        return cell(f.otherwise());
    }

    @Override
    public Object coalesce(Choice.Coalesce f, Kind kind) {
        return f.of().stream().map(this::cell).filter(Objects::nonNull).findFirst().orElse(null);
    }

    @Override
    public Object nullIf(Choice.NullIf f, Kind kind) {
        Object left = cell(f.left());
        return Boolean.TRUE.equals(compared(Condition.Relation.EQUAL, left, cell(f.right()))) ? null : left;
    }

    @Override
    public Object calendarField(Calendar.CalendarField f, Kind kind) {
        LocalDate day = day(cell(f.of()), CalendarUnit.valueOf(f.part().name()));
        return day == null ? null : (Object) switch (f.part()) {
            case YEAR -> (double) day.getYear();
            case QUARTER -> Math.ceil(day.getMonthValue() / 3.0);
            case MONTH -> (double) day.getMonthValue();
            case DAY -> (double) day.getDayOfMonth();
        };
    }

    @Override
    public Object period(Calendar.Period f, Kind kind) {
        LocalDate day = day(cell(f.of()), f.unit());
        LocalDate epoch = LocalDate.of(1970, 1, 1);
        return day == null ? null : (Object) (double) switch (f.unit()) {
            case DAY -> ChronoUnit.DAYS.between(epoch, day);
            case WEEK -> ChronoUnit.WEEKS.between(LocalDate.of(1969, 12, 29), day.with(DayOfWeek.MONDAY));
            case MONTH -> day.getYear() * 12L + day.getMonthValue() - 1;
            case QUARTER -> day.getYear() * 4L + (day.getMonthValue() - 1) / 3;
            case YEAR -> day.getYear();
        };
    }

    @Override
    public Object concat(Textual.Concat f, Kind kind) {
        StringBuilder text = new StringBuilder();
        for (Formula each : f.of()) {
            Object part = cell(each);
            if (part == null) {
                return null;
            }
            text.append(part);
        }
        return text.toString();
    }

    @Override
    public Object repeat(Textual.Repeat f, Kind kind) {
        Object text = cell(f.text());
        Double count = number(f.count());
        if (text == null || count == null) {
            return null;
        }
        StringBuilder repeated = new StringBuilder();
        for (int i = 1; i <= count; i++) {
            repeated.append(text);
        }
        return repeated.toString();
    }

    @Override
    public Object text(Textual.Text f, Kind kind) {
        return written(cell(f.of()));
    }

    @Override
    public Object formatted(Textual.Formatted f, Kind kind) {
        Object of = cell(f.of());
        if (of == null) {
            return null;
        } else if (of instanceof LocalDate day) {
            return day.format(DateTimeFormatter.ofPattern(f.pattern(), f.locale() == Locale.ROOT ? Locale.ENGLISH : f.locale()));
        } else if (of instanceof String text) {
            LocalDate first = first(text);
            return first == null ? text : first.format(DateTimeFormatter.ofPattern(f.pattern(), f.locale() == Locale.ROOT ? Locale.ENGLISH : f.locale()));
        }
        DecimalFormat format = new DecimalFormat(f.pattern(), DecimalFormatSymbols.getInstance(f.locale()));
        format.setRoundingMode(RoundingMode.HALF_UP);
        double figure = (Double) of;
        String text = format.format(Double.isInfinite(figure) ? of : digits(figure));
        return text.equals(format.format(-0.0)) ? format.format(0) : text;
    }

    private static LocalDate first(String text) {
        for (String[] way : new String[][] {{"\\d{4}", "%s-01-01"}, {"\\d{4}-(0[1-9]|1[0-2])", "%s-01"}, {"\\d{4}-\\d\\d-\\d\\d", "%s"}}) {
            try {
                if (text.matches(way[0])) {
                    return LocalDate.parse(String.format(way[1], text));
                }
            } catch (java.time.format.DateTimeParseException none) {
                return null;
            }
        }
        try {
            return LocalDate.parse(text.toUpperCase(Locale.ROOT) + "-1", DateTimeFormatter.ISO_WEEK_DATE);
        } catch (java.time.format.DateTimeParseException none) {
            // A quarter, or no period.
        }
        return text.matches("\\d{4}-[qQ][1-4]") ? LocalDate.of(Integer.parseInt(text.substring(0, 4)), text.charAt(6) * 3 - '0' * 3 - 2, 1) : null;
    }

    @Override
    public Object aggregate(Window.Aggregate f, Kind kind) {
        List<Object> there = all(f.of()).stream().filter(Objects::nonNull).toList();
        if (f.fold() == Window.Fold.COUNT) {
            return (double) there.size();
        }
        if (there.isEmpty() || f.fold() == Window.Fold.SUM) {
            return there.isEmpty() ? null : figure(sum(there));
        }
        List<Object> sorted = there.stream().sorted((a, b) -> Double.compare(size(a), size(b))).toList();
        Object end = sorted.get(f.fold() == Window.Fold.MIN ? 0 : sorted.size() - 1);
        return end instanceof Double number ? figure(number) : end;
    }

    @Override
    public Object cumulative(Window.Cumulative f, Kind kind) {
        List<Object> cells = all(f.of());
        List<Object> restarts = all(f.restart());
        int from = 0;
        for (int i = 0; i <= row; i++) {
            from = Boolean.TRUE.equals(restarts.get(i)) ? i : from;
        }
        return figure(sum(cells.subList(from, row + 1)));
    }

    /** The sum of the figures that are there, and after it all that was rounded off: the smaller of two loses its last digits. */
    static double sum(List<Object> cells) {
        double sum = 0;
        double rest = 0;
        for (Object cell : cells) {
            if (cell instanceof Double figure) {
                double next = sum + figure;
                rest += Math.abs(sum) < Math.abs(figure) ? sum - (next - figure) : figure - (next - sum);
                sum = next;
            }
        }
        return Double.isInfinite(sum) ? sum : sum + rest;
    }

    @Override
    public Object lag(Window.Lag f, Kind kind) {
        return row == 0 ? null : all(f.of()).get(row - 1);
    }

    @Override
    public Object rank(Window.Rank f, Kind kind) {
        List<Object> cells = all(f.of());
        if (cells.get(row) == null) {
            return null;
        }
        double own = size(cells.get(row));
        double rank = 1;
        for (int i = 0; i < cells.size(); i++) {
            if (cells.get(i) != null) {
                double other = size(cells.get(i));
                boolean before = f.direction() == Window.Direction.DESCENDING ? other > own : other < own;
                rank += before || f.ties() == Window.Ties.BY_ROW && i < row && other == own ? 1 : 0;
            }
        }
        return rank;
    }

    private static double size(Object numberOrDate) {
        return numberOrDate instanceof java.time.LocalDate day ? day.toEpochDay() : (Double) numberOrDate + 0.0;
    }

    @Override
    public Object lookup(Window.Lookup f, Kind kind) {
        Double wanted = number(f.wanted());
        List<Object> keys = all(f.key());
        for (int i = 0; wanted != null && i < keys.size(); i++) {
            if (keys.get(i) instanceof Double key && key.doubleValue() == wanted) {
                return all(f.of()).get(i);
            }
        }
        return null;
    }
}
