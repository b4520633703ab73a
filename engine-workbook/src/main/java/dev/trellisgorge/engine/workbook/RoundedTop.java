package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.sheet.SheetChart;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/**
 * The end of a bar with round corners, as a picture that fills a piece of a native chart: the pieces of such a chart are boxes alone. It is
 * drawn for the size that the piece has now, so that its corners are circles until that is changed.
 */
final class RoundedTop {
    /** Of the width of a bar. */
    private static final double RADIUS = 0.45;
    private static final int PIXELS = 240;
    private static final int MOST = 4_000;

    private RoundedTop() {
    }

    /**
     * What fills a piece.
     *
     * @param height  of the piece, as a share of its width across the bar
     * @param upright whether the bar stands
     * @param back    whether it goes down or to the left
     */
    static SheetChart.Fill fill(Color color, double height, boolean upright, boolean back) {
        int along = (int) Math.max(2, Math.min(MOST, Math.round(PIXELS * height)));
        return new SheetChart.Fill.Picture(drawn(PIXELS, along, color, upright, back));
    }

    private static byte[] drawn(int across, int along, Color color, boolean upright, boolean back) {
        BufferedImage picture = new BufferedImage(upright ? across : along, upright ? along : across, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = picture.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(new java.awt.Color(color.red(), color.green(), color.blue()));
        if (upright && back) {
            g.scale(1, -1);
            g.translate(0, -along);
        } else if (!upright) {
            g.rotate(back ? -Math.PI / 2 : Math.PI / 2);
            g.translate(back ? -across : 0, back ? 0 : -along);
        }
        double radius = Math.min(across * RADIUS, along);
        double bend = radius * 0.5523; // of a curve that is nearly a quarter of a circle
        Path2D top = new Path2D.Double();
        top.moveTo(0, along);
        top.lineTo(0, radius);
        top.curveTo(0, radius - bend, radius - bend, 0, radius, 0);
        top.lineTo(across - radius, 0);
        top.curveTo(across - radius + bend, 0, across, radius - bend, across, radius);
        top.lineTo(across, along);
        top.closePath();
        g.fill(top);
        g.dispose();
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        try {
            ImageIO.write(picture, "png", png);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return png.toByteArray();
    }
}
