package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Makes a column of each name in one column, filled from another: one row for each key, in the order in which the keys first
 * stand. A name that a key does not have is missing there. Immutable and thread-safe.
 *
 * @param by     the key columns; at least one
 * @param names  the column whose cells name the new columns
 * @param values the column whose cells fill them
 * @param columns the names that get a column, in that order: what the columns are is known before a cell is read
 */
public record Pivot(List<String> by, String names, String values, List<String> columns) implements Step {

    public Pivot {
        Objects.requireNonNull(names, "names");
        Objects.requireNonNull(values, "values");
        by = List.copyOf(by);
        columns = List.copyOf(columns);
    }

    /** The names that a column of {@code table} holds, in the order in which they first stand. */
    public static List<String> namesIn(Table table, String names) {
        Column cells = table.column(names);
        return IntStream.range(0, cells.size()).filter(cells::isPresent).mapToObj(cells::written).distinct().toList();
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        before.field(names);
        List<Field> fields = new ArrayList<>();
        by.forEach(key -> fields.add(before.field(key)));
        for (String column : columns) {
            if (by.contains(column)) {
                throw new BadInput(before.place().within("column '" + names + "'"), ProblemKind.CONFLICT, "'" + column + "' can't name a column, as a key has that name");
            }
            fields.add(before.field(values).named(column));
        }
        return before.with(fields);
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return List.of();
    }

    @Override
    public Traits traits() {
        return Traits.NONE.folding(true);
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.pivot(this);
    }

    @Override
    public String sentence() {
        return "turn the names in " + names + " into columns of " + values + ": one row for each " + String.join(" and ", by) + ", columns " + Keys.listed(columns);
    }

    @Override
    public Table apply(Table table, Run run) {
        Column name = table.column(names);
        Column value = table.column(values);
        List<Column> keys = Keys.columns(table, by);
        Map<List<Object>, List<Integer>> groups = Keys.rows(keys, table.rowCount());
        Map<List<Object>, List<Integer>> named = Keys.rows(List.of(name), table.rowCount());
        int[] first = groups.values().stream().mapToInt(rows -> rows.get(0)).toArray();
        List<Column> made = new ArrayList<>();
        keys.forEach(key -> made.add(key.at(first)));
        Map<String, List<Integer>> byName = new HashMap<>();
        Set<String> others = new LinkedHashSet<>();
        for (List<Integer> rows : named.values()) {
            if (!name.isPresent(rows.get(0))) {
                throw new BadInput(table.rowPlace(rows.get(0)).within("column '" + names + "'"), ProblemKind.DATA, "the name is missing, and it is to name a column");
            }
            byName.put(name.written(rows.get(0)), rows);
            if (!columns.contains(name.written(rows.get(0)))) {
                others.add(name.written(rows.get(0)));
            }
        }
        for (String title : columns) {
            made.add(value.at(rows(table, keys, groups, byName.getOrDefault(title, List.of()), title)).named(title));
        }
        Table pivoted = table.rows(first).withColumns(made);
        return others.isEmpty() ? pivoted : pivoted.withNotes(StepNotes.others(this, StepNotes.listed(others)));
    }

    /** For each key the row that has the name; -1 where none has. */
    private static int[] rows(Table table, List<Column> keys, Map<List<Object>, List<Integer>> groups, List<Integer> named, String title) {
        int[] at = new int[groups.size()];
        Arrays.fill(at, -1);
        List<List<Object>> order = List.copyOf(groups.keySet());
        Map<List<Object>, Integer> place = new HashMap<>();
        for (int i = 0; i < order.size(); i++) {
            place.put(order.get(i), i);
        }
        for (int row : named) {
            int group = place.get(Keys.of(keys, row));
            if (at[group] >= 0) {
                throw new BadInput(table.rowPlace(row), ProblemKind.DATA, "'" + Keys.written(keys, row) + "' has '" + title + "' twice (again at " + table.rowPlace(at[group])
                        + "); total the rows first");
            }
            at[group] = row;
        }
        return at;
    }
}
