package dev.trellisgorge.chart;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Dial;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What engines that can do less are given; each is made up, and keeps what it got. */
public class LoweringTest {
    private static final Table ROWS = Table.of("t", Column.texts("c", "a", "b", "c", "d"), Column.numbers("v", 30, -70, Double.NaN, 65),
            Column.numbers("w", 40, 20, 10, 60));

    /** An engine without some abilities. */
    private static final class Weak implements Engine {
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
        public void draw(List<Page> pages, String ending, Size size, OutputStream out) {
            given = pages.stream().flatMap(page -> page.charts().stream()).toList();
        }

        List<PlainChart> givenFor(PlainChart chart) {
            try {
                Engines.draw(List.of(Page.of(chart)), this, "weak", Size.STANDARD, OutputStream.nullOutputStream());
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
        Column cells = chart.data().column(name).cells();
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
        return Stream.of(Ability.OVERLAP, Ability.SIGNED_STACKS, Ability.NO_FILL, Ability.ABSENT_CELLS, Ability.LABEL_TEXT, Ability.STACK_END_LABELS,
                Ability.REACHING_SCALE, Ability.PANELS, Ability.MANY_LAYERS, Ability.LAYERS)
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

    @Test
    public void overlapBecomesAStackAsAtMostOneBarOfARowIsThere() {
        PlainChart given = new Weak(Ability.OVERLAP).oneFor(plain(Chart.of("c", Columns.of("v").classify(Split.at(40)))));
        assertThat(panel(given).bars().get(0).placing()).isEqualTo(Placing.STACKED);
    }

    @Test
    public void stackOnBothSidesOfZeroBecomesOneStackASide() {
        PlainChart chart = plain(Chart.of("c", Waterfall.of("v").closing("End")));
        PlainChart given = new Weak(Ability.SIGNED_STACKS).oneFor(chart);
        assertThat(panel(given).bars()).hasSize(2);
        for (int side = 0; side < 2; side++) {
            int sign = side == 0 ? 1 : -1;
            given.bars(panel(given).bars().get(side)).forEach(bar -> assertThat((bar.end() - bar.start()) * sign).isGreaterThanOrEqualTo(0));
        }
        assertThat(panel(given).series().stream().filter(Series::inLegend).map(Series::name)).as("each is named once").doesNotHaveDuplicates();
        assertThatThrownBy(() -> new Weak(Ability.SIGNED_STACKS, Ability.LAYERS).givenFor(chart)).isInstanceOf(BadInput.class)
                .hasMessage("chart 'chart': files of this kind can't show stacks on both sides of zero, which the chart needs; draw it to another kind, such as .svg");
    }

    @Test
    public void spacerGetsTheGroundsFill() {
        PlainChart given = new Weak(Ability.NO_FILL).oneFor(plain(Chart.of("c", Waterfall.of("v"))));
        Series spacer = given.series().get(0);
        assertThat(spacer.column()).isEqualTo("spacer");
        assertThat(spacer.fill()).contains(Role.PAPER.color());
        assertThat(spacer.outline()).isEmpty();
        assertThat(spacer.inLegend()).isFalse();
    }

    @Test
    public void absentCellBecomesZeroAndHasNoLabel() {
        PlainChart given = new Weak(Ability.ABSENT_CELLS).oneFor(plain(Chart.of("c", Columns.of("v").classify(Split.at(40)))));
        Series below = panel(given).bars().get(0).series().get(0);
        assertThat(cells(given, below.column())).isEqualTo("30 -70 0 0");
        assertThat(IntStream.range(0, 4).mapToObj(row -> given.labelText(below, row))).containsExactly("30", "-70", "", "");
    }

    @Test
    public void figureGoesIntoTheCategorysTextWhereAnEngineHasNoLabelsOfItsOwn() {
        PlainChart given = new Weak(Ability.LABEL_TEXT).oneFor(plain(Chart.of("c", ToTarget.of("w", "w"))));
        assertThat(given.categoryText(1)).isEqualTo("b (20)");
        assertThat(given.series()).allMatch(series -> series.label().isEmpty());
    }

    @Test
    public void referenceLineBecomesALineThenABarThenPoints() {
        PlainChart chart = plain(Chart.of("c", Columns.of("v").classify(Split.at(40))));
        Line line = panel(new Weak(Ability.REFERENCE_LINES).oneFor(chart)).lines().get(0);
        assertThat(line.dashed()).isTrue();
        PlainChart thin = new Weak(Ability.REFERENCE_LINES, Ability.LINES).oneFor(chart);
        BarGroup marks = panel(thin).bars().get(1);
        assertThat(marks.gap()).isZero();
        thin.bars(marks).stream().filter(bar -> bar.series().isSeen()).forEach(bar -> assertThat((bar.start() + bar.end()) / 2).isCloseTo(40, within(1e-9)));
        Points points = panel(new Weak(Ability.REFERENCE_LINES, Ability.LINES, Ability.LAYERS).oneFor(chart)).points().get(0);
        assertThat(points.shape()).isEqualTo(Points.Shape.DASH);
        assertThatThrownBy(() -> new Weak(Ability.REFERENCE_LINES, Ability.LINES, Ability.LAYERS, Ability.POINTS).givenFor(chart)).hasMessageContaining("the line 'limit'");
    }

    @Test
    public void pointsBecomeThinSlicesOverTheBarsAndNoneWhereTheyAreAbsent() {
        PlainChart chart = plain(Chart.of("c", Marker.of("w", "v")));
        PlainChart given = new Weak(Ability.POINTS).oneFor(chart);
        List<PlainChart.Bar> marks = given.bars(panel(given).bars().get(1)).stream().filter(bar -> bar.series().isSeen()).toList();
        assertThat(marks).extracting(PlainChart.Bar::row).containsExactly(0, 1, 3);
        assertThat(marks.stream().map(bar -> Math.round((bar.start() + bar.end()) / 2))).containsExactly(30L, -70L, 65L);
        assertThat(panel(given).points()).isEmpty();
    }

    @Test
    public void ringIsTurnedSoThatItStartsAtTheTopAndOneSliceIsCut() {
        Table one = Table.of("one", Column.numbers("v", 15.5));
        PlainChart chart = Chart.of(Dial.of("v", -100, 100)).over(one, Settings.NONE);
        PlainChart given = new Weak(Ability.START_ANGLE).oneFor(chart);
        Ring before = (Ring) chart.drawing();
        Ring turned = (Ring) given.drawing();
        assertThat(turned.start()).isZero();
        for (double degrees = 0.25; degrees < 360; degrees++) {
            assertThat(fillAt(given, turned, degrees)).as("at %s degrees", degrees).isEqualTo(fillAt(chart, before, degrees));
        }
    }

    private static Object fillAt(PlainChart chart, Ring ring, double degrees) {
        return chart.slices(ring, ring.tracks().get(0)).stream().filter(slice -> (degrees - slice.start() + 720) % 360 < slice.sweep()).findFirst().orElseThrow()
                .series().fill();
    }

    @Test
    public void lyingRowsAreReversedWhereAnEngineReadsFromTheBottomUp() {
        PlainChart chart = plain(Chart.of("c", ToTarget.of("w", "w")));
        PlainChart given = new Weak(Ability.REVERSED_CATEGORIES).oneFor(chart);
        assertThat(IntStream.range(0, 4).mapToObj(given::categoryText)).containsExactly("d", "c", "b", "a");
        assertThat(cells(given, "met")).isEqualTo("60 10 20 40");
        PlainChart upright = plain(Chart.of("c", Columns.of("v")));
        assertThat(cells(new Weak(Ability.REVERSED_CATEGORIES).oneFor(upright), "value")).isEqualTo(cells(upright, "value"));
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
    public void everyGroupReachesAsFarAsTheScale() {
        PlainChart chart = plain(Chart.of("c", Progress.of("w", "w", new Progress.Band("all", 1))));
        PlainChart given = new Weak(Ability.REACHING_SCALE, Ability.LYING_POINTS).oneFor(chart);
        List<Double> ends = panel(given).bars().stream().map(group -> given.bars(group).stream().mapToDouble(PlainChart.Bar::end).max().orElseThrow()).toList();
        assertThat(ends).hasSize(2);
        assertThat(ends.get(0)).isCloseTo(ends.get(1), within(1e-12));
    }

    @Test
    public void scaleThatRunsBackwardsBecomesOneOfOpposites() {
        List<PlainChart> given = new Weak(Ability.BACKWARDS_SCALE, Ability.PANELS).givenFor(plain(Chart.of("c", Diverging.of("v"))));
        assertThat(panel(given.get(0)).scale().backwards()).isFalse();
        assertThat(given.get(0).bars(panel(given.get(0)).bars().get(0))).extracting(PlainChart.Bar::end).containsExactly(-70.0);
    }

    @Test
    public void textsAndRingsAreRefusedByEnginesWithoutThem() {
        PlainChart text = plain(Chart.of("c", TextBar.of("v")));
        assertThatThrownBy(() -> new Weak(Ability.TEXT_CELLS).givenFor(text)).hasMessageContaining("texts beside the categories");
        PlainChart ring = Chart.of(Dial.of("v", 0, 1)).over(Table.of("one", Column.numbers("v", 1)), Settings.NONE);
        assertThatThrownBy(() -> new Weak(Ability.RINGS).givenFor(ring)).hasMessageContaining("can't show rings");
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
