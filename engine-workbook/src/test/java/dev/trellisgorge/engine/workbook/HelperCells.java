package dev.trellisgorge.engine.workbook;

import java.util.Optional;
import java.util.stream.StreamSupport;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.Sheet;

/** Cells of a helper sheet, found by the name over their column. */
final class HelperCells {
    private HelperCells() {
    }

    /** The first column of a name, from 0; empty where the sheet has none. */
    static Optional<Integer> find(Sheet sheet, String name) {
        return StreamSupport.stream(sheet.getRow(SheetLayout.NAMES - 1).spliterator(), false).filter(cell -> cell.getStringCellValue().equals(name)).map(Cell::getColumnIndex).findFirst();
    }

    static int column(Sheet sheet, String name) {
        return find(sheet, name).orElseThrow(() -> new AssertionError("no column '" + name + "' on " + sheet.getSheetName()));
    }

    static Cell cell(Sheet sheet, int column, int row) {
        return sheet.getRow(SheetLayout.line(row) - 1).getCell(column);
    }

    static Cell cell(Sheet sheet, String name, int row) {
        return cell(sheet, column(sheet, name), row);
    }

    /** The line over the rows that holds this, of a column. */
    static Cell over(Sheet sheet, int line, String name) {
        return sheet.getRow(line - 1).getCell(column(sheet, name));
    }
}
