package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Column;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.ss.usermodel.BorderStyle;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.ConditionalFormattingRule;
import org.apache.poi.ss.usermodel.Font;
import org.apache.poi.ss.usermodel.HorizontalAlignment;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.VerticalAlignment;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFColor;
import org.apache.poi.xssf.usermodel.XSSFFont;
import org.apache.poi.xssf.usermodel.XSSFFontFormatting;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** The looks of cells, each made once. */
final class Styles {
    /** The height of a line with a big figure, in points. */
    static final float BIG_LINE = 48;
    private static final byte OPAQUE = -1;
    private static final int WIDEST = 60;
    private static final double POINTS_PER_PIXEL = 0.75;
    private static final float LINE = 1.35f;

    private final XSSFWorkbook book;
    private final CellStyle header;
    private final CellStyle date;
    private final CellStyle input;
    private final CellStyle inputDate;
    private final CellStyle title;
    private final CellStyle meaning;
    private final CellStyle changeable;
    private final CellStyle changeableDate;
    private final CellStyle note;
    private final CellStyle noteOfDate;
    private final CellStyle plain;
    private final CellStyle bar;
    private final CellStyle barAtEnd;
    private final Map<String, CellStyle> figures = new HashMap<>();
    private final Map<String, CellStyle> made = new HashMap<>();

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
        XSSFFont typed = font(10, false, Role.BASE);
        input = style(typed, HorizontalAlignment.GENERAL);
        inputDate = style(typed, HorizontalAlignment.LEFT);
        inputDate.setDataFormat(date.getDataFormat());
        title = style(font(14, true, Role.INK), HorizontalAlignment.LEFT);
        meaning = style(font(9, false, Role.INK), HorizontalAlignment.LEFT);
        meaning.setWrapText(true);
        meaning.setVerticalAlignment(VerticalAlignment.TOP);
        meaning.setBorderBottom(BorderStyle.THIN);
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
        plain = style(font(11, false, Role.INK), HorizontalAlignment.LEFT);
        XSSFFont cells = font(11, false, Role.BASE);
        cells.setFontName("Courier New"); // or what stands in for it: glyphs of one width
        bar = style(cells, HorizontalAlignment.LEFT);
        barAtEnd = style(cells, HorizontalAlignment.RIGHT);
    }

    private XSSFFont font(double points, boolean strong, Role role) {
        XSSFFont font = book.createFont();
        font.setFontName(ChartFrame.FONT);
        font.setFontHeight((short) Math.round(points * 20));
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

    static XSSFColor color(Role role) {
        return new XSSFColor(new byte[] {OPAQUE, (byte) role.color().red(), (byte) role.color().green(), (byte) role.color().blue()});
    }

    /** Gives what a rule applies to a colour, of three bytes. */
    static void color(ConditionalFormattingRule rule, byte... rgb) {
        XSSFFontFormatting font = (XSSFFontFormatting) rule.createFontFormatting();
        font.setFontColor(new XSSFColor(rgb));
        font.getFontColor().getCTColor().setRgb(new byte[] {OPAQUE, rgb[0], rgb[1], rgb[2]}); // as the schema has it
    }

    CellStyle header() {
        return header;
    }

    CellStyle date() {
        return date;
    }

    /** What was typed or read, where formulas stand beside it. */
    CellStyle input() {
        return input;
    }

    CellStyle inputDate() {
        return inputDate;
    }

    /** Over a sheet of cells. */
    CellStyle title() {
        return title;
    }

    /** Under a column's name, what it is. */
    CellStyle meaning() {
        return meaning;
    }

    /** A cell that a reader may change. */
    CellStyle changeable() {
        return changeable;
    }

    /** The same, of a figure that is written in a format. */
    CellStyle changeable(Format format) {
        return made.computeIfAbsent("changeable " + NumberFormats.of(format), key -> {
            CellStyle style = book.createCellStyle();
            style.cloneStyleFrom(changeable);
            style.setDataFormat(book.createDataFormat().getFormat(NumberFormats.of(format)));
            return style;
        });
    }

    /** The same, of a date. */
    CellStyle changeableDate() {
        return changeableDate;
    }

    CellStyle note() {
        return note;
    }

    /** The same of a setting, written as is said of it. */
    CellStyle note(Settings.About about) {
        return about.format().isEmpty() ? note : made.computeIfAbsent("note " + about.format(), key -> {
            CellStyle style = book.createCellStyle();
            style.cloneStyleFrom(note);
            style.setDataFormat(book.createDataFormat().getFormat(NumberFormats.of(new Format(about.format()))));
            return style;
        });
    }

    /** The same at an edge of its cell. */
    CellStyle note(HorizontalAlignment at, Optional<Format> format) {
        return made.computeIfAbsent("note " + at + format.map(NumberFormats::of).orElse(""), key -> {
            CellStyle style = style(font(9, false, Role.INK), at);
            format.ifPresent(pattern -> style.setDataFormat(book.createDataFormat().getFormat(NumberFormats.of(pattern))));
            return style;
        });
    }

    CellStyle noteOfDate() {
        return noteOfDate;
    }

    /** A line for a purpose, as large and strong as was asked for, else as usual; where titles stand. */
    CellStyle line(Looks looks, Looks.Purpose purpose) {
        boolean title = purpose == Looks.Purpose.TITLE;
        double points = looks.sizes().containsKey(purpose) ? looks.sizes().get(purpose) * POINTS_PER_PIXEL : title ? 16 : 9;
        boolean strong = looks.bold().getOrDefault(purpose, title);
        HorizontalAlignment at = switch (looks.titleAt().orElse(Looks.Align.LEFT)) {
            case LEFT -> HorizontalAlignment.LEFT;
            case CENTRE -> HorizontalAlignment.CENTER;
            case RIGHT -> HorizontalAlignment.RIGHT;
        };
        return made.computeIfAbsent(points + " " + strong + " " + at, key -> style(font(points, strong, Role.INK), at));
    }

    /** Makes a row high enough for a line's style. */
    void fit(Row row, CellStyle line) {
        float needed = book.getFontAt(line.getFontIndex()).getFontHeightInPoints() * LINE;
        if (needed > row.getHeightInPoints()) {
            row.setHeightInPoints(needed);
        }
    }

    /** Over a column of a table. */
    CellStyle heading(HorizontalAlignment at) {
        return made.computeIfAbsent("heading " + at, key -> {
            CellStyle style = style(font(10, true, Role.INK), at);
            style.setBorderBottom(BorderStyle.THIN);
            return style;
        });
    }

    /** A cell of a table, with a rule below it. */
    CellStyle ruled(HorizontalAlignment at, Optional<Format> format) {
        return made.computeIfAbsent("ruled " + at + format.map(NumberFormats::of).orElse(""), key -> {
            CellStyle style = style(font(11, false, Role.INK), at);
            style.setVerticalAlignment(VerticalAlignment.CENTER);
            style.setBorderBottom(BorderStyle.THIN);
            ((XSSFCellStyle) style).setBottomBorderColor(color(Role.MUTED));
            format.ifPresent(pattern -> style.setDataFormat(book.createDataFormat().getFormat(NumberFormats.of(pattern))));
            return style;
        });
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
