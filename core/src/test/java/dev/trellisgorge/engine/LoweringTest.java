package dev.trellisgorge.engine;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.setting;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What engines that can do less are given; each is made up, and keeps what it got. */
public class LoweringTest {
    private static final Table ROWS = Table.of("t", Column.texts("c", "a", "b", "c", "d"), Column.numbers("v", 30, -70, Double.NaN, 65),
            Column.numbers("w", 40, 20, 10, 60));

    /** An engine without some abilities. */
    private static class Weak implements Engine {
        private final Set<Ability> has;
        private List<PlainChart> given = List.of();

        Weak(Ability... lacks) {
            this.has = EnumSet.complementOf(EnumSet.copyOf(List.of(lacks)));
        }

        @Override
        public Set<String> endings() {
            return Set.of("weak");
        }

        @Override
        public boolean holdsSeveral(String ending) {
            return true;
        }

        @Override
        public Set<Ability> abilities() {
            return has;
        }

        @Override
        public void draw(List<Page> pages, String ending, Options options, OutputStream out, Consumer<String> warnings) {
            given = pages.stream().flatMap(page -> page.charts().stream()).toList();
        }

        List<PlainChart> givenFor(PlainChart chart) {
            try {
                Engines.draw(List.of(Page.of(chart)), this, "weak", Options.STANDARD, OutputStream.nullOutputStream(), sentence -> { });
                return given;
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }

        PlainChart oneFor(PlainChart chart) {
            assertThat(givenFor(chart)).hasSize(1);
            return given.get(0);
        }
    }

    private static PlainChart plain(Chart chart) {
        return chart.over(ROWS, Settings.NONE);
    }

    private static Panel panel(PlainChart chart) {
        return chart.panels().get(0);
    }

    private static String cells(PlainChart chart, String name) {
        Column cells = chart.data().column(name);
        return String.join(" ", IntStream.range(0, cells.size()).mapToObj(row -> cells.isPresent(row) ? cells.written(row) : ".").toList());
    }

    /** What a reader sees of the bars: their row, colour and ends. */
    private static List<String> seen(List<PlainChart> charts) {
        List<String> seen = new ArrayList<>();
        for (PlainChart chart : charts) {
            for (Panel panel : chart.panels()) {
                panel.bars().forEach(group -> chart.bars(group).stream().filter(bar -> bar.series().fill().isPresent() && bar.start() != bar.end())
                        .filter(bar -> !bar.series().fill().get().equals(Role.PAPER.color()))
                        .forEach(bar -> seen.add(bar.row() + " " + bar.series().fill().get() + " " + (float) bar.start() + " " + (float) bar.end())));
            }
        }
        return seen.stream().sorted().toList();
    }

    @DataProvider
    Object[][] lacking() {
        return Stream.of(Ability.STACK_END_LABELS, Ability.REACHING_SCALE, Ability.PANELS, Ability.MANY_LAYERS, Ability.STILL, Ability.LINES)
                .flatMap(ability -> Gallery.all().stream().filter(example -> !example.plain().panels().isEmpty()).map(example -> new Object[] {ability, example}))
                .toArray(Object[][]::new);
    }

    @Test(dataProvider = "lacking")
    public void readerSeesTheSameBarsOrTheEngineIsGivenNothing(Ability ability, Example example) {
        PlainChart chart = example.plain();
        Weak weak = new Weak(ability);
        try {
            List<PlainChart> given = weak.givenFor(chart);
            assertThat(seen(given)).isEqualTo(seen(List.of(chart)));
            given.forEach(part -> assertThat(part.data().category().toString()).isEqualTo(chart.data().category().toString()));
        } catch (BadInput refused) {
            assertThat(refused).hasMessageContaining("files of this kind can't show ").hasMessageContaining("; draw it to another kind, such as .svg");
            assertThat(weak.given).isEmpty();
        }
    }

    private static List<Double> middles(PlainChart given, BarGroup marks) {
        return given.bars(marks).stream().filter(bar -> bar.series().isSeen()).map(bar -> (bar.start() + bar.end()) / 2).distinct().toList();
    }

    @Test
    public void referenceLineBecomesALineOverUprightBarsAndAThinBarOverLyingOnes() {
        Chart chart = Chart.of("c", Columns.of("v").classify(Split.at(40)));
        Line line = panel(new Weak(Ability.REFERENCE_LINES, Ability.LYING_MARKS).oneFor(plain(chart))).lines().get(0);
        assertThat(line.dashed()).isTrue();
        PlainChart lying = new Weak(Ability.REFERENCE_LINES, Ability.LYING_MARKS).oneFor(plain(chart.orientation(Orientation.HORIZONTAL)));
        BarGroup marks = panel(lying).bars().get(1);
        assertThat(marks.gap()).isZero();
        assertThat(middles(lying, marks)).allSatisfy(middle -> assertThat(middle).isCloseTo(40, within(1e-9)));
    }

    @Test
    public void limitsOnBothSidesOfZeroEachStandWhereTheyAre() {
        Chart chart = Chart.of("c", Columns.of("v").classify(Bands.at(List.of(number(-60), number(-20), number(10), setting("goal"))))).orientation(Orientation.HORIZONTAL);
        for (double goal : new double[] {50, 11}) {
            PlainChart given = new Weak(Ability.REFERENCE_LINES, Ability.LYING_MARKS).oneFor(chart.over(ROWS, Settings.of("goal", goal)));
            assertThat(middles(given, panel(given).bars().get(1)).stream().map(middle -> (float) (double) middle)).containsExactlyInAnyOrder(-60f, -20f, 10f, (float) goal);
        }
    }

    @Test
    public void pointsOverLyingBarsBecomeThinSlicesAndNoneWhereTheyAreAbsent() {
        PlainChart chart = plain(Chart.of("c", Marker.of("w", "v")).orientation(Orientation.HORIZONTAL));
        PlainChart given = new Weak(Ability.LYING_MARKS).oneFor(chart);
        List<PlainChart.Bar> marks = given.bars(panel(given).bars().get(1)).stream().filter(bar -> bar.series().isSeen()).toList();
        assertThat(marks).extracting(PlainChart.Bar::row).containsExactly(0, 1, 3);
        assertThat(marks.stream().map(bar -> Math.round((bar.start() + bar.end()) / 2))).containsExactly(30L, -70L, 65L);
        assertThat(panel(given).points()).isEmpty();
    }

    @Test
    public void seriesWithoutACellIsLeftOutOfWhatIsLookedAtAndStaysInWhatIsEdited() {
        PlainChart chart = plain(Chart.of("c", Columns.of("v").classify(Split.at(column("w").minus(number(999))))));
        assertThat(new Weak(Ability.LINES).oneFor(chart).series()).extracting(Series::column).containsExactly("above");
        List<Series> edited = new Weak(Ability.STILL).oneFor(chart).series();
        assertThat(edited).extracting(Series::column).containsExactly("below", "above", "unjudged");
        assertThat(edited.get(2).inLegend()).isFalse();
    }

    @Test
    public void moreThanTwoLayersAreRefusedWhereAnEngineHasTwo() {
        PlainChart chart = plain(Chart.of("c", Marker.of("w", "v").classify(Split.at(40))).orientation(Orientation.HORIZONTAL));
        assertThatThrownBy(() -> new Weak(Ability.REFERENCE_LINES, Ability.LYING_MARKS, Ability.MANY_LAYERS).givenFor(chart)).isInstanceOf(BadInput.class)
                .hasMessage("chart 'chart': files of this kind can't show 3 groups of bars over each other, which the chart needs; draw it to another kind, such as .svg");
    }

    @Test
    public void loweringSeesNoCell() {
        PlainChart chart = plain(Chart.of("c", Variance.of("v")));
        PlainChart empty = Chart.of("c", Variance.of("v")).over(ROWS.rows(new int[0]), Settings.NONE);
        Weak weak = new Weak(Ability.PANELS, Ability.STACK_END_LABELS, Ability.REACHING_SCALE, Ability.REFERENCE_LINES, Ability.STILL);
        List<String> full = weak.givenFor(chart).stream().map(part -> part.plan().toString()).toList();
        assertThat(weak.givenFor(empty).stream().map(part -> part.plan().toString()).toList()).isEqualTo(full);
    }

    @Test
    public void severalPagesInAFileOfOneAreAnError() {
        Page page = Page.of(plain(Chart.of("c", Columns.of("v"))));
        Weak one = new Weak(Ability.LINES) {
            @Override
            public boolean holdsSeveral(String ending) {
                return false;
            }
        };
        assertThatThrownBy(() -> Engines.draw(List.of(page, page), one, "weak", Options.STANDARD, OutputStream.nullOutputStream(), sentence -> { })).isInstanceOf(BadInput.class)
                .hasMessage(".weak: a file of this kind holds one page, and there are 2; draw them one by one, or to a kind that holds several");
    }

    @Test
    public void panelsBecomeChartsWithTheSameCategoriesOverOneTable() {
        List<PlainChart> given = new Weak(Ability.PANELS).givenFor(plain(Chart.of("c", Variance.of("v"))));
        assertThat(given).hasSize(2).allMatch(part -> part.panels().size() == 1);
        assertThat(given.get(0).data()).isSameAs(given.get(1).data());
    }

    @Test
    public void labelPastTheEndOfAStackStandsAtTheBaseOfAnUnseenPiece() {
        PlainChart given = new Weak(Ability.STACK_END_LABELS).oneFor(plain(Chart.of("c", Waterfall.of("v"))));
        List<Series> labelled = panel(given).series().stream().filter(series -> series.label().isPresent()).toList();
        assertThat(labelled).isNotEmpty().noneMatch(Series::isSeen).allMatch(series -> series.label().orElseThrow().at() == Label.At.BASE);
        assertThat(labelled.stream().map(series -> given.labelText(series, 1)).filter(text -> !text.isEmpty())).containsExactly("-70");
    }

    @Test
    public void labelWhereAStackEndsIsTheFigureOfAnUnseenPointOrBarThere() {
        Chart chart = Chart.of("c", Columns.of("v").cap(0.5));
        PlainChart upright = new Weak(Ability.STACK_END_LABELS).oneFor(plain(chart));
        assertThat(panel(upright).points()).hasSize(2).allMatch(points -> points.series().label().orElseThrow().column().equals(points.series().column()) && !points.series().isSeen());
        assertThat(panel(upright).points().stream().map(points -> upright.labelText(points.series(), 1)).filter(text -> !text.isEmpty())).containsExactly("-70");
        PlainChart lying = new Weak(Ability.STACK_END_LABELS, Ability.LYING_MARKS).oneFor(plain(chart.orientation(Orientation.HORIZONTAL)));
        BarGroup places = panel(lying).bars().get(1);
        assertThat(places.placing()).isEqualTo(BarGroup.Placing.OVERLAPPING);
        assertThat(lying.bars(places).stream().map(PlainChart.Bar::end)).contains(-70.0);
    }

    @Test
    public void everyGroupReachesAsFarAsTheScale() {
        PlainChart chart = plain(Chart.of("c", Progress.of("w", "w", new Progress.Band("all", 1))));
        PlainChart given = new Weak(Ability.REACHING_SCALE, Ability.LYING_MARKS).oneFor(chart);
        List<Double> ends = panel(given).bars().stream().map(group -> given.bars(group).stream().mapToDouble(PlainChart.Bar::end).max().orElseThrow()).toList();
        assertThat(ends).hasSize(2);
        assertThat(ends.get(0)).isCloseTo(ends.get(1), within(1e-12));
    }

    @Test
    public void rowsStayInTableOrderAndNamesThatDifferInCaseStayApart() {
        Table table = Table.of("t", Column.texts("c", "weir", "Weir", "alder", "ALDER"), Column.numbers("v", 1, 3, 2, 4));
        PlainChart chart = Chart.of("c", Columns.of(column("v"))).over(table, Settings.NONE);
        for (Ability ability : Ability.values()) {
            Column names = new Weak(ability).oneFor(chart).data().category();
            assertThat(IntStream.range(0, 4).mapToObj(names::written)).containsExactly("weir", "Weir", "alder", "ALDER");
        }
    }
}
