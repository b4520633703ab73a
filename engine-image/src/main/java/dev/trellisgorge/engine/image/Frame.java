package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import java.awt.Font;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Rectangle2D;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.LegendItem;
import org.jfree.chart.LegendItemCollection;
import org.jfree.chart.block.BlockBorder;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.title.LegendTitle;
import org.jfree.chart.title.TextTitle;
import org.jfree.chart.ui.HorizontalAlignment;
import org.jfree.chart.ui.RectangleEdge;
import org.jfree.chart.ui.VerticalAlignment;
import org.jfree.chart.ui.RectangleInsets;

/** What is around every drawing: paper, title, subtitle, and a legend where the labels do not say it all. */
final class Frame {
    private final PlainChart plain;
    private final double text;

    /** @param text the size of what has no size of its own, in pixels */
    Frame(PlainChart plain, double text) {
        this.plain = plain;
        this.text = text;
    }

    double text() {
        return text;
    }

    private static final int MOST_LINES = 3;

    JFreeChart around(Plot plot) {
        JFreeChart chart = new JFreeChart(null, null, plot, false);
        chart.setBackgroundPaint(Ink.awt(Role.PAPER));
        chart.setPadding(new RectangleInsets(text * 1.2, text * 1.6, text * 1.2, text * 1.6));
        if (!plain.title().isEmpty()) {
            chart.setTitle(line(plain.title(), font(Purpose.TITLE, text * 1.7, true), text * 0.3));
        }
        if (!plain.subtitle().isEmpty()) {
            chart.addSubtitle(line(plain.subtitle(), font(Purpose.SUBTITLE, text * 1.05, false), text * 0.5));
        }
        LegendItemCollection items = legendItems();
        if (items.getItemCount() > 0) {
            chart.addSubtitle(legend(items));
        }
        return chart;
    }

    /** The font for a purpose, where a size or weight was asked for; else of the usual ones. */
    private Font font(Purpose purpose, double usual, boolean strong) {
        return Fonts.of(plain.looks(), purpose, usual, strong);
    }

    private LegendTitle legend(LegendItemCollection items) {
        LegendTitle legend = new LegendTitle(() -> items);
        legend.setPosition(edge());
        legend.setHorizontalAlignment(HorizontalAlignment.LEFT);
        legend.setVerticalAlignment(VerticalAlignment.TOP);
        legend.setItemFont(Scripts.able(font(Purpose.LEGEND, text, false), plain.series().stream().filter(Series::inLegend).map(Series::name).toList()));
        legend.setItemPaint(Ink.awt(Role.INK));
        legend.setFrame(BlockBorder.NONE);
        legend.setItemLabelPadding(new RectangleInsets(2, 4, 2, text));
        legend.setLegendItemGraphicPadding(new RectangleInsets(2, 0, 2, 2));
        RectangleEdge edge = legend.getPosition();
        legend.setMargin(edge == RectangleEdge.BOTTOM ? text * 0.6 : 0, edge == RectangleEdge.RIGHT ? text : 0, edge == RectangleEdge.TOP ? text * 0.6 : 0, edge == RectangleEdge.LEFT ? text : 0);
        return legend;
    }

    private RectangleEdge edge() {
        return switch (plain.looks().legend().orElse(Looks.Legend.TOP)) {
            case BOTTOM -> RectangleEdge.BOTTOM;
            case LEFT -> RectangleEdge.LEFT;
            case RIGHT -> RectangleEdge.RIGHT;
            case TOP, NONE -> RectangleEdge.TOP;
        };
    }

    private HorizontalAlignment alignment() {
        return switch (plain.looks().titleAt().orElse(Looks.Align.LEFT)) {
            case LEFT -> HorizontalAlignment.LEFT;
            case CENTRE -> HorizontalAlignment.CENTER;
            case RIGHT -> HorizontalAlignment.RIGHT;
        };
    }

    private TextTitle line(String words, Font font, double below) {
        TextTitle title = new TextTitle(words, Scripts.able(font, words));
        title.setPaint(Ink.awt(Role.INK));
        title.setHorizontalAlignment(alignment());
        title.setTextAlignment(alignment());
        title.setMargin(0, 0, below, 0);
        title.setMaximumLinesToDisplay(MOST_LINES);
        return title;
    }

    private LegendItemCollection legendItems() {
        LegendItemCollection items = new LegendItemCollection();
        double side = text * 0.8;
        Shape square = new Rectangle2D.Double(-side / 2, -side / 2, side, side);
        Shape dash = new Rectangle2D.Double(-side / 2, -side / 10, side, side / 5);
        Shape dot = new Ellipse2D.Double(-side * 0.4, -side * 0.4, side * 0.8, side * 0.8);
        for (Series series : plain.series()) {
            if (series.inLegend()) {
                items.add(new LegendItem(series.name(), null, null, null, isLine(series) ? dash : isDot(series) ? dot : square,
                        Ink.awt(series.fill().orElseThrow())));
            }
        }
        return items;
    }

    private boolean isLine(Series series) {
        return plain.panels().stream().flatMap((Panel panel) -> panel.lines().stream()).map(Line::series).anyMatch(series::equals);
    }

    private boolean isDot(Series series) {
        return plain.panels().stream().flatMap((Panel panel) -> panel.points().stream()).map(Points::series).anyMatch(series::equals);
    }
}
