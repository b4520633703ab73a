package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Bound;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellValue;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.util.CellAddress;
import org.apache.poi.xssf.usermodel.XSSFFormulaEvaluator;
import org.apache.poi.xssf.usermodel.XSSFRow;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** Works formulas out whose results a file does not hold, as files written by programs often don't. Thread-safe: it holds no state. */
final class FormulaResults {
    private FormulaResults() {
    }

    /**
     * What cells of a sheet come to: a Double, a Boolean, a String or a {@link SheetCell.Unreadable}; nothing for a blank result.
     *
     * @param asked cells with a formula
     */
    static Map<CellAddress, Object> of(OPCPackage archive, String sheet, Set<CellAddress> asked) throws IOException {
        Map<CellAddress, Object> results = new HashMap<>();
        if (asked.size() > Bound.WORKED_OUT.count()) {
            asked.forEach(cell -> results.put(cell, new SheetCell.Unreadable("a formula without a result, of more than " + Bound.WORKED_OUT.count())));
            return results;
        }
        XSSFWorkbook book = new XSSFWorkbook(archive); // not closed, as that would close the package, which others read
        XSSFFormulaEvaluator evaluator = book.getCreationHelper().createFormulaEvaluator();
        XSSFSheet cells = book.getSheet(sheet);
        for (CellAddress at : asked) {
            XSSFRow row = cells.getRow(at.getRow());
            Cell cell = row == null ? null : row.getCell(at.getColumn());
            if (cell != null) {
                results.put(at, result(evaluator, cell));
            }
        }
        results.values().removeIf(""::equals);
        return results;
    }

    private static Object result(XSSFFormulaEvaluator evaluator, Cell cell) {
        try {
            CellValue value = evaluator.evaluate(cell);
            return value == null ? "" : switch (value.getCellType()) {
                case NUMERIC -> (Object) value.getNumberValue();
                case BOOLEAN -> value.getBooleanValue();
                case STRING -> value.getStringValue().isBlank() ? "" : value.getStringValue();
                case ERROR -> new SheetCell.Unreadable(FormulaError.forInt(value.getErrorValue()).getString());
                default -> "";
            };
        } catch (RuntimeException | StackOverflowError unknown) { // of a function, or a file, that the library doesn't know
            return new SheetCell.Unreadable("a formula without a result, which can't be worked out here");
        }
    }
}
