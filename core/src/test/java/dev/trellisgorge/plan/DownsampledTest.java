package dev.trellisgorge.plan;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Charts of more rows than can be told apart: what reaches farthest among neighbours is drawn, at both ends, as it is. */
public class DownsampledTest {
    private static final int ROWS = 5_003;
    private static final int MOST = 120;

    @DataProvider
    Object[][] patterns() {
        return new Object[][] {{Columns.of("v")}, {Marker.of("v", "mark")}};
    }

    @Test(dataProvider = "patterns")
    public void whatReachesFarthestAmongNeighboursIsDrawn(Pattern pattern) {
        Random random = new Random(31);
        double[] figures = random.doubles(ROWS, -50, 100).map(Math::rint).toArray();
        double[] marks = random.doubles(ROWS, -80, 130).map(Math::rint).toArray();
        Table table = Table.of("t", Column.texts("n", IntStream.range(0, ROWS).mapToObj(row -> "r" + row).toArray(String[]::new)), Column.numbers("v", figures), Column.numbers("mark", marks));
        PlainChart whole = Chart.of("n", pattern).over(table, Settings.NONE);
        PlainChart drawn = whole.downsampled(MOST);
        Matcher sentence = java.util.regex.Pattern.compile("of each ([0-9,]+) neighbours").matcher(drawn.subtitle());
        assertThat(sentence.find()).isTrue();
        int together = Integer.parseInt(sentence.group(1).replace(",", ""));
        Map<Integer, Integer> at = new HashMap<>();
        for (int i = 0; i < drawn.data().rowCount(); i++) {
            at.put(Integer.valueOf(drawn.data().category().written(i).substring(1)), i);
        }
        assertThat(at).hasSizeLessThanOrEqualTo(2 * (ROWS / together + 1));
        for (int from = 0; from < ROWS; from += together) {
            int[] all = IntStream.range(from, Math.min(ROWS, from + together)).toArray();
            int[] kept = IntStream.of(all).filter(at::containsKey).toArray();
            assertThat(reach(whole, kept, 1)).as("the highest from row %s on", from).isEqualTo(reach(whole, all, 1));
            assertThat(reach(whole, kept, -1)).as("the lowest from row %s on", from).isEqualTo(reach(whole, all, -1));
            for (int row : kept) {
                whole.plan().series().forEach(series -> assertThat(drawn.data().column(series).number(at.get(row))).isEqualTo(whole.data().column(series).number(row)));
            }
        }
    }

    /** How far the rows reach to one side of zero, by any of their series. */
    private static double reach(PlainChart chart, int[] rows, int side) {
        return IntStream.of(rows).mapToDouble(row -> chart.plan().series().stream().mapToDouble(series -> Math.max(0, side * chart.data().column(series).number(row))).max().orElse(0)).max().orElse(0);
    }

    @Test
    public void chartOfFewRowsStaysAsItIs() {
        Table table = Table.of("t", Column.texts("n", "a", "b", "c"), Column.numbers("v", 1, 2, 3));
        PlainChart chart = Chart.of("n", Columns.of("v")).over(table, Settings.NONE);
        assertThat(chart.downsampled(2)).isSameAs(chart);
        assertThat(chart.thinning(2)).isEmpty();
    }
}
