package dev.trellisgorge.brief;

import dev.trellisgorge.pattern.Figure;
import java.util.List;
import java.util.Objects;

/**
 * Several charts and figures on one page.
 *
 * @param title   of the whole, or empty
 * @param columns of the grid
 * @param tiles   row by row; at least one
 */
public record Board(String title, int columns, List<BoardTile> tiles) {
    /** What its page is called by, so no chart is. */
    public static final String NAME = "board";

    public Board {
        Objects.requireNonNull(title, "title");
        tiles = List.copyOf(tiles);
    }

    /** The same with figures of the rows alone whose cell in {@code column} is {@code value}. */
    Board sliced(String column, String value) {
        return new Board(title, columns, tiles.stream().map(tile -> tile instanceof FigureTile big ? new FigureTile(big.figure().slice(column, value)) : tile).toList());
    }

    /** One place on the board. */
    public sealed interface BoardTile {
    }

    /** A chart of the brief, by its name. */
    public record ChartTile(String chart) implements BoardTile {
        public ChartTile {
            Objects.requireNonNull(chart, "chart");
        }
    }

    /** One big figure. */
    public record FigureTile(Figure figure) implements BoardTile {
        public FigureTile {
            Objects.requireNonNull(figure, "figure");
        }
    }
}
