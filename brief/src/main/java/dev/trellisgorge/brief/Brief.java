package dev.trellisgorge.brief;

import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.SheetAnchor;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.ReadOtherwise;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Progress;
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
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A brief that was read: its raw tables, and as data the steps and charts that it asks for. What several charts have in common is
 * computed once. It always says the same; thread-safe.
 */
public final class Brief implements AutoCloseable {
    private final Path file;
    private final List<Path> inputs;
    private final Supplier<Brief> anew;
    private volatile Content content;

    /**
     * What it asks for, and what runs it.
     *
     * @param pipeline the table that charts are computed over where they name no other
     * @param own      the table of each chart, by its name
     * @param notes    what a reader should know of how it was read
     * @param names    how messages name what the caller gave
     */
    record Content(Settings settings, Pipeline pipeline, List<Chart> charts, Map<String, Pipeline> own, Map<String, SheetAnchor> spots, Optional<Board> board, Executor executor, List<String> notes, InputNames names) {
        Content {
            charts = List.copyOf(charts);
            own = Map.copyOf(own);
            spots = Map.copyOf(spots);
            notes = List.copyOf(notes);
        }
    }

    /** @param anew reads it once more, and all files here: for where the embedded engine would read one otherwise, which shows only while it is computed */
    Brief(Path file, List<Path> inputs, Content content, Supplier<Brief> anew) {
        this.file = file;
        this.inputs = List.copyOf(inputs);
        this.content = content;
        this.anew = anew;
    }

    /**
     * Reads a brief (YAML, or the same structure as JSON) and the raw tables it names, in its own folder and below. Nothing is
     * computed.
     *
     * @throws BadInput with every mistake in one go, each with file, line and column
     */
    public static Brief read(Path file) {
        return read(file, Overrides.NONE, AccessPolicy.OWN_FOLDER, Progress.NONE);
    }

    /**
     * The same with some settings and data files changed, and more that it may read. Errors also where the brief has no such
     * setting or table.
     */
    public static Brief read(Path file, Overrides overrides, AccessPolicy trust, Progress progress) {
        Objects.requireNonNull(file, "file");
        Objects.requireNonNull(overrides, "overrides");
        Objects.requireNonNull(trust, "trust");
        Objects.requireNonNull(progress, "progress");
        try {
            return new BriefReader(file, overrides, trust, progress).read();
        } catch (ReadOtherwise here) {
            return new BriefReader(file, overrides.readHere(), trust, progress).read();
        }
    }

    /** Something that runs steps, for the first time perhaps. */
    private <T> T run(Function<Content, T> work) {
        try {
            return work.apply(content);
        } catch (ReadOtherwise here) {
            close();
            content = anew.get().content;
            return work.apply(content);
        }
    }

    /** The brief and its data files, as far as that can be told, whatever is wrong with them. */
    public static List<Path> inputsOf(Path file, Overrides overrides, AccessPolicy trust) {
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
        return content.settings();
    }

    /** What a reader should know of how it was read; often nothing. */
    public List<String> notes() {
        return content.notes();
    }

    /** At least one, in the order they are stated. */
    public List<Chart> charts() {
        return content.charts();
    }

    /** What stands together on one page, where the brief says so. */
    public Optional<Board> board() {
        return content.board();
    }

    /**
     * The table that charts are computed over where they name no other and have no steps of their own; computed when it is asked for.
     *
     * @throws BadInput where a step can't be taken, or leaves no row
     */
    public Table table() {
        return run(now -> now.executor().run(now.pipeline()));
    }

    /**
     * One brief for each combination of the columns' cells that stands on a row, which keeps the rows with them alone; in the order of the rows. The columns
     * are those of {@link #table()}; where it lacks one, of the raw table that it starts from, and then that one is sliced before all steps. A setting by which
     * a chart is sliced on such a column takes each value. Rows without a value are in none, and {@link #notes} of the parts say so.
     *
     * @param columns at least one
     * @throws BadInput where neither table has such a column, or a chart is sliced on it by something else than a setting
     */
    public Map<List<String>, Brief> each(List<String> columns) {
        return each(columns, Set.of());
    }

    /** The same. @param given settings that have been given another value, which can't take each value of a column too */
    public Map<List<String>, Brief> each(List<String> columns, Set<String> given) {
        return run(now -> each(now, columns, given));
    }

    private Map<List<String>, Brief> each(Content now, List<String> columns, Set<String> given) {
        Map<List<String>, Brief> parts = new LinkedHashMap<>();
        new EachValue(now, columns, given).parts().forEach((values, part) -> parts.put(values, with(part)));
        return parts;
    }

    /** The folder that files of a brief are named from. */
    static Path folder(Path brief) {
        return brief.toAbsolutePath().normalize().getParent();
    }

    /** Another one over the same tables, which have been asked by now. */
    private Brief with(Content other) {
        return new Brief(file, inputs, other, anew);
    }

    /**
     * The chart of that name.
     *
     * @throws BadInput with the nearest known name where there is none
     */
    public Chart chart(String name) {
        List<Chart> charts = content.charts();
        List<String> names = charts.stream().map(Chart::name).toList();
        int at = names.indexOf(name);
        if (at < 0) {
            throw new BadInput(Place.inFile(content.names().file(file, folder(file))), ProblemKind.UNKNOWN_NAME, "there is no chart '" + name + "'. "
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
        some.forEach(chart -> problems.attempt(() -> plan(content, chart)).ifPresent(plans::add));
        problems.throwIfAny();
        return plans;
    }

    /** The columns of the raw tables, and the settings. */
    public Catalog known() {
        return content.executor().known();
    }

    private static Plan plan(Content now, Chart chart) {
        return chart.plan(now.own().get(chart.name()), now.executor().known());
    }

    /**
     * Computes charts over their tables.
     *
     * @throws BadInput with the mistakes of all of them in one go
     */
    public List<PlainChart> compute(Collection<Chart> some) {
        Content before = content;
        return run(now -> {
            Problems problems = new Problems();
            List<PlainChart> computed = new ArrayList<>();
            Collection<Chart> asked = now == before ? some : some.stream().map(chart -> now.charts().stream().filter(again -> again.name().equals(chart.name())).findFirst().orElse(chart)).toList();
            asked.forEach(chart -> problems.attempt(() -> plan(now, chart).over(now.executor())).ifPresent(computed::add));
            problems.throwIfAny();
            return computed;
        });
    }

    /** What the figures on the board will compute, without a cell; none where there is no board. Errors as {@link #plans}. */
    public List<Plan> figurePlans() {
        return eachFigure((now, tile) -> tile.figure().plan(tile.table(), now.executor().known()));
    }

    /** The figures on the board, computed, as they stand on it; none where there is no board. Errors as {@link #compute}. */
    public List<PlainChart> figures() {
        return eachFigure((now, tile) -> tile.figure().over(tile.table(), now.executor()));
    }

    private <T> List<T> eachFigure(BiFunction<Content, Board.FigureTile, T> made) {
        return run(now -> {
            Problems problems = new Problems();
            List<T> all = new ArrayList<>();
            now.board().stream().flatMap(shown -> shown.tiles().stream()).filter(Board.FigureTile.class::isInstance)
                    .forEach(tile -> problems.attempt(() -> made.apply(now, (Board.FigureTile) tile)).ifPresent(all::add));
            problems.throwIfAny();
            return all;
        });
    }

    /**
     * The board, where there is one, then a page for each chart that is not on it.
     *
     * @param computed all charts of the brief, computed
     * @throws BadInput where a figure of the board can't be computed
     */
    public List<Page> pages(List<PlainChart> computed) {
        List<Page> pages = new ArrayList<>();
        Optional<Board> board = content.board();
        board.ifPresent(shown -> pages.add(page(shown, computed)));
        Set<String> onBoard = board.stream().flatMap(shown -> shown.tiles().stream()).filter(Board.ChartTile.class::isInstance)
                .map(tile -> ((Board.ChartTile) tile).chart()).collect(Collectors.toSet());
        pages.addAll(alone(computed.stream().filter(chart -> !onBoard.contains(chart.name())).toList()));
        return pages;
    }

    /**
     * Each chart on a page of its own, at its place where it has one.
     *
     * @param computed some charts of the brief, computed
     */
    public List<Page> alone(List<PlainChart> computed) {
        Map<String, SheetAnchor> spots = content.spots();
        return computed.stream().map(chart -> spots.containsKey(chart.name()) ? Page.of(chart).at(spots.get(chart.name())) : Page.of(chart)).toList();
    }

    private Page page(Board shown, List<PlainChart> computed) {
        Iterator<PlainChart> figures = figures().iterator();
        List<Tile> tiles = new ArrayList<>();
        List<Page.Span> spans = new ArrayList<>();
        for (Board.BoardTile tile : shown.tiles()) {
            int before = tiles.size();
            if (tile instanceof Board.ChartTile named) {
                computed.stream().filter(chart -> chart.name().equals(named.chart())).map(Tile::of).forEach(tiles::add);
            } else {
                tiles.add(new Tile.OfFigure(figures.next()));
            }
            for (int i = before; i < tiles.size(); i++) {
                spans.add(tile.span());
            }
        }
        Optional<Tile.OfFigure> above = lines(Page.ABOVE, shown.title(), shown.subtitle(), shown);
        Optional<Tile.OfFigure> foot = lines(Page.FOOT, shown.source(), Words.NONE, shown);
        return new Page(Board.NAME, above.map(Tile.OfFigure::title).orElse(shown.title().said()), above.map(Tile.OfFigure::text).orElse(shown.subtitle().said()), foot.map(Tile.OfFigure::title).orElse(shown.source().said()),
                shown.columns(), tiles, spans, Stream.of(above, foot).flatMap(Optional::stream).toList(), shown.looks(), Optional.empty());
    }

    /** The tables whose rows are in a database that nobody named; statements can be written for them, and no chart computed. */
    public List<DatabaseTable> tablesElsewhere() {
        return content.executor() instanceof Described described ? described.absent() : List.of();
    }

    /** What runs the steps: over the tables that were read, or in the database. */
    public Executor executor() {
        return content.executor();
    }

    /** The database or the engine that works on it; empty where tables at hand are. */
    public Optional<Database> database() {
        return database(content.executor());
    }

    static Optional<Database> database(Executor executor) {
        return executor instanceof Database database ? Optional.of(database) : executor instanceof Embedded embedded ? Optional.of(embedded.database()) : Optional.empty();
    }

    /** Leaves the database in which it is computed; of files there is nothing to leave. */
    @Override
    public void close() {
        database().ifPresent(Database::close);
    }

    /** Lines that rows say; empty where they are as they are written. */
    private Optional<Tile.OfFigure> lines(String name, Words first, Words second, Board shown) {
        return first.arePlain() && second.arePlain() ? Optional.empty() : Optional.of(new Tile.OfFigure(run(now -> Words.lines(name, first, second, now.pipeline(), now.executor(), shown.locale()))));
    }
}
