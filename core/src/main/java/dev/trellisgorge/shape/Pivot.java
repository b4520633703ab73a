package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Makes a column of each name in one column, filled from another: one row for each key, in the order in which the keys first
 * stand; new columns in the order of their names. A name that a key does not have is missing there.
 *
 * @param by     the key columns; at least one
 * @param names  the column whose cells name the new columns
 * @param values the column whose cells fill them
 */
public record Pivot(List<String> by, String names, String values) implements Step {

    public Pivot {
        by = List.copyOf(by);
    }

    @Override
    public Table apply(Table table, Settings settings) {
        Column name = table.column(names);
        Column value = table.column(values);
        List<Column> keys = Keys.columns(table, by);
        Map<List<Object>, List<Integer>> groups = Keys.rows(keys, table.rowCount());
        Map<List<Object>, List<Integer>> named = Keys.rows(List.of(name), table.rowCount());
        int[] first = groups.values().stream().mapToInt(rows -> rows.get(0)).toArray();
        List<Column> columns = new ArrayList<>();
        keys.forEach(key -> columns.add(key.at(first)));
        for (List<Integer> rows : named.values()) {
            if (!name.isPresent(rows.get(0))) {
                throw new BadInput(table.rowPlace(rows.get(0)).within("column '" + names + "'"), "the name is missing, and it is to name a column");
            }
            String title = name.written(rows.get(0));
            if (by.contains(title)) {
                throw new BadInput(table.rowPlace(rows.get(0)).within("column '" + names + "'"), "'" + title + "' can't name a column, as a key has that name");
            }
            columns.add(value.at(rows(table, keys, groups, rows, title)).named(title));
        }
        return table.rows(first).withColumns(columns);
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
                throw new BadInput(table.rowPlace(row), "'" + Keys.written(keys, row) + "' has '" + title + "' twice (again at " + table.rowPlace(at[group])
                        + "); total the rows first");
            }
            at[group] = row;
        }
        return at;
    }
}
