package dev.trellisgorge.engine.workbook;

import java.util.List;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCol;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCols;

/** The widths of a sheet's columns, written in one go: one by one, the library looks through all that there are for each. */
final class ColumnWidths {
    private ColumnWidths() {
    }

    /** Sets the widths of the first columns of a sheet that has none yet, in characters. */
    static void set(XSSFSheet sheet, List<Double> widths) {
        CTCols columns = sheet.getCTWorksheet().sizeOfColsArray() == 0 ? sheet.getCTWorksheet().addNewCols() : sheet.getCTWorksheet().getColsArray(0);
        int from = 0;
        for (int at = 1; at <= widths.size(); at++) {
            if (at == widths.size() || !widths.get(at).equals(widths.get(from))) {
                CTCol column = columns.addNewCol();
                column.setMin(from + 1L);
                column.setMax(at);
                column.setWidth(widths.get(from));
                column.setCustomWidth(true);
                from = at;
            }
        }
    }
}
