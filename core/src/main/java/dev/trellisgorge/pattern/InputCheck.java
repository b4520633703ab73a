package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Inputs;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Refuses a table that a pattern can't be computed over, and says of every mistake where it stands. */
final class InputCheck {
    private static final int LISTED = 5;

    private final Table table;
    private final Settings settings;
    private final Problems problems;

    InputCheck(Table table, Settings settings, Problems problems) {
        this.table = table;
        this.settings = settings;
        this.problems = problems;
    }

    void check(String category, Map<String, Formula> figures) {
        if (table.find(category).isEmpty()) {
            problems.add(table.place(), table.unknownColumn(category));
        } else {
            checkCategories(table.column(category));
        }
        Set<String> columns = new LinkedHashSet<>();
        for (Formula figure : figures.values()) {
            columns.addAll(Inputs.columnsOf(figure));
            Inputs.settingsOf(figure).stream().filter(name -> settings.find(name).isEmpty())
                    .forEach(name -> problems.add(Place.of("settings"), settings.unknown(name)));
        }
        for (String column : columns) {
            table.find(column).ifPresentOrElse(this::checkFigures,
                    () -> problems.add(table.place(), table.unknownColumn(column)));
        }
    }

    private void checkCategories(Column category) {
        report(row -> !category.isPresent(row), category.name(), row -> "the category is missing; every row needs one");
        Map<String, List<Integer>> rows = IntStream.range(0, category.size()).filter(category::isPresent).boxed()
                .collect(Collectors.groupingBy(category::written, LinkedHashMap::new, Collectors.toList()));
        rows.forEach((name, found) -> {
            if (found.size() > 1) {
                String others = found.stream().skip(1).limit(LISTED).map(row -> table.rowPlace(row).toString())
                        .collect(Collectors.joining(", "));
                problems.add(table.rowPlace(found.get(0)).within("column '" + category.name() + "'"),
                        "'" + name + "' stands on " + found.size() + " rows (again at " + others
                                + (found.size() > LISTED + 1 ? ", …" : "") + "); a chart takes one row a category. "
                                + "Keep one with 'slice', or total the rows first.");
            }
        });
    }

    private void checkFigures(Column column) {
        if (column.kind() == Kind.TEXT) {
            report(row -> column.isPresent(row) && Numbers.parse(column.written(row)).isEmpty(), column.name(),
                    row -> "'" + column.written(row) + "' is text, and a figure must be a number");
        } else if (column.kind() != Kind.NUMBER) {
            problems.add(table.place().within("column '" + column.name() + "'"),
                    "holds " + column.kind().phrase() + " a row, and a figure must be a number");
        } else {
            report(row -> Double.isInfinite(column.number(row)), column.name(),
                    row -> "the figure is too large to be a number (infinite)");
        }
    }

    private void report(IntPredicate wrong, String column, IntFunction<String> message) {
        int[] rows = IntStream.range(0, table.rowCount()).filter(wrong).toArray();
        for (int i = 0; i < Math.min(rows.length, LISTED); i++) {
            problems.add(table.rowPlace(rows[i]).within("column '" + column + "'"), message.apply(rows[i]));
        }
        if (rows.length > LISTED) {
            problems.add(table.place().within("column '" + column + "'"),
                    "the same on " + (rows.length - LISTED) + " more rows");
        }
    }
}
