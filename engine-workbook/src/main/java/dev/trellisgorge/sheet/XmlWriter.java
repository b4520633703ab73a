package dev.trellisgorge.sheet;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/**
 * Writes an XML part of a package as a stream. Names have a prefix and a colon, but those of the space without a prefix. What no XML may
 * hold is written as a question mark. Where the stream fails, an {@link UncheckedIOException} is thrown. Used by one thread.
 *
 * @param <W> the writer of one kind of file
 */
public abstract class XmlWriter<W extends XmlWriter<W>> implements AutoCloseable {
    private static final int BUFFER = 1 << 16;
    private static final XMLOutputFactory FACTORY = XMLOutputFactory.newDefaultFactory();

    private final Map<String, String> spaces;
    private final XMLStreamWriter xml;

    /**
     * Opens the root of a part.
     *
     * @param spaces the addresses of name spaces by their prefixes
     * @param used   the prefixes that the part uses, beside that of its root
     */
    protected XmlWriter(OutputStream out, Map<String, String> spaces, String root, String... used) {
        this.spaces = spaces;
        try {
            xml = FACTORY.createXMLStreamWriter(new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8), BUFFER)); // straight to bytes it writes them one by one
            xml.writeStartDocument(StandardCharsets.UTF_8.name(), "1.0");
            start(root);
            state(prefix(root));
            for (String prefix : used) {
                state(prefix);
            }
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    /** States a prefix for what is in the element that was opened last. */
    public W space(String prefix) {
        try {
            state(prefix);
            return self();
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    private void state(String prefix) throws XMLStreamException {
        if (prefix.isEmpty()) {
            xml.writeDefaultNamespace(spaces.get(prefix));
        } else {
            xml.writeNamespace(prefix, spaces.get(prefix));
        }
    }

    private void start(String name) throws XMLStreamException {
        String prefix = prefix(name);
        if (prefix.isEmpty()) {
            xml.writeStartElement(name);
        } else {
            xml.writeStartElement(prefix, local(name), spaces.get(prefix));
        }
    }

    private static String prefix(String name) {
        return name.substring(0, Math.max(0, name.indexOf(':')));
    }

    private static String local(String name) {
        return name.substring(name.indexOf(':') + 1);
    }

    /** This writer. */
    protected abstract W self();

    /** @param attributes names and values in turn; one without a value is left out */
    public W open(String name, String... attributes) {
        try {
            start(name);
            return with(attributes);
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    /** More attributes of the element that was opened last. */
    public W with(String... attributes) {
        try {
            for (int i = 0; i < attributes.length; i += 2) {
                if (attributes[i + 1] == null) {
                    continue;
                }
                String prefix = prefix(attributes[i]);
                if (prefix.isEmpty()) {
                    xml.writeAttribute(attributes[i], allowed(attributes[i + 1]));
                } else {
                    xml.writeAttribute(prefix, spaces.get(prefix), local(attributes[i]), allowed(attributes[i + 1]));
                }
            }
            return self();
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    public W close(int elements) {
        try {
            for (int i = 0; i < elements; i++) {
                xml.writeEndElement();
            }
            return self();
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    /** An element without content. */
    public W leaf(String name, String... attributes) {
        try {
            String prefix = prefix(name);
            if (prefix.isEmpty()) {
                xml.writeEmptyElement(name);
            } else {
                xml.writeEmptyElement(prefix, local(name), spaces.get(prefix));
            }
            return with(attributes);
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    /** Words as they are, in an element that keeps their spaces. */
    public W words(String words) {
        try {
            xml.writeCharacters(allowed(words));
            return self();
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }

    /** An element that holds words alone. */
    public W element(String name, String words) {
        open(name).words(words);
        return close(1);
    }

    private static String allowed(String words) {
        for (int at = 0; at < words.length(); at++) {
            if (!isAllowed(words, at)) {
                StringBuilder written = new StringBuilder(words);
                for (int next = at; next < words.length(); next++) {
                    if (!isAllowed(words, next)) {
                        written.setCharAt(next, '?');
                    }
                }
                return written.toString();
            }
        }
        return words;
    }

    private static boolean isAllowed(String words, int at) {
        char c = words.charAt(at);
        if (Character.isHighSurrogate(c)) {
            return at + 1 < words.length() && Character.isLowSurrogate(words.charAt(at + 1));
        } else if (Character.isLowSurrogate(c)) {
            return at > 0 && Character.isHighSurrogate(words.charAt(at - 1));
        }
        return c >= ' ' && c < '\uFFFE' || c == '\t' || c == '\n' || c == '\r';
    }

    private static RuntimeException failed(XMLStreamException e) {
        return e.getNestedException() instanceof IOException io ? new UncheckedIOException(io) : new IllegalStateException(e);
    }

    /** Ends the part; the stream below stays open. */
    @Override
    public void close() {
        try {
            xml.writeEndDocument();
            xml.flush();
        } catch (XMLStreamException e) {
            throw failed(e);
        }
    }
}
