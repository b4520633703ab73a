package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.sheet.CellFormat;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.CellLook.Across;
import dev.trellisgorge.sheet.CellLook.Border;
import dev.trellisgorge.sheet.CellLook.Down;
import dev.trellisgorge.table.Column;
import java.util.Optional;

/** The looks of cells, by what they are for. */
final class Styles {
    /** The height of a line with a big figure, in points. */
    static final double BIG_LINE = 48;
    private static final int WIDEST = 60;
    private static final double POINTS_PER_PIXEL = 0.75;
    private static final CellLook PLAIN = words(11, false, Role.INK).at(Across.LEFT);
    private static final CellLook NOTE = words(9, false, Role.INK);
    private static final CellLook CHANGEABLE = words(10, true, Role.BASE).border(Border.AROUND);
    private static final CellLook BAR = words(11, false, Role.BASE).font("Courier New"); // or what stands in for it: glyphs of one width

    private Styles() {
    }

    private static CellLook words(double points, boolean strong, Role role) {
        return CellLook.ORDINARY.words(points, strong, role.color());
    }

    private static CellLook formatted(CellLook look, Optional<Format> format) {
        return format.map(pattern -> look.format(NumberFormats.of(pattern))).orElse(look);
    }

    static CellLook header() {
        return words(10, true, Role.INK).border(Border.BELOW).wrapped();
    }

    static CellLook date() {
        return CellLook.ORDINARY.at(Across.LEFT).format(CellFormat.DAY);
    }

    /** What was typed or read, where formulas stand beside it. */
    static CellLook input() {
        return words(10, false, Role.BASE);
    }

    static CellLook inputDate() {
        return input().at(Across.LEFT).format(CellFormat.DAY);
    }

    /** Over a sheet of cells. */
    static CellLook title() {
        return words(14, true, Role.INK).at(Across.LEFT);
    }

    /** Under a column's name, what it is. */
    static CellLook meaning() {
        return NOTE.at(Across.LEFT).at(Down.TOP).border(Border.BELOW).wrapped();
    }

    /** A cell that a reader may change. */
    static CellLook changeable() {
        return CHANGEABLE;
    }

    /** The same, of a figure that is written in a format. */
    static CellLook changeable(Format format) {
        return CHANGEABLE.format(NumberFormats.of(format));
    }

    /** The same, of a date. */
    static CellLook changeableDate() {
        return CHANGEABLE.format(CellFormat.DAY);
    }

    static CellLook note() {
        return NOTE;
    }

    /** The same of a setting, written as is said of it. */
    static CellLook note(Settings.About about) {
        return about.format().isEmpty() ? NOTE : NOTE.format(NumberFormats.of(new Format(about.format())));
    }

    /** The same at an edge of its cell. */
    static CellLook note(Across at, Optional<Format> format) {
        return formatted(NOTE.at(at), format);
    }

    static CellLook noteOfDate() {
        return NOTE.at(Across.LEFT).format(CellFormat.DAY);
    }

    /** A line for a purpose, as large and strong as was asked for, else as usual; where titles stand. */
    static CellLook line(Looks looks, Looks.Purpose purpose) {
        boolean title = purpose == Looks.Purpose.TITLE;
        double points = looks.sizes().containsKey(purpose) ? looks.sizes().get(purpose) * POINTS_PER_PIXEL : title ? 16 : 9;
        return words(points, looks.bold().getOrDefault(purpose, title), Role.INK).at(switch (looks.titleAt().orElse(Looks.Align.LEFT)) {
            case LEFT -> Across.LEFT;
            case CENTRE -> Across.CENTRE;
            case RIGHT -> Across.RIGHT;
        });
    }

    /** Over a column of a table. */
    static CellLook heading(Across at) {
        return words(10, true, Role.INK).at(at).border(Border.BELOW);
    }

    /** A cell of a table, with a rule below it. */
    static CellLook ruled(Across at, Optional<Format> format) {
        return formatted(words(11, false, Role.INK).at(at).at(Down.MIDDLE).border(Border.QUIET_BELOW), format);
    }

    static CellLook plain() {
        return PLAIN;
    }

    /** Of a bar made of characters. */
    static CellLook bar() {
        return BAR.at(Across.LEFT);
    }

    static CellLook barAtEnd() {
        return BAR.at(Across.RIGHT);
    }

    static CellLook bigFigure(Format format) {
        return words(36, true, Role.BASE).format(NumberFormats.of(format));
    }

    static CellLook figure(Format format) {
        return CellLook.ORDINARY.format(NumberFormats.of(format));
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
