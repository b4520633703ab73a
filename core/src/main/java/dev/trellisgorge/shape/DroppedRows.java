package dev.trellisgorge.shape;

import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.CompensatedSum;
import dev.trellisgorge.table.Table;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** Tells of the rows that a step leaves out (how many, their names, and what they amount to) and of the cells that a sum passes over. */
final class DroppedRows {
    private DroppedRows() {
    }

    /** What left out rows, in words. */
    interface Telling {
        Note of(int left, int all, List<StepNotes.Amount> amounts, List<String> names);
    }

    /** The kept rows of a table, and a note on the others. */
    static Table told(Table table, int[] kept, Telling telling) {
        Table rows = table.rows(kept);
        if (kept.length == table.rowCount()) {
            return rows;
        }
        BitSet stays = new BitSet();
        IntStream.of(kept).forEach(stays::set);
        int[] others = IntStream.range(0, table.rowCount()).filter(row -> !stays.get(row)).toArray();
        return rows.withNotes(telling.of(others.length, table.rowCount(), amounts(table, others), names(table, others)));
    }

    private static List<StepNotes.Amount> amounts(Table table, int[] rows) {
        return StepNotes.amountsOf(table.schema()).stream().filter(name -> isAddedUp(table.column(name))).map(name -> new StepNotes.Amount(name, sum(table.column(name), IntStream.of(rows)), sum(table.column(name), IntStream.range(0, table.rowCount())))).toList();
    }

    private static boolean isAddedUp(Column column) {
        return IntStream.range(0, column.size()).noneMatch(row -> Math.abs(column.number(row)) >= StepNotes.AMOUNTS_BELOW);
    }

    private static double sum(Column column, IntStream rows) {
        return CompensatedSum.of(rows.mapToDouble(column::number).filter(figure -> !Double.isNaN(figure)));
    }

    /** A note on the cells that a sum or a mean passes over; empty where there are none. Parameters as {@link StepNotes#passedOver}. */
    static Optional<Note> passedOver(String figure, Table from, Column cells, IntStream rows) {
        int[] missing = rows.filter(row -> !cells.isPresent(row)).toArray();
        return missing.length == 0 ? Optional.empty() : Optional.of(StepNotes.passedOver(figure, missing.length, names(from, missing)));
    }

    /** What rows are called, each name once; where no column names them by their place. */
    static List<String> names(Table table, int[] rows) {
        Optional<Column> by = StepNotes.namedBy(table.schema()).map(table::column);
        return by.isPresent() ? written(by.get(), rows) : StepNotes.listed(IntStream.of(rows).mapToObj(row -> table.rowPlace(row).toString()).toList());
    }

    /** The cells of some rows, each once. */
    static List<String> written(Column cells, int[] rows) {
        return StepNotes.listed(IntStream.of(rows).mapToObj(row -> cells.isPresent(row) ? cells.written(row) : "(missing)").toList());
    }
}
