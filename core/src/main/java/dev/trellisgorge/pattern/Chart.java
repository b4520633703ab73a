package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * What a user asks for: a pattern over a table's columns, and how it is to look. Immutable and thread-safe; each method gives a
 * changed copy, in the words of a brief.
 *
 * <pre>{@code
 * PlainChart march = Chart.of("station", Columns.of("generated_mwh").classify(Split.atSetting("goal")))
 *         .title("March generation")
 *         .over(table, Settings.of("goal", 400));
 * Engines.draw(march, Path.of("march.png"));
 * }</pre>
 */
public final class Chart {
    private final Parts parts;

    private Chart(Parts parts) {
        this.parts = parts;
    }

    /** The fields, so that each method states its one change. Those of a chart never change. */
    private static final class Parts implements Cloneable {
        private String name = "chart";
        private Optional<String> category = Optional.empty();
        private Pattern pattern;
        private Words title = Words.NONE;
        private Words subtitle = Words.NONE;
        private Locale locale = Locale.ROOT;
        private Looks looks = Looks.OWN;
        private Map<String, Words> lineNames = Map.of();
        private Looks theme = Looks.OWN;
        private Optional<Orientation> orientation = Optional.empty();
        private List<Beside> beside = List.of();
        private boolean inCells;
        private List<Labels> labels = List.of(Labels.VALUE);
        private Map<String, String> names = Map.of();
        private Map<String, Color> colors = Map.of();
        private Map<String, Cut> slice = Map.of();
        private boolean sliceOnRaw;
        private Optional<Ranking> ranking = Optional.empty();

        private Parts copy() {
            try {
                return (Parts) clone();
            } catch (CloneNotSupportedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private Chart with(Consumer<Parts> change) {
        Parts changed = parts.copy();
        change.accept(changed);
        return new Chart(changed);
    }

    /** A chart with one row for each text or date in the column {@code category}. */
    public static Chart of(String category, Pattern pattern) {
        return of(pattern).with(c -> c.category = Optional.of(category));
    }

    /** A chart of one figure, which needs no category: a dial or a ring. */
    public static Chart of(Pattern pattern) {
        Parts first = new Parts();
        first.pattern = Objects.requireNonNull(pattern, "pattern");
        return new Chart(first);
    }

    /** The name that files and sheets are called by. */
    public Chart named(String newName) {
        return with(c -> c.name = newName);
    }

    public Chart title(String line) {
        return title(Words.of(line));
    }

    /** A title that says what the rows are. */
    public Chart title(Words line) {
        return with(c -> c.title = Objects.requireNonNull(line, "line"));
    }

    public Chart subtitle(String line) {
        return subtitle(Words.of(line));
    }

    /** A second line that says what the rows are. */
    public Chart subtitle(Words line) {
        return with(c -> c.subtitle = Objects.requireNonNull(line, "line"));
    }

    /** In whose language figures, months and dates are written, with the runtime's CLDR data; the root's, with {@code .} and {@code ,}, by default. */
    public Chart locale(Locale language) {
        return with(c -> c.locale = Objects.requireNonNull(language, "language"));
    }

    /** How it looks. What has no effect on it is refused when it is planned. */
    public Chart looks(Looks own) {
        return with(c -> c.looks = Objects.requireNonNull(own, "own"));
    }

    /** What readers call a reference line; every one of them where {@code line} is empty. */
    public Chart lineName(String line, Words words) {
        return with(c -> c.lineNames = and(c.lineNames, line, words));
    }

    /** How it looks where {@link #looks} says nothing; what has no effect on it is passed over. */
    public Chart theme(Looks shared) {
        return with(c -> c.theme = Objects.requireNonNull(shared, "shared"));
    }

    public Chart orientation(Orientation way) {
        return with(c -> c.orientation = Optional.of(way));
    }

    /** Figures in columns of their own between the names of lying bars and the bars. */
    public Chart beside(Beside... columns) {
        return with(c -> c.beside = List.of(columns));
    }

    /**
     * Bars in cells of their own beside those figures, a column of cells for each series, where files have bars in cells; others draw
     * them as they draw any. Refused when it is planned where there are no figures beside the bars, or where bars float.
     */
    public Chart inCells() {
        return with(c -> c.inCells = true);
    }

    /** What is written beside the bars: several where each has a place of its own on a bar. */
    public Chart labels(Labels... shown) {
        return with(c -> c.labels = List.of(shown));
    }

    /** What readers call a series; {@code series} is one of {@link #seriesNames()}, or a class or part of several. */
    public Chart name(String series, String readersName) {
        return with(c -> c.names = and(c.names, series, readersName));
    }

    /** The fill of a series; {@code series} is one of {@link #seriesNames()}, or a class or part of several. */
    public Chart color(String series, Color fill) {
        return with(c -> c.colors = and(c.colors, series, fill));
    }

    /** Keeps the rows whose cell in {@code column} is {@code value}, before anything is computed. */
    public Chart slice(String column, String value) {
        return slice(column, Cut.is(value));
    }

    /** Keeps the rows whose cell in {@code column} is one of some, or lies in a range. */
    public Chart slice(String column, Cut cut) {
        return with(c -> c.slice = and(c.slice, column, cut));
    }

    /** Slices the raw table that the base starts from, before its first step, and not the base itself. */
    public Chart sliceOnRaw() {
        return with(c -> c.sliceOnRaw = true);
    }

    /** Puts the rows in order, and keeps the first ones; after the slice, before anything is computed. */
    public Chart rank(Ranking order) {
        return with(c -> c.ranking = Optional.of(order));
    }

    private static <V> Map<String, V> and(Map<String, V> some, String key, V value) {
        Map<String, V> more = new LinkedHashMap<>(some);
        more.put(key, value);
        return more;
    }

    public String name() {
        return parts.name;
    }

    public Pattern pattern() {
        return parts.pattern;
    }

    /** Every series that there could be, in drawing order. */
    public List<String> seriesNames() {
        return parts.pattern.seriesNames();
    }

    /**
     * Describes what this chart computes, without a cell.
     *
     * @param base  the table that it is a chart of
     * @param known the raw tables that {@code base} starts from, and the settings by name
     * @throws dev.trellisgorge.problem.BadInput with every mistake in one go: an unknown column, setting or series; a figure that is no number
     */
    public Plan plan(Pipeline base, Catalog known) {
        return new Planning(this, base, known).plan();
    }

    /**
     * Computes this chart over a table of any number of rows.
     *
     * @throws dev.trellisgorge.problem.BadInput with every mistake in one go: those of {@link #plan}; a category that is missing or stands on several
     *                  rows; a figure that is infinite, or that the pattern or its rule can't show
     */
    public PlainChart over(Table table, Settings settings) {
        Executor executor = Executor.over(table, settings);
        return plan(Pipeline.of(table.name()), executor.known()).over(executor);
    }

    Optional<String> category() {
        return parts.category;
    }

    /** Which rows are kept, by the cells of columns. */
    public Map<String, Cut> slices() {
        return parts.slice;
    }

    boolean slicesRaw() {
        return parts.sliceOnRaw;
    }

    Optional<Ranking> ranking() {
        return parts.ranking;
    }

    List<Beside> beside() {
        return parts.beside;
    }

    boolean areInCells() {
        return parts.inCells;
    }

    List<Labels> labels() {
        return parts.labels;
    }

    /** What readers call a series: by its own name, or by its class's or part's. */
    String readersName(String series, Map<String, List<String>> groups) {
        return Look.of(series, parts.names, groups).orElse(series);
    }

    Map<String, String> names() {
        return parts.names;
    }

    Map<String, Color> colors() {
        return parts.colors;
    }

    Words title() {
        return parts.title;
    }

    Words subtitle() {
        return parts.subtitle;
    }

    Locale locale() {
        return parts.locale;
    }

    Map<String, Words> lineNames() {
        return parts.lineNames;
    }

    Looks looks() {
        return parts.looks;
    }

    Looks theme() {
        return parts.theme;
    }

    Optional<Orientation> orientation() {
        return parts.orientation;
    }
}
