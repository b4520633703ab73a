package dev.trellisgorge.shape;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * One row for each key, in the order in which the keys first stand. Ratios are derived afterwards, from the totals. Immutable and thread-safe.
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
        public Figure {
            Objects.requireNonNull(column, "column");
            Objects.requireNonNull(fold, "fold");
            Objects.requireNonNull(name, "name");
        }
    }

    /** What is made of the cells of a key that are there; of none, a sum, mean, least or greatest is missing, a count is 0. */
    public enum Fold {
        SUM, MEAN, COUNT, LEAST, GREATEST,
        /** The first row's cell that is there. */
        FIRST,
        /** The last row's cell that is there. */
        LAST;

        /** Why cells of a kind can't be folded so. */
        String cannot(Kind kind) {
            String cells = kind == Kind.TRUTH ? "truths" : kind.name().toLowerCase(Locale.ROOT) + "s";
            return switch (this) {
                case SUM -> "can't add up " + cells;
                case MEAN -> "can't average " + (kind == Kind.TEXT ? "text" : cells);
                default -> "can't take the " + this + " of " + cells;
            };
        }

        /** Whether cells of a kind can be folded so. */
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

    /** The cells that columns hold, each combination once. */
    public static Total distinct(String... columns) {
        return new Total(List.of(columns), List.of());
    }

    public Total {
        by = List.copyOf(by);
        figures = List.copyOf(figures);
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        List<Field> fields = new ArrayList<>();
        by.forEach(key -> fields.add(before.field(key)));
        for (Figure figure : figures) {
            Field of = before.field(figure.column());
            if (!figure.fold().takes(of.kind())) {
                RowProblems.refuseFewTexts(before, figure.column());
                throw new BadInput(before.place().within("column '" + figure.column() + "'"), ProblemKind.WRONG_TYPE, "holds " + of.kind().phrase() + " a row; " + figure.fold().cannot(of.kind()));
            }
            if (fields.stream().anyMatch(field -> field.name().equals(figure.name()))) {
                throw new BadInput(before.place(), ProblemKind.CONFLICT, "two columns of the total would be named '" + figure.name() + "'");
            }
            fields.add(figure.fold() == Fold.COUNT ? Field.of(figure.name(), Kind.NUMBER) : of.named(figure.name()));
        }
        return before.with(fields);
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return List.of();
    }

    @Override
    public Traits traits() {
        return Traits.NONE.folding(true).readingOrder(figures.stream().anyMatch(figure -> figure.fold() == Fold.FIRST || figure.fold() == Fold.LAST));
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.total(this);
    }

    @Override
    public String sentence() {
        return "total the rows" + (by.isEmpty() ? " into one" : " by " + String.join(" and ", by)) + ": " + figures.stream().map(figure -> figure.fold() + " of " + figure.column()
                + (figure.name().equals(figure.column()) ? "" : " as " + figure.name())).collect(Collectors.joining(", "));
    }

    @Override
    public Table apply(Table table, Run run) {
        int[] groupOf = new int[table.rowCount()];
        int[] first = groups(Keys.columns(table, by), groupOf);
        List<Column> columns = new ArrayList<>();
        by.forEach(key -> columns.add(table.column(key).at(first)));
        for (Figure figure : figures) {
            Column cells = table.column(figure.column());
            columns.add(folded(figure, cells, groupOf, first.length));
        }
        Table totalled = table.rowCount() == 0 ? Table.of(table.name(), Source.MEMORY, columns) : table.rows(first).withColumns(columns);
        return passedOver(table, totalled);
    }

    private Table passedOver(Table table, Table totalled) {
        Table told = totalled;
        for (Figure figure : figures) {
            if (figure.fold() == Fold.SUM || figure.fold() == Fold.MEAN) {
                told = DroppedRows.passedOver(StepNotes.figure(figure), table, table.column(figure.column()),
                        IntStream.range(0, table.rowCount())).map(told::withNotes).orElse(told);
            }
        }
        return told;
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
        Column folded = Column.owning(figure.name(), number ? Kind.NUMBER : cells.kind(), folded(figure.fold(), cells, groupOf, groups));
        return figure.fold() == Fold.MEAN ? folded.weighted(folded(Fold.COUNT, cells, groupOf, groups)) : folded;
    }

    private static double[] folded(Fold fold, Column cells, int[] groupOf, int groups) {
        int[] counts = new int[groups];
        for (int row = 0; row < groupOf.length; row++) {
            counts[groupOf[row]] += cells.isPresent(row) ? 1 : 0;
        }
        double[] results = switch (fold) {
            case COUNT -> Arrays.stream(counts).asDoubleStream().toArray();
            case LEAST -> reduced(Math::min, cells, groupOf, groups);
            case GREATEST -> reduced(Math::max, cells, groupOf, groups);
            default -> sums(cells, groupOf, groups);
        };
        for (int group = 0; group < groups; group++) {
            double result = fold == Fold.MEAN ? results[group] / counts[group] : results[group];
            results[group] = fold != Fold.COUNT && counts[group] == 0 ? Double.NaN : result + 0.0;
        }
        return results;
    }

    private static double[] reduced(DoubleBinaryOperator of, Column cells, int[] groupOf, int groups) {
        double[] results = new double[groups];
        Arrays.fill(results, Double.NaN);
        for (int row = 0; row < groupOf.length; row++) {
            if (cells.isPresent(row)) {
                double so = results[groupOf[row]];
                results[groupOf[row]] = Double.isNaN(so) ? cells.number(row) : of.applyAsDouble(so, cells.number(row));
            }
        }
        return results;
    }

    private static double[] sums(Column cells, int[] groupOf, int groups) {
        double[] sums = new double[groups];
        double[] lost = new double[groups];
        for (int row = 0; row < groupOf.length; row++) {
            if (cells.isPresent(row)) {
                int group = groupOf[row];
                double figure = cells.number(row);
                double sum = sums[group] + figure;
                lost[group] += CompensatedSum.lost(sums[group], figure, sum);
                sums[group] = sum;
            }
        }
        Arrays.setAll(sums, group -> CompensatedSum.value(sums[group], lost[group]));
        return sums;
    }
}
