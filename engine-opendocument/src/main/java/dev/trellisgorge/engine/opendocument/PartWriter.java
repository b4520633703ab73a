package dev.trellisgorge.engine.opendocument;

import java.io.BufferedWriter;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes a part of an OpenDocument package. Used by one thread. */
final class PartWriter implements AutoCloseable {
    /** The version of the standard (ISO/IEC 26300) that parts are written for. */
    static final String VERSION = "1.3";

    private static final int BUFFER = 1 << 16;
    private static final String OASIS = "urn:oasis:names:tc:opendocument:xmlns:";
    private static final Map<String, String> SPACES = new LinkedHashMap<>();

    static {
        for (String prefix : new String[] {"office", "meta", "style", "text", "table", "chart", "config"}) {
            SPACES.put(prefix, OASIS + prefix + ":1.0");
        }
        SPACES.put("draw", OASIS + "drawing:1.0");
        SPACES.put("fo", OASIS + "xsl-fo-compatible:1.0");
        SPACES.put("svg", OASIS + "svg-compatible:1.0");
        SPACES.put("number", OASIS + "datastyle:1.0");
        SPACES.put("of", OASIS + "of:1.2");
        SPACES.put("manifest", OASIS + "manifest:1.0");
        SPACES.put("xlink", "http://www.w3.org/1999/xlink");
        SPACES.put("dc", "http://purl.org/dc/elements/1.1/");
        SPACES.put("ooo", "http://openoffice.org/2004/office");
    }

    private final XMLStreamWriter xml;

    /**
     * Opens the root of a part.
     *
     * @param spaces the prefixes that it uses, beside that of the root
     */
    PartWriter(OutputStream out, String root, String... spaces) {
        try {
            xml = XMLOutputFactory.newInstance().createXMLStreamWriter(new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), BUFFER)); // straight to bytes it writes them one by one
            xml.writeStartDocument(StandardCharsets.UTF_8.name(), "1.0");
            String own = prefix(root);
            xml.writeStartElement(own, local(root), SPACES.get(own));
            xml.writeNamespace(own, SPACES.get(own));
            for (String prefix : spaces) {
                xml.writeNamespace(prefix, SPACES.get(prefix));
            }
            with(own + ":version", VERSION);
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String prefix(String name) {
        return name.substring(0, name.indexOf(':'));
    }

    private static String local(String name) {
        return name.substring(name.indexOf(':') + 1);
    }

    /** A length, in points. */
    static String points(double length) {
        return String.format(Locale.ROOT, "%.2fpt", length);
    }

    /** @param attributes names and values in turn; one without a value is left out */
    PartWriter open(String name, String... attributes) {
        try {
            xml.writeStartElement(prefix(name), local(name), SPACES.get(prefix(name)));
            return with(attributes);
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    /** More attributes of the element that was opened last. */
    PartWriter with(String... attributes) {
        try {
            for (int i = 0; i < attributes.length; i += 2) {
                if (attributes[i + 1] != null) {
                    xml.writeAttribute(prefix(attributes[i]), SPACES.get(prefix(attributes[i])), local(attributes[i]), attributes[i + 1]);
                }
            }
            return this;
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    PartWriter close(int elements) {
        try {
            for (int i = 0; i < elements; i++) {
                xml.writeEndElement();
            }
            return this;
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    /** An element without content. */
    PartWriter leaf(String name, String... attributes) {
        return open(name, attributes).close(1);
    }

    /** Words as they are, in an element that keeps their spaces. */
    PartWriter words(String words) {
        try {
            xml.writeCharacters(words);
            return this;
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A text of paragraphs, a line each. */
    PartWriter paragraphs(String text) {
        for (String line : text.split("\n", -1)) {
            open("text:p").spaced(line).close(1);
        }
        return this;
    }

    /** Words in a paragraph, where several spaces count as one unless they are counted. */
    PartWriter spaced(String words) {
        int from = 0;
        for (int at = 0; at < words.length(); at++) {
            char c = words.charAt(at);
            boolean counted = c == ' ' && (at == 0 || words.charAt(at - 1) == ' ' || at == words.length() - 1);
            if (counted || c == '\t' || c == '\n') {
                words(words.substring(from, at)).leaf(counted ? "text:s" : c == '\t' ? "text:tab" : "text:line-break");
                from = at + 1;
            }
        }
        return words(words.substring(from));
    }

    /** Ends the part. */
    @Override
    public void close() {
        try {
            xml.writeEndDocument();
            xml.flush();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
    }
}
