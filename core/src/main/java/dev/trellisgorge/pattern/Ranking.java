package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;

import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Table;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;

/**
 * The order of the rows, and how many of them there are. Rows with equal keys keep table order, missing keys come last.
 *
 * @param by    the key, one number a row
 * @param order which way
 * @param top   how many rows to keep; empty for all. At least 1
 * @param rest  the name of one last row in which the others are totalled, each input column by itself; empty to drop them
 */
public record Ranking(Formula by, Order order, OptionalInt top, Optional<String> rest) {

    /** Which way rows are ordered. */
    public enum Order {
        DESCENDING, ASCENDING,
        /** As they stand; only cut. */
        TABLE
    }

    /** Largest first, all of them. */
    public static Ranking by(Formula key) {
        return new Ranking(key, Order.DESCENDING, OptionalInt.empty(), Optional.empty());
    }

    public Ranking order(Order way) {
        return new Ranking(by, way, top, rest);
    }

    /** The first rows alone. */
    public Ranking top(int rows) {
        if (rows < 1) {
            throw new IllegalArgumentException("at least 1 row is kept, not " + rows);
        }
        return new Ranking(by, order, OptionalInt.of(rows), rest);
    }

    /** The others in one last row of this name. */
    public Ranking rest(String name) {
        return new Ranking(by, order, top, Optional.of(name));
    }

    /** A table in order, and what a reader should know of the rows that it lacks. */
    record Ranked(Table table, List<Note> notes) {
    }

    /** @param category the column that names the rows; without one, the others can't be totalled and are dropped */
    Ranked apply(Table table, Settings settings, Optional<String> category) {
        Column keys = HelperTable.over(table, settings, category).evaluate("rank by", by);
        int[] rows = order == Order.TABLE ? IntStream.range(0, keys.size()).toArray() : RowOrder.of(keys, order == Order.DESCENDING);
        int kept = Math.min(top.orElse(rows.length), rows.length);
        int[] first = Arrays.copyOf(rows, kept);
        int[] others = Arrays.copyOfRange(rows, kept, rows.length);
        if (others.length == 0) {
            return new Ranked(table.rows(rows), List.of());
        }
        Note note = new Note(sentence(keys, others), category.map(c -> IntStream.of(others)
                .mapToObj(table.column(c)::written).toList()).orElse(List.of()));
        boolean totalled = rest.isPresent() && category.isPresent();
        return new Ranked(totalled ? table.withTotalLast(first, others, category.get(), rest.get()) : table.rows(first), List.of(note));
    }

    private String sentence(Column keys, int[] others) {
        boolean sized = keys.kind() == Kind.NUMBER && !(by instanceof Formula.Row);
        double all = sized ? sum(keys, IntStream.range(0, keys.size())) : 0;
        String share = all == 0 ? "" : ", " + new Format("0.#%").write(sum(keys, IntStream.of(others)) / all) + " of all " + by;
        String rows = others.length + (others.length == 1 ? " row" : " rows");
        return rest.map(name -> rows + " totalled in '" + name + "'").orElse(rows + " left out") + share;
    }

    private static double sum(Column keys, IntStream rows) {
        return rows.mapToDouble(keys::number).filter(key -> !Double.isNaN(key)).sum();
    }
}
