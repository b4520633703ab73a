package dev.trellisgorge.brief;

import dev.trellisgorge.chart.Page;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Progress;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A brief that was read, with its table. Immutable.
 *
 * @param file     the brief, as the user named it
 * @param inputs   every file that was read: the brief and its data
 * @param table    the table that the charts are computed over
 * @param settings the named numbers, in the order they are stated
 * @param charts   at least one, in the order they are stated
 * @param tables   the table of each chart that has steps of its own, by its name; all others have {@code table}
 * @param board    what stands together on one page, where the brief says so
 */
public record Brief(Path file, List<Path> inputs, Table table, Settings settings, List<Chart> charts, Map<String, Table> tables,
        Optional<Board> board) {

    /**
     * Reads a brief (YAML, or the same structure as JSON) and the data it names, relative to its own folder.
     *
     * @throws BadInput with every mistake in one go, each with file, line and column
     */
    public static Brief read(Path file) {
        return read(file, Overrides.NONE, Progress.NONE);
    }

    /** The same with some settings and data files changed. Errors also where the brief has no such setting or table. */
    public static Brief read(Path file, Overrides overrides, Progress progress) {
        return new BriefReader(file, overrides, progress).read();
    }

    /** The brief and its data files, as far as that can be told, whatever is wrong with them. */
    public static List<Path> inputsOf(Path file, Overrides overrides) {
        return new BriefReader(file, overrides, Progress.NONE).files();
    }

    /**
     * One brief for each value of a column, which keeps the rows with that value alone; in the order of the rows.
     *
     * @throws BadInput where the table has no such column
     */
    public Map<String, Brief> each(String column) {
        Column cells = table.column(column);
        Map<String, Brief> parts = new LinkedHashMap<>();
        for (int row = 0; row < cells.size(); row++) {
            if (cells.isPresent(row)) {
                parts.computeIfAbsent(cells.written(row), value -> new Brief(file, inputs, table, settings,
                        charts.stream().map(chart -> chart.slice(column, value)).toList(), tables, board.map(whole -> whole.sliced(column, value))));
            }
        }
        return parts;
    }

    /**
     * The chart of that name.
     *
     * @throws BadInput with the nearest known name where there is none
     */
    public Chart chart(String name) {
        List<String> names = charts.stream().map(Chart::name).toList();
        int at = names.indexOf(name);
        if (at < 0) {
            throw new BadInput(Place.inFile(file.toString()), "there is no chart '" + name + "'. "
                    + Nearest.hint(name, names));
        }
        return charts.get(at);
    }

    /**
     * Computes charts over the table.
     *
     * @throws BadInput with the mistakes of all of them in one go
     */
    public List<PlainChart> compute(List<Chart> some) {
        Problems problems = new Problems();
        List<PlainChart> computed = new ArrayList<>();
        some.forEach(chart -> problems.attempt(() -> chart.over(tables.getOrDefault(chart.name(), table), settings)).ifPresent(computed::add));
        problems.throwIfAny();
        return computed;
    }

    /**
     * The board, where there is one, then a page for each chart that is not on it.
     *
     * @param computed all charts of the brief, computed
     * @throws BadInput where a figure of the board can't be computed
     */
    public List<Page> pages(List<PlainChart> computed) {
        List<Page> pages = new ArrayList<>();
        board.ifPresent(shown -> pages.add(page(shown, computed)));
        Set<String> onBoard = board.stream().flatMap(shown -> shown.tiles().stream()).filter(Board.ChartTile.class::isInstance)
                .map(tile -> ((Board.ChartTile) tile).chart()).collect(Collectors.toSet());
        computed.stream().filter(chart -> !onBoard.contains(chart.name())).map(Page::of).forEach(pages::add);
        return pages;
    }

    private Page page(Board shown, List<PlainChart> computed) {
        Problems problems = new Problems();
        List<Tile> tiles = new ArrayList<>();
        for (Board.BoardTile tile : shown.tiles()) {
            if (tile instanceof Board.ChartTile named) {
                computed.stream().filter(chart -> chart.name().equals(named.chart())).map(Tile::of).forEach(tiles::add);
            } else if (tile instanceof Board.FigureTile big) {
                problems.attempt(() -> big.figure().over(table, settings)).ifPresent(tiles::add);
            }
        }
        problems.throwIfAny();
        return new Page(Board.NAME, shown.title(), shown.columns(), tiles);
    }
}
