package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * One row for each key, in the order in which the keys first stand. Ratios are derived afterwards, from the totals.
 *
 * @param by      the key columns; none for one row in all. A missing key is a key of its own
 * @param figures what is made of the other columns, in the order of the new ones
 */
public record Total(List<String> by, List<Figure> figures) implements Step {

    /**
     * One column of totals.
     *
     * @param column the column that is totalled
     * @param fold   how
     * @param name   of the new column
     */
    public record Figure(String column, Fold fold, String name) {
    }

    /** What is made of the cells of a key that are there; of none, a sum, mean, least or greatest is missing, a count is 0. */
    public enum Fold {
        SUM, MEAN, COUNT, LEAST, GREATEST,
        /** The first row's cell that is there. */
        FIRST,
        /** The last row's cell that is there. */
        LAST;

        /** Whether texts can be folded so. */
        boolean takes(Kind kind) {
            return switch (this) {
                case SUM, MEAN -> kind == Kind.NUMBER;
                case LEAST, GREATEST -> kind != Kind.TEXT;
                default -> true;
            };
        }

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Total {
        by = List.copyOf(by);
        figures = List.copyOf(figures);
    }

    @Override
    public Table apply(Table table, Settings settings) {
        int[] groupOf = new int[table.rowCount()];
        int[] first = groups(Keys.columns(table, by), groupOf);
        List<Column> columns = new ArrayList<>();
        by.forEach(key -> columns.add(table.column(key).at(first)));
        for (Figure figure : figures) {
            Column cells = table.column(figure.column());
            if (!figure.fold().takes(cells.kind())) {
                RowProblems.refuseFewTexts(table, cells);
                throw new BadInput(table.place().within("column '" + figure.column() + "'"), "holds " + cells.kind().phrase() + " a row, of which there is no "
                        + figure.fold());
            }
            if (by.contains(figure.name()) || columns.stream().anyMatch(column -> column.name().equals(figure.name()))) {
                throw new BadInput(table.place(), "two columns of the total would be named '" + figure.name() + "'");
            }
            columns.add(folded(figure, cells, groupOf, first.length));
        }
        return table.rowCount() == 0 ? Table.of(table.name(), Source.MEMORY, columns) : table.rows(first).withColumns(columns);
    }

    /** Fills in the group of each row, and gives the first row of each group; -1 for the one group of no rows. */
    private int[] groups(List<Column> keys, int[] groupOf) {
        Map<List<Object>, Integer> groups = new HashMap<>();
        List<Integer> first = new ArrayList<>();
        for (int row = 0; row < groupOf.length; row++) {
            int next = groups.size();
            int group = groups.computeIfAbsent(Keys.of(keys, row), key -> next);
            groupOf[row] = group;
            if (group == first.size()) {
                first.add(row);
            }
        }
        if (by.isEmpty() && first.isEmpty()) {
            first.add(-1);
        }
        return first.stream().mapToInt(Integer::intValue).toArray();
    }

    private static Column folded(Figure figure, Column cells, int[] groupOf, int groups) {
        if (figure.fold() == Fold.FIRST || figure.fold() == Fold.LAST) {
            int[] rows = new int[groups];
            Arrays.fill(rows, -1);
            for (int row = 0; row < groupOf.length; row++) {
                if (cells.isPresent(row) && (figure.fold() == Fold.LAST || rows[groupOf[row]] < 0)) {
                    rows[groupOf[row]] = row;
                }
            }
            return cells.at(rows).named(figure.name());
        }
        boolean number = figure.fold() == Fold.COUNT || cells.kind() == Kind.NUMBER;
        return Column.owning(figure.name(), number ? Kind.NUMBER : cells.kind(), folded(figure.fold(), cells, groupOf, groups));
    }

    private static double[] folded(Fold fold, Column cells, int[] groupOf, int groups) {
        double[] results = new double[groups];
        int[] counts = new int[groups];
        for (int row = 0; row < groupOf.length; row++) {
            if (cells.isPresent(row)) {
                int group = groupOf[row];
                double figure = fold == Fold.COUNT ? 0 : cells.number(row);
                boolean first = counts[group]++ == 0;
                results[group] = first ? figure : switch (fold) {
                    case LEAST -> Math.min(results[group], figure);
                    case GREATEST -> Math.max(results[group], figure);
                    default -> results[group] + figure;
                };
            }
        }
        for (int group = 0; group < groups; group++) {
            double result = fold == Fold.MEAN ? results[group] / counts[group] : results[group];
            results[group] = fold == Fold.COUNT ? counts[group] : counts[group] == 0 ? Double.NaN : result + 0.0;
        }
        return results;
    }
}
