package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.Anchor;
import java.awt.geom.Rectangle2D;

/** A rectangle of cells on a sheet whose columns and rows are all equally large. */
record Area(int column, int row, int columns, int rows, double left, double top, double width, double height) {
    /** Pixels. */
    static final int COLUMN = 64;
    static final int ROW = 20;
    /** The same as a sheet states it, in 1/256 of a character and in points. */
    static final double COLUMN_WIDTH = 2340 / 256.0;
    static final double ROW_POINTS = 15;

    Area(int column, int row, int columns, int rows) {
        this(column, row, columns, rows, 0, 0, 1, 1);
    }

    /** A part of it: from a share of its height on, so large a share. */
    Area down(double from, double share) {
        return new Area(column, row, columns, rows, left, from, width, share);
    }

    /** The same across. */
    Area across(double from, double share) {
        return new Area(column, row, columns, rows, from, top, share, height);
    }

    /** A part around its middle, in shares of its size. */
    Area within(double fromLeft, double fromTop, double wide, double high) {
        return new Area(column, row, columns, rows, fromLeft, fromTop, wide, high);
    }

    int widthInPixels() {
        return columns * COLUMN;
    }

    int heightInPixels() {
        return rows * ROW;
    }

    /** Where it stands and how large it is, in pixels from the first cell's corner. */
    Rectangle2D inPixels() {
        return new Rectangle2D.Double((column + columns * left) * COLUMN, (row + rows * top) * ROW, columns * width * COLUMN, rows * height * ROW);
    }

    Anchor anchor() {
        double x = columns * left;
        double y = rows * top;
        double right = columns * (left + width);
        double bottom = rows * (top + height);
        Rectangle2D size = inPixels();
        return new Anchor(corner(x, y), corner(right, bottom), Math.round(size.getWidth() * Anchor.UNITS_PER_PIXEL), Math.round(size.getHeight() * Anchor.UNITS_PER_PIXEL));
    }

    private Anchor.Corner corner(double x, double y) {
        return new Anchor.Corner(column + (int) x, inside(x, COLUMN), row + (int) y, inside(y, ROW));
    }

    private static int inside(double cells, int pixels) {
        return (int) Math.round((cells - Math.floor(cells)) * pixels * Anchor.UNITS_PER_PIXEL);
    }
}
