package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Puts rows in the order of a key and keeps the first ones; equal keys keep their order, missing ones come last. Immutable and thread-safe.
 *
 * @param by      the key
 * @param order   which way
 * @param top     how many rows to keep; empty for all. At least 1
 * @param rest    a row for all others, or none
 * @param names   the column that names the rows, for what is reported of those left out; or none
 * @param anchors true on rows that stay where they are: each run of rows between them is ordered and cut by itself; or none
 */
public record Rank(Formula by, Way order, OptionalInt top, Optional<Rest> rest, Optional<String> names, Optional<Formula> anchors) implements Step {

    /** Which way rows are ordered. */
    public enum Way {
        DESCENDING, ASCENDING,
        /** As they stand; only cut. */
        TABLE
    }

    public Rank {
        Objects.requireNonNull(top, "top");
        Objects.requireNonNull(rest, "rest");
        Objects.requireNonNull(names, "names");
        Objects.requireNonNull(anchors, "anchors");
        Objects.requireNonNull(by, "by");
        Objects.requireNonNull(order, "order");
        if (top.isPresent() && top.getAsInt() < 1) {
            throw new IllegalArgumentException("at least 1 row is kept, not " + top.getAsInt());
        }
    }

    @Override
    public Schema schema(Schema before, Catalog known) {
        new Typing(before, known.settings()).kind(by);
        return rest.isPresent() && top.isPresent() ? AddRow.named(before, rest.get().column()) : before;
    }

    @Override
    public List<SortKey> order(List<SortKey> before) {
        return order == Way.TABLE || anchors.isPresent() ? before : SortKey.before(new SortKey(by, order == Way.DESCENDING), before);
    }

    @Override
    public Traits traits() {
        return Traits.of(List.of(by)).sorting().folding(top.isPresent());
    }

    @Override
    public <R> R match(Cases<R> cases) {
        return cases.rank(this);
    }

    @Override
    public String sentence() {
        String sorted = order == Way.TABLE ? "" : "order the rows by " + by + (order == Way.DESCENDING ? ", largest first" : ", smallest first");
        String cut = top.isEmpty() ? "" : (sorted.isEmpty() ? "" : ", and ") + "keep the first " + top.getAsInt()
                + rest.map(row -> "; all others become the row " + row.name() + ways(row)).orElse("");
        return sorted + cut + anchors.map(rows -> "; rows where " + rows + " stay where they are, and each run between them is treated by itself").orElse("");
    }

    private static String ways(Rest rest) {
        Map<Rest.Way, List<String>> columns = new LinkedHashMap<>();
        rest.ways().forEach((column, way) -> {
            if (!column.equals(rest.column())) {
                columns.computeIfAbsent(way, w -> new ArrayList<>()).add(column);
            }
        });
        return columns.isEmpty() ? "" : " (" + columns.entrySet().stream().map(each -> (each.getKey() == Rest.Way.MISSING ? "left empty" : each.getKey().name().toLowerCase(Locale.ROOT)) + ": " + String.join(", ", each.getValue()))
                .collect(Collectors.joining("; ")) + ")";
    }

    @Override
    public Table apply(Table table, Run run) {
        Column keys = run.evaluate(table, "rank by", by);
        boolean[] stays = new boolean[table.rowCount()];
        anchors.ifPresent(rows -> {
            Column fixed = run.evaluate(table, "anchors", rows);
            IntStream.range(0, stays.length).forEach(row -> stays[row] = fixed.number(row) == 1);
        });
        return new Ranking(table, keys, stays, run).ranked();
    }

    /** One table being ranked. */
    private final class Ranking {
        private final Table table;
        private final Column keys;
        private final boolean[] stays;
        private final Run run;
        private final List<Integer> kept = new ArrayList<>();
        /** Where in {@link #kept} a row for others goes, and which they are. */
        private final Map<Integer, int[]> others = new LinkedHashMap<>();

        Ranking(Table table, Column keys, boolean[] stays, Run run) {
            this.table = table;
            this.keys = keys;
            this.stays = stays;
            this.run = run;
        }

        Table ranked() {
            int from = 0;
            for (int row = 0; row <= stays.length; row++) {
                if (row == stays.length || stays[row]) {
                    takeRun(from, row);
                    if (row < stays.length) {
                        kept.add(row);
                    }
                    from = row + 1;
                }
            }
            int[] all = others.values().stream().flatMapToInt(IntStream::of).toArray();
            Table cut = table.rows(kept.stream().mapToInt(Integer::intValue).toArray());
            if (all.length == 0) {
                return rest.isPresent() && top.isPresent() ? named(cut) : cut;
            }
            Table made = rest.isPresent() ? withRests(cut) : cut;
            boolean sized = StepNotes.isSize(by, keys.kind());
            double whole = sized ? sum(IntStream.range(0, keys.size()).filter(row -> !stays[row])) : 0;
            List<String> called = names.map(column -> DroppedRows.written(table.column(column), all)).orElse(List.of());
            return made.withNotes(StepNotes.cutOff(Rank.this, all.length, whole == 0 ? Double.NaN : sum(IntStream.of(all)) / whole, called));
        }

        /** The names of rows are texts wherever a row for all others may stand among them. */
        private Table named(Table cut) {
            String column = rest.get().column();
            return cut.column(column).kind() == Kind.TEXT ? cut : cut.withTexts(column);
        }

        private void takeRun(int from, int to) {
            int[] rows = IntStream.range(from, to).toArray();
            if (order != Way.TABLE) {
                int[] sorted = RowOrder.of(keys.at(rows), order == Way.DESCENDING);
                rows = IntStream.of(sorted).map(at -> from + at).toArray();
            }
            int first = Math.min(top.orElse(rows.length), rows.length);
            IntStream.of(Arrays.copyOf(rows, first)).forEach(kept::add);
            if (first < rows.length) {
                others.put(kept.size(), Arrays.copyOfRange(rows, first, rows.length));
            }
        }

        private Table withRests(Table cut) {
            Table whole = cut;
            Set<String> taken = new HashSet<>();
            IntStream.range(0, cut.rowCount()).forEach(row -> taken.add(cut.column(rest.get().column()).written(row)));
            int added = 0;
            for (Map.Entry<Integer, int[]> each : others.entrySet()) {
                String name = rest.get().name();
                for (int i = 2; others.size() > 1 && taken.contains(name); i++) {
                    name = rest.get().name() + " (" + i + ")";
                }
                taken.add(name);
                whole = row(whole, each.getKey() + added++, name, each.getValue());
            }
            return whole;
        }

        private Table row(Table whole, int at, String name, int[] rows) {
            Map<String, Object> cells = new HashMap<>();
            cells.put(rest.get().column(), name);
            Set<String> summed = new HashSet<>();
            rest.get().ways().forEach((column, way) -> {
                if (!column.equals(rest.get().column()) && way != Rest.Way.DERIVED && way != Rest.Way.MISSING) {
                    cells.put(column, folded(table.column(column), way, rows));
                    if (way == Rest.Way.SUM) {
                        summed.add(column);
                    }
                }
            });
            Map<String, Column> own = new HashMap<>();
            table.columns().forEach(column -> own.put(column.name(), column.at(new int[] {-1})));
            cells.forEach((column, cell) -> own.put(column, cell instanceof String text ? Column.texts(column, text)
                    : Column.owning(column, table.column(column).kind(), new double[] {(Double) cell})));
            for (String column : Lineage.inOrder(rest.get().derived())) {
                if (rest.get().ways().get(column) == Rest.Way.DERIVED && !column.equals(rest.get().column())) {
                    Table alone = Table.of(table.name(), table.columns().stream().map(each -> own.get(each.name())).toArray(Column[]::new));
                    Column made = run.evaluate(alone, column, rest.get().derived().get(column));
                    own.put(column, made);
                    cells.put(column, !made.isPresent(0) ? null : made.kind() == Kind.TEXT ? made.written(0) : (Object) made.number(0));
                }
            }
            int[] inWhole = IntStream.of(rows).map(table::wholeRow).toArray();
            return passedOver(whole.withRow(at, cells, inWhole, summed), name, rows);
        }

        private Table passedOver(Table whole, String name, int[] rows) {
            Table told = whole;
            for (Map.Entry<String, Rest.Way> each : rest.get().ways().entrySet()) {
                if (each.getValue() == Rest.Way.SUM || each.getValue() == Rest.Way.MEAN) {
                    told = DroppedRows.passedOver(StepNotes.figure(name, each.getKey(), each.getValue()), table,
                            table.column(each.getKey()), IntStream.of(rows)).map(told::withNotes).orElse(told);
                }
            }
            return told;
        }

        private Double folded(Column cells, Rest.Way way, int[] rows) {
            int[] there = IntStream.of(rows).filter(cells::isPresent).toArray();
            if (there.length == 0) {
                return Double.NaN;
            }
            return switch (way) {
                case LEAST -> IntStream.of(there).mapToDouble(cells::number).min().orElseThrow();
                case GREATEST -> IntStream.of(there).mapToDouble(cells::number).max().orElseThrow();
                case MEAN -> CompensatedSum.of(IntStream.of(there).mapToDouble(row -> cells.number(row) * cells.weight(row)))
                        / CompensatedSum.of(IntStream.of(there).mapToDouble(cells::weight));
                default -> CompensatedSum.of(IntStream.of(there).mapToDouble(cells::number));
            };
        }

        private double sum(IntStream rows) {
            return CompensatedSum.of(rows.mapToDouble(keys::number).filter(key -> !Double.isNaN(key)));
        }
    }
}
