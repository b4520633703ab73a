package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Adds the cell of the row before, or of the calendar period before; missing where there is none. Immutable and thread-safe.
 *
 * @param of     whose cells
 * @param name   of the new column; none has it yet
 * @param period the column of dates or periods by which the one before is found; the row before where it is empty
 * @param unit   the length of the period; the one that its cells go by where it is empty
 * @param by     the columns within whose keys it is looked for
 */
public record Previous(String of, String name, Optional<String> period, Optional<CalendarUnit> unit, List<String> by) implements Step {

    public Previous {
        Objects.requireNonNull(of, "of");
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(period, "period");
        Objects.requireNonNull(unit, "unit");
        by = List.copyOf(by);
    }

    /** The row before. */
    public static Previous row(String of, String name) {
        return new Previous(of, name, Optional.empty(), Optional.empty(), List.of());
    }

    /** The calendar period before. */
    public static Previous period(String of, String name, String period) {
        return new Previous(of, name, Optional.of(period), Optional.empty(), List.of());
    }

    /** For each key of these columns by itself. */
    public Previous within(String... columns) {
        return new Previous(of, name, period, unit, List.of(columns));
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        by.forEach(before::field);
        period.ifPresent(before::field);
        if (before.has(name)) {
            throw before.taken(name, "previous one");
        }
        return before.and(before.field(of).named(name));
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return before;
    }

    @Override
    public Traits traits() {
        return Traits.NONE.readingOrder(period.isEmpty());
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.previous(this);
    }

    @Override
    public String sentence() {
        return "add " + name + ": " + of + " of the " + period.map(p -> "calendar period before, by " + p).orElse("row before")
                + (by.isEmpty() ? "" : ", for each " + String.join(" and ", by) + " by itself");
    }

    @Override
    public Table apply(Table table, Run run) {
        Column cells = table.column(of);
        int[] before = new int[table.rowCount()];
        for (List<Integer> group : Keys.rows(Keys.columns(table, by), table.rowCount()).values()) {
            if (period.isPresent()) {
                periods(table, group, before);
            } else {
                for (int i = 0; i < group.size(); i++) {
                    before[group.get(i)] = i == 0 ? -1 : group.get(i - 1);
                }
            }
        }
        List<Column> columns = new ArrayList<>(table.columns());
        columns.add(cells.at(before).named(name));
        return table.withColumns(columns);
    }

    private void periods(Table table, List<Integer> group, int[] before) {
        Column dates = table.column(period.orElseThrow());
        CalendarUnit length = unit.orElseGet(() -> CalendarUnit.of(dates));
        Map<Double, Integer> rows = new HashMap<>();
        for (int row : group) {
            double index = length.index(dates, row);
            if (dates.isPresent(row) && Double.isNaN(index)) {
                throw new BadInput(table.rowPlace(row).within("column '" + dates.name() + "'"), ProblemKind.DATA, "'" + dates.written(row)
                        + "' is no date or period, so there is none before it");
            }
            Integer other = Double.isNaN(index) ? null : rows.put(index, row);
            if (other != null) {
                throw new BadInput(table.rowPlace(row).within("column '" + dates.name() + "'"), ProblemKind.DATA, "'" + dates.written(row) + "' stands on two rows (again at "
                        + table.rowPlace(other) + "), so the previous row is ambiguous; total the rows first, or name what tells them apart with 'by'");
            }
        }
        group.forEach(row -> before[row] = rows.getOrDefault(length.index(dates, row) - 1, -1));
    }
}
