package dev.trellisgorge.engine.image;

import static dev.trellisgorge.engine.image.Picture.awt;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.table.Column;
import java.awt.BasicStroke;
import dev.trellisgorge.chart.Color;
import java.awt.Font;
import java.awt.font.FontRenderContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.LegendItem;
import org.jfree.chart.LegendItemCollection;
import org.jfree.chart.axis.AxisLocation;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.axis.CategoryLabelPositions;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.block.BlockBorder;
import org.jfree.chart.plot.CategoryPlot;
import org.jfree.chart.plot.DatasetRenderingOrder;
import org.jfree.chart.plot.PlotOrientation;
import org.jfree.chart.plot.ValueMarker;
import org.jfree.chart.renderer.category.BarRenderer;
import org.jfree.chart.renderer.category.StackedBarRenderer;
import org.jfree.chart.renderer.category.StandardBarPainter;
import org.jfree.chart.title.LegendTitle;
import org.jfree.chart.text.TextUtils;
import org.jfree.chart.title.TextTitle;
import org.jfree.chart.ui.HorizontalAlignment;
import org.jfree.chart.ui.Layer;
import org.jfree.chart.ui.RectangleAnchor;
import org.jfree.chart.ui.RectangleEdge;
import org.jfree.chart.ui.RectangleInsets;
import org.jfree.chart.ui.TextAnchor;
import org.jfree.data.category.DefaultCategoryDataset;

/** Translates a plain chart of bars into the drawing library's terms. */
final class BarChart {
    private static final FontRenderContext METRICS = new FontRenderContext(null, true, true);
    private static final double SMALLEST_TEXT = 9;
    private static final java.awt.Color UNSEEN = new java.awt.Color(0, true);
    private static final double WIDEST_BAR = 0.13;

    static {
        TextUtils.setUseDrawRotatedStringWorkaround(false); // turned text stays text, not shapes
    }

    private final PlainChart plain;
    private final Size size;
    private final boolean upright;
    private final double text;

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

    BarChart(PlainChart plain, Size size) {
        this.plain = plain;
        this.size = size;
        this.upright = plain.orientation() == Orientation.VERTICAL;
        this.text = Math.max(SMALLEST_TEXT, Math.min(size.width(), size.height() * 1.6) / 1280.0 * 18);
    }

    JFreeChart build() {
        Panel panel = plain.panels().get(0);
        CategoryPlot plot = new CategoryPlot();
        plot.setOrientation(upright ? PlotOrientation.VERTICAL : PlotOrientation.HORIZONTAL);
        plot.setBackgroundPaint(awt(Role.PAPER));
        plot.setOutlineVisible(false);
        plot.setDomainGridlinesVisible(false);
        plot.setRangeGridlinesVisible(false);
        plot.setInsets(RectangleInsets.ZERO_INSETS);
        plot.setAxisOffset(RectangleInsets.ZERO_INSETS);
        plot.setDatasetRenderingOrder(DatasetRenderingOrder.FORWARD);
        plot.setDomainAxis(categories(panel));
        plot.setRangeAxis(values(panel));
        plot.setRangeAxisLocation(AxisLocation.BOTTOM_OR_LEFT);
        boolean baselineInside = plot.getRangeAxis().getLowerBound() < 0;
        plot.getDomainAxis().setAxisLineVisible(!baselineInside);
        plot.setRangeZeroBaselineVisible(baselineInside);
        plot.setRangeZeroBaselinePaint(awt(Role.INK));
        plot.setRangeZeroBaselineStroke(new BasicStroke(1.2f));
        panel.bars().forEach(group -> add(group, plot));
        panel.lines().forEach(line -> plot.addRangeMarker(marker(line, panel), Layer.FOREGROUND));
        panel.bars().forEach(group -> plot.addAnnotation(labels(group)));
        plot.setFixedLegendItems(legendItems());
        return framed(plot);
    }

    private JFreeChart framed(CategoryPlot plot) {
        JFreeChart chart = new JFreeChart(null, null, plot, false);
        chart.setBackgroundPaint(awt(Role.PAPER));
        chart.setPadding(new RectangleInsets(text * 1.2, text * 1.6, text * 1.2, text * 1.6));
        if (!plain.title().isEmpty()) {
            chart.setTitle(line(plain.title(), Fonts.strong(text * 1.7), text * 0.3));
        }
        if (!plain.subtitle().isEmpty()) {
            chart.addSubtitle(line(plain.subtitle(), Fonts.regular(text * 1.05), text * 0.5));
        }
        if (plot.getFixedLegendItems().getItemCount() > 0) {
            LegendTitle legend = new LegendTitle(plot);
            legend.setPosition(RectangleEdge.TOP);
            legend.setHorizontalAlignment(HorizontalAlignment.LEFT);
            legend.setItemFont(Fonts.regular(text));
            legend.setItemPaint(awt(Role.INK));
            legend.setFrame(BlockBorder.NONE);
            legend.setItemLabelPadding(new RectangleInsets(2, 4, 2, text));
            legend.setLegendItemGraphicPadding(new RectangleInsets(2, 0, 2, 2));
            legend.setMargin(0, 0, text * 0.6, 0);
            chart.addSubtitle(legend);
        }
        return chart;
    }

    private TextTitle line(String words, Font font, double below) {
        TextTitle title = new TextTitle(words, font);
        title.setPaint(awt(Role.INK));
        title.setHorizontalAlignment(HorizontalAlignment.LEFT);
        title.setTextAlignment(HorizontalAlignment.LEFT);
        title.setMargin(0, 0, below, 0);
        return title;
    }

    private LegendItemCollection legendItems() {
        LegendItemCollection items = new LegendItemCollection();
        double side = text * 0.8;
        for (Series series : plain.series()) {
            if (series.inLegend()) {
                items.add(new LegendItem(series.name(), null, null, null,
                        new java.awt.geom.Rectangle2D.Double(-side / 2, -side / 2, side, side), awt(series.fill().orElseThrow())));
            }
        }
        return items;
    }

    private CategoryAxis categories(Panel panel) {
        CategoryAxis axis = new CategoryAxis();
        int count = Math.max(1, plain.data().rowCount());
        double gap = panel.bars().stream().mapToDouble(BarGroup::gap).max().orElse(0);
        double room = markerRoom(panel) / along();
        double bar = (1 - room) / (count * (1 + gap));
        axis.setLowerMargin(bar * gap / 2 + (upright ? 0 : room));
        axis.setUpperMargin(bar * gap / 2 + (upright ? room : 0));
        axis.setCategoryMargin(count == 1 ? 0 : bar * gap * (count - 1));
        axis.setAxisLinePaint(awt(Role.INK));
        axis.setAxisLineStroke(new BasicStroke(1.2f));
        axis.setTickMarksVisible(false);
        axis.setTickLabelPaint(awt(Role.INK));
        axis.setMaximumCategoryLabelWidthRatio(upright ? (float) (0.96 * (1 + gap)) : 0.9f);
        fitCategoryText(axis, count);
        return axis;
    }

    /** Wraps names that fit their place word by word; shrinks the rest, and turns them where that is not enough. */
    private void fitCategoryText(CategoryAxis axis, int count) {
        List<String> names = new ArrayList<>();
        for (int row = 0; row < plain.data().rowCount(); row++) {
            names.add(plain.data().category().written(row));
        }
        axis.setMaximumCategoryLabelLines(upright ? 3 : 2);
        if (!upright) {
            double tallest = size.height() * 0.8 / count * 0.9;
            axis.setTickLabelFont(Fonts.regular(Math.max(SMALLEST_TEXT, Math.min(text, tallest))));
            return;
        }
        double slot = along() / count * 0.94;
        double widestWord = names.stream().flatMap(name -> Arrays.stream(name.split(" ")))
                .mapToDouble(word -> width(word, Fonts.regular(text))).max().orElse(0);
        double fitted = text * Math.min(1, slot / Math.max(1, widestWord));
        if (fitted >= Math.max(SMALLEST_TEXT, text * 0.7)) {
            axis.setTickLabelFont(Fonts.regular(fitted));
        } else {
            axis.setTickLabelFont(Fonts.regular(Math.max(SMALLEST_TEXT, Math.min(text * 0.9, slot * 1.1))));
            axis.setCategoryLabelPositions(CategoryLabelPositions.UP_90);
        }
    }

    private NumberAxis values(Panel panel) {
        NumberAxis axis = new NumberAxis();
        axis.setAutoRangeIncludesZero(true);
        axis.setVisible(panel.valueAxisShown());
        axis.setAxisLineVisible(false);
        axis.setTickMarksVisible(false);
        axis.setTickLabelFont(Fonts.regular(text * 0.85));
        axis.setTickLabelPaint(awt(Role.INK));
        double lowest = 0;
        double highest = 0;
        for (BarGroup group : panel.bars()) {
            for (PlainChart.Bar bar : plain.bars(group)) {
                lowest = Math.min(lowest, bar.end());
                highest = Math.max(highest, bar.end());
            }
        }
        for (ReferenceLine line : panel.lines()) {
            lowest = Math.min(lowest, line.value());
            highest = Math.max(highest, line.value());
        }
        if (panel.even()) {
            highest = Math.max(highest, -lowest);
            lowest = -highest;
        }
        double span = highest == lowest ? 1 : highest - lowest;
        double room = labelRoom(panel);
        axis.setRange(lowest < 0 ? lowest - span * room : 0, highest > 0 || lowest == 0 ? highest + span * room : 0);
        return axis;
    }

    /** The room past the ends of the bars that their labels need, as a share of what the bars take up. */
    private double labelRoom(Panel panel) {
        double needed = panel.bars().stream().mapToDouble(group -> labels(group).room()).max().orElse(0);
        double axis = upright ? size.height() * 0.7 : size.width() * 0.85;
        return Math.min(1, needed / Math.max(1, axis - needed));
    }

    private FigureLabels labels(BarGroup group) {
        int count = Math.max(1, plain.data().rowCount());
        return new FigureLabels(figures(group), count, upright, along() / count, text, SMALLEST_TEXT);
    }

    private void add(BarGroup group, CategoryPlot plot) {
        if (group.placing() == Placing.OVERLAPPING) {
            group.series().forEach(series -> add(List.of(series), new BarRenderer(), plot));
        } else {
            add(group.series(), group.placing() == Placing.STACKED ? new StackedBarRenderer() : new BarRenderer(), plot);
        }
    }

    private void add(List<Series> all, BarRenderer renderer, CategoryPlot plot) {
        DefaultCategoryDataset dataset = new DefaultCategoryDataset();
        for (int i = 0; i < all.size(); i++) {
            Column cells = plain.data().column(all.get(i).column()).cells();
            for (int row = 0; row < plain.data().rowCount(); row++) {
                dataset.addValue(cells.isPresent(row) ? cells.number(row) : null, all.get(i).column(),
                        new Row(row, plain.data().category().written(row)));
            }
            renderer.setSeriesPaint(i, all.get(i).fill().map(Picture::awt).orElse(UNSEEN));
        }
        renderer.setBarPainter(new StandardBarPainter());
        renderer.setShadowVisible(false);
        renderer.setDrawBarOutline(false);
        renderer.setItemMargin(0);
        renderer.setMaximumBarWidth(WIDEST_BAR);
        int index = plot.getRendererCount() == 1 && plot.getDataset(0) == null ? 0 : plot.getDatasetCount();
        plot.setDataset(index, dataset);
        plot.setRenderer(index, renderer);
    }

    /** Each label with the bar that it belongs to. */
    private List<FigureLabels.Figure> figures(BarGroup group) {
        List<PlainChart.Bar> bars = plain.bars(group);
        return bars.stream().filter(bar -> !plain.labelText(bar.series(), bar.row()).isEmpty())
                .map(bar -> new FigureLabels.Figure(bar.row(), bar.start(), bar.end(), plain.labelText(bar.series(), bar.row()),
                        bar.series().label().orElseThrow().at(), onFill(bar.series()),
                        bars.stream().noneMatch(other -> goesOn(bar, other))))
                .toList();
    }

    /** Whether a piece of the same stack lies past the end of a bar. */
    private static boolean goesOn(PlainChart.Bar bar, PlainChart.Bar other) {
        return other != bar && other.row() == bar.row() && other.start() == bar.end() && other.end() != other.start()
                && other.series().fill().isPresent() && other.end() > other.start() == bar.end() >= bar.start();
    }

    private static java.awt.Color onFill(Series series) {
        Color fill = series.fill().orElse(Role.PAPER.color());
        boolean dark = fill.contrast(Role.PAPER.color()) >= fill.contrast(Role.INK.color());
        return awt(dark ? Role.PAPER : Role.INK);
    }

    private ValueMarker marker(ReferenceLine line, Panel panel) {
        ValueMarker marker = new ValueMarker(line.value(), awt(Role.INK),
                new BasicStroke(1.4f, BasicStroke.CAP_BUTT, BasicStroke.JOIN_MITER, 10, new float[] {6, 4}, 0));
        marker.setLabel(words(line, panel));
        marker.setLabelFont(Fonts.strong(text * 0.9));
        marker.setLabelPaint(awt(Role.INK));
        marker.setLabelBackgroundColor(UNSEEN);
        marker.setLabelAnchor(RectangleAnchor.TOP_RIGHT);
        marker.setLabelTextAnchor(upright ? TextAnchor.BOTTOM_RIGHT : TextAnchor.TOP_LEFT);
        return marker;
    }

    private String words(ReferenceLine line, Panel panel) {
        Format format = panel.series().stream().flatMap(s -> s.label().stream()).map(Label::format).findFirst()
                .orElse(new Format("#,##0.##"));
        return line.name() + " " + format.write(line.value());
    }

    /** Pixels kept free along the category axis, so that a line's label lies on no bar. */
    private double markerRoom(Panel panel) {
        if (!upright) {
            return panel.lines().isEmpty() ? 0 : text * 1.8;
        }
        return panel.lines().stream().mapToDouble(line -> width(words(line, panel), Fonts.strong(text * 0.9)) + text)
                .max().orElse(0);
    }

    /** Roughly how many pixels the category axis has. */
    private double along() {
        return upright ? size.width() - text * 3.2 : size.height() * 0.78;
    }

    private static double width(String words, Font font) {
        return font.getStringBounds(words, METRICS).getWidth();
    }
}
