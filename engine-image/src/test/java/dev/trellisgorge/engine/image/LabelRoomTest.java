package dev.trellisgorge.engine.image;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Bands;
import dev.trellisgorge.pattern.Beside;
import dev.trellisgorge.pattern.Breakdown;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Dial;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Ring;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.awt.Graphics2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** No text lies on another one or past the edge, however small the picture is, and however many categories with whatever names there are. */
@Test(groups = TestSize.SLOW)
public class LabelRoomTest {
    private static final double READABLE = 9;
    private static final List<Size> SIZES = List.of(new Size(320, 200), new Size(900, 560), new Size(3840, 2160)).subList(0, TestSize.of(1, 3));
    private static final List<Locale> LOCALES = List.of(Locale.GERMANY, Locale.forLanguageTag("fr-CH"), Locale.forLanguageTag("en-IN"), Locale.forLanguageTag("pl-PL"));
    private static final Labels FIGURES = Labels.VALUE.format("#,##0.0");
    /** Of 255. */
    private static final int NOTICEABLE = 24;

    private static Table rows(int count, boolean longNames) {
        String[] names = IntStream.range(0, count).mapToObj(row -> (longNames ? "Sluice with the long name of somebody " : "Weir ") + row).toArray(String[]::new);
        double[] values = IntStream.range(0, count).mapToDouble(row -> row % 7 == 3 ? Double.NaN : (row * 137 % 1900) - (row % 5 == 0 ? 400 : 0)).toArray();
        double[] targets = IntStream.range(0, count).mapToDouble(row -> 300 + row * 71 % 900).toArray();
        return Table.of("rows", Column.texts("name", names), Column.numbers("v", values), Column.numbers("t", targets),
                Column.numbers("u", IntStream.range(0, count).mapToDouble(row -> targets[row] + 50 + row * 37 % 400).toArray()));
    }

    private static Chart chart(Pattern pattern) {
        return Chart.of("name", pattern).title("Power of the stations in the gorge").labels(FIGURES).locale(Locale.GERMANY);
    }

    private static Map<String, Chart> charts() {
        Map<String, Chart> charts = new LinkedHashMap<>();
        charts.put("columns", chart(Columns.of("v").classify(Split.at(400))));
        charts.put("to-target", chart(ToTarget.of("v", "t")));
        charts.put("marker", chart(Marker.of("v", "t")));
        charts.put("progress", chart(Progress.of("v", "t", new Progress.Band("low", 0.5), new Progress.Band("high", 0.5))));
        charts.put("variance", chart(Variance.of("v")));
        charts.put("waterfall", chart(Waterfall.of("v")));
        charts.put("tornado", chart(Tornado.of("t", "t")));
        charts.put("text-bar", chart(TextBar.of("v")));
        charts.put("breakdown", chart(Breakdown.of("t")));
        charts.put("diverging", chart(Diverging.of("v")));
        charts.put("range", chart(Range.of("t", "u")));
        charts.put("connected waterfall", chart(Waterfall.of("v").connected()));
        charts.put("bands", chart(Columns.of("v").classify(Bands.at(0, 400, 900))));
        charts.put("lying columns", chart(Columns.of("v").classify(Split.at(400))).orientation(Orientation.HORIZONTAL));
        charts.put("columns in a table", chart(Columns.of("v")).orientation(Orientation.HORIZONTAL).beside(Beside.of(column("t"), "Target"), Beside.of(column("v").minus(column("t")), "Past the target")));
        charts.put("text bars in a table", chart(TextBar.of("v")).beside(Beside.of(column("t"), "Target")));
        charts.put("figures within", chart(Columns.of("v")).labels(FIGURES.at(Label.At.INSIDE)));
        charts.put("figures at both ends", chart(ToTarget.of("v", "t")).labels(FIGURES.on("met", "above"), Labels.of(Labels.Show.SHARE).format("0%").at(Label.At.BASE).on("met")));
        charts.put("zoomed", chart(Columns.of("v").classify(Split.at(400))).looks(Looks.OWN.scale(200, 900).axis("Energy in MWh").legend(Looks.Legend.RIGHT)));
        return charts;
    }

    @DataProvider
    Object[][] pictures() {
        List<Object[]> all = new ArrayList<>();
        for (String pattern : charts().keySet()) {
            for (Size size : SIZES) {
                for (int count : Arrays.copyOf(new int[] {60, 3, 12, 1}, TestSize.of(2, 4))) {
                    for (boolean longNames : new boolean[] {false, true}) {
                        all.add(new Object[] {pattern, size, count, longNames});
                    }
                }
            }
        }
        return all.toArray(Object[][]::new);
    }

    @Test(dataProvider = "pictures")
    public void textsKeepApartOnThePageAndCanBeRead(String pattern, Size size, int count, boolean longNames) {
        PlainChart plain = charts().get(pattern).over(rows(count, longNames), Settings.NONE);
        apart(plain, size);
    }

    private static void apart(PlainChart plain, Size size) {
        Svg svg = Svg.of(Page.of(plain), size);
        assertThat(svg.textSizes()).as("can be read").allMatch(points -> points >= READABLE);
        List<Rectangle2D> places = svg.textPlaces();
        for (int i = 0; i < places.size(); i++) {
            Rectangle2D place = places.get(i);
            assertThat(new Rectangle2D.Double(0, 0, size.width(), size.height()).contains(place)).as("text at %s is on the page", place).isTrue();
            for (int j = i + 1; j < places.size(); j++) {
                assertThat(place.intersects(places.get(j))).as("texts at %s and %s", place, places.get(j)).isFalse();
            }
        }
    }

    @Test(dataProvider = "pictures")
    public void nothingRunsBehindAText(String pattern, Size size, int count, boolean longNames) {
        clear(charts().get(pattern).over(rows(count, longNames), Settings.NONE), size);
    }

    private static void clear(PlainChart plain, Size size) {
        BufferedImage picture = new BufferedImage(size.width(), size.height(), BufferedImage.TYPE_INT_RGB);
        List<Textless.Written> texts = new ArrayList<>();
        Graphics2D g = new Textless(picture.createGraphics(), texts);
        new Sheet(Page.of(plain), size.width(), size.height(), new Omitted()).draw(g);
        texts.stream().filter(text -> !text.glyphs() && !text.words().isBlank())
                .forEach(text -> assertThat(behind(picture, text.place())).as("what runs behind '%s' at %s", text.words(), text.place()).isLessThan(NOTICEABLE));
    }

    @DataProvider
    Object[][] gallery() {
        List<Object[]> all = new ArrayList<>();
        for (Gallery.Example example : Gallery.all()) {
            for (Size size : SIZES) {
                LOCALES.forEach(locale -> all.add(new Object[] {example, size, locale}));
            }
        }
        return all.toArray(Object[][]::new);
    }

    @Test(dataProvider = "gallery")
    public void textsOfTheGalleryKeepApartInEveryLanguage(Gallery.Example example, Size size, Locale locale) {
        PlainChart plain = example.chart().locale(locale).over(example.table(), example.settings());
        apart(plain, size);
        clear(plain, size);
    }

    @DataProvider
    Object[][] rings() {
        List<Object[]> all = new ArrayList<>();
        for (Size size : SIZES) {
            for (double value : new double[] {0, 0.5, 37, 99.5, 140}) {
                all.add(new Object[] {Ring.of("v", "t"), size, value});
                all.add(new Object[] {Dial.of("v", 0, 200).bands(new Dial.Band("low", 50), new Dial.Band("a band of a longer name", 120), new Dial.Band("high", 200)), size, value});
            }
        }
        return all.toArray(Object[][]::new);
    }

    @Test(dataProvider = "rings")
    public void nothingRunsBehindATextOfARing(Pattern pattern, Size size, double value) {
        Table one = Table.of("one", Column.numbers("v", value), Column.numbers("t", 100));
        Chart chart = Chart.of(pattern).title("Otter Bend").locale(Locale.GERMANY);
        List<Chart> charts = pattern instanceof Ring ? List.of(chart, chart.labels(Labels.VALUE.on("met", "remaining").format("0.0"))) : List.of(chart);
        charts.forEach(each -> clear(each.over(one, Settings.NONE), size));
    }

    /** How far the colours behind a text differ at most, from 0 to 255. */
    private static int behind(BufferedImage picture, Rectangle2D place) {
        int least = 255;
        int most = 0;
        for (int x = (int) Math.ceil(place.getMinX()) + 1; x < Math.min(picture.getWidth(), place.getMaxX() - 2); x++) {
            for (int y = (int) Math.ceil(place.getMinY()) + 1; y < Math.min(picture.getHeight(), place.getMaxY() - 2); y++) {
                if (x >= 0 && y >= 0) {
                    int green = picture.getRGB(x, y) >> 8 & 0xFF;
                    least = Math.min(least, green);
                    most = Math.max(most, green);
                }
            }
        }
        return Math.max(0, most - least);
    }
}
