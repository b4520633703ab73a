package dev.trellisgorge.engine.image;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Engines;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Breakdown;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** What is in the picture is measured in the SVG, whose bars are rectangles and whose labels are text. */
public class PictureTest {
    private static final double[] VALUES = {520, 400, 150, Double.NaN, 0, -70.5, 431};
    private static final Table TABLE = Table.of("t", Column.texts("station", "North <Sluice> & Co", "Heron Weir", "heron weir", "Stone Leat",
            "Fern Pool", "Alder Gate", "Otter Bend"), Column.numbers("mwh", VALUES));
    private static final Color BELOW = Color.parse("#010203");
    private static final Color ABOVE = Color.parse("#040506");

    private Path folder;

    @BeforeMethod
    void makeFolder() throws IOException {
        folder = Files.createTempDirectory("gorge");
    }

    @AfterMethod
    void deleteFolder() throws IOException {
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private static Chart chart() {
        return Chart.of("station", Columns.of(column("mwh")).classify(Split.at(400))).title("Title <&>").color("below", BELOW).color("above", ABOVE);
    }

    private Document svg(PlainChart chart) {
        try {
            Path file = folder.resolve("chart.svg");
            Engines.draw(chart, file);
            return DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(file.toFile());
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    private record Bar(double x, double y, double width, double height) {
    }

    private static List<Bar> bars(Document svg, Color fill) {
        String paint = "fill:rgb(" + fill.red() + "," + fill.green() + "," + fill.blue() + ")";
        List<Bar> bars = new ArrayList<>();
        for (Element rect : elements(svg, "rect")) {
            if (rect.getAttribute("style").contains(paint)) {
                bars.add(new Bar(number(rect, "x"), number(rect, "y"), number(rect, "width"), number(rect, "height")));
            }
        }
        return bars;
    }

    private static List<Element> elements(Document svg, String name) {
        NodeList nodes = svg.getElementsByTagName(name);
        return IntStream.range(0, nodes.getLength()).mapToObj(i -> (Element) nodes.item(i)).toList();
    }

    private static double number(Element element, String attribute) {
        return Double.parseDouble(element.getAttribute(attribute));
    }

    private static List<String> texts(Document svg) {
        return elements(svg, "text").stream().map(Element::getTextContent).toList();
    }

    @DataProvider
    Object[][] orientations() {
        return new Object[][] {{Orientation.VERTICAL}, {Orientation.HORIZONTAL}};
    }

    @Test(dataProvider = "orientations")
    public void barsStartAtZeroAndEndAtTheirFigure(Orientation orientation) {
        PlainChart chart = chart().orientation(orientation).over(TABLE, Settings.NONE);
        boolean upright = orientation == Orientation.VERTICAL;
        List<Bar> drawn = new ArrayList<>(bars(svg(chart), BELOW));
        drawn.addAll(bars(svg(chart), ABOVE));
        List<Double> figures = new ArrayList<>();
        for (Series series : chart.series()) {
            Column cells = chart.data().column(series.column()).cells();
            IntStream.range(0, cells.size()).filter(row -> cells.isPresent(row) && cells.number(row) != 0)
                    .forEach(row -> figures.add(cells.number(row)));
        }
        assertThat(drawn).hasSameSizeAs(figures);
        Bar tallest = drawn.get(figures.indexOf(520.0));
        double zero = upright ? tallest.y() + tallest.height() : tallest.x();
        double unit = (upright ? tallest.height() : tallest.width()) / 520;
        for (int i = 0; i < drawn.size(); i++) {
            Bar bar = drawn.get(i);
            double length = figures.get(i) * unit;
            double low = upright ? zero - (bar.y() + bar.height()) : bar.x() - zero;
            double high = upright ? zero - bar.y() : bar.x() + bar.width() - zero;
            assertThat(low).as("start of %s", figures.get(i)).isCloseTo(Math.min(0, length), within(0.5));
            assertThat(high).as("end of %s", figures.get(i)).isCloseTo(Math.max(0, length), within(0.5));
        }
    }

    @DataProvider
    Object[][] stacks() {
        Table rows = Table.of("rows", Column.texts("c", "a", "b", "c", "d", "e", "f"), Column.numbers("v", 30, 20, -70, -5, Double.NaN, 65),
                Column.numbers("w", 40, 20, 10, 7, 9, 60), Column.numbers("high", 31, 90, -10, 7, 9, 65));
        return new Object[][] {{Chart.of("c", Waterfall.of("v").closing("End")), rows}, {Chart.of("c", Breakdown.of("w")), rows},
            {Chart.of("c", ToTarget.of("v", "w")), rows}, {Chart.of("c", Range.of("v", "high")), rows}, {Chart.of("c", Tornado.of("w", "w")), rows},
            {Chart.of("c", Columns.of("w").cap(0.5)), rows}, {Chart.of("c", Waterfall.of("v")).orientation(Orientation.HORIZONTAL), rows}};
    }

    @Test(dataProvider = "stacks")
    public void eachPieceOfAStackStartsAndEndsWhereItsLevelsSayAndSpacersLeaveNoTrace(Chart chart, Table rows) {
        Chart painted = chart.labels(Labels.NONE);
        for (int i = 0; i < chart.seriesNames().size(); i++) {
            painted = painted.color(chart.seriesNames().get(i), new Color(0x010203 * (i + 1)));
        }
        PlainChart plain = painted.over(rows, Settings.NONE);
        boolean upright = plain.orientation() == Orientation.VERTICAL;
        List<double[]> expected = new ArrayList<>();
        List<double[]> drawn = new ArrayList<>();
        Document svg = svg(plain);
        for (Series series : plain.series()) {
            plain.bars(plain.panels().get(0).bars().get(0)).stream().filter(bar -> bar.series() == series && series.fill().isPresent() && bar.end() != bar.start())
                    .forEach(bar -> expected.add(new double[] {Math.min(bar.start(), bar.end()), Math.max(bar.start(), bar.end())}));
            series.fill().ifPresent(fill -> bars(svg, fill).stream().filter(bar -> (upright ? bar.height() : bar.width()) > 0)
                    .forEach(bar -> drawn.add(upright ? new double[] {-bar.y() - bar.height(), -bar.y()} : new double[] {bar.x(), bar.x() + bar.width()})));
        }
        assertThat(drawn).hasSameSizeAs(expected);
        double low = expected.stream().mapToDouble(e -> e[0]).min().orElseThrow();
        double high = expected.stream().mapToDouble(e -> e[1]).max().orElseThrow();
        double lowest = drawn.stream().mapToDouble(e -> e[0]).min().orElseThrow();
        double unit = (drawn.stream().mapToDouble(e -> e[1]).max().orElseThrow() - lowest) / (high - low);
        for (int i = 0; i < drawn.size(); i++) {
            assertThat(drawn.get(i)[0]).isCloseTo(lowest + (expected.get(i)[0] - low) * unit, within(0.5));
            assertThat(drawn.get(i)[1]).isCloseTo(lowest + (expected.get(i)[1] - low) * unit, within(0.5));
        }
        assertThat(elements(svg, "rect").stream().filter(rect -> rect.getAttribute("style").contains("fill-opacity:0")).count())
                .as("spacers are drawn, if at all, without any paint").isEqualTo(elements(svg, "rect").stream()
                        .filter(rect -> rect.getAttribute("style").contains("rgb(0,0,0)")).count());
    }

    @Test(dataProvider = "orientations")
    public void barsStandInTableOrderInEqualPlaces(Orientation orientation) {
        PlainChart chart = chart().orientation(orientation).over(TABLE, Settings.NONE);
        Document svg = svg(chart);
        boolean upright = orientation == Orientation.VERTICAL;
        double first = place(bars(svg, ABOVE).get(0), upright);
        double second = place(bars(svg, ABOVE).get(1), upright);
        assertThat(second).isGreaterThan(first);
        assertThat(place(bars(svg, BELOW).get(0), upright) - second).isCloseTo(second - first, within(0.5));
        assertThat(place(bars(svg, ABOVE).get(2), upright) - first).isCloseTo(6 * (second - first), within(0.5));
    }

    private static double place(Bar bar, boolean upright) {
        return upright ? bar.x() + bar.width() / 2 : bar.y() + bar.height() / 2;
    }

    @Test
    public void labelsAreTheTrueFiguresAndNothingIsWrittenWhereNothingIsDrawn() {
        List<String> texts = texts(svg(chart().labels(Labels.VALUE.format("#,##0.0 'MWh'")).over(TABLE, Settings.NONE)));
        assertThat(texts.stream().filter(text -> text.endsWith("MWh") && !text.startsWith("limit")).toList())
                .containsExactly("520.0 MWh", "400.0 MWh", "150.0 MWh", "0.0 MWh", "-70.5 MWh", "431.0 MWh");
        assertThat(texts).contains("limit 400.0 MWh", "Title <&>", "North <Sluice> & Co");
    }

    @Test
    public void labelsCanBeOff() {
        List<String> texts = texts(svg(chart().labels(Labels.NONE).over(TABLE, Settings.NONE)));
        assertThat(texts).doesNotContain("520", "-70.5");
    }

    @Test
    public void pictureSpeaksForReadersWhoCannotSeeIt() {
        Document svg = svg(chart().over(TABLE, Settings.NONE));
        assertThat(svg.getDocumentElement().getAttribute("role")).isEqualTo("img");
        assertThat(elements(svg, "desc").get(0).getTextContent()).contains("Heron Weir 400.0 (above); heron weir 150.0 (below); Stone Leat no figure");
    }

    @DataProvider
    Object[][] crowds() {
        return new Object[][] {{1, Orientation.VERTICAL}, {3, Orientation.VERTICAL}, {60, Orientation.VERTICAL}, {60, Orientation.HORIZONTAL}};
    }

    @Test(dataProvider = "crowds")
    public void everyCategoryAndFigureIsWrittenHoweverManyThereAre(int count, Orientation orientation) {
        Table many = Table.of("many", Column.texts("c", IntStream.range(0, count).mapToObj(i -> "Weir" + i).toArray(String[]::new)),
                Column.numbers("v", IntStream.range(0, count).mapToDouble(i -> 1000 + i).toArray()));
        List<String> texts = texts(svg(Chart.of("c", Columns.of("v")).orientation(orientation).over(many, Settings.NONE)));
        IntStream.range(0, count).forEach(i -> assertThat(texts).contains("Weir" + i, String.format("1,%03d", i)));
    }

    @Test
    public void pngHasTheWantedSizeAndTheBarsColours() throws IOException {
        Path file = folder.resolve("chart.png");
        Engines.draw(List.of(chart().over(TABLE, Settings.NONE)), file, new Size(640, 360));
        BufferedImage image = ImageIO.read(file.toFile());
        assertThat(image.getWidth()).isEqualTo(640);
        assertThat(image.getHeight()).isEqualTo(360);
        long coloured = IntStream.range(0, 640 * 360).filter(i -> (image.getRGB(i % 640, i / 640) & 0xFFFFFF) == ABOVE.rgb()).count();
        assertThat(coloured).isGreaterThan(3_000);
    }

    @Test
    public void tableWithNoRowsIsAnEmptyChart() {
        Table none = Table.of("none", Column.texts("station"), Column.numbers("mwh"));
        Document svg = svg(chart().over(none, Settings.NONE));
        assertThat(bars(svg, ABOVE)).isEmpty();
    }
}
