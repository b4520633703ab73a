package dev.trellisgorge.engine.image;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.table.Column;
import java.awt.geom.Line2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.w3c.dom.Element;

/** Where everything stands in the pictures of every pattern, measured. */
public class GeometryTest {
    private static final double PIXELS = 0.5;
    private static final double DEGREES = 0.1;
    private static final double LEGEND = 15;

    @DataProvider
    Object[][] withAxes() {
        return Gallery.all().stream().filter(example -> !example.plain().panels().isEmpty()).map(example -> new Object[] {example}).toArray(Object[][]::new);
    }

    @DataProvider
    Object[][] rings() {
        return Gallery.all().stream().filter(example -> example.plain().drawing() instanceof Ring).map(example -> new Object[] {example}).toArray(Object[][]::new);
    }

    @DataProvider
    Object[][] all() {
        return Gallery.all().stream().map(example -> new Object[] {example}).toArray(Object[][]::new);
    }

    /** Every series in a colour of its own, so that it can be told apart. */
    private static PlainChart painted(Example example) {
        Chart painted = example.chart().labels(Labels.NONE);
        List<String> names = example.chart().seriesNames();
        for (int i = 0; i < names.size(); i++) {
            painted = painted.color(names.get(i), new Color(0x010203 * (i + 1)));
        }
        return painted.over(example.table(), example.settings());
    }

    /** Something that is drawn on a row, from one level to another. */
    private record Mark(Series series, int row, double from, double to) {
    }

    private static List<Mark> marks(PlainChart plain, Panel panel) {
        List<Mark> marks = new ArrayList<>();
        for (BarGroup group : panel.bars()) {
            plain.bars(group).stream().filter(bar -> bar.series().fill().isPresent() && bar.start() != bar.end())
                    .forEach(bar -> marks.add(new Mark(bar.series(), bar.row(), bar.start(), bar.end())));
        }
        for (Points points : panel.points()) {
            Column cells = plain.data().column(points.series().column());
            for (int row = 0; row < cells.size(); row++) {
                if (cells.isPresent(row)) {
                    marks.add(new Mark(points.series(), row, cells.number(row), cells.number(row)));
                }
            }
        }
        return marks;
    }

    @Test(dataProvider = "withAxes")
    public void everyBarAndPointStandsWhereItsHelperCellsSayAndNothingElseIsDrawn(Example example) {
        PlainChart plain = painted(example);
        boolean upright = plain.orientation() == Orientation.VERTICAL;
        Svg svg = Svg.of(Page.of(plain));
        int shapes = 0;
        for (Panel panel : plain.panels()) {
            List<Mark> marks = marks(plain, panel);
            List<double[]> drawn = new ArrayList<>();
            List<Mark> expected = new ArrayList<>();
            for (Series series : panel.series().stream().filter(s -> s.fill().isPresent()).toList()) {
                List<Mark> own = marks.stream().filter(mark -> mark.series() == series).sorted(Comparator.comparingInt(Mark::row)).toList();
                List<Rectangle2D> found = svg.filled(series.fill().orElseThrow()).stream()
                        .sorted(Comparator.comparingDouble(place -> upright ? place.getCenterX() : place.getCenterY())).toList();
                boolean isLine = panel.lines().stream().anyMatch(line -> line.series() == series);
                assertThat(found).as(series.column()).hasSize(isLine ? 0 : own.size());
                shapes += found.size();
                expected.addAll(own);
                found.forEach(place -> drawn.add(upright ? new double[] {-place.getMaxY(), -place.getMinY()} : new double[] {place.getMinX(), place.getMaxX()}));
            }
            assertStands(panel, expected, drawn);
        }
        assertThat(Stream.of("rect", "path", "ellipse").flatMap(kind -> svg.elements(kind).stream()).filter(GeometryTest::isSeen).count()).isEqualTo(shapes);
    }

    /** Whether a shape is filled, but for the ground, and the small shapes of the legend. */
    private static boolean isSeen(Element shape) {
        String style = Svg.style(shape);
        boolean ground = Svg.has(shape, "fill", Role.PAPER.color()) || !style.contains("fill:rgb") || style.contains("fill-opacity:0");
        boolean legend = shape.getTagName().equals("path") && Svg.size(shape) <= LEGEND;
        return !ground && !legend;
    }

    /** All levels of a panel lie on one scale. */
    private static void assertStands(Panel panel, List<Mark> expected, List<double[]> drawn) {
        int side = panel.scale().backwards() ? -1 : 1;
        double low = Double.MAX_VALUE;
        double high = -Double.MAX_VALUE;
        double lowest = 0;
        double highest = 0;
        List<double[]> levels = new ArrayList<>();
        for (int i = 0; i < expected.size(); i++) {
            Mark mark = expected.get(i);
            double from = Math.min(side * mark.from(), side * mark.to());
            double to = Math.max(side * mark.from(), side * mark.to());
            double[] place = from == to ? new double[] {(drawn.get(i)[0] + drawn.get(i)[1]) / 2, (drawn.get(i)[0] + drawn.get(i)[1]) / 2} : drawn.get(i);
            levels.add(new double[] {from, to, place[0], place[1]});
            if (from < low) {
                low = from;
                lowest = place[0];
            }
            if (to > high) {
                high = to;
                highest = place[1];
            }
        }
        double unit = high > low ? (highest - lowest) / (high - low) : 0;
        for (double[] level : levels) {
            assertThat(level[2]).isCloseTo(lowest + (level[0] - low) * unit, within(PIXELS));
            assertThat(level[3]).isCloseTo(lowest + (level[1] - low) * unit, within(PIXELS));
        }
    }

    @Test(dataProvider = "withAxes")
    public void categoriesStandInTableOrderInEqualPlacesAndThePanelsLineUp(Example example) {
        PlainChart plain = painted(example);
        boolean upright = plain.orientation() == Orientation.VERTICAL;
        Svg svg = Svg.of(Page.of(plain));
        double[] middles = new double[plain.data().rowCount()];
        for (Panel panel : plain.panels()) {
            for (BarGroup group : panel.bars()) {
                for (Series series : group.series()) {
                    List<PlainChart.Bar> bars = plain.bars(group).stream().filter(bar -> bar.series() == series && bar.start() != bar.end() && series.fill().isPresent())
                            .toList();
                    List<Rectangle2D> drawn = series.fill().map(svg::filled).orElse(List.of()).stream()
                            .sorted(Comparator.comparingDouble(place -> upright ? place.getCenterX() : place.getCenterY())).toList();
                    for (int i = 0; i < drawn.size(); i++) {
                        double middle = upright ? drawn.get(i).getCenterX() : drawn.get(i).getCenterY();
                        int row = bars.get(i).row();
                        if (middles[row] != 0) {
                            assertThat(middle).as("row %s", row).isCloseTo(middles[row], within(0.01));
                        }
                        middles[row] = middle;
                    }
                }
            }
        }
        List<Integer> rows = Stream.iterate(0, row -> row + 1).limit(middles.length).filter(row -> middles[row] > 0).toList();
        double step = (middles[rows.get(rows.size() - 1)] - middles[rows.get(0)]) / Math.max(1, rows.get(rows.size() - 1) - rows.get(0));
        rows.forEach(row -> assertThat(middles[row]).isCloseTo(middles[rows.get(0)] + (row - rows.get(0)) * step, within(PIXELS)));
    }

    @Test(dataProvider = "rings")
    public void everySliceOfARingStartsAndEndsAtItsAngle(Example example) {
        PlainChart plain = painted(example);
        Ring ring = (Ring) plain.drawing();
        Svg svg = Svg.of(Page.of(plain));
        List<Ring.Slice> slices = ring.tracks().stream().flatMap(track -> plain.slices(ring, track).stream()).filter(slice -> slice.series().isSeen()).toList();
        List<List<Svg.Step>> paths = slices.stream().map(slice -> svg.paths("fill", slice.series().fill().orElseThrow()).stream()
                .filter(path -> path.stream().anyMatch(step -> step.letter() == 'C')).toList()).peek(found -> assertThat(found).hasSize(1)).map(found -> found.get(0)).toList();
        Point2D centre = centre(slices, paths);
        for (int i = 0; i < slices.size(); i++) {
            List<Svg.Step> path = paths.get(i);
            int turn = path.indexOf(path.stream().filter(step -> step.letter() == 'L').findFirst().orElse(path.get(path.size() / 2)));
            double from = angle(centre, path.get(0).end());
            double swept = 0;
            for (int step = 1; step < turn; step++) {
                swept += (angle(centre, path.get(step).end()) - angle(centre, path.get(step - 1).end()) + 720) % 360;
            }
            if (slices.get(i).sweep() < 360) {
                assertThat((from - slices.get(i).start() + 540) % 360 - 180).as("start of " + slices.get(i).series().column()).isCloseTo(0, within(DEGREES));
                assertThat(swept).isCloseTo(slices.get(i).sweep(), within(DEGREES));
            }
        }
        assertThat(Stream.of("path", "rect").flatMap(kind -> svg.elements(kind).stream()).filter(GeometryTest::isSeen).count()).as("hidden slices leave no trace")
                .isEqualTo(slices.size());
    }

    /** Where the two straight edges of a slice would meet; the middle of the bounds where there is none. */
    private static Point2D centre(List<Ring.Slice> slices, List<List<Svg.Step>> paths) {
        for (int i = 0; i < slices.size(); i++) {
            if (slices.get(i).sweep() > 5 && slices.get(i).sweep() < 175) {
                List<Svg.Step> path = paths.get(i);
                int turn = path.indexOf(path.stream().filter(step -> step.letter() == 'L').findFirst().orElseThrow());
                Line2D first = new Line2D.Double(path.get(0).end(), path.get(path.size() - 1).end());
                Line2D second = new Line2D.Double(path.get(turn - 1).end(), path.get(turn).end());
                double dx = first.getX2() - first.getX1();
                double dy = first.getY2() - first.getY1();
                double ex = second.getX2() - second.getX1();
                double ey = second.getY2() - second.getY1();
                double along = ((second.getX1() - first.getX1()) * ey - (second.getY1() - first.getY1()) * ex) / (dx * ey - dy * ex);
                return new Point2D.Double(first.getX1() + along * dx, first.getY1() + along * dy);
            }
        }
        return new Point2D.Double();
    }

    /** Degrees clockwise from the top. */
    private static double angle(Point2D centre, Point2D point) {
        return (Math.toDegrees(Math.atan2(point.getX() - centre.getX(), centre.getY() - point.getY())) + 360) % 360;
    }

    @Test(dataProvider = "all")
    public void noTextLiesOnAnotherOrPastTheEdge(Example example) {
        List<Rectangle2D> places = Svg.of(Page.of(example.plain())).textPlaces();
        for (int i = 0; i < places.size(); i++) {
            assertThat(new Rectangle2D.Double(0, 0, 1280, 800).contains(places.get(i))).as("text %s is on the page", i).isTrue();
            for (int j = i + 1; j < places.size(); j++) {
                assertThat(places.get(i).intersects(places.get(j))).as("texts %s and %s", i, j).isFalse();
            }
        }
    }
}
