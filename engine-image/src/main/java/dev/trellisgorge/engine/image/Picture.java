package dev.trellisgorge.engine.image;

import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Tile;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.jfree.svg.SVGGraphics2D;

/** One page, written as a picture. */
final class Picture {
    private final Page page;
    private final Size size;
    private final Omitted omitted;

    Picture(Page page, Size size, Omitted omitted) {
        this.page = page;
        this.size = size;
        this.omitted = omitted;
    }

    void writePng(OutputStream out) throws IOException {
        BufferedImage image = new BufferedImage(size.width(), size.height(), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        new Sheet(page, size.width(), size.height(), omitted).draw(g);
        g.dispose();
        ImageIO.setUseCache(false);
        ImageIO.write(image, "png", out);
    }

    void writeSvg(OutputStream out) throws IOException {
        SVGGraphics2D g = new SVGGraphics2D(size.width(), size.height());
        g.setDefsKeyPrefix("gorge");
        g.setFontFunction(Fonts::inStyleSheet);
        new Sheet(page, size.width(), size.height(), omitted).draw(g);
        String svg = g.getSVGElement();
        int open = svg.indexOf('>', svg.indexOf("<svg")) + 1;
        out.write(("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + svg.substring(0, open - 1) + " role=\"img\">"
                + "<title>" + escaped(page.listed()) + "</title><desc>" + escaped(alternative(page)) + "</desc><style>" + Fonts.styleSheet(svg) + "</style>"
                + svg.substring(open) + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** What the page shows, in words and figures. */
    static String alternative(Page page) {
        List<String> told = new ArrayList<>();
        for (Tile tile : page.tiles()) {
            if (tile instanceof Tile.OfFigure figure) {
                told.add((figure.title() + " " + figure.written() + ". " + figure.text()).strip());
            } else {
                ((Tile.OfChart) tile).parts().stream().map(PlainChart::alternative).forEach(told::add);
            }
        }
        return String.join(" ", told);
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}
