package dev.trellisgorge.engine.workbook;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/** Parts of packages as text that can be read. */
public final class XmlOutline {
    private XmlOutline() {
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
