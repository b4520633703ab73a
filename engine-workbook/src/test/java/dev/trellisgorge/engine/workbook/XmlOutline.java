package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.pattern.Gallery;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/** Parts of packages as text that can be read. */
public final class XmlOutline {
    /** One of each pattern, and those that lie, float or have several panels. */
    private static final Set<String> SHOWN = Set.of("columns 0", "capped columns 2", "to target 0", "marker 0", "range 0", "tornado 1", "columns", "lying columns", "outlined", "progress", "waterfall", "breakdown", "previous row", "diverging", "dashes", "zoomed", "dial", "banded dial", "ring");

    private XmlOutline() {
    }

    /** The native charts of some of the gallery, drawn to files of a kind. @param parts the names of charts in the package, as a regular expression */
    public static List<String> ofCharts(String ending, String parts, Set<String> passed) throws IOException {
        List<String> lines = new ArrayList<>();
        for (Gallery.Example example : Stream.concat(Gallery.all().stream(), Stream.of(Gallery.zoomed())).toList()) {
            if (SHOWN.contains(example.toString())) {
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                Engines.draw(List.of(Page.of(example.plain())), ending, Options.STANDARD, out);
                charts(out.toByteArray(), parts).forEach((name, part) -> {
                    lines.add("== " + example + ", " + name);
                    lines.addAll(of(part, passed));
                });
            }
        }
        return lines;
    }

    private static TreeMap<String, byte[]> charts(byte[] file, String names) throws IOException {
        TreeMap<String, byte[]> parts = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                if (entry.getName().matches(names)) {
                    parts.put(entry.getName(), in.readAllBytes());
                }
            }
        }
        return parts;
    }

    /** An XML part as lines: each element below the one that it is in, with its attributes and its text. @param passed elements that are left out, with what is in them */
    public static List<String> of(byte[] xml, Set<String> passed) {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            List<String> lines = new ArrayList<>();
            outline("", factory.newDocumentBuilder().parse(new ByteArrayInputStream(xml)).getDocumentElement(), passed, lines);
            return lines;
        } catch (ParserConfigurationException | SAXException | IOException e) {
            throw new AssertionError(e);
        }
    }

    private static void outline(String way, Element element, Set<String> passed, List<String> lines) {
        if (passed.contains(element.getTagName())) {
            return;
        }
        StringBuilder line = new StringBuilder(way + element.getTagName());
        for (int i = 0; i < element.getAttributes().getLength(); i++) {
            Node attribute = element.getAttributes().item(i);
            line.append(attribute.getNodeName().startsWith("xmlns") ? "" : " " + attribute.getNodeName() + "=" + attribute.getNodeValue());
        }
        List<Element> inside = IntStream.range(0, element.getChildNodes().getLength()).mapToObj(element.getChildNodes()::item).filter(Element.class::isInstance).map(Element.class::cast).toList();
        if (inside.isEmpty()) {
            line.append(element.getTextContent().isBlank() ? "" : " '" + element.getTextContent().strip() + "'");
        }
        lines.add(line.toString());
        inside.forEach(each -> outline(way + " ", each, passed, lines));
    }
}
