package dev.trellisgorge.engine.image;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import java.awt.Font;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is in the picture is measured in the SVG, whose bars are rectangles and whose labels are text. */
public class PictureTest {
    private static final double[] VALUES = {520, 400, 150, Double.NaN, 0, -70.5, 431};
    private static final Table TABLE = Table.of("t", Column.texts("station", "North <Sluice> & Co", "Heron Weir", "heron weir", "Stone Leat",
            "Fern Pool", "Alder Gate", "Otter Bend"), Column.numbers("mwh", VALUES));
    private static final Color BELOW = Color.parse("#010203");
    private static final Color ABOVE = Color.parse("#040506");

    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private static Chart chart() {
        return Chart.of("station", Columns.of(column("mwh")).classify(Split.at(400))).title("Title <&>").color("below", BELOW).color("above", ABOVE);
    }

    private static Svg svg(PlainChart chart) {
        return Svg.of(Page.of(chart));
    }

    @Test
    public void labelsAreTheTrueFiguresAndNothingIsWrittenWhereNothingIsDrawn() {
        List<String> texts = svg(chart().labels(Labels.VALUE.format("#,##0.0 'MWh'")).over(TABLE, Settings.NONE)).texts();
        assertThat(texts.stream().filter(text -> text.endsWith("MWh") && !text.startsWith("limit")).toList())
                .containsExactly("520.0 MWh", "400.0 MWh", "150.0 MWh", "0.0 MWh", "-70.5 MWh", "431.0 MWh");
        assertThat(texts).contains("limit 400.0 MWh", "Title <&>", "North <Sluice> & Co");
    }

    @Test
    public void pictureCarriesItsTypefacesAndAsksForNothingFromElsewhere() throws Exception {
        Svg svg = svg(chart().over(TABLE, Settings.NONE));
        String rules = svg.elements("style").get(0).getTextContent();
        assertThat(rules).startsWith("@font-face{font-family:\"Source Sans 3\";font-weight:400;src:url(data:font/ttf;base64,").doesNotContain("http", "DejaVu");
        assertThat(rules.length()).as("the glyphs that are used, and no more").isBetween(10_000, 80_000);
        String font = rules.substring(rules.indexOf("base64,") + 7, rules.indexOf(')'));
        Font carried = Font.createFont(Font.TRUETYPE_FONT, new ByteArrayInputStream(Base64.getDecoder().decode(font)));
        assertThat(carried.canDisplayUpTo("North <Sluice> & Co")).as("all glyphs are there").isEqualTo(-1);
        assertThat(Fonts.width("Alder Gate", carried.deriveFont(20f))).isEqualTo(Fonts.width("Alder Gate", Fonts.regular(20)));
    }

    @Test
    public void labelsCanBeOff() {
        List<String> texts = svg(chart().labels(Labels.NONE).over(TABLE, Settings.NONE)).texts();
        assertThat(texts).doesNotContain("520", "-70.5");
    }

    @DataProvider
    Object[][] scales() {
        return new Object[][] {{500, List.of("0", "100", "200", "300", "400", "500")}, {950, List.of("0", "200", "400", "600", "800")}, {30, List.of("0", "5", "10", "15", "20", "25", "30")}};
    }

    /** Steps of 1, 2 or 5 times a power of ten, four to nine of them. */
    @Test(dataProvider = "scales")
    public void figuresAlongAnAxisAreRound(double high, List<String> figures) {
        Table table = Table.of("t", Column.texts("station", "a", "b"), Column.numbers("mwh", high, 1));
        List<String> texts = svg(Chart.of("station", Columns.of("mwh")).labels(Labels.NONE).over(table, Settings.NONE)).texts();
        assertThat(texts.stream().filter(text -> text.matches("[0-9.,]+")).toList()).containsExactlyElementsOf(figures);
    }

    @Test
    public void pictureSpeaksForReadersWhoCannotSeeIt() {
        Svg svg = svg(chart().over(TABLE, Settings.NONE));
        assertThat(svg.root().getAttribute("role")).isEqualTo("img");
        assertThat(svg.elements("desc").get(0).getTextContent()).contains("Heron Weir 400.0 (above); heron weir 150.0 (below); Stone Leat no figure");
    }

    @DataProvider
    Object[][] crowds() {
        return new Object[][] {{1, Orientation.VERTICAL}, {3, Orientation.VERTICAL}, {60, Orientation.VERTICAL}, {60, Orientation.HORIZONTAL}};
    }

    @Test(dataProvider = "crowds")
    public void everyCategoryAndFigureIsWrittenHoweverManyThereAre(int count, Orientation orientation) {
        Table many = Table.of("many", Column.texts("c", IntStream.range(0, count).mapToObj(i -> "Weir" + i).toArray(String[]::new)),
                Column.numbers("v", IntStream.range(0, count).mapToDouble(i -> 1000 + i).toArray()));
        List<String> texts = svg(Chart.of("c", Columns.of("v")).orientation(orientation).over(many, Settings.NONE)).texts();
        IntStream.range(0, count).forEach(i -> assertThat(texts).contains("Weir" + i, String.format("1,%03d", i)));
    }

    @Test
    public void pngHasTheWantedSizeAndTheBarsColours() throws IOException {
        Path file = folder.path("chart.png");
        Engines.draw(List.of(Page.of(chart().over(TABLE, Settings.NONE))), file, new Size(640, 360));
        BufferedImage image = ImageIO.read(file.toFile());
        assertThat(image.getWidth()).isEqualTo(640);
        assertThat(image.getHeight()).isEqualTo(360);
        long coloured = IntStream.range(0, 640 * 360).filter(i -> (image.getRGB(i % 640, i / 640) & 0xFFFFFF) == ABOVE.rgb()).count();
        assertThat(coloured).isGreaterThan(3_000);
    }

    @Test
    public void tableWithNoRowsIsAnEmptyChart() {
        Table none = Table.of("none", Column.texts("station"), Column.numbers("mwh"));
        Svg svg = svg(chart().over(none, Settings.NONE));
        assertThat(svg.filled(ABOVE)).isEmpty();
    }

    @Test
    public void boardPutsEachTileInItsPlace() {
        PlainChart plain = chart().over(TABLE, Settings.NONE);
        Figure sum = Figure.of("mwh").total(Figure.Total.SUM).title("Generated").text("MWh in March").format("#,##0.0");
        Svg svg = Svg.of(new Page("board", "The board", 2, List.of(Tile.of(plain), new Tile.OfFigure(sum.over(TABLE, Settings.NONE)), Tile.of(plain))));
        assertThat(svg.texts()).contains("The board", "Generated", "1,430.5", "MWh in March").filteredOn("Title <&>"::equals).hasSize(2);
        assertThat(svg.filled(ABOVE)).hasSize(6);
        assertThat(svg.elements("desc").get(0).getTextContent()).contains("Title <&>: North <Sluice> & Co 520.0 (above)").contains("Generated 1,430.5. MWh in March");
    }

    @Test
    public void documentHoldsEveryPageWithItsTextAndItsFonts() throws IOException {
        Path file = folder.path("charts.pdf");
        PlainChart plain = chart().over(TABLE, Settings.NONE);
        Engines.draw(List.of(Page.of(plain), Page.of(plain)), file, Size.STANDARD);
        try (PDDocument document = Loader.loadPDF(file.toFile())) {
            assertThat(document.getNumberOfPages()).isEqualTo(2);
            assertThat(new PDFTextStripper().getText(document)).contains("North <Sluice> & Co", "520");
            for (var name : document.getPage(0).getResources().getFontNames()) {
                assertThat(document.getPage(0).getResources().getFont(name).isEmbedded()).isTrue();
            }
        }
    }

    @Test
    public void pictureOfVeryManyRowsIsDrawnWithoutWritingThemAll() {
        int count = 10_000;
        Table many = Table.of("many", Column.texts("c", IntStream.range(0, count).mapToObj(i -> "Weir" + i).toArray(String[]::new)),
                Column.numbers("v", IntStream.range(0, count).mapToDouble(i -> 1 + i % 7).toArray()));
        assertThat(svg(Chart.of("c", Columns.of("v")).over(many, Settings.NONE)).texts()).hasSizeLessThan(200);
    }
}
