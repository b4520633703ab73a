package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What a user asks for: a pattern over a table's columns, and how it is to look. Immutable; each method gives a
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
    private static final String LABEL = "label of ";

    private final String name;
    private final Optional<String> category;
    private final Pattern pattern;
    private final String title;
    private final String subtitle;
    private final Optional<Orientation> orientation;
    private final Labels labels;
    private final Map<String, String> names;
    private final Map<String, Color> colors;
    private final Map<String, String> slice;
    private final Optional<Ranking> ranking;

    private Chart(Changes c) {
        this.name = c.name;
        this.category = c.category;
        this.pattern = c.pattern;
        this.title = c.title;
        this.subtitle = c.subtitle;
        this.orientation = c.orientation;
        this.labels = c.labels;
        this.names = c.names;
        this.colors = c.colors;
        this.slice = c.slice;
        this.ranking = c.ranking;
    }

    /** The fields of a chart to be, so that each method above states its one change. */
    private static final class Changes {
        private String name = "chart";
        private Optional<String> category = Optional.empty();
        private Pattern pattern;
        private String title = "";
        private String subtitle = "";
        private Optional<Orientation> orientation = Optional.empty();
        private Labels labels = Labels.VALUE;
        private Map<String, String> names = Map.of();
        private Map<String, Color> colors = Map.of();
        private Map<String, String> slice = Map.of();
        private Optional<Ranking> ranking = Optional.empty();
    }

    private interface Change {
        void to(Changes changes);
    }

    private Chart with(Change change) {
        Changes c = new Changes();
        c.name = name;
        c.category = category;
        c.pattern = pattern;
        c.title = title;
        c.subtitle = subtitle;
        c.orientation = orientation;
        c.labels = labels;
        c.names = names;
        c.colors = colors;
        c.slice = slice;
        c.ranking = ranking;
        change.to(c);
        return new Chart(c);
    }

    /** A chart with one row for each text or date in the column {@code category}. */
    public static Chart of(String category, Pattern pattern) {
        return of(pattern).with(c -> c.category = Optional.of(category));
    }

    /** A chart of one figure, which needs no category: a dial or a ring. */
    public static Chart of(Pattern pattern) {
        Changes c = new Changes();
        c.pattern = pattern;
        return new Chart(c);
    }

    /** The name that files and sheets are called by. */
    public Chart named(String newName) {
        return with(c -> c.name = newName);
    }

    public Chart title(String line) {
        return with(c -> c.title = line);
    }

    public Chart subtitle(String line) {
        return with(c -> c.subtitle = line);
    }

    public Chart orientation(Orientation way) {
        return with(c -> c.orientation = Optional.of(way));
    }

    public Chart labels(Labels shown) {
        return with(c -> c.labels = shown);
    }

    /** What readers call a series; {@code series} is one of {@link #seriesNames()}. */
    public Chart name(String series, String readersName) {
        return with(c -> c.names = and(names, series, readersName));
    }

    /** The fill of a series; {@code series} is one of {@link #seriesNames()}. */
    public Chart color(String series, Color fill) {
        return with(c -> c.colors = and(colors, series, fill));
    }

    /** Keeps the rows whose cell in {@code column} is {@code value}, before anything is computed. */
    public Chart slice(String column, String value) {
        return with(c -> c.slice = and(slice, column, value));
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
        return name;
    }

    public Pattern pattern() {
        return pattern;
    }

    /** Every series that there could be, in drawing order. */
    public List<String> seriesNames() {
        return pattern.seriesNames();
    }

    /**
     * Computes the helper columns over a table of any number of rows and arranges them as a plain chart.
     *
     * @throws BadInput with every mistake in one go: an unknown column, setting or series; a category that is
     *                  missing or stands on several rows; a figure that is text or infinite; a figure that the pattern
     *                  or its rule can't show
     */
    public PlainChart over(Table table, Settings settings) {
        Table sliced = table;
        for (Map.Entry<String, String> cut : slice.entrySet()) {
            sliced = sliced.slice(cut.getKey(), cut.getValue());
        }
        checkColumns(sliced, settings);
        Ranking.Ranked ranked = inOrder(sliced, settings);
        Table shaped = pattern.shape(ranked.table(), category);
        checkRows(shaped, settings);
        HelperTable bare = HelperTable.over(shaped, settings, category).noting(notes(table, sliced)).noting(ranked.notes());
        InputCheck.refuse(bare, pattern.classifier().map(Classifier::refusals).orElse(List.of()));
        InputCheck.refuse(bare, pattern.refusals());
        return arranged(pattern.addTo(bare));
    }

    /** What is to be told of the table; an urgent note on a row that is not in the chart, or is taken as the total it is, is moot. */
    private List<Note> notes(Table table, Table sliced) {
        return table.notes().stream().filter(note -> !note.urgent() || row(table, note).isEmpty()
                || row(sliced, note).stream().anyMatch(row -> !pattern.isTotal(sliced, category, row))).toList();
    }

    /** The row that a note is on, by its place; empty where steps have left no such row. */
    private static OptionalInt row(Table table, Note note) {
        return IntStream.range(0, table.rowCount()).map(i -> table.rowCount() - 1 - i).filter(row -> note.rows().contains(table.rowPlace(row).toString())).findFirst();
    }

    private void checkColumns(Table rows, Settings settings) {
        Problems problems = new Problems();
        checkSeries(problems);
        InputCheck check = new InputCheck(rows, settings, problems);
        check.figures(figures());
        ranking.ifPresent(order -> check.rank(order.by()));
        check.figuresOrDates(pattern.figuresOrDates());
        check.category(category);
        problems.throwIfAny();
    }

    private Ranking.Ranked inOrder(Table rows, Settings settings) {
        return ranking.map(order -> order.apply(rows, settings, category)).orElseGet(() -> new Ranking.Ranked(rows, List.of()));
    }

    /** Checks the names again, as the ranking and the pattern may have added rows. */
    private void checkRows(Table shaped, Settings settings) {
        Problems problems = new Problems();
        InputCheck check = new InputCheck(shaped, settings, problems);
        check.category(category);
        check.names(category, pattern.categories());
        check.oneRow(pattern.type());
        problems.throwIfAny();
    }

    private PlainChart arranged(HelperTable helpers) {
        List<LabelSpot> spots = labels.show() == Labels.Show.NONE ? List.of() : pattern.labelled(helpers);
        HelperTable labelled = withLabels(helpers, spots);
        Look look = new Look(names, colors, labels(labelled, spots));
        Drawing drawing = pattern.arrange(labelled, look);
        Optional<Label> note = pattern.note().map(column -> new Label(column, Format.fitting(numbers(labelled.column(column).cells())), At.BASE));
        PlainChart chart = new PlainChart(name, title, subtitle, orientation.orElse(pattern.orientation()), labelled, pattern.printed(labelled),
                look.labels(), note, drawing, Optional.empty());
        return labels.show() == Labels.Show.CATEGORY && drawing instanceof Panels panels && namesEveryRow(chart)
                ? chart.drawing(new Panels(panels.panels(), false)) : chart;
    }

    private static List<Column> numbers(Column cells) {
        return cells.kind() == Kind.TEXT ? List.of() : List.of(cells);
    }

    /** Whether each row has a label. */
    private static boolean namesEveryRow(PlainChart chart) {
        return IntStream.range(0, chart.data().rowCount()).allMatch(row -> chart.series().stream().anyMatch(series -> !chart.labelText(series, row).isEmpty()));
    }

    private Map<String, Formula> figures() {
        Map<String, Formula> figures = new LinkedHashMap<>(pattern.figures());
        pattern.classifier().ifPresent(rule -> figures.putAll(rule.figures()));
        return figures;
    }

    private HelperTable withLabels(HelperTable helpers, List<LabelSpot> spots) {
        HelperTable more = helpers;
        for (LabelSpot spot : spots) {
            more = more.working(LABEL + spot.series(), Formulas.only(spot.when(), spot.main() ? shown(helpers, spot.figure()) : spot.figure()));
        }
        return more;
    }

    private Formula shown(HelperTable helpers, Formula figure) {
        return switch (labels.show()) {
            case VALUE, NONE -> figure;
            case SHARE -> figure.over(Formulas.sum(figure));
            case CHANGE -> pattern.change().orElseThrow(() -> new BadInput(Place.of("chart '" + name + "'"),
                    "the pattern '" + pattern.type().name() + "' has no change for its labels to show"));
            case CATEGORY -> helpers.categoryText();
            case EXPRESSION -> labels.expression().orElseThrow();
        };
    }

    private Map<String, Label> labels(HelperTable helpers, List<LabelSpot> spots) {
        Map<String, Label> made = new LinkedHashMap<>();
        Supplier<Format> fitting = () -> labels.format().orElseGet(() -> labels.show() == Labels.Show.SHARE ? new Format("0.#%") : Format.fitting(spots.stream()
                .filter(LabelSpot::main).map(spot -> helpers.column(LABEL + spot.series()).cells()).filter(c -> c.kind() != Kind.TEXT).toList()));
        for (LabelSpot spot : spots) {
            made.put(spot.series(), new Label(LABEL + spot.series(), spot.format().orElseGet(fitting), spot.at().orElse(labels.at())));
        }
        return made;
    }

    private void checkSeries(Problems problems) {
        List<String> known = seriesNames();
        Stream.concat(names.keySet().stream(), colors.keySet().stream()).filter(series -> !known.contains(series))
                .forEach(series -> problems.add(Place.of("chart '" + name + "'"),
                        "there is no series '" + series + "'. " + Nearest.hint(series, known)));
    }
}
