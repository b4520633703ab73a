package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Marker, progress, variance, ring and dial. */
public class ComparedPatternsTest {

    @Test
    public void markerKeepsBothFigures() {
        Rows.each(11, -7, 10_000, rows -> {
            PlainChart chart = rows.proved(Marker.of("a", "b").classify(new Sign()));
            Rows.same(chart, "a", rows.a());
            Rows.same(chart, "negative", Arrays.stream(rows.b()).map(v -> v < 0 ? v : Rows.MISSING).toArray());
            Rows.same(chart, "positive", Arrays.stream(rows.b()).map(v -> v >= 0 ? v : Rows.MISSING).toArray());
            if (rows.count() > 0) {
                assertThat(Rows.failures(Rows.moved(chart, "a", 0, 1e101))).containsExactly("the bars are a: r0");
                assertThat(Rows.failures(Rows.moved(chart, "positive", 0, 1e101))).contains("negative + positive = b: r0");
            }
        });
    }

    @Test
    public void progressHoldsThePositionOnItsScale() {
        Rows.each(12, -7, 10_000, rows -> {
            double[] position = Rows.cells(rows.count());
            for (int row = 0; row < rows.count(); row++) {
                double share = rows.b()[row] > 0 ? rows.a()[row] / rows.b()[row] : Rows.MISSING;
                position[row] = share > 1 ? 1 : share < 0 ? 0 : share;
            }
            PlainChart chart = rows.proved(Progress.of("a", "b", new Progress.Band("low", 0.3), new Progress.Band("high", 0.7)));
            Rows.same(chart, "position", position);
            Rows.same(chart, "low", Arrays.stream(rows.a()).map(v -> 0.3).toArray());
        });
    }

    @Test
    public void progressSaysTheTrueShareAndProvesItsBands() {
        Table table = Table.of("t", Column.texts("c", "past", "half", "none"), Column.numbers("v", 3, 1, 1), Column.numbers("t", 2, 2, 0));
        PlainChart chart = Chart.of("c", Progress.of("v", "t", new Progress.Band("all", 1))).over(table, Settings.NONE);
        assertThat(chart.labelText("position", chart.labels().get("position").get(0), 0)).isEqualTo("150%");
        assertThat(Rows.notes(chart)).containsExactly("past its scale: drawn at the end, labelled with the true share: past (1.5)",
                "no target above zero, so no position: none (1)");
        assertThat(Rows.failures(Rows.moved(chart, "all", 1, 0.9))).containsExactly("the bands add up to 1: half");
        assertThat(Rows.failures(Rows.moved(chart, "position", 1, 0.9))).containsExactly("position × target = v, where it is on the scale: half");
        assertThatThrownBy(() -> Progress.of("v", "t", new Progress.Band("a", 0.5), new Progress.Band("b", 0.4))).hasMessage("the bands' widths must add up to 1, not 0.9");
    }

    @DataProvider
    Object[][] ways() {
        return new Object[][] {{Variance.As.PERCENT}, {Variance.As.AMOUNT}};
    }

    @Test(dataProvider = "ways")
    public void varianceAgainstTheRowBeforeAgreesWithTheOracle(Variance.As as) {
        Rows.each(13, -7, 10_000, rows -> {
            double[] reference = Rows.cells(rows.count());
            double[][] changes = {Rows.cells(rows.count()), Rows.cells(rows.count()), Rows.cells(rows.count())};
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                double r = row == 0 ? Rows.MISSING : rows.a()[row - 1];
                if (Double.isNaN(v)) {
                    continue;
                }
                reference[row] = r;
                double change = Double.isNaN(r) ? Rows.MISSING : as == Variance.As.AMOUNT ? v - r : r == 0 ? Rows.MISSING : (v - r) / Math.abs(r);
                if (!Double.isNaN(change)) {
                    changes[change > 0 ? 0 : change < 0 ? 1 : 2][row] = change;
                }
            }
            PlainChart chart = rows.proved(Variance.of("a").as(as));
            Rows.same(chart, "value", rows.a());
            Rows.same(chart, "reference", reference);
            Rows.same(chart, "up", changes[0]);
            Rows.same(chart, "down", changes[1]);
            Rows.same(chart, "level", changes[2]);
        });
    }

    @Test
    public void varianceAgainstAnotherFigureDrawsTheValueWithoutAChangeWhereThereIsNone() {
        Rows.each(14, -7, 10_000, rows -> {
            PlainChart chart = rows.proved(Variance.of("a").against(column("b")).as(Variance.As.AMOUNT, Variance.As.PERCENT));
            assertThat(chart.plan().series()).containsExactly("value", "reference", "up amount", "down amount", "level amount", "up percent", "down percent", "level percent");
            Rows.same(chart, "value", rows.a());
            Rows.same(chart, "reference", IntStream.range(0, rows.count()).mapToDouble(r -> Double.isNaN(rows.a()[r]) ? Rows.MISSING : rows.b()[r]).toArray());
            Rows.same(chart, "up amount", IntStream.range(0, rows.count()).mapToDouble(r -> rows.a()[r] > rows.b()[r] ? rows.a()[r] - rows.b()[r] : Rows.MISSING).toArray());
            Rows.same(chart, "down percent", IntStream.range(0, rows.count()).mapToDouble(r -> rows.a()[r] < rows.b()[r] && rows.b()[r] != 0
                    ? (rows.a()[r] - rows.b()[r]) / Math.abs(rows.b()[r]) : Rows.MISSING).toArray());
        });
        Rows.each(17, -7, 50, rows -> Rows.same(rows.proved(Variance.of("a").against(column("b")).zeroWithoutReference()), "level",
                IntStream.range(0, rows.count()).mapToDouble(r -> Double.isNaN(rows.a()[r]) || rows.b()[r] == 0 && !Double.isNaN(rows.b()[r]) ? Rows.MISSING
                        : Double.isNaN(rows.b()[r]) || rows.a()[r] == rows.b()[r] ? 0 : Rows.MISSING).toArray()));
    }

    @DataProvider
    Object[][] periods() {
        LocalDate start = LocalDate.of(2031, 1, 1);
        return new Object[][] {
            {"month", Column.texts("c", "2031-01", "2031-02", "2031-04"), "month"},
            {"month at the end", Column.dates("c", LocalDate.of(2031, 1, 31), LocalDate.of(2031, 2, 28), LocalDate.of(2031, 4, 30)), "month"},
            {"quarter", Column.texts("c", "2030-Q4", "2031-Q1", "2031-Q3"), "quarter"},
            {"year", Column.texts("c", "2030", "2031", "2033"), "year"},
            {"week over new year", Column.texts("c", "2030-W52", "2031-W01", "2031-W03"), "week"},
            {"day", Column.dates("c", start.plusDays(30), start.plusDays(31), start.plusDays(33)), "day"}};
    }

    @Test(dataProvider = "periods")
    public void periodThatIsNotInTheTableIsNoReference(String what, Column category, String unit) {
        Table table = Table.of("t", category, Column.numbers("v", 50, 60, 45));
        PlainChart chart = Chart.of("c", Variance.of("v").againstPreviousPeriod()).over(table, Settings.NONE);
        Rows.same(chart, "reference", new double[] {Rows.MISSING, 50, Rows.MISSING});
        Rows.same(chart, "up", new double[] {Rows.MISSING, 0.2, Rows.MISSING});
        Rows.same(chart, "level", new double[] {Rows.MISSING, Rows.MISSING, Rows.MISSING});
        assertThat(Rows.notes(chart)).startsWith("compared with the " + unit + " before");
    }

    @Test
    public void varianceFaultsAndMistakesAreNamed() {
        Table table = Table.of("t", Column.texts("c", "x", "y", "z"), Column.numbers("v", 0, 60, 45));
        PlainChart chart = Chart.of("c", Variance.of("v")).over(table, Settings.NONE);
        assertThat(Rows.notes(chart)).containsExactly("no previous figure, so no change: x (0)", "compared with zero, so no change in per cent: y (60)");
        assertThat(chart.labelText("down", chart.labels().get("down").get(0), 2)).isEqualTo("-25.0%");
        PlainChart amounts = Chart.of("c", Variance.of("v").as(Variance.As.AMOUNT)).over(table, Settings.NONE);
        assertThat(Rows.failures(Rows.moved(amounts, "up", 1, 61))).containsExactly("reference + change = value: y");
        assertThat(Rows.failures(Rows.moved(chart, "value", 2, 46))).contains("value = v: z");
        assertThat(Rows.failures(Rows.moved(chart, "down", 2, -0.5))).containsExactly("reference + change × |reference| = value: z");
        PlainChart planned = Chart.of("c", Variance.of("v").against(column("plan"))).over(Table.of("t", table.column("c"), table.column("v"),
                Column.numbers("plan", Rows.MISSING, 50, 50)), Settings.NONE);
        assertThat(Rows.notes(planned)).containsExactly("nothing to compare with, so no change: x (0)");
        assertThat(Rows.failures(Rows.moved(planned, "value", 0, 1))).containsExactly("value = v: x");
        assertThatThrownBy(() -> Chart.of("c", Variance.of("v").againstPreviousPeriod()).over(table, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessageContaining("table 't', row 1: 'x': c is 'x'; it names no day, so the period before it can't be told");
    }

    private static PlainChart one(Pattern pattern, double... cells) {
        return Chart.of(pattern).over(Table.of("one", Column.numbers("v", cells[0]), Column.numbers("t", cells.length > 1 ? cells[1] : 1)), Settings.NONE);
    }

    private static String slices(PlainChart chart) {
        Table slices = chart.printed();
        return String.join(" ", IntStream.range(0, slices.rowCount()).mapToObj(row -> slices.column("slice").written(row) + "="
                + slices.column("size").written(row) + ":" + slices.column("role").written(row)).toList());
    }

    @DataProvider
    Object[][] dials() {
        return new Object[][] {
            {Dial.of("v", -100, 100), 15.47, "below rest=100:rest below fill=0:fill above fill=15.47:fill above rest=84.53:rest hidden=200:hidden"},
            {Dial.of("v", -100, 100), -30.0, "below rest=70:rest below fill=30:fill above fill=0:fill above rest=100:rest hidden=200:hidden"},
            {Dial.of("v", 10, 60), 35.0, "fill=25:fill rest=25:rest hidden=50:hidden"},
            {Dial.of("v", 10, 60), 99.0, "fill=50:fill rest=0:rest hidden=50:hidden"},
            {Dial.of("v", 0, 100).bands(new Dial.Band("low", 20), new Dial.Band("high", 100)), 50.0,
                "low=20:rest high=80:rest hidden=100:hidden pointer=50:pointer"},
            {Dial.of("v", 0, 10), Rows.MISSING, "fill=:fill rest=:rest hidden=10:hidden"}};
    }

    @Test(dataProvider = "dials")
    public void dialIsItsSlicesClockwise(Dial dial, double value, String expected) {
        PlainChart chart = one(dial, value);
        assertThat(slices(chart)).isEqualTo(expected);
        assertThat(Rows.failures(chart)).isEmpty();
        assertThat(Rows.failures(Rows.moved(chart, "hidden", 0, 1))).contains("the hidden half is as large as the scale: row 1");
    }

    @Test
    public void randomDialsFillTheirScale() {
        new Random(15).doubles(TestSize.of(100, 1_000), -300, 300).forEach(v -> {
            PlainChart chart = one(Dial.of("v", -120, 80), v);
            double held = Math.max(-120, Math.min(80, v));
            Rows.same(chart, "below fill", new double[] {v < 0 ? -held : 0});
            Rows.same(chart, "above fill", new double[] {v > 0 ? held : 0});
            assertThat(Rows.failures(chart)).isEmpty();
            assertThat(Rows.notes(chart).isEmpty()).isEqualTo(v >= -120 && v <= 80);
            assertThat(Rows.failures(Rows.moved(chart, "above rest", 0, 500))).containsExactly("the slices that are shown fill the scale: row 1");
        });
        assertThatThrownBy(() -> Dial.of("v", 5, 5)).hasMessage("the scale must rise, and goes from 5 to 5");
        assertThatThrownBy(() -> Dial.of("v", 0, 10).bands(new Dial.Band("a", 9))).hasMessage("the bands end at 9 and the scale at 10");
    }

    @Test
    public void randomRingsAddUpToTheirTarget() {
        new Random(16).doubles(TestSize.of(100, 1_000), 0, 200).forEach(v -> {
            PlainChart chart = one(Ring.of("v", "t"), v, 100);
            assertThat(slices(chart)).isEqualTo("met=" + dev.trellisgorge.table.Numbers.shortest(Math.min(v, 100)) + ":fill remaining="
                    + dev.trellisgorge.table.Numbers.shortest(v < 100 ? 100 - v : 0) + ":rest");
            assertThat(Rows.failures(chart)).isEmpty();
            assertThat(Rows.failures(Rows.moved(chart, "met", 0, 101))).containsExactly("met + remaining = t: row 1");
        });
        assertThat(one(Ring.of("v", "t"), 150, 100).labelText("met", one(Ring.of("v", "t"), 150, 100).labels().get("met").get(0), 0)).isEqualTo("150%");
        assertThatThrownBy(() -> one(Ring.of("v", "t"), -1, 100)).hasMessageContaining("value is -1; a ring shows a share, which is not below zero");
        assertThatThrownBy(() -> one(Ring.of("v", "t"), 1, 0)).hasMessageContaining("target is 0; a ring's target is above zero");
    }

    @Test
    public void dialAndRingTakeOneRow() {
        assertThatThrownBy(() -> Chart.of(Ring.of("v", "v")).over(Table.of("two", Column.numbers("v", 1, 2)), Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'two': the pattern 'ring' shows one figure and there are 2 rows; keep one with 'slice', or total them first");
    }
}
