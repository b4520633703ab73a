package dev.trellisgorge.engine.text;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Ring;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Table;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TextEngineTest {
    private static final String ESCAPE = "\u001B[";

    private static List<String> lines(PlainChart chart) {
        return lines(chart, new TextEngine());
    }

    private static List<String> lines(PlainChart chart, TextEngine engine) {
        return lines(Page.of(chart), engine);
    }

    private static List<String> lines(Page page, TextEngine engine) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(List.of(page), engine, "txt", Options.STANDARD, out, sentence -> { });
            return out.toString(StandardCharsets.UTF_8).lines().toList();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static PlainChart columns(double... figures) {
        String[] names = new String[figures.length];
        Arrays.setAll(names, i -> "r" + i);
        return Chart.of("c", Columns.of("v")).over(Table.of("t", Column.texts("c", names), Column.numbers("v", figures)), Settings.NONE);
    }

    @DataProvider
    Object[][] all() {
        return Gallery.all().stream().map(example -> new Object[] {example}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "all")
    public void eachCategoryHasALineInTableOrderWithItsFigures(Example example) {
        PlainChart chart = example.plain();
        List<String> lines = lines(chart);
        List<String> rows = lines.subList(lines.size() - chart.data().rowCount(), lines.size());
        for (int row = 0; row < rows.size(); row++) {
            int at = row;
            String line = rows.get(row);
            if (chart.plan().category().isPresent()) {
                assertThat(line).startsWith(chart.categoryText(row));
            }
            chart.series().forEach(series -> assertThat(line).contains(chart.labelText(series, at)));
        }
        lines.forEach(line -> assertThat(DisplayWidth.of(line)).isLessThanOrEqualTo(100));
        assertThat(String.join("", lines)).doesNotContain(ESCAPE);
    }

    @Test(dataProvider = "all")
    public void coloursChangeNoWordAndEndWithTheirLine(Example example) {
        List<String> lines = lines(example.plain(), TextEngine.forTerminal(100, Palette.DIRECT));
        assertThat(String.join("\n", lines)).contains(ESCAPE);
        for (String line : lines) {
            assertThat(line.lastIndexOf(ESCAPE)).as(line).isEqualTo(line.contains(ESCAPE) ? line.lastIndexOf(ESCAPE + "0m") : -1);
            assertThat(DisplayWidth.of(line.replaceAll("\u001B\\[[0-9;]*m", ""))).isLessThanOrEqualTo(100);
        }
    }

    @Test
    public void barsAreAsLongAsTheirFiguresToAnEighthOfACharacter() {
        List<String> lines = lines(columns(90, 45, 22.625, 0.1, 0, Double.NaN));
        String full = "\u2588";
        assertThat(lines.get(0)).isEqualTo("r0 \u2502" + full.repeat(90) + " 90.00");
        assertThat(lines.get(1)).isEqualTo("r1 \u2502" + full.repeat(45) + " ".repeat(45) + " 45.00");
        assertThat(lines.get(2)).as("22 characters and five eighths").isEqualTo("r2 \u2502" + full.repeat(22) + "\u258B" + " ".repeat(67) + " 22.63");
        assertThat(lines.get(3)).as("a small bar is seen").startsWith("r3 \u2502\u258F ");
        assertThat(lines.get(4)).isEqualTo("r4 \u2502" + " ".repeat(92) + "0.00");
        assertThat(lines.get(5)).isEqualTo("r5 \u2502");
    }

    @Test
    public void barsBelowZeroRunToTheLeftOfTheBaseLine() {
        List<String> lines = lines(columns(30, -30, -15));
        int base = lines.get(0).indexOf('\u2502');
        assertThat(lines).allMatch(line -> line.indexOf('\u2502') == base);
        assertThat(lines.get(1).substring(0, base)).matches("r1 +\u2588+");
        assertThat(lines.get(2).substring(0, base)).matches("r2 +\u2590?\u2588+");
    }

    @Test
    public void floatingBarsLeaveRoomBeforeThemAndCrossTheBaseLine() {
        Table table = Table.of("t", Column.texts("c", "floats", "crosses"), Column.numbers("from", 50, -50), Column.numbers("to", 100, 100));
        List<String> lines = lines(Chart.of("c", Range.of("from", "to")).over(table, Settings.NONE));
        assertThat(lines.get(0)).matches("floats +\u2502 +\u2590?\u2588+ +50");
        assertThat(lines.get(1)).as("the base line is part of the bar").matches("crosses \u2588+ +150");
    }

    @Test
    public void barsShorterThanAPlaceAreSeenWhereverTheyFloat() {
        int rows = 300;
        Table table = Table.of("t", Column.texts("c", java.util.stream.IntStream.range(0, rows).mapToObj(i -> "r" + i).toArray(String[]::new)),
                Column.numbers("from", java.util.stream.IntStream.range(0, rows).mapToDouble(i -> i).toArray()),
                Column.numbers("to", java.util.stream.IntStream.range(0, rows).mapToDouble(i -> i + 0.4).toArray()));
        for (Palette palette : Palette.values()) {
            List<String> lines = lines(Chart.of("c", Range.of("from", "to").classify(Split.at(0.2))).over(table, Settings.NONE), TextEngine.forTerminal(60, palette));
            assertThat(lines.subList(lines.size() - rows, lines.size())).allMatch(line -> line.replaceAll("\u001B\\[[0-9;]*m", "").matches(".*\u2502.*[\u2580-\u259F].*"));
        }
    }

    @Test
    public void seriesAreToldApartWithoutColour() {
        Table table = Table.of("t", Column.texts("c", "a", "b"), Column.numbers("v", 10, 4));
        List<String> lines = lines(Chart.of("c", Columns.of("v").classify(Split.at(5))).over(table, Settings.NONE));
        assertThat(lines.get(0)).matches("(. below {3}. above|. above {3}. below) {3}\u2506 limit 5");
        char below = lines.get(0).charAt(lines.get(0).indexOf("below") - 2);
        char above = lines.get(0).charAt(lines.get(0).indexOf("above") - 2);
        assertThat(below).isNotEqualTo(above);
        assertThat(lines.get(1)).contains("\u2502" + above);
        assertThat(lines.get(2)).contains("\u2502" + below);
    }

    @Test
    public void panelsStandBesideEachOther() {
        Table table = Table.of("t", Column.texts("c", "loss", "gain"), Column.numbers("v", -2, 3));
        List<String> lines = lines(Chart.of("c", Diverging.of("v")).over(table, Settings.NONE));
        assertThat(lines.get(0)).matches("loss .*[^ ]\u2502 +-2 +\u2502");
        assertThat(lines.get(1)).matches("gain +\u2502 +\u2502.* 3");
    }

    @Test
    public void wideGlyphsKeepTheBarsInLine() {
        Table table = Table.of("t", Column.texts("c", "\u6C34\u6C34", "weir"), Column.numbers("v", 10, 10));
        List<String> lines = lines(Chart.of("c", Columns.of("v")).over(table, Settings.NONE));
        assertThat(lines.get(0)).startsWith("\u6C34\u6C34 \u2502");
        assertThat(lines.get(1)).startsWith("weir \u2502");
        List<String> bars = lines(Chart.of("c", TextBar.of("v").glyph("\uD83D\uDCA7").width(3)).over(table, Settings.NONE));
        assertThat(bars).containsExactly("\u6C34\u6C34 " + "\uD83D\uDCA7".repeat(3) + " 10", "weir " + "\uD83D\uDCA7".repeat(3) + " 10");
    }

    @Test
    public void longNamesAreCutAndTheWidthIsTheTerminals() {
        Table table = Table.of("t", Column.texts("c", "a very long name of a station that nobody has room for"), Column.numbers("v", 10));
        List<String> lines = lines(Chart.of("c", Columns.of("v")).over(table, Settings.NONE), TextEngine.forTerminal(40, Palette.NONE));
        assertThat(lines.get(0)).startsWith("a very long n\u2026 \u2502").hasSizeLessThanOrEqualTo(40);
    }

    @Test
    public void ringIsOneBarOfItsSlices() {
        Table one = Table.of("t", Column.numbers("v", 25), Column.numbers("t", 100));
        List<String> lines = lines(Chart.of(Ring.of("v", "t")).over(one, Settings.NONE));
        assertThat(lines.get(0)).isEqualTo("\u2588 met   \u2591 remaining");
        assertThat(lines.get(1)).matches("\u2502\u2588{23,24}.?\u2591+ 25%");
    }

    @Test
    public void boardIsItsTilesOneAfterAnother() {
        Table table = Table.of("t", Column.texts("c", "a"), Column.numbers("v", 10));
        Tile figure = new Tile.OfFigure(Figure.of("v").title("Generated").text("MWh").over(table, Settings.NONE));
        assertThat(lines(new Page("board", "The board", 2, List.of(figure, Tile.of(columns(1)))), new TextEngine()))
                .containsExactly("The board", "", "Generated", "10  MWh", "", "r0 \u2502" + "\u2588".repeat(94) + " 1");
    }

    @Test
    public void environmentSaysWhatColoursThereAre() {
        assertThat(Palette.of(null, "xterm-256color", null)).isEqualTo(Palette.INDEXED);
        assertThat(Palette.of(null, "xterm", "truecolor")).isEqualTo(Palette.DIRECT);
        assertThat(Palette.of("1", "xterm-256color", "truecolor")).isEqualTo(Palette.NONE);
        assertThat(Palette.of("", "xterm-256color", null)).as("an empty NO_COLOR says nothing").isEqualTo(Palette.INDEXED);
        assertThat(Palette.of(null, "dumb", "truecolor")).isEqualTo(Palette.NONE);
        assertThat(Palette.of(null, null, null)).isEqualTo(Palette.NONE);
    }
}
