package dev.trellisgorge.engine.image;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Size;
import java.awt.Font;
import java.awt.geom.AffineTransform;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** A drawn picture, whose shapes and texts can be measured. */
final class Svg {
    private static final Pattern NUMBER = Pattern.compile("-?[0-9.]+(E-?[0-9]+)?");
    private static final Pattern STEP = Pattern.compile("([MLQC])([^MLQCZ]*)");

    private final Document document;

    private Svg(Document document) {
        this.document = document;
    }

    static Svg of(Page page) {
        return of(page, Size.STANDARD);
    }

    static Svg of(Page page, Size size) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Engines.draw(List.of(page), "svg", Options.of(size), out);
            return new Svg(DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(new ByteArrayInputStream(out.toByteArray())));
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    Element root() {
        return document.getDocumentElement();
    }

    List<Element> elements(String name) {
        NodeList nodes = document.getElementsByTagName(name);
        return IntStream.range(0, nodes.getLength()).mapToObj(i -> (Element) nodes.item(i)).toList();
    }

    List<String> texts() {
        return elements("text").stream().map(Element::getTextContent).toList();
    }

    /** The bounds of each shape with that fill, in drawing order within each kind of shape: rectangles, rounded bars, then ellipses. */
    List<Rectangle2D> filled(Color fill) {
        List<Rectangle2D> found = new ArrayList<>();
        for (Element rect : elements("rect")) {
            if (has(rect, "fill", fill)) {
                found.add(new Rectangle2D.Double(number(rect, "x"), number(rect, "y"), number(rect, "width"), number(rect, "height")));
            }
        }
        paths("fill", fill).stream().filter(path -> path.stream().anyMatch(step -> step.letter() == 'Q')).forEach(path -> found.add(bounds(path.stream().flatMap(step -> step.points().stream()).toList())));
        for (Element dot : elements("ellipse")) {
            if (has(dot, "fill", fill)) {
                found.add(new Rectangle2D.Double(number(dot, "cx") - number(dot, "rx"), number(dot, "cy") - number(dot, "ry"), 2 * number(dot, "rx"),
                        2 * number(dot, "ry")));
            }
        }
        return found;
    }

    /** One step of a path: its letter, and its points, the last of them where it ends. */
    record Step(char letter, List<Point2D> points) {
        Point2D end() {
            return points.get(points.size() - 1);
        }
    }

    /** The paths with that fill or stroke. */
    List<List<Step>> paths(String paint, Color color) {
        List<List<Step>> paths = new ArrayList<>();
        elements("path").stream().filter(path -> has(path, paint, color)).forEach(path -> paths.add(steps(path)));
        return paths;
    }

    private static List<Step> steps(Element path) {
        List<Step> steps = new ArrayList<>();
        Matcher step = STEP.matcher(path.getAttribute("d"));
        while (step.find()) {
            List<Double> numbers = NUMBER.matcher(step.group(2)).results().map(r -> Double.parseDouble(r.group())).toList();
            steps.add(new Step(step.group(1).charAt(0), IntStream.range(0, numbers.size() / 2)
                    .<Point2D>mapToObj(i -> new Point2D.Double(numbers.get(2 * i), numbers.get(2 * i + 1))).toList()));
        }
        return steps;
    }

    /** The larger of a path's width and height. */
    static double size(Element path) {
        Rectangle2D bounds = bounds(steps(path).stream().flatMap(step -> step.points().stream()).toList());
        return Math.max(bounds.getWidth(), bounds.getHeight());
    }

    /** Roughly what each text takes up: its width, and its capitals' height; the other way round where it is turned. */
    List<Rectangle2D> textPlaces() {
        List<Rectangle2D> places = new ArrayList<>();
        for (Element text : elements("text")) {
            if (!text.getTextContent().isBlank()) {
                Matcher size = Pattern.compile("font-size: ?([0-9.]+)px").matcher(text.getAttribute("style"));
                assertThat(size.find()).isTrue();
                double points = Double.parseDouble(size.group(1));
                Font font = text.getAttribute("style").contains("Mono") ? Fonts.glyphs(points) : Fonts.regular(points);
                if (Fonts.width(text.getTextContent(), font) < 2) {
                    continue; // bars of characters that are smaller than a pixel
                }
                Rectangle2D place = new Rectangle2D.Double(number(text, "x"), number(text, "y") - points * 0.62, Fonts.width(text.getTextContent(), font) - 1, points * 0.6);
                places.add(turned((Element) text.getParentNode()).createTransformedShape(place).getBounds2D());
            }
        }
        return places;
    }

    /** The size of each text in pixels, but for bars made of characters. */
    List<Double> textSizes() {
        return elements("text").stream().filter(text -> !text.getAttribute("style").contains("Mono")).map(text -> {
            Matcher size = Pattern.compile("font-size: ?([0-9.]+)px").matcher(text.getAttribute("style"));
            assertThat(size.find()).isTrue();
            return Double.parseDouble(size.group(1));
        }).toList();
    }

    private static AffineTransform turned(Element group) {
        Matcher matrix = Pattern.compile("matrix\\(([^)]*)\\)").matcher(group.getAttribute("transform"));
        return matrix.find() ? new AffineTransform(Arrays.stream(matrix.group(1).split(",")).mapToDouble(Double::parseDouble).toArray()) : new AffineTransform();
    }

    private static Rectangle2D bounds(List<Point2D> points) {
        Rectangle2D bounds = new Rectangle2D.Double(points.get(0).getX(), points.get(0).getY(), 0, 0);
        points.forEach(bounds::add);
        return bounds;
    }

    /** Whether something can be seen of an element's fill or stroke, in that colour. */
    static boolean has(Element element, String paint, Color color) {
        String style = style(element);
        return style.contains(String.format(Locale.ROOT, "%s:rgb(%d,%d,%d)", paint, color.red(), color.green(), color.blue()))
                && !style.contains(paint + "-opacity:0");
    }

    /** An element's looks: its own, or those of the group around it. */
    static String style(Element element) {
        return element.getAttribute("style").isEmpty() && element.getParentNode() instanceof Element group ? group.getAttribute("style") : element.getAttribute("style");
    }

    private static double number(Element element, String attribute) {
        return Double.parseDouble(element.getAttribute(attribute));
    }
}
