package dev.trellisgorge.brief;

import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * A brief that was read: its raw tables, and as data the steps and charts that it asks for. What several charts have in common is
 * computed once. Immutable and thread-safe.
 */
public final class Brief {
    private final Path file;
    private final List<Path> inputs;
    private final Settings settings;
    private final Pipeline pipeline;
    private final List<Chart> charts;
    private final Map<String, Pipeline> own;
    private final Optional<Board> board;
    private final Executor executor;

    /**
     * @param pipeline the table that the charts are computed over
     * @param own      the table of each chart that has steps of its own, by its name
     */
    Brief(Path file, List<Path> inputs, Settings settings, Pipeline pipeline, List<Chart> charts, Map<String, Pipeline> own, Optional<Board> board, Executor executor) {
        this.file = file;
        this.inputs = List.copyOf(inputs);
        this.settings = settings;
        this.pipeline = pipeline;
        this.charts = List.copyOf(charts);
        this.own = Map.copyOf(own);
        this.board = board;
        this.executor = executor;
    }

    /**
     * Reads a brief (YAML, or the same structure as JSON) and the raw tables it names, in its own folder and below. Nothing is
     * computed.
     *
     * @throws BadInput with every mistake in one go, each with file, line and column
     */
    public static Brief read(Path file) {
        return read(file, Overrides.NONE, Trust.OWN_FOLDER, Progress.NONE);
    }

    /**
     * The same with some settings and data files changed, and more that it may read. Errors also where the brief has no such
     * setting or table.
     */
    public static Brief read(Path file, Overrides overrides, Trust trust, Progress progress) {
        return new BriefReader(Objects.requireNonNull(file, "file"), Objects.requireNonNull(overrides, "overrides"), Objects.requireNonNull(trust, "trust"),
                Objects.requireNonNull(progress, "progress")).read();
    }

    /** The brief and its data files, as far as that can be told, whatever is wrong with them. */
    public static List<Path> inputsOf(Path file, Overrides overrides, Trust trust) {
        return new BriefReader(file, overrides, trust, Progress.NONE).files();
    }

    /** The brief, as the user named it. */
    public Path file() {
        return file;
    }

    /** Every file that was read: the brief and its data. */
    public List<Path> inputs() {
        return inputs;
    }

    /** The named numbers, in the order they are stated. */
    public Settings settings() {
        return settings;
    }

    /** At least one, in the order they are stated. */
    public List<Chart> charts() {
        return charts;
    }

    /** What stands together on one page, where the brief says so. */
    public Optional<Board> board() {
        return board;
    }

    /**
     * The table that the charts are computed over, those with steps of their own aside; computed when it is asked for.
     *
     * @throws BadInput where a step can't be taken, or leaves no row
     */
    public Table table() {
        return executor.run(pipeline);
    }

    /**
     * One brief for each value of a column, which keeps the rows with that value alone; in the order of the rows.
     *
     * @throws BadInput where the table has no such column
     */
    public Map<String, Brief> each(String column) {
        Column cells = table().column(column);
        Map<String, Brief> parts = new LinkedHashMap<>();
        for (int row = 0; row < cells.size(); row++) {
            if (cells.isPresent(row)) {
                parts.computeIfAbsent(cells.written(row), value -> new Brief(file, inputs, settings, pipeline,
                        charts.stream().map(chart -> chart.slice(column, value)).toList(), own, board.map(whole -> whole.sliced(column, value)), executor));
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
     * What charts will compute, without a cell.
     *
     * @throws BadInput with the mistakes of all of them in one go
     */
    public List<Plan> plans(Collection<Chart> some) {
        Problems problems = new Problems();
        List<Plan> plans = new ArrayList<>();
        some.forEach(chart -> problems.attempt(() -> plan(chart)).ifPresent(plans::add));
        problems.throwIfAny();
        return plans;
    }

    private Plan plan(Chart chart) {
        return chart.plan(own.getOrDefault(chart.name(), pipeline), executor.known());
    }

    /**
     * Computes charts over their tables.
     *
     * @throws BadInput with the mistakes of all of them in one go
     */
    public List<PlainChart> compute(Collection<Chart> some) {
        Problems problems = new Problems();
        List<PlainChart> computed = new ArrayList<>();
        some.forEach(chart -> problems.attempt(() -> plan(chart).over(executor)).ifPresent(computed::add));
        problems.throwIfAny();
        return computed;
    }

    /** What the figures on the board will compute, without a cell; none where there is no board. Errors as {@link #plans}. */
    public List<Plan> figurePlans() {
        return eachFigure(figure -> figure.plan(pipeline, executor.known()));
    }

    /** The figures on the board, computed, as they stand on it; none where there is no board. Errors as {@link #compute}. */
    public List<PlainChart> figures() {
        return eachFigure(figure -> figure.over(pipeline, executor));
    }

    private <T> List<T> eachFigure(Function<Figure, T> made) {
        Problems problems = new Problems();
        List<T> all = new ArrayList<>();
        board.stream().flatMap(shown -> shown.tiles().stream()).filter(Board.FigureTile.class::isInstance)
                .forEach(tile -> problems.attempt(() -> made.apply(((Board.FigureTile) tile).figure())).ifPresent(all::add));
        problems.throwIfAny();
        return all;
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
        Iterator<PlainChart> figures = figures().iterator();
        List<Tile> tiles = new ArrayList<>();
        for (Board.BoardTile tile : shown.tiles()) {
            if (tile instanceof Board.ChartTile named) {
                computed.stream().filter(chart -> chart.name().equals(named.chart())).map(Tile::of).forEach(tiles::add);
            } else {
                tiles.add(new Tile.OfFigure(figures.next()));
            }
        }
        return new Page(Board.NAME, shown.title(), shown.columns(), tiles);
    }
}
