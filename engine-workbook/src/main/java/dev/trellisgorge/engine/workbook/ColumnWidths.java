package dev.trellisgorge.engine.workbook;

import java.util.List;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCol;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCols;

/** The widths of a sheet's columns, written in one go: one by one, the library looks through all that there are for each. */
final class ColumnWidths {
    private static final double AFTER = 9;

    private ColumnWidths() {
    }

    /** Sets the widths of the first columns of a sheet that has none yet, in characters. */
    static void set(XSSFSheet sheet, List<Double> widths) {
        set(sheet, widths, widths.size(), widths.size());
    }

    /**
     * The same with columns that are folded away in a group.
     *
     * @param from the first of them, from 0
     * @param to   the one after the last, at most as many as there are widths
     */
    static void set(XSSFSheet sheet, List<Double> widths, int from, int to) {
        write(sheet, widths.subList(0, from), 0, false);
        write(sheet, widths.subList(from, to), from, true);
        if (to > from) {
            CTCol after = sheet.getCTWorksheet().getColsArray(0).addNewCol();
            after.setMin(to + 1L);
            after.setMax(to + 1L);
            after.setWidth(AFTER);
            after.setCollapsed(true);
            (sheet.getCTWorksheet().isSetSheetFormatPr() ? sheet.getCTWorksheet().getSheetFormatPr() : sheet.getCTWorksheet().addNewSheetFormatPr()).setOutlineLevelCol((short) 1);
        }
    }

    private static void write(XSSFSheet sheet, List<Double> widths, int offset, boolean folded) {
        CTCols columns = sheet.getCTWorksheet().sizeOfColsArray() == 0 ? sheet.getCTWorksheet().addNewCols() : sheet.getCTWorksheet().getColsArray(0);
        int from = 0;
        for (int at = 1; at <= widths.size(); at++) {
            if (at == widths.size() || !widths.get(at).equals(widths.get(from))) {
                CTCol column = columns.addNewCol();
                column.setMin(offset + from + 1L);
                column.setMax((long) offset + at);
                column.setWidth(widths.get(from));
                column.setCustomWidth(true);
                if (folded) {
                    column.setOutlineLevel((short) 1);
                    column.setHidden(true);
                }
                from = at;
            }
        }
    }
}
