package dev.trellisgorge.engine.image;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Marker;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Progress;
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
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** No text lies on another one or past the edge, however small the picture is, and however many categories with whatever names there are. */
public class LabelRoomTest {
    private static final double READABLE = 9;

    private static Table rows(int count, boolean longNames) {
        String[] names = IntStream.range(0, count).mapToObj(row -> (longNames ? "Sluice with the long name of somebody " : "Weir ") + row).toArray(String[]::new);
        double[] values = IntStream.range(0, count).mapToDouble(row -> row % 7 == 3 ? Double.NaN : (row * 137 % 1900) - (row % 5 == 0 ? 400 : 0)).toArray();
        double[] targets = IntStream.range(0, count).mapToDouble(row -> 300 + row * 71 % 900).toArray();
        return Table.of("rows", Column.texts("name", names), Column.numbers("v", values), Column.numbers("t", targets));
    }

    private static Map<String, Pattern> patterns() {
        Map<String, Pattern> patterns = new LinkedHashMap<>();
        patterns.put("columns", Columns.of("v").classify(Split.at(400)));
        patterns.put("to-target", ToTarget.of("v", "t"));
        patterns.put("marker", Marker.of("v", "t"));
        patterns.put("progress", Progress.of("v", "t", new Progress.Band("low", 0.5), new Progress.Band("high", 0.5)));
        patterns.put("variance", Variance.of("v"));
        patterns.put("waterfall", Waterfall.of("v"));
        patterns.put("tornado", Tornado.of("t", "t"));
        patterns.put("text-bar", TextBar.of("v"));
        return patterns;
    }

    @DataProvider
    Object[][] pictures() {
        List<Object[]> all = new ArrayList<>();
        for (String pattern : patterns().keySet()) {
            for (Size size : List.of(new Size(320, 200), new Size(900, 560), new Size(3840, 2160))) {
                for (int count : new int[] {1, 3, 12, 60}) {
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
        PlainChart plain = Chart.of("name", patterns().get(pattern)).title("Power of the stations in the gorge").labels(Labels.VALUE.format("#,##0.0")).locale(Locale.GERMANY)
                .over(rows(count, longNames), Settings.NONE);
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
}
