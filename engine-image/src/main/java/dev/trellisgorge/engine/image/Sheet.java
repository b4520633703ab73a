package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.engine.Tile;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jfree.chart.ChartRenderingInfo;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.ui.RectangleInsets;

/** A page drawn on a surface: the tiles on their grid, each on its own ground. */
final class Sheet {
    private static final double LEAST_SHARE = 0.6;
    private static final java.awt.Color STAMP = new java.awt.Color(0xB0, 0x10, 0x30, 0x66);

    private final Page page;
    private final double width;
    private final double height;
    private final Omitted omitted;

    Sheet(Page page, double width, double height, Omitted omitted) {
        this.page = page;
        this.width = width;
        this.height = height;
        this.omitted = omitted;
    }

    void draw(Graphics2D g) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        g.setColor(Ink.awt(Role.PAPER));
        g.fill(new Rectangle2D.Double(0, 0, width, height));
        double text = Ink.textSize(width, height);
        Font title = Fonts.of(page.looks(), Purpose.TITLE, text * 1.9, true);
        Font subtitle = Fonts.of(page.looks(), Purpose.SUBTITLE, text * 1.05, false);
        double titled = page.title().isEmpty() ? 0 : text * 1.3 + title.getSize2D();
        double top = titled + (page.subtitle().isEmpty() ? 0 : text * 0.65 + subtitle.getSize2D());
        double foot = page.source().isEmpty() ? 0 : text * 1.8;
        Map<Page.Place, Rectangle2D> rooms = rooms(top, foot);
        // The lines of the page start where those of its tiles do.
        double edge = page.tiles().size() == 1 ? text * 1.6 : 1.6 * rooms.entrySet().stream().filter(place -> place.getKey().column() == 0)
                .mapToDouble(place -> Ink.textSize(place.getValue().getWidth(), place.getValue().getHeight())).max().orElse(text);
        g.setColor(Ink.awt(Role.INK));
        write(g, page.title(), title, width - 2 * edge, edge, titled - text * 0.6);
        write(g, page.subtitle(), subtitle, width - 2 * edge, edge, top - text * 0.6);
        write(g, page.source(), Fonts.regular(Math.max(Ink.SMALLEST_TEXT, text * 0.8)), width - 2 * edge, edge, height - text * 0.7);
        Map<Page.Place, RectangleInsets> even = new EvenPlots(rooms, this::plotted).insets();
        rooms.forEach((place, room) -> draw(g, place.tile(), room, even.getOrDefault(place, RectangleInsets.ZERO_INSETS)));
    }

    /** Where the tiles stand between what is above and below them. */
    private Map<Page.Place, Rectangle2D> rooms(double top, double foot) {
        List<Double> heights = page.heights();
        double unit = (height - top - foot) / heights.stream().mapToDouble(Double::doubleValue).sum();
        double tileWidth = width / page.columns();
        Map<Page.Place, Rectangle2D> rooms = new LinkedHashMap<>();
        for (Page.Place place : page.places()) {
            double above = heights.stream().limit(place.row()).mapToDouble(Double::doubleValue).sum() * unit;
            double high = heights.stream().skip(place.row()).limit(place.span().rows()).mapToDouble(Double::doubleValue).sum() * unit;
            rooms.put(place, new Rectangle2D.Double(place.column() * tileWidth, top + above, place.span().columns() * tileWidth, high));
        }
        return rooms;
    }

    private void draw(Graphics2D g, Tile tile, Rectangle2D place, RectangleInsets even) {
        if (tile instanceof Tile.OfFigure figure) {
            figure(g, figure, place);
        } else {
            ((Tile.OfChart) tile).parts().forEach(chart -> chart(g, chart, place, even));
        }
    }

    /** Where the bars of a chart come to stand within its place. */
    private Rectangle2D plotted(PlainChart chart, Rectangle2D place) {
        Graphics2D nowhere = new BufferedImage(1, 1, BufferedImage.TYPE_INT_RGB).createGraphics();
        nowhere.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        ChartRenderingInfo info = new ChartRenderingInfo(null);
        build(chart, place.getWidth(), place.getHeight(), RectangleInsets.ZERO_INSETS, new Omitted()).draw(nowhere, new Rectangle2D.Double(0, 0, place.getWidth(), place.getHeight()), info);
        nowhere.dispose();
        return info.getPlotInfo().getDataArea();
    }

    /** A chart draws at the origin, so that every place on a grid gets the same picture. */
    private void chart(Graphics2D g, PlainChart chart, Rectangle2D place, RectangleInsets even) {
        AffineTransform before = g.getTransform();
        g.translate(place.getX(), place.getY());
        JFreeChart drawn = build(chart, place.getWidth(), place.getHeight(), even, omitted);
        drawn.draw(g, new Rectangle2D.Double(0, 0, place.getWidth(), place.getHeight()));
        chart.stamp().ifPresent(words -> stamp(g, words, place.getWidth(), place.getHeight()));
        g.setTransform(before);
    }

    private static JFreeChart build(PlainChart chart, double width, double height, RectangleInsets even, Omitted omitted) {
        Frame frame = new Frame(chart, Ink.textSize(width, height));
        return chart.drawing().matched(panels -> frame.around(new PanelsPlot(chart, width, height, frame.text(), even, omitted).build()), ring -> frame.around(new RingPlot(chart, ring, frame.text())),
                texts -> frame.around(new TextPlot(chart, texts, frame.text(), omitted)));
    }

    private void figure(Graphics2D g, Tile.OfFigure tile, Rectangle2D place) {
        double text = Ink.textSize(place.getWidth(), place.getHeight());
        double room = place.getWidth() - text * 3.2;
        double left = place.getX() + text * 1.6;
        g.setColor(Ink.awt(Role.INK));
        Font titled = Fonts.of(page.looks(), Purpose.TITLE, text * 1.4, true);
        double head = text * 1.4 + titled.getSize2D();
        write(g, tile.title(), titled, room, left, place.getY() + head);
        String figure = tile.written().isEmpty() ? "no figure" : tile.written();
        Font below = Fonts.of(page.looks(), Purpose.SUBTITLE, text, false);
        double under = text * 0.6 + below.getSize2D() * 1.3;
        double big = Math.max(Ink.SMALLEST_TEXT, Math.min(Math.min(text * 6, place.getHeight() * 0.4), (place.getHeight() - head - under - text * 0.4) * 0.9));
        Font font = fitting(figure, Scripts.able(Fonts.strong(big), figure), room);
        g.setFont(font);
        g.setColor(Ink.awt(Role.BASE));
        double base = place.getY() + head + text * 0.4 + (place.getHeight() - head - text * 3.2) * 0.5 + font.getSize2D() * 0.35;
        base = Math.min(base, place.getMaxY() - under - font.getSize2D() * 0.25); // large words below it push it up
        g.drawString(figure, (float) (left + shift(Fonts.width(figure, font), room)), (float) base);
        g.setColor(Ink.awt(Role.INK));
        write(g, tile.text(), below, room, left, base + font.getSize2D() * 0.25 + text * 0.6 + below.getSize2D());
    }

    /** A line in a size that fits, no smaller than three fifths and than can be read; cut where that is still too long. */
    private void write(Graphics2D g, String words, Font font, double room, double x, double y) {
        if (words.isEmpty()) {
            return;
        }
        Font able = Scripts.able(font, words);
        Font fitting = fitting(words, able, room);
        Font readable = Fonts.sized(able, Math.max(fitting.getSize2D(), Math.min(able.getSize2D(), Math.max(Ink.SMALLEST_TEXT, able.getSize2D() * LEAST_SHARE))));
        g.setFont(readable);
        String seen = readable.getSize2D() > fitting.getSize2D() ? Fonts.cut(words, readable, room) : words;
        g.drawString(seen, (float) (x + shift(Fonts.width(seen, readable), room)), (float) y);
    }

    /** How far from the left of its room a line starts, to stand where titles do. */
    private double shift(double wide, double room) {
        return switch (page.looks().titleAt().orElse(Looks.Align.LEFT)) {
            case LEFT -> 0;
            case CENTRE -> (room - wide) / 2;
            case RIGHT -> room - wide;
        };
    }

    private static Font fitting(String words, Font font, double room) {
        double wide = Fonts.width(words, font);
        return wide <= room ? font : Fonts.sized(font, font.getSize2D() * room / wide);
    }

    private static void stamp(Graphics2D g, String words, double width, double height) {
        AffineTransform upright = g.getTransform();
        Font font = fitting(words, Fonts.strong(height / 8), width * 0.85);
        Rectangle2D bounds = font.getStringBounds(words, g.getFontRenderContext());
        g.rotate(-Math.atan2(height, width) / 2, width / 2, height / 2);
        g.setFont(font);
        g.setColor(STAMP);
        g.drawString(words, (float) (width - bounds.getWidth()) / 2, (float) (height + bounds.getHeight() / 2) / 2);
        g.setTransform(upright);
    }

}
