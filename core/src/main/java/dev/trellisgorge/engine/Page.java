package dev.trellisgorge.engine;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Characters;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A picture, a page or a sheet: one chart, or a board of charts and figures on a grid. Immutable and thread-safe.
 *
 * @param name     names files and sheets
 * @param title    of the whole; empty where the tiles say it all
 * @param subtitle one line below it, or empty
 * @param source   one line at the foot, or empty
 * @param columns  of the grid, 1 or more; tiles fill it row by row, each in the first place that is free
 * @param tiles    at least one
 * @param spans    how large each tile is
 * @param lines    what says the lines of the page from rows, as the title and the text of a figure: {@link #ABOVE} and {@link #FOOT}, each where
 *                 it does; a file that stays live reads them there
 * @param looks    of the lines above and of the figures; charts have looks of their own
 * @param at       where it goes in a workbook that is drawn into; empty for a sheet of its own, as in all other files
 */
public record Page(String name, String title, String subtitle, String source, int columns, List<Tile> tiles, List<Span> spans, List<Tile.OfFigure> lines, Looks looks, Optional<SheetAnchor> at) {
    /** What the title and the subtitle are called by. */
    public static final String ABOVE = "board";
    /** What the source is called by. */
    public static final String FOOT = "board source";
    /** Of a row that holds figures alone, beside one with charts. */
    private static final double FIGURES = 0.4;

    /**
     * How many places of the grid a tile takes.
     *
     * @param columns 1 or more
     * @param rows    1 or more
     */
    public record Span(int columns, int rows) {
        /** One place. */
        public static final Span ONE = new Span(1, 1);

        /** @throws IllegalArgumentException where it is no place at all */
        public Span {
            if (columns < 1 || rows < 1) {
                throw new IllegalArgumentException("a tile takes at least one place, not " + columns + " by " + rows);
            }
        }
    }

    /**
     * Where a tile stands on the grid.
     *
     * @param column from 0
     * @param row    from 0
     */
    public record Place(Tile tile, int column, int row, Span span) {
        public Place {
            Objects.requireNonNull(tile, "tile");
            Objects.requireNonNull(span, "span");
        }
    }

    /** @throws IllegalArgumentException where there is no tile or no column, or a tile is wider than the grid */
    public Page {
        name = Characters.shown(name);
        title = Characters.shown(title);
        subtitle = Characters.shown(subtitle);
        source = Characters.shown(source);
        tiles = List.copyOf(tiles);
        spans = List.copyOf(spans);
        lines = List.copyOf(lines);
        Objects.requireNonNull(looks, "looks");
        Objects.requireNonNull(at, "at");
        if (tiles.isEmpty() || columns < 1) {
            throw new IllegalArgumentException("a page has at least one tile and one column");
        }
        if (spans.size() != tiles.size() || spans.stream().anyMatch(span -> span.columns() > columns)) {
            throw new IllegalArgumentException("each tile has a span, none wider than the " + columns + " columns of the page");
        }
    }

    /** A page whose tiles take one place each. Errors as above. */
    public Page(String name, String title, int columns, List<Tile> tiles) {
        this(name, title, "", "", columns, tiles, Collections.nCopies(tiles.size(), Span.ONE), List.of(), Looks.OWN, Optional.empty());
    }

    /** A page with one chart. */
    public static Page of(PlainChart chart) {
        return new Page(chart.name(), "", 1, List.of(Tile.of(chart)));
    }

    /** The same with its charts as they are drawn. */
    Page tiles(List<Tile> drawn) {
        return new Page(name, title, subtitle, source, columns, drawn, spans, lines, looks, at);
    }

    /** The same at a place of a workbook that is drawn into. */
    public Page at(SheetAnchor spot) {
        return new Page(name, title, subtitle, source, columns, tiles, spans, lines, looks, Optional.of(spot));
    }

    /** What is computed for the page: its tiles, and the lines that rows say. */
    public List<Tile> computed() {
        return Stream.<Tile>concat(tiles.stream(), lines.stream()).toList();
    }

    /** What says the lines of a name; empty where they are as they are written. */
    public Optional<Tile.OfFigure> line(String called) {
        return lines.stream().filter(line -> line.name().equals(called)).findFirst();
    }

    /** Where the tiles stand, in their order. */
    public List<Place> places() {
        List<Place> places = new ArrayList<>();
        Set<List<Integer>> taken = new HashSet<>();
        for (int i = 0; i < tiles.size(); i++) {
            Span span = spans.get(i);
            int at = 0;
            while (at % columns + span.columns() > columns || cells(at, span).anyMatch(taken::contains)) {
                at++;
            }
            cells(at, span).forEach(taken::add);
            places.add(new Place(tiles.get(i), at % columns, at / columns, span));
        }
        return places;
    }

    private Stream<List<Integer>> cells(int at, Span span) {
        return IntStream.range(0, span.columns() * span.rows()).mapToObj(i -> List.of(at % columns + i % span.columns(), at / columns + i / span.columns()));
    }

    /** The title that a file is listed by: its own, else that of its first chart; empty where neither has one. */
    public String listed() {
        return !title.isEmpty() || charts().isEmpty() ? title : charts().get(0).title();
    }

    /** How many rows the grid has. */
    public int rows() {
        return places().stream().mapToInt(place -> place.row() + place.span().rows()).max().orElse(1);
    }

    /** How high each row is, as a share of one with charts: rows that hold figures alone are no higher than their words need. */
    public List<Double> heights() {
        List<Place> places = places();
        boolean allFigures = tiles.stream().allMatch(Tile.OfFigure.class::isInstance);
        return IntStream.range(0, rows()).mapToObj(row -> !allFigures && places.stream().filter(place -> place.row() <= row && row < place.row() + place.span().rows())
                .allMatch(place -> place.tile() instanceof Tile.OfFigure && place.span().rows() == 1) ? FIGURES : 1.0).toList();
    }

    /** The charts of all tiles, as they are drawn. */
    public List<PlainChart> charts() {
        return tiles.stream().filter(Tile.OfChart.class::isInstance).flatMap(tile -> ((Tile.OfChart) tile).parts().stream()).toList();
    }
}
