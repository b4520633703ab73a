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
    /** The height of a line with a big figure, in points. */
    static final float BIG_LINE = 48;
    private static final int WIDEST = 60;

    private final XSSFWorkbook book;
    private final CellStyle header;
    private final CellStyle date;
    private final CellStyle changeable;
    private final CellStyle changeableDate;
    private final CellStyle note;
    private final CellStyle noteOfDate;
    private final CellStyle title;
    private final CellStyle plain;
    private final CellStyle bar;
    private final CellStyle barAtEnd;
    private final Map<String, CellStyle> figures = new HashMap<>();

    Styles(XSSFWorkbook book) {
        this.book = book;
        XSSFFont ordinary = book.getFontAt(0);
        ordinary.setFontName(ChartFrame.FONT);
        ordinary.setFontHeightInPoints((short) 10); // the widths of columns count its digits
        XSSFFont strong = font(10, false, Role.INK);
        strong.setBold(true);
        header = book.createCellStyle();
        header.setFont(strong);
        header.setBorderBottom(BorderStyle.THIN);
        header.setWrapText(true);
        date = book.createCellStyle();
        date.setAlignment(HorizontalAlignment.LEFT);
        date.setDataFormat(book.createDataFormat().getFormat("yyyy-mm-dd"));
        XSSFFont entry = font(10, true, Role.BASE);
        XSSFCellStyle boxed = book.createCellStyle();
        boxed.setFont((Font) entry);
        boxed.setBorderBottom(BorderStyle.THIN);
        boxed.setBorderTop(BorderStyle.THIN);
        boxed.setBorderLeft(BorderStyle.THIN);
        boxed.setBorderRight(BorderStyle.THIN);
        changeable = boxed;
        changeableDate = book.createCellStyle();
        changeableDate.cloneStyleFrom(boxed);
        changeableDate.setDataFormat(date.getDataFormat());
        note = style(font(9, false, Role.INK), HorizontalAlignment.GENERAL);
        noteOfDate = style(font(9, false, Role.INK), HorizontalAlignment.LEFT);
        noteOfDate.setDataFormat(date.getDataFormat());
        title = style(font(16, true, Role.INK), HorizontalAlignment.LEFT);
        plain = style(font(11, false, Role.INK), HorizontalAlignment.LEFT);
        XSSFFont cells = font(11, false, Role.BASE);
        cells.setFontName("Courier New"); // or what stands in for it: glyphs of one width
        bar = style(cells, HorizontalAlignment.LEFT);
        barAtEnd = style(cells, HorizontalAlignment.RIGHT);
    }

    private XSSFFont font(int points, boolean strong, Role role) {
        XSSFFont font = book.createFont();
        font.setFontName(ChartFrame.FONT);
        font.setFontHeightInPoints((short) points);
        font.setBold(strong);
        font.setColor(color(role));
        return font;
    }

    private CellStyle style(XSSFFont font, HorizontalAlignment alignment) {
        CellStyle style = book.createCellStyle();
        style.setFont((Font) font);
        style.setAlignment(alignment);
        return style;
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

    /** The same, of a date. */
    CellStyle changeableDate() {
        return changeableDate;
    }

    CellStyle note() {
        return note;
    }

    CellStyle noteOfDate() {
        return noteOfDate;
    }

    CellStyle title() {
        return title;
    }

    CellStyle plain() {
        return plain;
    }

    /** Of a bar made of characters. */
    CellStyle bar() {
        return bar;
    }

    CellStyle barAtEnd() {
        return barAtEnd;
    }

    CellStyle bigFigure(Format format) {
        CellStyle style = style(font(36, true, Role.BASE), HorizontalAlignment.LEFT);
        style.setDataFormat(book.createDataFormat().getFormat(NumberFormats.of(format)));
        return style;
    }

    CellStyle figure(Format format) {
        return figures.computeIfAbsent(NumberFormats.of(format), pattern -> {
            CellStyle style = book.createCellStyle();
            style.setDataFormat(book.createDataFormat().getFormat(pattern));
            return style;
        });
    }

    /** A sheet column's width for a table's column, in characters. */
    static double width(Column column) {
        int longest = column.name().length();
        for (int row = 0; row < Math.min(column.size(), 1000); row++) {
            longest = Math.max(longest, column.written(row).length());
        }
        return Math.min(WIDEST, longest) + 3;
    }
}
