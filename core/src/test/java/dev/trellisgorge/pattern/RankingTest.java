package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.shape.Rank.Way;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Table;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RankingTest {
    private static final Table STATIONS = Table.of("stations", Column.texts("station", "A", "B", "C", "D", "E"),
            Column.numbers("mwh", 2, 9, Rows.MISSING, 2, 5), Column.numbers("licence", 4, 10, 3, Rows.MISSING, 5));

    private static PlainChart ranked(Ranking ranking) {
        return Chart.of("station", Variance.of("mwh").against(column("licence"))).rank(ranking).over(STATIONS, Settings.NONE);
    }

    private static String rows(PlainChart chart) {
        return String.join(" ", IntStream.range(0, chart.data().rowCount()).mapToObj(chart.data().category()::written).toList());
    }

    @DataProvider
    Object[][] rankings() {
        Ranking by = Ranking.by(column("mwh"));
        return new Object[][] {{by, "B E A D C"}, {by.order(Way.ASCENDING), "A D E B C"}, {by.top(2), "B E"},
            {by.top(2).rest("Rest"), "B E Rest"}, {by.top(9).rest("Rest"), "B E A D C"}, {by.order(Way.TABLE).top(2), "A B"},
            {Ranking.by(column("mwh").over(column("licence"))), "E B A C D"}};
    }

    @Test(dataProvider = "rankings")
    public void rowsAreOrderedAndCut(Ranking ranking, String expected) {
        assertThat(rows(ranked(ranking))).isEqualTo(expected);
    }

    @Test
    public void textsDatesAndConditionsOrderRowsToo() {
        Table table = Table.of("t", Column.texts("s", "B", "C", "A"), Column.numbers("v", 1, 2, 3), Column.dates("d", LocalDate.of(2031, 3, 2), null, LocalDate.of(2031, 3, 1)));
        Ranking byName = Ranking.by(column("s")).order(Way.ASCENDING).top(2);
        PlainChart chart = Chart.of("s", Columns.of("v")).rank(byName).over(table, Settings.NONE);
        assertThat(rows(chart)).isEqualTo("A B");
        assertThat(Rows.notes(chart)).contains("1 row left out: C");
        assertThat(rows(Chart.of("s", Columns.of("v")).rank(Ranking.by(column("d"))).over(table, Settings.NONE))).isEqualTo("B A C");
        assertThat(rows(Chart.of("s", Columns.of("v")).rank(Ranking.by(column("v").above(number(1)))).over(table, Settings.NONE))).isEqualTo("C A B");
    }

    @Test
    public void restIsTotalledBeforeAnythingIsComputed() {
        PlainChart chart = ranked(Ranking.by(column("mwh")).top(2).rest("Rest"));
        assertThat(chart.data().column("value").number(2)).isEqualTo(4);
        assertThat(chart.data().column("reference").number(2)).isEqualTo(7);
        assertThat(chart.data().column("down").number(2)).as("the ratio of the totals").isEqualTo(-3.0 / 7);
        assertThat(Rows.notes(chart)).contains("3 rows totalled in 'Rest', 22.2% of all mwh: A, D, C");
        assertThat(Rows.notes(ranked(Ranking.by(column("mwh")).top(4)))).contains("1 row left out, 0% of all mwh: C");
    }

    @Test
    public void sliceComesBeforeWholeColumnFigures() {
        Table months = Table.of("t", Column.texts("m", "x", "x", "y"), Column.texts("c", "A", "B", "A"), Column.numbers("v", 1, 2, 9));
        PlainChart chart = Chart.of("c", Columns.of("v").classify(Highlight.largest(1))).slice("m", "x").over(months, Settings.NONE);
        assertThat(chart.data().column("highlighted").number(1)).isEqualTo(2);
    }

    @Test
    public void randomOrdersAreStableWithMissingKeysLast() {
        Random random = new Random(18);
        for (int i = 0; i < 1_000; i++) {
            double[] keys = i % 100 == 0 ? random.longs(5_000).mapToDouble(Double::longBitsToDouble).toArray()
                    : random.ints(random.nextInt(20), -3, 5).mapToDouble(v -> v == 4 ? Rows.MISSING : v * Math.pow(10, random.nextInt(4))).toArray();
            boolean descending = random.nextBoolean();
            Comparator<Integer> byKey = (a, b) -> descending ? Double.compare(keys[b] + 0.0, keys[a] + 0.0) : Double.compare(keys[a] + 0.0, keys[b] + 0.0);
            int[] expected = IntStream.range(0, keys.length).boxed().sorted(Comparator.comparing((Integer row) -> Double.isNaN(keys[row]))
                    .thenComparing((a, b) -> Double.isNaN(keys[a]) ? 0 : byKey.compare(a, b))).mapToInt(Integer::intValue).toArray();
            assertThat(RowOrder.of(keys, descending)).isEqualTo(expected);
        }
    }
}
