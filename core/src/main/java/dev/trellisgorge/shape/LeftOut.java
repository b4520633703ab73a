package dev.trellisgorge.shape;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** Tells of the rows that a step leaves out (how many, their names, and what they amount to) and of the cells that a sum passes over. */
final class LeftOut {
    private static final int LISTED = 10;
    private static final int AMOUNTS = 3;

    private LeftOut() {
    }

    /**
     * The kept rows of a table, and a note on the others.
     *
     * @param step what left them out
     * @param more something to say of them, or empty
     */
    static Table told(Table table, int[] kept, String step, String more) {
        Table rows = table.rows(kept);
        if (kept.length == table.rowCount()) {
            return rows;
        }
        BitSet stays = new BitSet();
        IntStream.of(kept).forEach(stays::set);
        int[] others = IntStream.range(0, table.rowCount()).filter(row -> !stays.get(row)).toArray();
        return rows.noting(new Note(step + " left out " + others.length + " of " + table.rowCount() + " rows" + more + amounts(table, others), names(table, others)));
    }

    private static String amounts(Table table, int[] rows) {
        List<String> amounts = new ArrayList<>();
        for (Column column : table.columns()) {
            if (column.kind() == Kind.NUMBER && amounts.size() < AMOUNTS) {
                amounts.add(column.name() + " " + sum(column, IntStream.of(rows)) + " of " + sum(column, IntStream.range(0, column.size())));
            }
        }
        return amounts.isEmpty() ? "" : " (" + String.join(", ", amounts) + ")";
    }

    private static String sum(Column column, IntStream rows) {
        return Numbers.brief(CompensatedSum.of(rows.mapToDouble(column::number).filter(figure -> !Double.isNaN(figure))));
    }

    /**
     * A note on the cells that a sum or a mean passes over, as a ratio of two sums may then compare different rows.
     *
     * @param figure what passes over them: {@code the sum of 'made'}
     * @param from   the table whose rows are summed up
     */
    static Optional<Note> passedOver(String figure, Table from, Column cells, IntStream rows) {
        int[] missing = rows.filter(row -> !cells.isPresent(row)).toArray();
        return missing.length == 0 ? Optional.empty() : Optional.of(Note.urgent(
                figure + " passes over " + missing.length + (missing.length == 1 ? " missing cell" : " missing cells"), names(from, missing)));
    }

    /** What rows are called: by their first column of texts or dates, each name once; where there is none by their place. */
    static List<String> names(Table table, int[] rows) {
        List<Column> named = table.columns().stream().filter(column -> column.kind() == Kind.TEXT).limit(1).toList();
        List<Column> by = named.isEmpty() ? table.columns().stream().filter(column -> column.kind() == Kind.DATE).limit(1).toList() : named;
        List<String> all = IntStream.of(rows).mapToObj(row -> by.isEmpty() ? table.rowPlace(row).toString() : by.get(0).isPresent(row) ? by.get(0).written(row)
                : "(missing)").distinct().toList();
        if (all.size() <= LISTED) {
            return all;
        }
        List<String> first = new ArrayList<>(all.subList(0, LISTED));
        first.add("and " + (all.size() - LISTED) + " more");
        return first;
    }
}
