package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Board.BoardTile;
import dev.trellisgorge.brief.Board.ChartTile;
import dev.trellisgorge.brief.Board.FigureTile;
import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Pipeline;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/** Reads the board of a brief. */
final class BoardReader {
    static final int MOST_COLUMNS = Bound.BOARD_COLUMNS.count();

    private final Mapping keys;
    private final List<String> charts;
    private final ChartedTables tables;
    private final Locale locale;
    private final Problems problems;
    private int figures;

    BoardReader(Mapping keys, List<String> charts, ChartedTables tables, Locale locale, Problems problems) {
        this.keys = keys;
        this.charts = charts;
        this.tables = tables;
        this.locale = locale;
        this.problems = problems;
    }

    Board read() {
        keys.allowing(List.of("tiles"), List.of("title", "columns", "tiles"));
        OptionalDouble columns = keys.number("columns");
        double wanted = columns.orElse(2);
        if (!(wanted >= 1 && wanted <= MOST_COLUMNS && wanted == Math.rint(wanted))) {
            keys.refuse("columns", "must be a whole number from 1 to " + MOST_COLUMNS);
        }
        List<BoardTile> tiles = keys.each("tiles", this::chart, this::figure);
        if (keys.has("tiles") && keys.isList("tiles") && keys.isEmpty("tiles")) {
            keys.refuse("tiles", "names no chart and no figure");
        }
        return new Board(words(keys, "title", tables.expressions(tables.first()), tables.first()), (int) wanted, tiles, locale);
    }

    private Optional<BoardTile> chart(Text name) {
        if (!charts.contains(name.value())) {
            problems.add(name.place(), "there is no chart '" + name.value() + "'. " + Nearest.hint(name.value(), charts));
            return Optional.empty();
        }
        return Optional.of(new ChartTile(name.value()));
    }

    private Optional<BoardTile> figure(Mapping tile) {
        tile.allowing(List.of("figure"), List.of("figure", "table", "total", "title", "text", "format", "slice"));
        Optional<Pipeline> table = tables.of(tile);
        Expressions expressions = tables.expressions(table);
        Optional<Formula> value = tile.text("figure").flatMap(expressions::read);
        Optional<Format> format = tile.text("format").flatMap(text -> format(tile, text));
        SliceReader slice = tile.mapping("slice").map(cuts -> SliceReader.read(cuts, expressions, tables.raw(table))).orElse(SliceReader.NONE);
        figures++;
        return value.flatMap(formula -> table.map(pipeline -> new FigureTile(new Figure("figure " + figures, formula, tile.choice("total", Figure.Total.class),
                words(tile, "title", expressions, table), words(tile, "text", expressions, table), format, slice.onRaw() ? Map.of() : slice.cuts(), locale), slice.onRaw() ? pipeline.first(slice.steps()) : pipeline)));
    }

    private Words words(Mapping keys, String key, Expressions expressions, Optional<Pipeline> table) {
        return keys.text(key).map(line -> WordsReader.read(line, expressions, tables.raw(table), problems)).orElse(Words.NONE);
    }

    private static Optional<Format> format(Mapping tile, Text text) {
        try {
            return Optional.of(new Format(text.value()));
        } catch (IllegalArgumentException e) {
            tile.refuse("format", e.getMessage());
            return Optional.empty();
        }
    }
}
