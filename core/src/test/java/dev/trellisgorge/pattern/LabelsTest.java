package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.List;
import java.util.Optional;
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
                .flatMap(labels -> labels.getValue().stream().map(label -> plain.labelText(labels.getKey(), label, row))).filter(text -> !text.isEmpty()).toList())).toList());
    }

    @DataProvider
    Object[][] patterns() {
        return new Object[][] {
            {Columns.of("v"), VALUES}, {Columns.of("v").classify(Split.at(20)), VALUES}, {Columns.of("v").cap(0.5), VALUES},
            {Columns.of("v").cap(0.5).classify(Highlight.largest(1)), VALUES},
            {ToTarget.of("v", "w"), "70|13|-5+95|0||31"}, {Marker.of("v", "w"), "70+40|13+13|-5+90|0+7|9|31+400"},
            {Progress.of("v", "w", new Progress.Band("all", 1)), "2|1|0|0||0"}, // the format is for what the pattern shows, a share
            {Variance.of("v").as(Variance.As.AMOUNT), "70|13+-57|-5+-18|0++5||31"},
            {Variance.of("v").against(column("w")), "70++75.0%|13+0.0%|-5+-105.6%|0+-100.0%||31+-92.3%"},
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

    private static final Progress PROGRESS = Progress.of("v", "w", new Progress.Band("all", 1));
    private static final ToTarget TO_TARGET = ToTarget.of("v", "w");

    @DataProvider
    Object[][] several() {
        Labels share = Labels.of(Labels.Show.SHARE).at(At.INSIDE);
        Labels part = Labels.of(Labels.Show.PART);
        return new Object[][] {
            {Columns.of("w"), List.of(Labels.VALUE.format("+")), "+40|+13|+90|+7|+9|+400"},
            {Columns.of("w"), List.of(Labels.VALUE, share), "40+7.2%|13+2.3%|90+16.1%|7+1.3%|9+1.6%|400+71.6%"},
            {Columns.of("w").classify(Split.at(20)), List.of(Labels.VALUE, share.on("above")), "40+7.2%|13|90+16.1%|7|9|400+71.6%"},
            {Columns.of("w").classify(Split.at(20)), List.of(Labels.VALUE.on("below")), "|13||7|9|"},
            {TO_TARGET, List.of(part.on("met"), part.on("remaining", "above").at(At.INSIDE)), "40+30|13|-5+90|0+7||31+369"},
            {TO_TARGET.classify(Split.at(20)), List.of(part.on("met")), "40|13|-5|0||31"}, {TO_TARGET.classify(Split.at(20)), List.of(part.on("above").at(At.BASE)), "40|||||31"},
            {PROGRESS, List.of(Labels.VALUE), "175%|100%|-5.6%|0%||7.8%"}, {PROGRESS, List.of(Labels.of(Labels.Show.VALUE)), "70|13|-5|0||31"},
            {PROGRESS, List.of(Labels.VALUE.format("0%").withName()), "position 175%|position 100%|position -6%|position 0%||position 8%"},
            {Variance.of("v"), List.of(Labels.VALUE.format("0.0"), Labels.VALUE.on("change").format("0%")), "70.0|13.0+-81%|-5.0+-138%|0.0+100%||31.0"},
            {Variance.of("v"), List.of(Labels.VALUE), "70|13+-81.4%|-5+-138.5%|0++100.0%||31"}};
    }

    @Test(dataProvider = "several")
    public void severalLabelsStandOnTheirPartsAndClasses(Pattern pattern, List<Labels> labels, String expected) {
        assertThat(texts(Chart.of("c", pattern).labels(labels.toArray(Labels[]::new)))).isEqualTo(expected);
    }

    @Test
    public void ringSaysItsFiguresInTheMiddleAndOnItsSlices() {
        Table one = Table.of("one", Column.numbers("v", 30), Column.numbers("t", 40));
        Chart ring = Chart.of(Ring.of("v", "t"));
        assertThat(ring.over(one, Settings.NONE).alternative()).contains("75%");
        PlainChart both = ring.labels(Labels.of(Labels.Show.VALUE), Labels.of(Labels.Show.PART).on("met", "remaining").withName()).name("met", "Done").over(one, Settings.NONE);
        dev.trellisgorge.chart.Ring drawn = (dev.trellisgorge.chart.Ring) both.drawing();
        assertThat(both.labelText(drawn.centre().orElseThrow(), 0)).isEqualTo("30");
        assertThat(drawn.series().stream().map(slice -> both.labelTexts(slice, 0))).containsExactly("Done 30", "remaining 10");
    }

    @DataProvider
    Object[][] refusedLabels() {
        return new Object[][] {{List.of(Labels.VALUE, Labels.of(Labels.Show.SHARE)), "two labels stand in one place of 'value' (end); give one of them another 'at'"},
            {List.of(Labels.VALUE.on("valu")), "there is no part or class 'valu' for a label to be on. Did you mean 'value'?"},
            {List.of(Labels.VALUE.at(At.CENTRE)), "'value' has no centre for a label; it stands at the end, inside or at the base"},
            {List.of(Labels.of(Labels.Show.CATEGORY).format("0.0")), "a label of a text can't take the format '0.0'"},
            {List.of(Labels.of(Labels.Show.CHANGE)), "the pattern 'columns' has no change for its labels to show"}};
    }

    @Test(dataProvider = "refusedLabels")
    public void labelThatCantStandIsRefused(List<Labels> labels, String message) {
        assertThatThrownBy(() -> Chart.of("c", Columns.of("v")).named("n").labels(labels.toArray(Labels[]::new)).over(ROWS, Settings.NONE))
                .hasMessageContaining("chart 'n': " + message);
    }

    @Test
    public void classIsNamedAndColouredOnBothSidesAndAPieceByItsFullName() {
        Color red = new Color(0xAA0000);
        PlainChart chart = Chart.of("c", Tornado.of("w", "w").classify(Split.at(20))).name("below", "Few").color("below", red).name("below left", "Few, left").over(ROWS, Settings.NONE);
        assertThat(chart.series().stream().filter(series -> series.fill().equals(Optional.of(red))).map(Series::name)).containsExactlyInAnyOrder("Few, left", "Few");
    }

    @Test
    public void textForReadersWhoCannotSeeSaysWhatTheLabelsSay() {
        assertThat(Chart.of("c", Waterfall.of("v")).over(ROWS, Settings.NONE).alternative())
                .isEqualTo("Chart: a 70 (rise); b 13 (rise); c -5 (fall); d 0 (rise); e no figure; f 31 (rise).");
    }
}
