package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.XmlWriter;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/** Writes a part of an OpenDocument package. Used by one thread. */
final class PartWriter extends XmlWriter<PartWriter> {
    /** The version of the standard (ISO/IEC 26300) that parts are written for. */
    static final String VERSION = "1.3";

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

    /**
     * Opens the root of a part.
     *
     * @param spaces the prefixes that it uses, beside that of the root
     */
    PartWriter(OutputStream out, String root, String... spaces) {
        super(out, SPACES, root, spaces);
        with(root.substring(0, root.indexOf(':')) + ":version", VERSION);
    }

    @Override
    protected PartWriter self() {
        return this;
    }

    /** A length, in points. */
    static String points(double length) {
        return String.format(Locale.ROOT, "%.2fpt", length);
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
}
