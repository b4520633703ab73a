package dev.trellisgorge.engine.opendocument;

/** Places of cells. */
final class Positions {
    private static final int COLUMN_BITS = 20;

    private Positions() {
    }

    /** The column of a cell, from 0. */
    static int column(String cell) {
        int column = 0;
        for (int i = 0; i < cell.length() && cell.charAt(i) >= 'A'; i++) {
            column = column * 26 + cell.charAt(i) - 'A' + 1;
        }
        return column - 1;
    }

    static long key(int row, int column) {
        return ((long) row << COLUMN_BITS) + column;
    }
}
