package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.table.Column;
import java.util.HashMap;
import java.util.Map;
import org.apache.poi.ss.usermodel.BorderStyle;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Font;
import org.apache.poi.ss.usermodel.HorizontalAlignment;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFColor;
import org.apache.poi.xssf.usermodel.XSSFFont;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** The looks of cells, each made once. */
final class Styles {
    private static final int WIDEST = 60;

    private final XSSFWorkbook book;
    private final CellStyle header;
    private final CellStyle date;
    private final CellStyle changeable;
    private final CellStyle note;
    private final Map<String, CellStyle> figures = new HashMap<>();

    Styles(XSSFWorkbook book) {
        this.book = book;
        XSSFFont strong = book.createFont();
        strong.setBold(true);
        header = book.createCellStyle();
        header.setFont(strong);
        header.setBorderBottom(BorderStyle.THIN);
        header.setWrapText(true);
        date = book.createCellStyle();
        date.setAlignment(HorizontalAlignment.LEFT);
        date.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd"));
        XSSFFont entry = book.createFont();
        entry.setBold(true);
        entry.setColor(color(Role.BASE));
        XSSFCellStyle boxed = book.createCellStyle();
        boxed.setFont((Font) entry);
        boxed.setBorderBottom(BorderStyle.THIN);
        boxed.setBorderTop(BorderStyle.THIN);
        boxed.setBorderLeft(BorderStyle.THIN);
        boxed.setBorderRight(BorderStyle.THIN);
        changeable = boxed;
        XSSFFont small = book.createFont();
        small.setFontHeightInPoints((short) 9);
        small.setColor(color(Role.INK));
        note = book.createCellStyle();
        note.setFont(small);
    }

    private static XSSFColor color(Role role) {
        return new XSSFColor(new byte[] {(byte) role.color().red(), (byte) role.color().green(), (byte) role.color().blue()});
    }

    CellStyle header() {
        return header;
    }

    CellStyle date() {
        return date;
    }

    /** A cell that a reader may change. */
    CellStyle changeable() {
        return changeable;
    }

    CellStyle note() {
        return note;
    }

    CellStyle figure(Format format) {
        return figures.computeIfAbsent(NumberFormats.of(format), pattern -> {
            CellStyle style = book.createCellStyle();
            style.setDataFormat(book.createDataFormat().getFormat(pattern));
            return style;
        });
    }

    /** A sheet column's width for a table's column, in 1/256 of a character. */
    static int width(Column column) {
        int longest = column.name().length();
        for (int row = 0; row < Math.min(column.size(), 1000); row++) {
            longest = Math.max(longest, column.written(row).length());
        }
        return (Math.min(WIDEST, longest) + 3) * 256;
    }
}
