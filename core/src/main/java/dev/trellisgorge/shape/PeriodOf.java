package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Adds the calendar period of a date as a text: {@code 2031-03} for a month, {@code 2031-Q1} for a quarter, {@code 2031-W09}
 * for a week, {@code 2031} for a year, the date for a day. Immutable and thread-safe.
 *
 * @param of   a column of dates, or of texts that name periods no longer than {@code unit}
 * @param unit the period
 * @param name of the new column; none has it yet
 * @param fill whether each period between the first and the last that no row lies in gets a row, in which all else is missing,
 *             after the rows of the period before
 * @param by   where periods are filled: for each key of these columns by itself, from the first to the last of all; the
 *             filled rows have the key
 */
public record PeriodOf(String of, CalendarUnit unit, String name, boolean fill, List<String> by) implements Step {
    private static final Pattern FOUR_DIGITS = Pattern.compile("[0-9]{4}(-|$)");
    private static final int MOST_FILLED = Bound.FILLED_ROWS.count();

    public PeriodOf {
        Objects.requireNonNull(of, "of");
        Objects.requireNonNull(unit, "unit");
        Objects.requireNonNull(name, "name");
        by = List.copyOf(by);
    }

    /** Without filling. */
    public static PeriodOf of(String column, CalendarUnit unit, String name) {
        return new PeriodOf(column, unit, name, false, List.of());
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        Kind kind = before.field(of).kind();
        if (kind != Kind.DATE && kind != Kind.TEXT) {
            throw new BadInput(before.place().within("column '" + of + "'"), ProblemKind.WRONG_TYPE, "holds " + kind.phrase() + " a row, and a period is made of dates");
        }
        by.forEach(before::field);
        if (before.has(name)) {
            throw before.taken(name, "period");
        }
        return before.and(Field.periods(name, unit));
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return fill ? SortKey.before(new SortKey(Formulas.column(name), false), before) : before;
    }

    @Override
    public Traits traits() {
        return Traits.NONE;
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.periodOf(this);
    }

    @Override
    public String sentence() {
        String word = unit.name().toLowerCase(Locale.ROOT);
        return "add " + name + ": the " + word + " of " + of + (fill ? ", and a row for each " + word + " that has none"
                + (by.isEmpty() ? "" : ", for each " + String.join(" and ", by) + " by itself") : "");
    }

    @Override
    public Table apply(Table table, Run run) {
        Column dates = table.column(of);
        double[] periods = new double[table.rowCount()];
        String[] texts = new String[periods.length];
        for (int row = 0; row < periods.length; row++) {
            periods[row] = unit.index(dates, row);
            if (dates.isPresent(row) && Double.isNaN(periods[row])) {
                throw new BadInput(table.rowPlace(row).within("column '" + of + "'"), ProblemKind.DATA, "'" + dates.written(row) + "' doesn't identify one "
                        + unit.name().toLowerCase(Locale.ROOT) + "; write a date such as 2031-03-01, or a period no longer than that");
            }
            texts[row] = Double.isNaN(periods[row]) ? null : unit.written(periods[row]);
            if (texts[row] != null && !FOUR_DIGITS.matcher(texts[row]).lookingAt()) {
                throw new BadInput(table.rowPlace(row).within("column '" + of + "'"), ProblemKind.DATA, "'" + dates.written(row) + "' is before the year 0 or after 9999, and periods are written with four digits");
            }
        }
        List<Column> columns = new ArrayList<>(table.columns());
        columns.add(Column.texts(name, texts));
        Table named = table.withColumns(columns);
        return fill ? filled(named, periods) : named;
    }

    /** For each key the rows in order of their period, and a row for each period between that has none. */
    private Table filled(Table table, double[] periods) {
        double first = Double.POSITIVE_INFINITY;
        double last = Double.NEGATIVE_INFINITY;
        for (double period : periods) {
            first = Double.isNaN(period) ? first : Math.min(first, period);
            last = Double.isNaN(period) ? last : Math.max(last, period);
        }
        List<Column> keys = Keys.columns(table, by);
        Map<List<Object>, List<Integer>> groups = Keys.rows(keys, table.rowCount());
        if (groups.size() * (last - first + 1) > MOST_FILLED) {
            throw new BadInput(table.place().within("column '" + of + "'"), ProblemKind.TOO_LARGE, "from " + unit.written(first) + " to " + unit.written(last) + " there are too many "
                    + unit.name().toLowerCase(Locale.ROOT) + "s to fill (more than " + MOST_FILLED + " rows in all); is a date mistyped, or is a longer period wanted?");
        }
        List<Integer> rows = new ArrayList<>();
        List<Integer> keyRows = new ArrayList<>();
        List<String> texts = new ArrayList<>();
        Set<String> added = new LinkedHashSet<>();
        for (Map.Entry<List<Object>, List<Integer>> group : groups.entrySet()) {
            Map<List<Object>, List<Integer>> byPeriod = Keys.rows(List.of(Column.numbers("period", group.getValue().stream().mapToDouble(row -> periods[row]).toArray())),
                    group.getValue().size());
            for (double period = first; period <= last; period++) {
                List<Integer> there = byPeriod.getOrDefault(List.of((Object) period), List.of());
                there.forEach(at -> add(group.getValue().get(at), rows, keyRows));
                there.forEach(at -> texts.add(table.column(name).written(group.getValue().get(at))));
                if (there.isEmpty()) {
                    rows.add(-1);
                    keyRows.add(group.getValue().get(0));
                    texts.add(unit.written(period));
                    added.add((by.isEmpty() ? "" : Keys.written(keys, group.getValue().get(0)) + ", ") + unit.written(period));
                }
            }
            group.getValue().stream().filter(row -> Double.isNaN(periods[row])).forEach(row -> {
                add(row, rows, keyRows);
                texts.add(null);
            });
        }
        return noted(table, rows, keyRows, texts, added);
    }

    private static void add(int row, List<Integer> rows, List<Integer> keyRows) {
        rows.add(row);
        keyRows.add(row);
    }

    private Table noted(Table table, List<Integer> rows, List<Integer> keyRows, List<String> texts, Set<String> added) {
        int[] at = rows.stream().mapToInt(Integer::intValue).toArray();
        int[] keyAt = keyRows.stream().mapToInt(Integer::intValue).toArray();
        Set<String> keys = new HashSet<>(by);
        List<Column> columns = new ArrayList<>();
        for (Column column : table.columns()) {
            columns.add(column.name().equals(name) ? Column.texts(name, texts.toArray(String[]::new)) : column.at(keys.contains(column.name()) ? keyAt : at));
        }
        Table filled = table.withRows(at, columns);
        return added.isEmpty() ? filled : filled.withNotes(StepNotes.filled(this, StepNotes.listed(added)));
    }
}
