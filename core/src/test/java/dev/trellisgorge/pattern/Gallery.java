package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.setting;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Lowering;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;

/** A chart of every pattern with every classifier that it takes, over rows that are awkward on purpose. Engines are tested with it. */
public final class Gallery {
    private static final double MISSING = Double.NaN;
    private static final String[] STATIONS = {"Otter Bend", "otter bend", "North <Sluice> & \"Co\"", "Alder Gate", "Fern Pool", "Stone Leat", "Low Lock"};

    /** Names out of order, two that differ in case alone; ties with the goal, zeros, missing cells, figures below zero. */
    public static final Table ROWS = Table.of("rows", Column.texts("station", STATIONS),
            Column.numbers("signed", 400, 520.5, -70.25, 0, MISSING, 150, 431),
            Column.numbers("size", 400, 520.5, 70.25, 0, MISSING, 150, 431),
            Column.numbers("other", 410, 400, 380, 60, 190, 150, MISSING),
            Column.numbers("from", -20, 10, -90, 5, MISSING, 0, 30), Column.numbers("to", 40, 90, -10, 5, 7, 60, 30),
            Column.texts("kind", "start", "change", "change", "subtotal", "change", "change", "change"),
            Column.numbers("moves", 30, 20, -70, MISSING, MISSING, -5, 65));
    private static final Table MONTHS = Table.of("months", Column.dates("month", LocalDate.of(2031, 3, 1), LocalDate.of(2031, 1, 1),
            LocalDate.of(2031, 2, 1), LocalDate.of(2031, 5, 1), LocalDate.of(2031, 6, 1)), Column.numbers("v", 45, 50, 60, 0, -12.5),
            Column.numbers("plan", 40, 0, MISSING, 7, -20));
    private static final Table ONE = Table.of("one", Column.numbers("v", 15.5), Column.numbers("target", 12));
    public static final Settings SETTINGS = Settings.of("goal", 400).with("low", 60);

    /** The first of all: so many rules, each with so many patterns. */
    private static final int RULES = 8;
    private static final int RULED = 7;

    private Gallery() {
    }

    /**
     * A chart and what it is computed over.
     *
     * @param chart    named by what it shows
     * @param table    its rows
     * @param settings its named numbers
     */
    public record Example(Chart chart, Table table, Settings settings) {

        public PlainChart plain() {
            return chart.over(table, settings);
        }

        @Override
        public String toString() {
            return chart.name();
        }
    }

    /** With every build one of three rules of each pattern, turn about, and all that have no rule; at night all. */
    public static List<Example> some() {
        List<Example> all = all();
        return IntStream.range(0, all.size()).filter(i -> i >= RULES * RULED || i % TestSize.of(3, 1) == 0).mapToObj(all::get).toList();
    }

    /** All of them. */
    public static List<Example> all() {
        List<Example> all = new ArrayList<>();
        List<Classifier> rules = List.of(Split.atSetting("goal"), Split.at(column("other")).ties(Ties.BELOW),
                Bands.at(List.of(setting("low"), setting("goal"))).named("low", "fair", "full"), Bands.at(0.5, 1).of(column("other")),
                Highlight.largest(2), Highlight.names("Alder Gate", "otter bend"), Highlight.smallest(1), new Sign());
        for (int i = 0; i < RULES; i++) {
            Classifier rule = rules.get(i);
            all.add(rows("columns " + i, Columns.of("signed").classify(rule)));
            all.add(rows("capped columns " + i, Columns.of("signed").cap(0.5).classify(rule)));
            all.add(rows("to target " + i, ToTarget.of("signed", "other").classify(rule)));
            all.add(rows("marker " + i, Marker.of("signed", "other").classify(rule)));
            all.add(rows("range " + i, Range.of("from", "to").classify(rule)));
            all.add(rows("tornado " + i, Tornado.of("size", "other").classify(rule)));
            all.add(rows("text bar " + i, TextBar.of("signed").width(12).classify(rule)));
        }
        all.add(rows("columns", Columns.of("signed")));
        all.add(turned("lying columns", Columns.of("signed").classify(Split.atSetting("goal")), Orientation.HORIZONTAL));
        all.add(rows("to target", ToTarget.of("signed", "other")));
        all.add(rows("outlined", ToTarget.of("size", "other").outlined()));
        all.add(turned("upright to target", ToTarget.of("signed", "other"), Orientation.VERTICAL));
        all.add(rows("marker", Marker.of("signed", "other")));
        all.add(rows("progress", Progress.of("size", "other", new Progress.Band("low", 0.5), new Progress.Band("fair", 0.3), new Progress.Band("full", 0.2))));
        all.add(turned("upright progress", Progress.of("size", "other", new Progress.Band("all", 1)), Orientation.VERTICAL));
        all.add(rows("waterfall", Waterfall.of("moves").kinds("kind").closing("End").connected()));
        all.add(turned("lying waterfall", Waterfall.of("moves").closing("End"), Orientation.HORIZONTAL));
        all.add(rows("breakdown", Breakdown.of("signed")));
        all.add(rows("tornado", Tornado.of("size", "other").note(column("to"))));
        all.add(rows("diverging", Diverging.of("signed")));
        all.add(turned("upright diverging", Diverging.of("signed"), Orientation.VERTICAL));
        all.add(rows("range", Range.of("from", "to")));
        all.add(rows("text bar", TextBar.of("signed").inEighths()));
        all.add(rows("bars in cells", TextBar.of("signed")));
        all.add(rows("filled text bar", TextBar.of("size").width(8).rest("·", column("other"))));
        all.add(new Example(Chart.of("station", Columns.of("size")).rank(Ranking.by(column("size")).top(3).rest("All others")).named("ranked"), ROWS, SETTINGS));
        all.add(new Example(Chart.of("station", Columns.of("signed").classify(new Sign())).orientation(Orientation.HORIZONTAL).named("bars in a table")
                .beside(Beside.of(column("size"), "Size"), Beside.of(column("size").over(column("other")), "of the other")), ROWS, SETTINGS));
        all.add(new Example(Chart.of("station", Diverging.of("signed")).named("panes in a table").beside(Beside.of(column("size"), "Size")), ROWS, SETTINGS));
        all.add(new Example(Chart.of("station", TextBar.of("size").rest("·", column("other"))).named("text bars in a table").color("rest", new Color(0x808080)).beside(Beside.of(column("other"), "Other")), ROWS, SETTINGS));
        all.add(new Example(Chart.of("station", Marker.of("size", "other")).named("dashes").labels(Labels.of(Labels.Show.SHARE).format("0%"))
                .looks(Looks.OWN.marker(new Looks.Marker(OptionalDouble.of(2), Optional.of(new Color(0x7030a0)), Optional.of(Points.Shape.DASH))).legend(Looks.Legend.RIGHT)), ROWS, SETTINGS));
        all.add(months("previous row", Variance.of("v")));
        all.add(months("previous period", Variance.of("v").againstPreviousPeriod()));
        all.add(months("against plan", Variance.of("v").against(column("plan")).as(Variance.As.AMOUNT)));
        all.add(one("dial", Dial.of("v", -100, 100)));
        all.add(one("dial from zero", Dial.of("v", 0, 30)));
        all.add(one("banded dial", Dial.of("v", 0, 20).bands(new Dial.Band("low", 5), new Dial.Band("fair", 12), new Dial.Band("full", 20))));
        all.add(one("ring", Ring.of("target", "v")));
        all.add(one("full ring", Ring.of("v", "target")));
        return all;
    }

    /** The patterns over figures that lie close together, far from zero on one side: where a scale likes to begin elsewhere. */
    public static List<Example> narrow() {
        List<Example> all = new ArrayList<>();
        for (int side : new int[] {1, -1}) {
            String name = side > 0 ? "high " : "deep ";
            Table rows = Table.of("rows", Column.texts("station", "Otter Bend", "Alder Gate", "Fern Pool", "Low Lock"), Column.numbers("v", side * 480, side * 490, side * 500, side * 470),
                    Column.numbers("w", side * 500, side * 500, side * 500, side * 500), Column.numbers("share", 0.87, 0.91, 0.95, 0.99));
            String goal = side > 0 ? "crest" : "trough";
            Settings settings = Settings.of(goal, side * 485);
            for (Pattern pattern : List.of(Columns.of("v"), Columns.of("v").classify(Split.atSetting(goal)), Columns.of("v").cap(0.5), Columns.of("v").classify(Bands.at(List.of(setting(goal), column("w")))),
                    ToTarget.of("v", "w"), ToTarget.of("v", "w").outlined(), Marker.of("v", "w"), Progress.of("share", "w", new Progress.Band("low", 0.5), new Progress.Band("full", 0.5)), Breakdown.of("v"), Waterfall.of("v"),
                    side > 0 ? Range.of("v", "w") : Range.of("w", "v"), Tornado.of("v", "w"), Diverging.of("v"), Variance.of("v").against(column("w")))) {
                all.add(new Example(Chart.of("station", pattern).named(name + all.size() + " " + pattern.getClass().getSimpleName().toLowerCase(Locale.ROOT)), rows, settings));
            }
        }
        return all;
    }

    /** Charts with value axes, each both ways where it can be and an engine can draw it, without a legend. */
    public static List<PlainChart> bothWays(List<Example> examples, Engine engine) {
        List<PlainChart> charts = new ArrayList<>();
        for (Example example : examples) {
            for (Orientation way : Orientation.values()) {
                try {
                    PlainChart chart = example.chart().looks(Looks.OWN.legend(Looks.Legend.NONE)).orientation(way).named(example + " " + way.name().toLowerCase(Locale.ROOT)).over(example.table(), example.settings());
                    new Lowering(engine.abilities()).lower(chart);
                    if (!chart.panels().isEmpty() && !chart.plan().areInCells()) {
                        charts.add(chart);
                    }
                } catch (BadInput e) {
                    continue; // stands one way only, or can't be drawn there
                }
            }
        }
        return charts;
    }

    /** One more, of which not all bars are seen. */
    public static Example zoomed() {
        return new Example(Chart.of("station", Columns.of("size").classify(Split.at(400))).named("zoomed").orientation(Orientation.HORIZONTAL)
                .looks(Looks.OWN.scale(200, 900).axis("Energy in MWh").gap(0.1).legend(Looks.Legend.BOTTOM)), ROWS, SETTINGS);
    }

    private static Example rows(String name, Pattern pattern) {
        return new Example(Chart.of("station", pattern).named(name).title("The " + name), ROWS, SETTINGS);
    }

    private static Example turned(String name, Pattern pattern, Orientation way) {
        return new Example(Chart.of("station", pattern).named(name).orientation(way), ROWS, SETTINGS);
    }

    private static Example months(String name, Pattern pattern) {
        return new Example(Chart.of("month", pattern).named(name), MONTHS, SETTINGS);
    }

    private static Example one(String name, Pattern pattern) {
        return new Example(Chart.of(pattern).named(name), ONE, SETTINGS);
    }
}
