package dev.trellisgorge.brief;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.shape.Pipeline;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.UnaryOperator;

/**
 * Several charts and figures on one page.
 *
 * @param title    of the whole, over the first table
 * @param subtitle one line below it, over the same
 * @param source   one line at the foot, over the same
 * @param columns  of the grid
 * @param tiles    row by row; at least one
 * @param locale   in whose language the lines are written
 * @param looks    of the lines and of the figures: the theme's
 */
public record Board(Words title, Words subtitle, Words source, int columns, List<BoardTile> tiles, Locale locale, Looks looks) {
    /** What its page is called by, so no chart is. */
    public static final String NAME = "board";

    public Board {
        Objects.requireNonNull(title, "title");
        Objects.requireNonNull(subtitle, "subtitle");
        Objects.requireNonNull(source, "source");
        tiles = List.copyOf(tiles);
        Objects.requireNonNull(locale, "locale");
        Objects.requireNonNull(looks, "looks");
    }

    /** The same with each figure changed. */
    Board each(UnaryOperator<FigureTile> change) {
        return new Board(title, subtitle, source, columns, tiles.stream().map(tile -> tile instanceof FigureTile big ? change.apply(big) : tile).toList(), locale, looks);
    }

    /** One place on the board. */
    public sealed interface BoardTile {
        /** How many places of the grid it takes. */
        Page.Span span();
    }

    /** A chart of the brief, by its name. */
    public record ChartTile(String chart, Page.Span span) implements BoardTile {
        public ChartTile {
            Objects.requireNonNull(chart, "chart");
            Objects.requireNonNull(span, "span");
        }
    }

    /** One big figure, and the table that it is of. */
    public record FigureTile(Figure figure, Pipeline table, Page.Span span) implements BoardTile {
        public FigureTile {
            Objects.requireNonNull(figure, "figure");
            Objects.requireNonNull(table, "table");
            Objects.requireNonNull(span, "span");
        }
    }
}
