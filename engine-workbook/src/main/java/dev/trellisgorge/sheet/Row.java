package dev.trellisgorge.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/** A row of a sheet while it is put together. Used by one thread. */
public final class Row {
    private final int at;
    private final List<Cell> cells = new ArrayList<>();
    private OptionalDouble height = OptionalDouble.empty();

    /** @param at which of the sheet's rows it is, from 0 */
    public Row(int at) {
        this.at = at;
    }

    public int at() {
        return at;
    }

    /** An empty cell in place of what stood there. @param column from 0 */
    public Cell cell(int column) {
        while (cells.size() <= column) {
            cells.add(null);
        }
        Cell cell = new Cell();
        cells.set(column, cell);
        return cell;
    }

    /** The cell of a column. */
    public Optional<Cell> find(int column) {
        return column < cells.size() ? Optional.ofNullable(cells.get(column)) : Optional.empty();
    }

    /** The last column that has a cell; below 0 where there is none. */
    public int lastColumn() {
        return cells.size() - 1;
    }

    /** In points; empty where it is as high as any. */
    public OptionalDouble height() {
        return height;
    }

    public void height(double points) {
        height = OptionalDouble.of(points);
    }

    /** Makes it high enough for a line in a look, where rows without a height are {@code usual} points high. */
    public void fit(CellLook line, double usual) {
        double needed = line.points() * CellLook.LINE;
        if (needed > height.orElse(usual)) {
            height(needed);
        }
    }
}
