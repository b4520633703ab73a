package dev.trellisgorge.problem;

/** Everything that is bounded, so that nothing made to fill the memory, or to take for ever, can. What passes a bound is refused with its name. */
public enum Bound {
    BRIEF_CHARACTERS(3 << 20, "characters of a brief", ""),
    BRIEF_DEPTH(100, "mappings and lists within each other in a brief", ""),
    BRIEF_ALIASES(50, "lists and mappings of a brief that aliases repeat", ""),
    EXPRESSION_DEPTH(200, "parts of an expression within each other: brackets, calls, conditions, the column inside", ""),
    QUERY_CHARACTERS(100_000, "characters of a query", ""),
    BOARD_COLUMNS(12, "tiles beside each other on a board", ""),
    TITLE_CHARACTERS(1_000, "characters of a title or a second line", ""),
    TABLE_CELLS(1_000_000_000, "cells of a table, rows times columns", "`limits: {cells: …}`"),
    TABLE_COLUMNS(16_384, "columns of a table", "`limits: {columns: …}`"),
    CELL_CHARACTERS(1_000_000, "characters of a cell that is read", "`limits: {characters: …}`"),
    SHEET_CELLS(100_000_000, "cells of a sheet that is read", "`limits: {cells: …}`, downwards alone"),
    SHEET_ROWS(1 << 24, "rows of an OpenDocument sheet that is read", ""),
    WORKED_OUT(100_000, "formulas of a sheet without results that are worked out", ""),
    UNPACKED_BYTES(4L << 30, "bytes that an OpenDocument sheet unpacks to", ""),
    HOST_BYTES(128 << 20, "bytes that a workbook to draw into unpacks to", ""),
    FILLED_ROWS(500_000, "rows, with the ones that `period` fills in", ""),
    BAR_GLYPHS(32_767, "glyphs of a text bar", ""),
    PICTURE_SIDE(16_384, "pixels of a picture, each way; 64 at least", ""),
    PICTURE_ROWS(4_096, "rows drawn in a picture; of more, and of more than one a pixel, those that reach farthest are drawn", ""),
    PICTURE_LINES(1_000, "text bars in a picture", ""),
    PICTURE_FIGURE(1e300, "size of the largest figure in a picture; 1e-290 at least", ""),
    WRITTEN_ROWS(1_048_576, "rows of a sheet that is written, the names among them: the format's own", ""),
    WRITTEN_COLUMNS(16_384, "columns of a sheet that is written: the format's own", ""),
    WRITTEN_TEXT(32_767, "characters of a cell that is written: the format's own", ""),
    WRITTEN_FORMULA(8_192, "characters of a formula: the format's own", ""),
    PROBLEMS_SHOWN(100, "mistakes listed one by one; the others are counted", "");

    private final double most;
    private final String what;
    private final String changedBy;

    Bound(double most, String what, String changedBy) {
        this.most = most;
        this.what = what;
        this.changedBy = changedBy;
    }

    /** The bound, which is itself allowed. */
    public double most() {
        return most;
    }

    /** The same as a whole number. */
    public int count() {
        return (int) Math.min(Integer.MAX_VALUE, most);
    }

    /** What is counted, in words. */
    public String what() {
        return what;
    }

    /** What changes it in the user's settings file; empty where nothing does. */
    public String changedBy() {
        return changedBy;
    }
}
