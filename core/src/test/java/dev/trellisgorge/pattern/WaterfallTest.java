package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WaterfallTest {
    private static final Table BALANCE = Table.of("balance",
            Column.texts("item", "Opening", "Rain", "Release", "Seepage", "Leak", "Inflow", "Closing"),
            Column.texts("kind", "start", "change", "change", null, "change", "change", "total"),
            Column.numbers("value", 30, 20, -70, -5, Rows.MISSING, 65, 40));

    private static PlainChart balance(double closing) {
        Table table = Table.of("balance", BALANCE.column("item"), BALANCE.column("kind"), Column.numbers("value", 30, 20, -70, -5, Rows.MISSING, 65, closing));
        return Chart.of("item", Waterfall.of("value").kinds("kind")).over(table, Settings.NONE);
    }

    @Test
    public void columnOfTheTableMayHaveTheNameOfAHelperColumn() {
        Table table = Table.of("t", Column.texts("item", "A", "B"), Column.numbers("lower end", 30, -50));
        PlainChart chart = Chart.of("item", Waterfall.of("lower end")).over(table, Settings.NONE);
        assertThat(chart.data().column("spacer").toNumbers()).containsExactly(0, 0);
        assertThat(chart.data().column("level").toNumbers()).containsExactly(30, -20);
    }

    /** The oracle: one row after another, by the book. A start every seventh row, a total every fifth. */
    private static void agree(Rows rows) {
        double[][] expected = new double[9][];
        Arrays.setAll(expected, i -> Rows.cells(rows.count()));
        double level = 0;
        BigDecimal exact = BigDecimal.ZERO;
        for (int row = 0; row < rows.count(); row++) {
            double v = rows.a()[row];
            if (row % 7 == 6) {
                level = Double.isNaN(v) ? 0 : v;
                exact = new BigDecimal(level);
                expected[3][row] = v;
            } else if (row % 5 == 4) {
                expected[row % 2 == 0 ? 4 : 5][row] = level;
            } else if (!Double.isNaN(v)) {
                exact = exact.add(new BigDecimal(v));
                double low = Math.min(level, exact.doubleValue());
                double high = Math.max(level, exact.doubleValue());
                int piece = v >= 0 ? 1 : 2;
                if (low >= 0) {
                    expected[0][row] = low;
                    expected[piece][row] = high - low;
                } else if (high <= 0) {
                    expected[0][row] = high;
                    expected[piece][row] = low - high;
                } else {
                    expected[0][row] = 0;
                    expected[piece][row] = high;
                    expected[piece + 5][row] = low;
                }
                level = exact.doubleValue();
            }
            expected[8][row] = level;
        }
        List<String> starts = java.util.stream.IntStream.range(0, rows.count()).filter(r -> r % 7 == 6).mapToObj(r -> "r" + r).toList();
        List<String> subtotals = java.util.stream.IntStream.range(0, rows.count()).filter(r -> r % 7 != 6 && r % 10 == 4).mapToObj(r -> "r" + r).toList();
        List<String> totals = java.util.stream.IntStream.range(0, rows.count()).filter(r -> r % 7 != 6 && r % 10 == 9).mapToObj(r -> "r" + r).toList();
        PlainChart chart = Chart.of("name", Waterfall.of("a").kinds(starts, subtotals, totals)).over(rows.table(), Settings.NONE);
        List<String> series = List.of("spacer", "rise", "fall", "start", "subtotal", "total", "rise under", "fall under", "level");
        assertThat(chart.plan().series()).isEqualTo(series);
        for (int i = 0; i < series.size(); i++) {
            Rows.same(chart, series.get(i), expected[i]);
        }
        assertThat(Rows.failures(chart)).allMatch(failure -> failure.startsWith("each stated total") || failure.startsWith("no movement and no other start"));
    }

    @Test
    public void randomTablesAgreeWithTheOracle() {
        Rows.each(1, -7, 1_000, WaterfallTest::agree);
    }

    @Test
    public void tenThousandMovementsAgreeWithTheOracle() {
        double[] values = new Random(5).ints(10_000, -50, 51).asDoubleStream().toArray();
        PlainChart chart = Chart.of("name", Waterfall.of("a")).over(Table.of("long", Column.texts("name",
                java.util.stream.IntStream.range(0, 10_000).mapToObj(r -> "r" + r).toArray(String[]::new)), Column.numbers("a", values)), Settings.NONE);
        double[] levels = values.clone();
        Arrays.parallelPrefix(levels, Double::sum);
        Rows.same(chart, "level", levels);
    }

    @Test
    public void statedTotalThatIsNotReachedIsNamedWithBothFigures() {
        assertThat(Rows.failures(balance(40))).isEmpty();
        assertThat(Rows.failures(balance(41))).containsExactly("each stated total is the level that the movements reach: Closing");
        assertThat(dev.trellisgorge.audit.Audit.of(balance(41)).proofs().get(4).failures())
                .containsExactly(new dev.trellisgorge.audit.Proof.Failure("Closing", 40, 41));
    }

    @Test
    public void roundingOfLargeLevelsIsNoFault() {
        Table table = Table.of("t", Column.texts("item", "a", "b", "c"), Column.numbers("value", 1e15, 0.3, -1e15));
        assertThat(Rows.failures(Chart.of("item", Waterfall.of("value")).over(table, Settings.NONE))).isEmpty();
    }

    @Test
    public void runningSumKeepsTheDigitsThatAnAdditionLoses() {
        Table table = Table.of("t", Column.texts("item", "a", "b", "c", "d"), Column.numbers("value", 1e16, 1, 1, -1e16));
        PlainChart chart = Chart.of("item", Waterfall.of("value").closing("end")).over(table, Settings.NONE);
        assertThat(chart.data().column("level").number(3)).isEqualTo(2);
        assertThat(chart.data().column("total").number(4)).isEqualTo(2);
        assertThat(Rows.failures(chart)).isEmpty();
        assertThat(Rows.failures(Rows.moved(chart, "level", 3, 0))).contains("each running sum, and each sum of all rows, is the exact one to its last digit: d");
        String[] names = java.util.stream.IntStream.range(0, 10).mapToObj(r -> "r" + r).toArray(String[]::new);
        double[] tenths = new double[10];
        Arrays.fill(tenths, 0.1);
        Table ten = Table.of("ten", Column.texts("item", names), Column.numbers("value", tenths));
        assertThat(Chart.of("item", Waterfall.of("value")).over(ten, Settings.NONE).data().column("level").number(9)).isEqualTo(1);
    }

    @DataProvider
    Object[][] faults() {
        return new Object[][] {{"spacer", 1, "spacer and piece reach the farther end of the bar: Rain"},
            {"rise", 5, "the pieces of a movement are as long as it is: Inflow"},
            {"fall under", 2, "the pieces of a movement are as long as it is: Release"},
            {"level", 3, "the level after a movement is the level before it and the movement: Seepage"}};
    }

    @Test(dataProvider = "faults")
    public void faultIsNamed(String column, int row, String failure) {
        assertThat(Rows.failures(Rows.moved(balance(40), column, row, 7))).contains(failure);
    }

    @Test
    public void missingMovementsAndCrossingsAreNoted() {
        assertThat(Rows.notes(balance(40))).containsExactly("no movement given; the level carries on: Leak",
                "a level that crosses zero: Release (-20), Inflow (40)");
    }

    @Test
    public void startWithoutALevelBeginsAtZeroAndIsNoted() {
        PlainChart chart = Chart.of("item", Waterfall.of("value").kinds(List.of("Opening"), List.of(), List.of())).over(Table.of("t",
                Column.texts("item", "Opening", "Rain"), Column.numbers("value", Rows.MISSING, 20)), Settings.NONE);
        Rows.same(chart, "level", new double[] {0, 20});
        assertThat(Rows.notes(chart)).containsExactly("no level given for a start; it begins at zero: Opening");
    }

    @Test
    public void startThatWouldLoseMovementsFailsAndOneAfterATotalDoesNot() {
        Table late = Table.of("t", Column.texts("item", "Rain", "Opening", "Loss"), Column.numbers("value", 20, 30, -5));
        assertThat(Rows.failures(Chart.of("item", Waterfall.of("value").kinds(List.of("Opening"), List.of(), List.of())).over(late, Settings.NONE)))
                .containsExactly("no movement and no other start is lost before a start: Opening");
        Table twice = Table.of("t", Column.texts("item", "Spring", "Autumn", "Loss"), Column.numbers("value", 20, 30, -5));
        assertThat(Rows.failures(Chart.of("item", Waterfall.of("value").kinds(List.of("Spring", "Autumn"), List.of(), List.of())).over(twice, Settings.NONE)))
                .containsExactly("no movement and no other start is lost before a start: Autumn");
        Table closed = Table.of("t", Column.texts("item", "Spring", "Rain", "Sum", "Autumn", "Loss"), Column.numbers("value", 20, 5, Rows.MISSING, 30, -5));
        assertThat(Rows.failures(Chart.of("item", Waterfall.of("value").kinds(List.of("Spring", "Autumn"), List.of("Sum"), List.of())).over(closed, Settings.NONE))).isEmpty();
    }

    @Test
    public void rankingMovesMovementsAloneWithinTheirRun() {
        Waterfall runs = Waterfall.of("value").kinds(List.of("Opening"), List.of("Middle"), List.of("End"));
        Table table = Table.of("t", Column.texts("item", "Opening", "a", "b", "c", "Middle", "d", "e", "End"),
                Column.numbers("value", 30, 1, 20, -7, Rows.MISSING, 5, 50, 99), Column.numbers("share", 1, 2, 3, 4, 5, 6, 7, 8));
        PlainChart ordered = Chart.of("item", runs).rank(Ranking.by(column("value"))).over(table, Settings.NONE);
        assertThat(names(ordered)).isEqualTo("Opening b a c Middle e d End");
        assertThat(Rows.failures(ordered)).isEmpty();
        PlainChart rest = Chart.of("item", runs).rank(Ranking.by(column("value")).top(1).rest("Others")).over(table, Settings.NONE);
        assertThat(names(rest)).isEqualTo("Opening b Others Middle e Others (2) End");
        Rows.same(rest, "level", new double[] {30, 50, 44, 44, 94, 99, 99});
        assertThat(Rows.failures(rest)).isEmpty();
        assertThat(Rows.notes(rest)).contains("3 rows totalled in 'Others', -1.4% of all value: a, c, d");
        PlainChart cut = Chart.of("item", runs).rank(Ranking.by(column("value")).top(1)).over(table, Settings.NONE);
        assertThat(Rows.failures(cut)).contains("the ranking leaves the level at each start, subtotal and total as it was: Middle");
    }

    private static String names(PlainChart chart) {
        return String.join(" ", java.util.stream.IntStream.range(0, chart.data().rowCount()).mapToObj(chart.data().category()::written).toList());
    }

    @Test
    public void closingIsAddedAndComputed() {
        PlainChart chart = Chart.of("item", Waterfall.of("value").kinds(List.of("Opening"), List.of(), List.of("Closing")).closing("Now")).over(BALANCE, Settings.NONE);
        assertThat(chart.data().category().written(7)).isEqualTo("Now");
        assertThat(chart.data().column("total").number(7)).isEqualTo(40);
    }

    @Test
    public void labelsAreTheMovementsAndTheLevels() {
        PlainChart chart = Chart.of("item", Waterfall.of("value").kinds("kind")).labels(Labels.VALUE.format("#,##0;(#,##0)")).over(BALANCE, Settings.NONE);
        assertThat(chart.alternative()).contains("Opening 30; Rain 20 (rise); Release (70) (fall)").contains("Leak no figure; Inflow 65 (rise)")
                .contains("Closing 40 (total)");
    }

    @Test
    public void unknownKindAndUnknownNamesAreRefused() {
        Table wrong = Table.of("balance", BALANCE.column("item"), BALANCE.column("value"), Column.texts("kind", "begin", null, null, null, null, null, null));
        assertThatThrownBy(() -> Chart.of("item", Waterfall.of("value").kinds("kind")).over(wrong, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'balance', row 1: 'Opening': kind is 'begin'; a row is a start, change, subtotal or total");
        assertThatThrownBy(() -> Chart.of("item", Waterfall.of("value").kinds(List.of("Openin"), List.of(), List.of())).over(BALANCE, Settings.NONE))
                .isInstanceOf(BadInput.class).hasMessageContaining("there is no 'Openin'. Did you mean 'Opening'?");
    }
}
