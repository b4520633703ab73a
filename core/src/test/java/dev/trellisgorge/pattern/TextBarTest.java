package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.Moved;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Table;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TextBarTest {

    private static Column bars(TextBar pattern, String series, double... values) {
        String[] names = IntStream.range(0, values.length).mapToObj(i -> "r" + i).toArray(String[]::new);
        PlainChart chart = Chart.of("c", pattern).over(Table.of("t", Column.texts("c", names), Column.numbers("v", values)), Settings.NONE);
        assertThat(Rows.failures(chart)).isEmpty();
        return chart.data().column(series);
    }

    @Test
    public void everyEighthIsItsOwnBlock() {
        double[] eighths = IntStream.rangeClosed(0, 16).mapToDouble(i -> i / 8.0).toArray();
        Column bars = bars(TextBar.of("v").per(number(1)).inEighths(), "bar", eighths);
        assertThat(IntStream.rangeClosed(0, 16).mapToObj(bars::written)).containsExactly("", "▏", "▎", "▍", "▌", "▋", "▊", "▉", "█",
                "█▏", "█▎", "█▍", "█▌", "█▋", "█▊", "█▉", "██");
    }

    @DataProvider
    Object[][] glyphs() {
        return new Object[][] {{"█", 1}, {"#", 1}, {"💧", 2}, {"👩‍🌾", 2}, {"é", 1}, {"e\u0301", 1}, {"水", 2}, {"🇩🇪", 2}, {"❤️", 2}};
    }

    @Test(dataProvider = "glyphs")
    public void anySignIsAGlyphAndLeftBarsArePaddedByItsWidth(String glyph, int width) {
        Column left = bars(TextBar.of("v").width(4).glyph(glyph), "bar left", -4, -1, 2, 0, Rows.MISSING);
        assertThat(new Glyph(glyph).width()).isEqualTo(width);
        assertThat(left.written(0)).isEqualTo(glyph.repeat(4));
        assertThat(left.written(1)).isEqualTo(" ".repeat(3 * width) + glyph);
        assertThat(DisplayWidth.of(left.written(1))).isEqualTo(DisplayWidth.of(left.written(0)));
        assertThat(left.isPresent(2)).isFalse();
    }

    @Test
    public void zeroIsAnEmptyTextAndMissingIsNone() {
        Column bars = bars(TextBar.of("v"), "bar", 0, Rows.MISSING, 1);
        assertThat(bars.isPresent(0)).isTrue();
        assertThat(bars.written(0)).isEmpty();
        assertThat(bars.isPresent(1)).isFalse();
        assertThat(bars.written(2)).hasSize(40);
        assertThat(bars(TextBar.of("v"), "bar", 0, 0).written(1)).isEmpty();
    }

    @Test
    public void randomBarsHaveTheirGlyphsHalvesRoundedUp() {
        Rows.each(17, 0, 2_000, rows -> {
            double greatest = Arrays.stream(rows.a()).filter(v -> !Double.isNaN(v)).max().orElse(0);
            Column bars = rows.proved(TextBar.of("a").width(9)).data().column("bar");
            for (int row = 0; row < rows.count(); row++) {
                double v = rows.a()[row];
                assertThat(bars.isPresent(row)).isEqualTo(!Double.isNaN(v));
                if (!Double.isNaN(v)) {
                    int count = v == 0 ? 0 : new BigDecimal(v / (greatest / 9)).setScale(0, RoundingMode.HALF_UP).intValue();
                    assertThat(bars.written(row)).isEqualTo("█".repeat(count));
                }
            }
        });
    }

    @Test
    public void restFillsUpToItsFigure() {
        Column bars = bars(TextBar.of("v").per(number(10)).rest("·", number(50)), "bar", 20, 50, 70, 0);
        assertThat(IntStream.range(0, 4).mapToObj(bars::written)).containsExactly("██···", "█████", "███████", "·····");
    }

    @Test
    public void classesPartTheBars() {
        Column highlighted = bars(TextBar.of("v").width(2).classify(Highlight.largest(1)), "highlighted bar", 1, 2);
        assertThat(highlighted.isPresent(0)).isFalse();
        assertThat(highlighted.written(1)).isEqualTo("██");
    }

    @Test
    public void faultIsNamed() {
        Table table = Table.of("t", Column.texts("c", "r0", "r1"), Column.numbers("v", 1, 2));
        PlainChart chart = Chart.of("c", TextBar.of("v")).over(table, Settings.NONE);
        assertThat(Rows.failures(Rows.moved(chart, "glyphs", 0, 7))).containsExactly("glyphs × per is v to half a glyph: r0");
        PlainChart broken = Moved.column(chart, Column.texts("bar", null, "█"));
        assertThat(Rows.failures(broken)).containsExactly("each v has one bar: r0");
    }

    @Test
    public void tooManyCharactersAndWrongSignsAreRefused() {
        assertThatThrownBy(() -> bars(TextBar.of(column("v")).per(number(0.001)), "bar", 33)).isInstanceOf(BadInput.class)
                .hasMessage("table 't', row 1: 'r0': the number of characters is 33000; a cell holds at most 32767; give a larger 'per'");
        assertThatThrownBy(() -> bars(TextBar.of("v").per(number(0)), "bar", 33)).hasMessageContaining("per is 0; a glyph stands for more than zero units");
        assertThatThrownBy(() -> TextBar.of("v").glyph("ab")).hasMessage("'ab' is not one character");
        assertThatThrownBy(() -> TextBar.of("v").glyph("#").inEighths()).hasMessageContaining("eighths go with the glyph █");
    }
}
