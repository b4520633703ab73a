package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.test.Golden;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.Test;
import org.w3c.dom.Element;

/** The shapes and texts of every chart of the gallery, in the order in which they are drawn. */
public class SvgGoldenTest {
    /** Newer runtimes measure some texts differently, and what is beside them moves: there, order, texts and colours are held. */
    private static final int WRITTEN_WITH = 17;
    private static final Size SMALL = new Size(640, 400);
    private static final Pattern FIGURE = Pattern.compile("-?[0-9]*\\.?[0-9]+(?:E-?[0-9]+)?");
    private static final List<String> PLACES = List.of("x", "y", "width", "height", "x1", "y1", "x2", "y2", "cx", "cy", "rx", "ry", "d");

    @Test
    public void galleryLooksAsItDid() {
        List<String> lines = new ArrayList<>();
        for (Gallery.Example example : Gallery.all()) {
            lines.add("== " + example);
            Svg svg = Svg.of(Page.of(example.plain()), SMALL);
            svg.elements("*").stream().filter(element -> List.of("rect", "path", "line", "ellipse", "text").contains(element.getTagName())).map(SvgGoldenTest::line).forEach(lines::add);
        }
        Golden.check("gallery.svg.txt", lines, Runtime.version().feature() == WRITTEN_WITH ? 1 : 20);
    }

    private static String line(Element element) {
        StringBuilder line = new StringBuilder(element.getTagName());
        PLACES.stream().filter(element::hasAttribute).forEach(name -> line.append(' ').append(rounded(element.getAttribute(name))));
        Matcher matrix = Pattern.compile("matrix\\(([^)]*)\\)").matcher(((Element) element.getParentNode()).getAttribute("transform"));
        if (element.getTagName().equals("text") && matrix.find()) {
            line.append(" by ").append(rounded(matrix.group(1)));
        }
        String style = Svg.style(element);
        Matcher looks = Pattern.compile("(fill|stroke|stroke-dasharray|fill-opacity|stroke-opacity|stroke-width|font-weight): ?([^;]*)").matcher(style);
        while (looks.find()) {
            line.append(' ').append(looks.group(1)).append('=').append(looks.group(2).replace(" ", ""));
        }
        return element.getTagName().equals("text") ? line + " '" + element.getTextContent() + "'" : line.toString();
    }

    private static String rounded(String places) {
        return FIGURE.matcher(places).replaceAll(figure -> String.valueOf(Math.round(Double.parseDouble(figure.group()))));
    }
}
