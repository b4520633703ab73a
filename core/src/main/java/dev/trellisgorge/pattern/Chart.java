package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

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
    private final String name;
    private final String category;
    private final Pattern pattern;
    private final String title;
    private final String subtitle;
    private final Optional<Orientation> orientation;
    private final Look look;
    private final Map<String, String> slice;

    private Chart(String name, String category, Pattern pattern, String title, String subtitle,
            Optional<Orientation> orientation, Look look, Map<String, String> slice) {
        this.name = name;
        this.category = category;
        this.pattern = pattern;
        this.title = title;
        this.subtitle = subtitle;
        this.orientation = orientation;
        this.look = look;
        this.slice = slice;
    }

    /** A chart with one row for each text or date in the column {@code category}. */
    public static Chart of(String category, Pattern pattern) {
        return new Chart("chart", category, pattern, "", "", Optional.empty(),
                new Look(Labels.VALUE, Map.of(), Map.of()), Map.of());
    }

    /** The name that files and sheets are called by. */
    public Chart named(String newName) {
        return new Chart(newName, category, pattern, title, subtitle, orientation, look, slice);
    }

    public Chart title(String line) {
        return new Chart(name, category, pattern, line, subtitle, orientation, look, slice);
    }

    public Chart subtitle(String line) {
        return new Chart(name, category, pattern, title, line, orientation, look, slice);
    }

    public Chart orientation(Orientation way) {
        return new Chart(name, category, pattern, title, subtitle, Optional.of(way), look, slice);
    }

    public Chart labels(Labels labels) {
        return looking(new Look(labels, look.names(), look.colors()));
    }

    /** What readers call a series; {@code series} is one of {@link #seriesNames()}. */
    public Chart name(String series, String readersName) {
        return looking(new Look(look.labels(), and(look.names(), series, readersName), look.colors()));
    }

    /** The fill of a series; {@code series} is one of {@link #seriesNames()}. */
    public Chart color(String series, Color fill) {
        return looking(new Look(look.labels(), look.names(), and(look.colors(), series, fill)));
    }

    /** Keeps the rows whose cell in {@code column} is {@code value}, before anything is computed. */
    public Chart slice(String column, String value) {
        return new Chart(name, category, pattern, title, subtitle, orientation, look, and(slice, column, value));
    }

    private Chart looking(Look newLook) {
        return new Chart(name, category, pattern, title, subtitle, orientation, newLook, slice);
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
     *                  missing or stands on several rows; a figure that is text or infinite
     */
    public PlainChart over(Table table, Settings settings) {
        Table sliced = table;
        for (Map.Entry<String, String> cut : slice.entrySet()) {
            sliced = sliced.slice(cut.getKey(), cut.getValue());
        }
        Problems problems = new Problems();
        checkSeries(look.names(), problems);
        checkSeries(look.colors(), problems);
        new InputCheck(sliced, settings, problems).check(category, pattern.figures());
        problems.throwIfAny();

        HelperTable helpers = pattern.addTo(HelperTable.over(sliced, settings, category));
        List<Panel> panels = pattern.arrange(helpers, look);
        return new PlainChart(name, title, subtitle, orientation.orElse(pattern.orientation()), helpers, panels, Optional.empty());
    }

    private void checkSeries(Map<String, ?> named, Problems problems) {
        for (String series : named.keySet()) {
            if (!seriesNames().contains(series)) {
                problems.add(Place.of("chart '" + name + "'"),
                        "there is no series '" + series + "'. " + Nearest.hint(series, seriesNames()));
            }
        }
    }
}
