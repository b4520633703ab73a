package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;

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
        Map<List<Object>, List<Integer>> groups = Keys.rows(Keys.columns(table, by), table.rowCount());
        if (by.isEmpty() && groups.isEmpty()) {
            groups.put(List.of(), List.of());
        }
        int[] first = groups.values().stream().mapToInt(rows -> rows.isEmpty() ? -1 : rows.get(0)).toArray();
        List<Column> columns = new ArrayList<>();
        by.forEach(key -> columns.add(table.column(key).at(first)));
        for (Figure figure : figures) {
            Column cells = table.column(figure.column());
            if (!figure.fold().takes(cells.kind())) {
                throw new BadInput(table.place().within("column '" + figure.column() + "'"), "holds " + cells.kind().phrase() + " a row, of which there is no "
                        + figure.fold());
            }
            if (by.contains(figure.name()) || columns.stream().anyMatch(column -> column.name().equals(figure.name()))) {
                throw new BadInput(table.place(), "two columns of the total would be named '" + figure.name() + "'");
            }
            columns.add(folded(figure, cells, List.copyOf(groups.values())));
        }
        return table.rowCount() == 0 ? Table.of(table.name(), Source.MEMORY, columns) : table.rows(first).withColumns(columns);
    }

    private static Column folded(Figure figure, Column cells, List<List<Integer>> groups) {
        if (figure.fold() == Fold.FIRST || figure.fold() == Fold.LAST) {
            int[] rows = groups.stream().mapToInt(group -> {
                IntStream there = group.stream().mapToInt(Integer::intValue).filter(cells::isPresent);
                return (figure.fold() == Fold.FIRST ? there.findFirst() : there.reduce((a, b) -> b)).orElse(-1);
            }).toArray();
            return cells.at(rows).named(figure.name());
        }
        double[] totals = groups.stream().mapToDouble(group -> fold(figure.fold(), cells, group)).toArray();
        boolean number = figure.fold() == Fold.COUNT || cells.kind() == Kind.NUMBER;
        return Column.owning(figure.name(), number ? Kind.NUMBER : cells.kind(), totals);
    }

    private static double fold(Fold fold, Column cells, List<Integer> rows) {
        double[] there = rows.stream().filter(cells::isPresent).mapToDouble(row -> cells.kind() == Kind.TEXT ? 0 : cells.number(row)).toArray();
        if (fold == Fold.COUNT) {
            return there.length;
        }
        if (there.length == 0) {
            return Double.NaN;
        }
        double result = there[0];
        for (int i = 1; i < there.length; i++) {
            result = switch (fold) {
                case LEAST -> Math.min(result, there[i]);
                case GREATEST -> Math.max(result, there[i]);
                default -> result + there[i];
            };
        }
        return (fold == Fold.MEAN ? result / there.length : result) + 0.0;
    }
}
