package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Board.BoardTile;
import dev.trellisgorge.brief.Board.ChartTile;
import dev.trellisgorge.brief.Board.FigureTile;
import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Pipeline;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Reads the board of a brief. */
final class BoardReader {
    static final int MOST_COLUMNS = Bound.BOARD_COLUMNS.count();

    private final Mapping keys;
    private final List<String> charts;
    private final ChartedTables tables;
    private final Locale locale;
    private final Looks theme;
    private final Problems problems;
    private int figures;
    private int wanted;

    BoardReader(Mapping keys, List<String> charts, ChartedTables tables, Locale locale, Looks theme, Problems problems) {
        this.keys = keys;
        this.charts = charts;
        this.tables = tables;
        this.locale = locale;
        this.theme = theme;
        this.problems = problems;
    }

    Board read() {
        keys.allowing(BoardSchema.BOARD);
        wanted = keys.whole("columns", 1, MOST_COLUMNS, "must be a whole number from 1 to " + MOST_COLUMNS).orElse(keys.has("columns") ? MOST_COLUMNS : 2);
        List<BoardTile> tiles = keys.each("tiles", name -> chart(name, Page.Span.ONE), this::tile);
        if (keys.has("tiles") && keys.isList("tiles") && keys.isEmpty("tiles")) {
            keys.refuse("tiles", ProblemKind.MISSING, "names no chart and no figure");
        }
        Expressions expressions = tables.expressions(tables.first());
        return new Board(words(keys, "title", expressions, tables.first()), words(keys, "subtitle", expressions, tables.first()), words(keys, "source", expressions, tables.first()),
                wanted, tiles, locale, theme);
    }

    /** A chart with a span, or a figure. */
    private Optional<BoardTile> tile(Mapping tile) {
        if (!tile.has("chart")) {
            return figure(tile);
        }
        tile.allowing(BoardSchema.CHART);
        return tile.text("chart").flatMap(name -> chart(name, span(tile)));
    }

    /** Columns, or columns and rows. */
    private Page.Span span(Mapping tile) {
        if (!tile.has("span")) {
            return Page.Span.ONE;
        }
        List<Double> sizes = tile.isList("span") ? tile.numbers("span") : tile.number("span").stream().boxed().toList();
        double columns = sizes.isEmpty() ? 1 : sizes.get(0);
        double rows = sizes.size() < 2 ? 1 : sizes.get(1);
        boolean whole = columns == Math.rint(columns) && rows == Math.rint(rows) && columns >= 1 && rows >= 1 && rows <= MOST_COLUMNS && sizes.size() <= 2;
        if (!whole || columns > wanted) {
            tile.refuse("span", ProblemKind.INVALID, whole ? "is wider than the " + wanted + " columns of the board" : "is how many places of the grid it takes: 2 across, or [2, 1] across and down");
            return Page.Span.ONE;
        }
        return new Page.Span((int) columns, (int) rows);
    }

    private Optional<BoardTile> chart(Text name, Page.Span span) {
        if (!charts.contains(name.value())) {
            problems.add(name.place(), ProblemKind.UNKNOWN_NAME, "there is no chart '" + name.value() + "'. " + Nearest.hint(name.value(), charts));
            return Optional.empty();
        }
        return Optional.of(new ChartTile(name.value(), span));
    }

    private Optional<BoardTile> figure(Mapping tile) {
        tile.allowing(BoardSchema.FIGURE);
        Optional<Pipeline> table = tables.of(tile);
        Expressions expressions = tables.expressions(table);
        Optional<Formula> value = tile.text("figure").flatMap(expressions::read);
        Optional<Format> format = tile.text("format").flatMap(text -> format(tile, text));
        SliceReader slice = tile.mapping("slice").map(cuts -> SliceReader.read(cuts, expressions, tables.raw(table))).orElse(SliceReader.NONE);
        figures++;
        if (value.isEmpty() || table.isEmpty()) {
            return Optional.empty();
        }
        Figure figure = new Figure("figure " + figures, value.get(), tile.choice("total", Figure.Total.class), words(tile, "title", expressions, table),
                words(tile, "text", expressions, table), format, slice.onRaw() ? Map.of() : slice.cuts(), locale);
        return Optional.of(new FigureTile(figure, slice.onRaw() ? table.get().first(slice.steps()) : table.get(), span(tile)));
    }

    private Words words(Mapping keys, String key, Expressions expressions, Optional<Pipeline> table) {
        return keys.text(key).map(line -> WordsReader.read(line, expressions, tables.raw(table), problems)).orElse(Words.NONE);
    }

    private static Optional<Format> format(Mapping tile, Text text) {
        try {
            return Optional.of(Format.stated(text.value()));
        } catch (IllegalArgumentException e) {
            tile.refuse("format", ProblemKind.INVALID, e.getMessage());
            return Optional.empty();
        }
    }
}
