package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Labels say the raw figure that a reader asks about, never the length of a piece. */
public class LabelsTest {
    private static final Table ROWS = Table.of("rows", Column.texts("c", "a", "b", "c", "d", "e", "f"), Column.numbers("v", 70, 13, -5, 0, Rows.MISSING, 31),
            Column.numbers("w", 40, 13, 90, 7, 9, 400));
    private static final String VALUES = "70|13|-5|0||31";

    /** The label texts of each row, all series together. */
    private static String texts(Chart chart) {
        PlainChart plain = chart.over(ROWS, Settings.NONE);
        return String.join("|", IntStream.range(0, plain.data().rowCount()).mapToObj(row -> String.join("+", plain.labels().entrySet().stream()
                .map(label -> plain.labelText(label.getKey(), label.getValue(), row)).filter(text -> !text.isEmpty()).toList())).toList());
    }

    @DataProvider
    Object[][] patterns() {
        return new Object[][] {
            {Columns.of("v"), VALUES}, {Columns.of("v").classify(Split.at(20)), VALUES}, {Columns.of("v").cap(0.5), VALUES},
            {Columns.of("v").cap(0.5).classify(Highlight.largest(1)), VALUES},
            {ToTarget.of("v", "w"), "70|13|-5+95|0||31"}, {Marker.of("v", "w"), "70+40|13+13|-5+90|0+7|9|31+400"},
            {Progress.of("v", "w", new Progress.Band("all", 1)), "175%|100%|-5.6%|0%||7.8%"},
            {Variance.of("v").as(Variance.As.AMOUNT), "70|13+-57|-5+-18|0++5||31"},
            {Variance.of("v").against(column("w")), "70++75%|13+0%|-5+-105.6%|0+-100%||31+-92.3%"},
            {Waterfall.of("v").kinds(List.of("a"), List.of(), List.of("f")), "70|13|-5|0||78"},
            {Breakdown.of("v"), "109|70|13|-5|0||31"}, {Tornado.of("w", "w"), "40+40|13+13|90+90|7+7|9+9|400+400"},
            {Diverging.of("v"), "70|13|-5|||31"}, {Range.of(number(-3), column("w")), "43|16|93|10|12|403"}, {TextBar.of("v"), VALUES}};
    }

    @Test(dataProvider = "patterns")
    public void labelsSayTheRawFigures(Pattern pattern, String expected) {
        assertThat(texts(Chart.of("c", pattern).labels(Labels.VALUE.format("#,##0")))).isEqualTo(expected);
    }

    @Test
    public void labelsSayWhatTheyAreAskedFor() {
        Chart chart = Chart.of("c", Columns.of("w"));
        assertThat(texts(chart.labels(Labels.of(Labels.Show.SHARE)))).isEqualTo("7.2%|2.3%|16.1%|1.3%|1.6%|71.6%");
        assertThat(texts(chart.labels(Labels.of(Labels.Show.CATEGORY)))).isEqualTo("a|b|c|d|e|f");
        assertThat(texts(chart.labels(Labels.of(column("v").plus(column("w")))))).isEqualTo("110|26|85|7||431");
        assertThat(texts(chart.labels(Labels.NONE))).isEqualTo("|||||");
        assertThat(texts(Chart.of("c", Variance.of("w").as(Variance.As.AMOUNT)).labels(Labels.of(Labels.Show.CHANGE)))).startsWith("|-27+-27|77++77");
    }

    @Test
    public void textForReadersWhoCannotSeeSaysWhatTheLabelsSay() {
        assertThat(Chart.of("c", Waterfall.of("v")).over(ROWS, Settings.NONE).alternative())
                .isEqualTo("Chart: a 70 (rise); b 13 (rise); c -5 (fall); d 0 (rise); e no figure; f 31 (rise).");
    }
}
