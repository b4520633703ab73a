package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.table.Column;
import java.awt.BasicStroke;
import java.awt.Font;
import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.jfree.chart.axis.AxisLocation;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.axis.CategoryLabelPositions;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.axis.NumberTickUnit;
import org.jfree.chart.plot.CategoryPlot;
import org.jfree.chart.plot.CombinedDomainCategoryPlot;
import org.jfree.chart.plot.DatasetRenderingOrder;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.plot.PlotOrientation;
import org.jfree.chart.plot.ValueMarker;
import org.jfree.chart.renderer.category.BarRenderer;
import org.jfree.chart.renderer.category.CategoryItemRenderer;
import org.jfree.chart.renderer.category.LineAndShapeRenderer;
import org.jfree.chart.renderer.category.StackedBarRenderer;
import org.jfree.chart.text.TextUtils;
import org.jfree.chart.ui.Layer;
import org.jfree.chart.ui.RectangleInsets;
import org.jfree.data.category.DefaultCategoryDataset;

/** Translates the panels of a plain chart into plots that share a category axis. */
final class PanelsPlot {
    private static final double WIDEST_BAR = 0.13;
    private static final int WEIGHT = 1000;
    /** Of a picture's height. */
    private static final double MOST_FOR_TURNED_NAMES = 0.3;
    private static final double BASE_LINE = 1.2;

    static {
        TextUtils.setUseDrawRotatedStringWorkaround(false); // turned text stays text, not shapes
    }

    private final PlainChart plain;
    private final Panels panels;
    private final boolean upright;
    private final RectangleInsets even;
    private final double width;
    private final double height;
    private final double text;
    private final int count;
    private final Omitted omitted;
    private Font nameFont;
    private Font turnedFont;
    private double turnedRoom;
    private double tableWidth;

    /** A category's key: its row, so that two rows can't fall together, shown by its name. */
    private record Row(int at, String name) implements Comparable<Row> {
        @Override
        public int compareTo(Row other) {
            return Integer.compare(at, other.at);
        }

        @Override
        public String toString() {
            return name;
        }
    }

    /**
     * @param even    what the plot leaves free around it, to stand on one grid with others
     * @param omitted told what finds no place
     */
    PanelsPlot(PlainChart plain, double width, double height, double text, RectangleInsets even, Omitted omitted) {
        this.plain = plain;
        this.panels = (Panels) plain.drawing();
        this.upright = plain.orientation() == Orientation.VERTICAL;
        this.width = width - even.getLeft() - even.getRight();
        this.height = height - even.getTop() - even.getBottom();
        this.even = even;
        this.text = text;
        this.omitted = omitted;
        this.count = Math.max(1, plain.data().rowCount());
    }

    Plot build() {
        CombinedDomainCategoryPlot all = new CombinedDomainCategoryPlot(categories());
        all.setGap(upright ? text * 0.8 : 0);
        double shares = panels.panels().stream().mapToDouble(Panel::share).sum();
        for (Panel panel : panels.panels()) {
            all.add(plot(panel), Math.max(1, (int) Math.round(panel.share() / shares * WEIGHT)));
        }
        all.setOrientation(upright ? PlotOrientation.VERTICAL : PlotOrientation.HORIZONTAL);
        bare(all);
        double above = plain.beside().isEmpty() || referenceRoom() > 0 ? 0 : text * 1.9; // for what stands over the columns
        all.setInsets(new RectangleInsets(even.getTop() + above, even.getLeft(), even.getBottom(), even.getRight()));
        if (namedEvery() > 1 && panels.categoriesShown()) {
            omitted.names(plain.name(), namedEvery());
        }
        return all;
    }

    private static void bare(CategoryPlot plot) {
        plot.setBackgroundPaint(null);
        plot.setOutlineVisible(false);
        plot.setInsets(RectangleInsets.ZERO_INSETS);
        plot.setAxisOffset(RectangleInsets.ZERO_INSETS);
    }

    private CategoryPlot plot(Panel panel) {
        CategoryPlot plot = new CategoryPlot();
        bare(plot);
        plot.setDomainGridlinesVisible(false);
        plot.setRangeGridlinesVisible(false);
        plot.setDatasetRenderingOrder(DatasetRenderingOrder.FORWARD);
        plot.setRangeAxis(values(panel));
        plot.setRangeAxisLocation(AxisLocation.BOTTOM_OR_LEFT);
        plot.setRangeZeroBaselineVisible(true);
        plot.setRangeZeroBaselinePaint(Ink.awt(Role.INK));
        plot.setRangeZeroBaselineStroke(new BasicStroke((float) BASE_LINE));
        panel.lines().forEach(line -> add(List.of(line.series()), lines(line), plot));
        panel.bars().forEach(group -> add(group, plot));
        if (panel.bars().isEmpty() && panel.lines().isEmpty()) {
            panel.points().forEach(points -> add(List.of(points.series()), new LineAndShapeRenderer(false, false), plot));
        }
        if (plot.getDataset(0) == null) { // the categories stand there all the same
            add(List.of(), new BarRenderer(), plot);
        }
        panel.references().forEach(line -> plot.addRangeMarker(marker(line), Layer.FOREGROUND));
        plot.addAnnotation(overlay(panel));
        return plot;
    }

    private Overlay overlay(Panel panel) {
        return new Overlay(plain, panel, along() / count, WIDEST_BAR, plain.looks().sizes().getOrDefault(Purpose.LABELS, text), omitted);
    }

    private CategoryAxis categories() {
        CategoryAxis axis = new CategoryAxis();
        if (!plain.beside().isEmpty()) {
            TableAxis table = new TableAxis(plain, width, text, names(lyingText()), namedEvery(), omitted);
            tableWidth = table.width();
            axis = table;
        }
        double gap = panels.panels().stream().flatMap(panel -> panel.bars().stream()).mapToDouble(BarGroup::gap).max().orElse(0);
        double room = referenceRoom() / along();
        double bar = (1 - room) / (count * (1 + gap));
        axis.setLowerMargin(bar * gap / 2 + (upright ? 0 : room));
        axis.setUpperMargin(bar * gap / 2 + (upright ? room : 0));
        axis.setCategoryMargin(count == 1 ? 0 : bar * gap * (count - 1));
        axis.setAxisLineVisible(false);
        axis.setTickMarksVisible(false);
        axis.setTickLabelsVisible(panels.categoriesShown());
        axis.setTickLabelPaint(Ink.awt(Role.INK));
        // The library measures it by what the plot and the axis of figures take together.
        axis.setMaximumCategoryLabelWidthRatio(upright ? (float) (0.96 * (1 + gap) * along() / (along() + axisBeside())) : 0.9f);
        fitCategoryText(axis);
        return axis;
    }

    /** Wraps names that fit their place word by word; shrinks the rest, and turns them where that is not enough. */
    private void fitCategoryText(CategoryAxis axis) {
        List<String> names = IntStream.range(0, plain.data().rowCount()).mapToObj(plain::categoryText).toList();
        axis.setMaximumCategoryLabelLines(upright ? 3 : 2);
        double wanted = plain.looks().sizes().getOrDefault(Purpose.AXIS, text);
        if (!upright) {
            axis.setTickLabelFont(names(lyingText()));
            return;
        }
        double slot = Math.max(1, along() / count * 0.94 - text * 0.35);
        double widestWord = names.stream().flatMap(name -> Arrays.stream(name.split(" ")))
                .mapToDouble(word -> Fonts.width(word, names(wanted))).max().orElse(0);
        double fitted = wanted * Math.min(1, slot / Math.max(1, widestWord));
        if (fitted >= Math.max(Ink.SMALLEST_TEXT, wanted * 0.7)) {
            axis.setTickLabelFont(names(fitted));
        } else {
            axis.setTickLabelFont(names(Math.max(Ink.SMALLEST_TEXT, Math.min(wanted * 0.9, slot * 1.1))));
            axis.setCategoryLabelPositions(CategoryLabelPositions.UP_90);
            turnedRoom = Math.max(Ink.SMALLEST_TEXT * 3, height * MOST_FOR_TURNED_NAMES);
            turnedFont = axis.getTickLabelFont();
        }
    }

    /** How large names beside lying bars may be. */
    private double lyingText() {
        double tallest = height * 0.8 / count * 0.9;
        return Math.max(Ink.SMALLEST_TEXT, Math.min(plain.looks().sizes().getOrDefault(Purpose.AXIS, text), tallest));
    }

    private Font names(double points) {
        if (nameFont == null) {
            Font ours = plain.looks().bold().getOrDefault(Purpose.AXIS, false) ? Fonts.strong(points) : Fonts.regular(points);
            nameFont = Scripts.able(ours, IntStream.range(0, plain.data().rowCount()).mapToObj(plain::categoryText).toList());
        }
        return Fonts.sized(nameFont, points);
    }

    private NumberAxis values(Panel panel) {
        NumberAxis axis = new NumberAxis();
        axis.setVisible(panel.valueAxisShown() || !panel.axis().title().isEmpty());
        axis.setTickLabelsVisible(panel.valueAxisShown());
        axis.setAxisLineVisible(false);
        axis.setTickMarksVisible(false);
        axis.setTickLabelFont(axisFont());
        axis.setNumberFormatOverride(new Written(plain.figures(panel)));
        if (!panel.axis().title().isEmpty()) {
            axis.setLabel(panel.axis().title());
            axis.setLabelFont(Scripts.able(Fonts.of(plain.looks(), Purpose.AXIS, Math.max(Ink.SMALLEST_TEXT, text * 0.9), false), panel.axis().title()));
            axis.setLabelPaint(Ink.awt(Role.INK));
        }
        axis.setTickLabelPaint(Ink.awt(Role.INK));
        axis.setInverted(panel.scale().backwards());
        PlainChart.Extent extent = plain.extent(panel);
        if (panel.scale().covered().isPresent()) {
            double thin = (extent.high() - extent.low()) * BASE_LINE / Math.max(1, across(panel)); // the base line is as wide at an end as within
            axis.setRange(extent.low() == 0 ? -thin : extent.low(), extent.high() == 0 ? thin : extent.high());
            axis.setTickUnit(new NumberTickUnit(step(extent.high() - extent.low())));
            return axis;
        }
        boolean empty = extent.low() == extent.high();
        double span = empty ? 1 : extent.high() - extent.low();
        axis.setTickUnit(new NumberTickUnit(step(span)));
        double pixels = across(panel);
        double room = labelRoom(panel, pixels);
        boolean joined = !upright && panels.panels().size() > 1; // each of two panes draws its half of the line between them
        double line = joined ? 0 : span * BASE_LINE / Math.max(1, pixels);
        boolean down = extent.low() < 0;
        boolean up = extent.high() > 0 || empty || overlay(panel).isOnTheBaseLine();
        double head = upright ? overlay(panel).headingRoom() : 0;
        double above = span * (1 + room) * head / Math.max(1, pixels - head);
        // The base line is as wide where it is an end of the scale as where it is within.
        axis.setRange(down ? extent.low() - span * room : -line, (up ? Math.max(extent.high(), empty ? 1 : 0) + span * room : line) + above);
        return axis;
    }

    /** From one tick to the next: 1, 2 or 5 of some power of ten, so that there are four to nine of them. */
    private static double step(double span) {
        double power = Math.pow(10, Math.floor(Math.log10(span / 4)));
        double share = span / 4 / power;
        return power * (share >= 5 ? 5 : share >= 2 ? 2 : 1);
    }

    /** The room past the ends of the bars that their labels need, as a share of what the bars take up. */
    private double labelRoom(Panel panel, double pixels) {
        double needed = overlay(panel).room();
        return Math.min(1, needed / Math.max(1, pixels - needed * (plain.extent(panel).low() < 0 && plain.extent(panel).high() > 0 ? 2 : 1)));
    }

    private void add(BarGroup group, CategoryPlot plot) {
        if (group.placing() == Placing.OVERLAPPING) {
            group.series().forEach(series -> add(List.of(series), bars(new BarRenderer(), List.of(series)), plot));
        } else {
            add(group.series(), bars(group.placing() == Placing.STACKED ? new StackedBarRenderer() : new BarRenderer(), group.series()), plot);
        }
    }

    private BarRenderer bars(BarRenderer renderer, List<Series> all) {
        renderer.setBarPainter(new SeriesPainter(all, text));
        renderer.setShadowVisible(false);
        renderer.setDrawBarOutline(false);
        renderer.setItemMargin(0);
        renderer.setMaximumBarWidth(WIDEST_BAR);
        return renderer;
    }

    private static CategoryItemRenderer lines(Line line) {
        LineAndShapeRenderer renderer = new LineAndShapeRenderer(true, false);
        renderer.setSeriesPaint(0, Ink.awt(line.series().fill().orElse(Role.INK.color())));
        renderer.setSeriesStroke(0, line.dashed() ? dashes(1.4f) : new BasicStroke(1.2f));
        return renderer;
    }

    private static BasicStroke dashes(float thick) {
        return new BasicStroke(thick, BasicStroke.CAP_BUTT, BasicStroke.JOIN_MITER, 10, new float[] {6, 4}, 0);
    }

    private void add(List<Series> all, CategoryItemRenderer renderer, CategoryPlot plot) {
        DefaultCategoryDataset dataset = new DefaultCategoryDataset();
        int every = namedEvery();
        List<Row> rows = IntStream.range(0, plain.data().rowCount()).mapToObj(row -> new Row(row, row % every == 0 ? name(row) : "")).toList();
        for (Series series : all) {
            Column cells = plain.data().column(series.column());
            rows.forEach(row -> dataset.addValue(cells.isPresent(row.at()) ? cells.number(row.at()) : null, series.column(), row));
        }
        if (all.isEmpty()) {
            rows.forEach(row -> dataset.addValue(null, "", row));
        }
        int index = plot.getDataset(0) == null ? 0 : plot.getDatasetCount();
        plot.setDataset(index, dataset);
        plot.setRenderer(index, renderer);
    }

    /** A category's name; cut where it is turned and would take what the bars need. */
    private String name(int row) {
        return turnedFont == null ? plain.categoryText(row) : Fonts.cut(plain.categoryText(row), turnedFont, turnedRoom);
    }

    /** Where categories stand closer than the smallest text is high, only every so many of them is named. */
    private int namedEvery() {
        return (int) Math.max(1, Math.ceil(Ink.SMALLEST_TEXT * 1.1 * count / along()));
    }

    private ValueMarker marker(ReferenceLine line) {
        return new ValueMarker(plain.level(line), line.color().map(Ink::awt).orElse(Ink.awt(Role.INK)), dashes(1.4f));
    }

    /** Pixels kept free along the category axis, so that a line's label lies on no bar. */
    private double referenceRoom() {
        return panels.panels().stream().map(this::overlay).mapToDouble(over -> Math.max(over.referenceRoom(), upright ? 0 : over.headingRoom())).max().orElse(0);
    }

    /** Roughly how many pixels the category axis has. */
    private double along() {
        return upright ? Math.max(1, width - text * 3.2 - legendBeside() - axisBeside()) : height * 0.78;
    }

    /** What the axis of figures takes of the width where bars stand upright. */
    private double axisBeside() {
        double beside = 0;
        for (Panel panel : upright ? panels.panels() : List.<Panel>of()) {
            PlainChart.Extent extent = plain.extent(panel);
            double figures = !panel.valueAxisShown() ? 0 : text * 0.6 + DoubleStream.of(extent.low(), extent.high()).map(figure -> Fonts.width(plain.figures(panel).write(figure), axisFont())).max().orElse(0);
            beside = Math.max(beside, figures + (panel.axis().title().isEmpty() ? 0 : text * 1.5));
        }
        return beside;
    }

    private Font axisFont() {
        return Fonts.of(plain.looks(), Purpose.AXIS, Math.max(Ink.SMALLEST_TEXT, text * 0.85), false);
    }

    /** What a legend at the left or the right takes of the width. */
    private double legendBeside() {
        boolean beside = plain.looks().legend().filter(at -> at == Looks.Legend.LEFT || at == Looks.Legend.RIGHT).isPresent();
        return !beside ? 0 : plain.series().stream().filter(Series::inLegend).mapToDouble(series -> Fonts.width(series.name(), Fonts.of(plain.looks(), Purpose.LEGEND, text, false)) + text * 3.4).max().orElse(0);
    }

    /** Roughly how many pixels the panel's value axis has. */
    private double across(Panel panel) {
        double shares = panels.panels().stream().mapToDouble(Panel::share).sum();
        return (upright ? height * 0.7 : tableWidth > 0 ? width - text * 3.2 - tableWidth - legendBeside() : width * 0.85 - legendBeside()) * panel.share() / shares;
    }
}
