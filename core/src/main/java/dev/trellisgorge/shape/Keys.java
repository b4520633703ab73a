package dev.trellisgorge.shape;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Rows by the cells of some columns: numbers, dates and truths by their value, texts character by character. */
final class Keys {
    private static final int LISTED = 5;

    private Keys() {
    }

    /** The cells of a row, empty where one is missing. */
    static List<Object> of(List<Column> columns, int row) {
        if (columns.size() == 1) {
            return List.of(cell(columns.get(0), row));
        }
        List<Object> key = new ArrayList<>(columns.size());
        for (Column column : columns) {
            key.add(cell(column, row));
        }
        return key;
    }

    private static Object cell(Column column, int row) {
        return !column.isPresent(row) ? Optional.empty() : column.kind() == Kind.TEXT ? column.written(row) : (Object) column.number(row);
    }

    /** The rows of each key, keys in the order in which they first stand there. */
    static Map<List<Object>, List<Integer>> rows(List<Column> columns, int rowCount) {
        Map<List<Object>, List<Integer>> rows = new LinkedHashMap<>();
        for (int row = 0; row < rowCount; row++) {
            rows.computeIfAbsent(of(columns, row), key -> new ArrayList<>()).add(row);
        }
        return rows;
    }

    static boolean hasMissing(List<Object> key) {
        return key.contains(Optional.empty());
    }

    /** A row's key for readers: {@code Mill Race, 2031-03-01}. */
    static String written(List<Column> columns, int row) {
        return String.join(", ", columns.stream().map(column -> column.isPresent(row) ? column.written(row) : "(missing)").toList());
    }

    static List<Column> columns(Table table, Collection<String> names) {
        return names.stream().map(table::column).toList();
    }

    /** The first few, and how many more there are. */
    static String listed(Collection<String> all) {
        return String.join(", ", all.stream().limit(LISTED).map(key -> "'" + key + "'").toList())
                + (all.size() > LISTED ? " and " + (all.size() - LISTED) + " more" : "");
    }
}
