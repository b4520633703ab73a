package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.problem.Place;
import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDateTime;
import java.time.ZoneId;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
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
    private static final LocalDateTime EARLIEST = LocalDateTime.of(1980, 1, 1, 0, 0);

    StreamedWorkbook(XSSFWorkbook book) {
        super(book, ROWS_IN_MEMORY);
        setZip64Mode(Zip64Mode.AsNeeded); // readers of a stream take nothing else
    }

    /** No part carries a time, so that the same charts give the same bytes. */
    @Override
    protected ZipArchiveOutputStream createArchiveOutputStream(OutputStream out) {
        ZipArchiveOutputStream zip = new ZipArchiveOutputStream(out) {
            @Override
            public void putArchiveEntry(ZipArchiveEntry entry) throws IOException {
                entry.setTime(EARLIEST.atZone(ZoneId.systemDefault()).toInstant().toEpochMilli()); // it is written as local time
                super.putArchiveEntry(entry);
            }
        };
        zip.setUseZip64(zip64Mode);
        return zip;
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
