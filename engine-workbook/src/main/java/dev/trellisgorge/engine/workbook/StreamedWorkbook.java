package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import java.io.IOException;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.xssf.streaming.SXSSFWorkbook;
import org.apache.poi.xssf.streaming.SheetDataWriter;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/**
 * A workbook whose rows go to disk as they are made. What stands beside a formula that gives a truth or an error is written
 * here, because the library's own writer puts a stray character into those cells, which are then no valid SpreadsheetML.
 */
final class StreamedWorkbook extends SXSSFWorkbook {
    private static final int ROWS_IN_MEMORY = 100;

    StreamedWorkbook(XSSFWorkbook book) {
        super(book, ROWS_IN_MEMORY);
        setZip64Mode(Zip64Mode.AsNeeded); // readers of a stream take nothing else
    }

    @Override
    protected SheetDataWriter createSheetDataWriter() throws IOException {
        return new SheetDataWriter() {
            @Override
            public void writeCell(int column, Cell cell) throws IOException {
                if (cell == null) {
                    return;
                }
                if (cell.getCellType() == CellType.FORMULA && cell.getCellFormula().length() > SheetBounds.FORMULA) {
                    throw SheetBounds.tooLong(Place.of("sheet '" + cell.getSheet().getSheetName() + "', cell " + cell.getAddress()), "the formula",
                            cell.getCellFormula().length(), SheetBounds.FORMULA, "take the expression apart with 'derive'");
                }
                CellType result = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
                if (cell.getCellType() != CellType.FORMULA || result != CellType.BOOLEAN && result != CellType.ERROR) {
                    super.writeCell(column, cell);
                    return;
                }
                int style = cell.getCellStyle().getIndex() & 0xFFFF;
                boolean truth = result == CellType.BOOLEAN;
                _out.write("<c r=\"" + cell.getAddress() + "\"" + (style == 0 ? "" : " s=\"" + style + "\"") + (truth ? " t=\"b\"><f>" : " t=\"e\"><f>"));
                outputEscapedString(cell.getCellFormula());
                _out.write("</f><v>" + (truth ? cell.getBooleanCellValue() ? "1" : "0" : FormulaError.forInt(cell.getErrorCellValue()).getString()) + "</v></c>");
            }
        };
    }
}
