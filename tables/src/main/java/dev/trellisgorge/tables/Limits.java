package dev.trellisgorge.tables;

import dev.trellisgorge.problem.Bound;

/**
 * What a file may hold at most; one that holds more is refused, so that a file made to fill the memory can't.
 *
 * @param cells      rows times columns
 * @param columns    of a row
 * @param characters of a cell
 */
public record Limits(long cells, int columns, int characters) {
    public static final Limits STANDARD = new Limits((long) Bound.TABLE_CELLS.most(), Bound.TABLE_COLUMNS.count(), Bound.CELL_CHARACTERS.count());
    /** What the columns and characters can be raised to. */
    public static final int MOST_COLUMNS = 1 << 20;
    public static final int MOST_CHARACTERS = 1 << 28;

    public Limits {
        if (cells < 1 || columns < 1 || characters < 1) {
            throw new IllegalArgumentException("each limit is 1 or more");
        }
    }
}
