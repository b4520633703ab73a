package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.stream.IntStream;

/** What a sheet of the format holds at most. */
final class SheetBounds {
    static final int COLUMNS = Bound.WRITTEN_COLUMNS.count();
    static final int ROWS = Bound.WRITTEN_ROWS.count();
    static final int CELL_TEXT = Bound.WRITTEN_TEXT.count();
    static final int FORMULA = Bound.WRITTEN_FORMULA.count();
    static final int DEFINED_NAME = 255;
    /** Before it, programs disagree on which day a number is. */
    static final LocalDate FIRST_DAY = LocalDate.of(1900, 3, 1);
    static final LocalDate LAST_DAY = LocalDate.of(9999, 12, 31);

    private SheetBounds() {
    }

    /** Whether a table fits on a sheet, with a line of names. */
    static boolean fits(Table table) {
        return table.rowCount() + SheetLayout.FIRST <= ROWS && table.columns().size() <= COLUMNS && table.columns().stream().filter(column -> column.kind() == Kind.DATE)
                .allMatch(column -> IntStream.range(0, column.size()).allMatch(row -> !isNoDate(column.number(row))));
    }

    private static boolean isNoDate(double day) {
        return day < FIRST_DAY.toEpochDay() || day > LAST_DAY.toEpochDay();
    }

    /** @throws BadInput where a table, with a header row, doesn't fit on a sheet */
    static void refuseTooLarge(Table table) {
        if (table.rowCount() >= ROWS || table.columns().size() > COLUMNS) {
            throw new BadInput(table.place(), ProblemKind.TOO_LARGE, table.rowCount() + " rows and " + table.columns().size() + " columns don't fit on a sheet of a workbook, which has " + ROWS
                    + " rows, one of them for the names, and " + COLUMNS + " columns; total or keep rows before they are drawn");
        }
        for (Column column : table.columns()) {
            for (int row = 0; column.kind() == Kind.DATE && row < column.size(); row++) {
                if (isNoDate(column.number(row))) {
                    throw new BadInput(table.rowPlace(row).within("column '" + column.name() + "'"), ProblemKind.DATA, column.written(row) + " is no date on a sheet of a workbook, which knows "
                            + FIRST_DAY + " to " + LAST_DAY);
                }
            }
        }
    }

    static BadInput tooLong(Place place, String what, int characters, int most, String mend) {
        return new BadInput(place, ProblemKind.TOO_LARGE, what + " would have " + characters + " characters, and a sheet takes " + most + "; " + mend);
    }
}
