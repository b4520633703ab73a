package dev.trellisgorge.sheet;

/**
 * A rectangle over cells: from a place within one cell to a place within another, in English metric units (914,400 an inch), and how large
 * it is then. Rows and columns are counted from 0. Immutable.
 */
public record Anchor(Corner from, Corner to, long width, long height) {
    public static final int UNITS_PER_PIXEL = 9_525;
    public static final int UNITS_PER_POINT = 12_700;

    /** A place within a cell. */
    public record Corner(int column, int x, int row, int y) {
    }
}
