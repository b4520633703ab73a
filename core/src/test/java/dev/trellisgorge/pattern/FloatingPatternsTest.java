package dev.trellisgorge.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Arrays;
import org.testng.annotations.Test;

/** Breakdown, range, tornado and diverging. */
public class FloatingPatternsTest {

    @Test
    public void breakdownAgreesWithTheOracle() {
        Rows.each(7, -2, 10_000, rows -> {
            double[] there = Arrays.stream(rows.a()).filter(v -> !Double.isNaN(v)).toArray();
            double sum = Arrays.stream(there).mapToObj(BigDecimal::new).reduce(BigDecimal.ZERO, BigDecimal::add).doubleValue();
            double[][] expected = {Rows.cells(rows.count() + 1), Rows.cells(rows.count() + 1), Rows.cells(rows.count() + 1), Rows.cells(rows.count() + 1)};
            expected[3][0] = there.length > 0 ? sum : Rows.MISSING;
            BigDecimal exact = BigDecimal.ZERO;
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                if (!Double.isNaN(v)) {
                    exact = exact.add(new BigDecimal(v));
                    double running = exact.doubleValue();
                    double low = Math.min(sum - running, sum - running + v);
                    double high = Math.max(sum - running, sum - running + v);
                    boolean over = high > 0;
                    expected[0][row + 1] = low >= 0 ? low : over ? 0 : high;
                    expected[1][row + 1] = low >= 0 ? high - low : over ? high : low - high;
                    expected[2][row + 1] = low < 0 && over ? low : Rows.MISSING;
                }
            }
            PlainChart chart = rows.proved(Breakdown.of("a").totalName("All"));
            Rows.same(chart, "spacer", expected[0]);
            Rows.same(chart, "part", expected[1]);
            Rows.same(chart, "part under", expected[2]);
            Rows.same(chart, "total", expected[3]);
            assertThat(chart.data().category().written(0)).isEqualTo("All");
        });
    }

    private static PlainChart energy(double... mwh) {
        return Chart.of("use", Breakdown.of("mwh")).over(Table.of("energy", Column.texts("use", "Turbines", "Return", "Gates"), Column.numbers("mwh", mwh)), Settings.NONE);
    }

    @Test
    public void breakdownFaultsAreNamed() {
        PlainChart chart = energy(60, -10, 30);
        assertThat(Rows.failures(Rows.moved(chart, "spacer", 1, 1))).containsExactly("spacer and part reach the farther end of the bar: Turbines");
        assertThat(Rows.failures(Rows.moved(chart, "part", 2, 1))).contains("the pieces of a part are as long as it is: Return");
        assertThat(Rows.failures(Rows.moved(chart, "total", 0, 1))).containsExactly("total is the sum of the parts: Total");
        assertThat(Rows.failures(Rows.moved(chart, "level before", 2, 1))).contains("each part goes on from the level that the one before it reaches: Return");
        assertThat(Rows.failures(Rows.moved(chart, "level", 3, 1))).contains("the parts step down to nothing: Gates");
        assertThat(Rows.notes(chart)).containsExactly("a part below zero, which steps back up: Return (-10)");
    }

    @Test
    public void breakdownThatFallsBelowZeroHangsUnderIt() {
        PlainChart chart = energy(60, Rows.MISSING, -10);
        assertThat(Rows.notes(chart)).containsExactly("no part given; the level carries on: Return", "a part below zero, which steps back up: Gates (-10)",
                "a bar that crosses zero: Turbines (60)");
        Rows.same(chart, "spacer", new double[] {Rows.MISSING, 0, Rows.MISSING, 0});
        Rows.same(chart, "part", new double[] {Rows.MISSING, 50, Rows.MISSING, -10});
        Rows.same(chart, "part under", new double[] {Rows.MISSING, -10, Rows.MISSING, Rows.MISSING});
        assertThat(Rows.failures(chart)).isEmpty();
    }

    @Test
    public void breakdownTakesARuleForItsParts() {
        PlainChart chart = Chart.of("use", Breakdown.of("mwh").classify(Split.at(20))).over(Table.of("energy", Column.texts("use", "Turbines", "Gates"),
                Column.numbers("mwh", 60, 10)), Settings.NONE);
        assertThat(chart.plan().series()).containsExactly("spacer", "below part", "below part under", "above part", "above part under", "total");
        Rows.same(chart, "below part", new double[] {Rows.MISSING, Rows.MISSING, 10});
        Rows.same(chart, "above part", new double[] {Rows.MISSING, 60, Rows.MISSING});
    }

    @Test
    public void breakdownRefusesACategoryOfTheTotalsName() {
        assertThatThrownBy(() -> Chart.of("use", Breakdown.of("mwh")).over(Table.of("energy", Column.texts("use", "Total"), Column.numbers("mwh", 1)),
                Settings.NONE)).isInstanceOf(BadInput.class).hasMessageContaining("'Total' stands on 2 rows");
    }

    @Test
    public void rangeAgreesWithTheOracle() {
        Rows.each(8, -7, 10_000, rows -> {
            double[] from = new double[rows.count()];
            double[] to = new double[rows.count()];
            double[][] expected = {Rows.cells(rows.count()), Rows.cells(rows.count()), Rows.cells(rows.count())};
            for (int row = 0; row < rows.count(); row++) {
                double a = rows.a()[row];
                double b = rows.b()[row];
                from[row] = b < a ? b : a;
                to[row] = b < a ? a : b;
                if (Double.isNaN(a) || Double.isNaN(b)) {
                    continue;
                }
                if (from[row] >= 0) {
                    expected[0][row] = from[row];
                    expected[1][row] = to[row] - from[row];
                } else if (to[row] <= 0) {
                    expected[0][row] = to[row];
                    expected[1][row] = from[row] - to[row];
                } else {
                    expected[0][row] = 0;
                    expected[1][row] = to[row];
                    expected[2][row] = from[row];
                }
            }
            PlainChart chart = new Rows(rows.names(), from, to).proved(Range.of("a", "b"));
            Rows.same(chart, "spacer", expected[0]);
            Rows.same(chart, "span", expected[1]);
            Rows.same(chart, "span under", expected[2]);
        });
    }

    @Test
    public void rangeOfDatesIsInDaysAndEachClassHasItsPieces() {
        Table works = Table.of("works", Column.texts("work", "Gate", "Weir"), Column.dates("from", LocalDate.of(1970, 1, 11), LocalDate.of(1970, 1, 2)),
                Column.dates("to", LocalDate.of(1970, 1, 31), null));
        PlainChart chart = Chart.of("work", Range.of("from", "to").classify(Split.at(15))).over(works, Settings.NONE);
        assertThat(chart.plan().series()).containsExactly("below spacer", "below span", "below span under", "above spacer", "above span", "above span under");
        assertThat(chart.data().column("above spacer").number(0)).isEqualTo(10);
        assertThat(chart.data().column("above span").number(0)).isEqualTo(20);
        assertThat(Rows.notes(chart)).containsExactly("one end is missing, so no bar: Weir");
        assertThat(Rows.failures(Rows.moved(chart, "above span", 0, 5))).contains("the pieces are as long as the bar: Gate");
        assertThat(Rows.failures(Rows.moved(chart, "above spacer", 0, 5)))
                .containsExactly("spacer + span reaches the end of the bar that is farther from zero: Gate");
    }

    @Test
    public void rangeThatEndsBeforeItStartsIsRefused() {
        Table wrong = Table.of("works", Column.texts("work", "Gate"), Column.dates("from", LocalDate.of(2031, 3, 2)), Column.dates("to", LocalDate.of(2031, 3, 1)));
        assertThatThrownBy(() -> Chart.of("work", Range.of("from", "to")).over(wrong, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'works', row 1: 'Gate': from is 2031-03-02, to is 2031-03-01; a bar ends where it starts or after it");
    }

    @Test
    public void tornadoAgreesWithTheOracle() {
        Rows.each(9, 0, 10_000, rows -> {
            double[] left = rows.a().clone();
            for (int row = 0; row < left.length; row++) {
                left[row] = 0 - left[row];
            }
            PlainChart chart = rows.proved(Tornado.of("a", "b"));
            Rows.same(chart, "left", left);
            Rows.same(chart, "right", rows.b());
        });
    }

    @Test
    public void tornadoSaysMagnitudesAndRefusesWhatIsBelowZero() {
        Table flow = Table.of("flow", Column.texts("reach", "Upper", "Lower"), Column.numbers("up", 120, 3), Column.numbers("down", 96, Rows.MISSING));
        PlainChart chart = Chart.of("reach", Tornado.of("up", "down").classify(Highlight.largest(1))).over(flow, Settings.NONE);
        assertThat(chart.plan().series()).containsExactly("rest left", "rest right", "highlighted left", "highlighted right");
        assertThat(chart.labelText("highlighted left", chart.labels().get("highlighted left").get(0), 0)).isEqualTo("120");
        assertThat(Rows.notes(chart)).containsExactly("one side is missing: Lower");
        assertThat(Rows.failures(Rows.moved(chart, "rest left", 1, 3))).containsExactly("left = −up: Lower");
        assertThat(Rows.failures(Rows.moved(chart, "highlighted right", 0, 3))).containsExactly("right = down: Upper");
        assertThat(Rows.failures(Rows.moved(chart, "highlighted right", 1, 3))).contains("each row with a figure is in exactly one class: Lower");
        assertThatThrownBy(() -> Chart.of("reach", Tornado.of("down", "up")).over(Table.of("flow", flow.column("reach"), Column.numbers("up", -1, 0), flow.column("down")),
                Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'flow', row 1: 'Upper': right is -1; a tornado shows sizes, which are not below zero");
    }

    @Test
    public void divergingAgreesWithTheOracle() {
        Rows.each(10, -7, 10_000, rows -> {
            double[] negative = Rows.cells(rows.count());
            double[] positive = Rows.cells(rows.count());
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                if (v < 0) {
                    negative[row] = -v;
                } else if (v > 0) {
                    positive[row] = v;
                }
            }
            PlainChart chart = rows.proved(Diverging.of("a"));
            Rows.same(chart, "negative", negative);
            Rows.same(chart, "positive", positive);
            if (rows.count() > 0) {
                assertThat(Rows.failures(Rows.moved(chart, "positive", 0, 1e101))).containsExactly("positive − negative = a: r0");
            }
        });
    }
}
