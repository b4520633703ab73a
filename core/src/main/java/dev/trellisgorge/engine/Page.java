package dev.trellisgorge.engine;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Characters;
import java.util.List;
import java.util.Objects;

/**
 * A picture, a page or a sheet: one chart, or a board of charts and figures on a grid. Immutable and thread-safe.
 *
 * @param name    names files and sheets
 * @param title   of the whole; empty where the tiles say it all
 * @param columns of the grid, 1 or more; tiles fill it row by row
 * @param tiles   at least one
 */
public record Page(String name, String title, int columns, List<Tile> tiles) {

    /** @throws IllegalArgumentException where there is no tile or no column */
    public Page {
        name = Characters.shown(name);
        title = Characters.shown(title);
        tiles = List.copyOf(tiles);
        if (tiles.isEmpty() || columns < 1) {
            throw new IllegalArgumentException("a page has at least one tile and one column");
        }
    }

    /** A page with one chart. */
    public static Page of(PlainChart chart) {
        return new Page(chart.name(), "", 1, List.of(Tile.of(chart)));
    }

    /** How many rows the grid has. */
    public int rows() {
        return (tiles.size() + columns - 1) / columns;
    }

    /** The charts of all tiles, as they are drawn. */
    public List<PlainChart> charts() {
        return tiles.stream().filter(Tile.OfChart.class::isInstance).flatMap(tile -> ((Tile.OfChart) tile).parts().stream()).toList();
    }
}
