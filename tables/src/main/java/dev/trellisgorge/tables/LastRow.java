package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.stream.IntStream;

/** Finds a last row that is the total of the rows above it, so that no figure is counted twice unseen. */
final class LastRow {
    private static final double CLOSE = 1e-9;
    private static final int FEWEST_ROWS = 3;
    private static final String WORDS = "(?i)\\s*(grand |sub)?(total|sum|all|together)s?\\b.*";

    private LastRow() {
    }

    /** The table as the layout wants it: told of a total, without it, or as it is. */
    static Table seenTo(Table table, Layout.TotalRow what) {
        boolean total = what != Layout.TotalRow.KEEP && isTotal(table);
        if (what == Layout.TotalRow.DROP && !total) {
            throw new BadInput(table.place(), "the last row is to be dropped as a total, and its figures are not the sums of the rows above");
        }
        if (!total) {
            return table;
        }
        int last = table.rowCount() - 1;
        if (what == Layout.TotalRow.DROP) {
            return table.rows(IntStream.range(0, last).toArray());
        }
        return table.noting(Note.urgent("the last row is the sum of the rows above, and would be counted twice; drop it with 'total-row: drop', or keep it with"
                + " 'total-row: keep'", List.of(table.rowPlace(last).toString())));
    }

    /** Every figure is the sum above, and a word or a blank says so, or a second column of figures. */
    private static boolean isTotal(Table table) {
        if (table.rowCount() < FEWEST_ROWS) {
            return false;
        }
        int last = table.rowCount() - 1;
        int sums = 0;
        boolean named = false;
        for (Column column : table.columns()) {
            if (column.kind() == Kind.NUMBER && column.isPresent(last)) {
                double sum = sum(column, last);
                if (sum == 0 || Math.abs(sum - column.number(last)) > CLOSE * Math.abs(sum)) {
                    return false;
                }
                sums++;
            } else if (column.kind() != Kind.NUMBER) {
                named |= !column.isPresent(last) || column.written(last).matches(WORDS);
            }
        }
        return sums > 1 || sums == 1 && named;
    }

    private static double sum(Column column, int rows) {
        double sum = 0;
        for (int row = 0; row < rows; row++) {
            sum += column.isPresent(row) ? column.number(row) : 0;
        }
        return sum;
    }
}
