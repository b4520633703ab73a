package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Size;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import javax.imageio.ImageIO;
import org.jfree.chart.JFreeChart;
import org.jfree.svg.SVGGraphics2D;

/** One chart on its sheet of paper, written in a picture format. */
final class Picture {
    private static final Color STAMP = new Color(0xB0, 0x10, 0x30, 0x66);

    private final PlainChart plain;
    private final Size size;

    Picture(PlainChart plain, Size size) {
        this.plain = plain;
        this.size = size;
    }

    void writePng(OutputStream out) throws IOException {
        BufferedImage image = new BufferedImage(size.width(), size.height(), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        draw(g);
        g.dispose();
        ImageIO.setUseCache(false);
        ImageIO.write(image, "png", out);
    }

    void writeSvg(OutputStream out) throws IOException {
        SVGGraphics2D g = new SVGGraphics2D(size.width(), size.height());
        g.setDefsKeyPrefix("gorge");
        g.setFontFunction(Fonts::inStyleSheet);
        draw(g);
        String svg = g.getSVGElement();
        int open = svg.indexOf('>', svg.indexOf("<svg")) + 1;
        out.write(("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + svg.substring(0, open - 1) + " role=\"img\">"
                + "<title>" + escaped(plain.title()) + "</title><desc>" + escaped(plain.alternative()) + "</desc>"
                + svg.substring(open) + "\n").getBytes(StandardCharsets.UTF_8));
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    private void draw(Graphics2D g) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        JFreeChart chart = new BarChart(plain, size).build();
        chart.draw(g, new Rectangle2D.Double(0, 0, size.width(), size.height()));
        plain.stamp().ifPresent(words -> stamp(g, words));
    }

    private void stamp(Graphics2D g, String words) {
        AffineTransform upright = g.getTransform();
        Font font = Fonts.strong(size.height() / 8.0);
        double width = font.getStringBounds(words, g.getFontRenderContext()).getWidth();
        font = font.deriveFont((float) (font.getSize2D() * Math.min(1, size.width() * 0.85 / width)));
        Rectangle2D bounds = font.getStringBounds(words, g.getFontRenderContext());
        g.rotate(-Math.atan2(size.height(), size.width()) / 2, size.width() / 2.0, size.height() / 2.0);
        g.setFont(font);
        g.setColor(STAMP);
        g.setStroke(new BasicStroke(size.height() / 200f));
        g.drawString(words, (float) (size.width() - bounds.getWidth()) / 2, (float) (size.height() + bounds.getHeight() / 2) / 2);
        g.setTransform(upright);
    }

    static Color awt(dev.trellisgorge.chart.Color color) {
        return new Color(color.rgb());
    }

    static Color awt(Role role) {
        return awt(role.color());
    }
}
