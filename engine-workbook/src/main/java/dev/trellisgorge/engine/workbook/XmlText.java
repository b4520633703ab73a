package dev.trellisgorge.engine.workbook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** An XML document as text, of which some pieces are replaced and all others stay as they are, sign for sign. Used by one thread. */
final class XmlText {
    private static final Pattern ATTRIBUTE = Pattern.compile("([\\w:.-]+)\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

    private final String text;
    private final List<Edit> edits = new ArrayList<>();

    private record Edit(int from, int to, String by) {
    }

    XmlText(String text) {
        this.text = text;
    }

    /**
     * An element, by where it stands in the text.
     *
     * @param start   of its first tag
     * @param opened  the end of that tag
     * @param closing the start of its last tag; as {@code opened} where it is empty
     * @param end     of the whole
     */
    record Element(String text, String name, int start, int opened, int closing, int end) {

        /** Without the prefix of its namespace. */
        String local() {
            return name.substring(name.indexOf(':') + 1);
        }

        boolean isEmpty() {
            return closing == opened && text.charAt(opened - 2) == '/';
        }

        String tag() {
            return text.substring(start, opened);
        }

        String whole() {
            return text.substring(start, end);
        }

        String inner() {
            return text.substring(opened, closing);
        }

        /** By its name without a prefix, with references resolved. */
        Optional<String> attribute(String wanted) {
            Matcher all = ATTRIBUTE.matcher(tag());
            while (all.find()) {
                if (all.group(1).equals(wanted) || all.group(1).endsWith(":" + wanted)) {
                    String value = all.group(2) == null ? all.group(3) : all.group(2);
                    return Optional.of(value.replace("&lt;", "<").replace("&gt;", ">").replace("&quot;", "\"").replace("&apos;", "'").replace("&amp;", "&"));
                }
            }
            return Optional.empty();
        }

        List<Element> children() {
            return elements(text, opened, closing);
        }

        Optional<Element> child(String local) {
            return children().stream().filter(child -> child.local().equals(local)).findFirst();
        }
    }

    Element root() {
        return elements(text, 0, text.length()).get(0);
    }

    /** The elements that stand between two places of a text and in no other. */
    private static List<Element> elements(String text, int from, int to) {
        List<Element> found = new ArrayList<>();
        int depth = 0;
        int start = 0;
        int opened = 0;
        for (int at = text.indexOf('<', from); at >= 0 && at < to; at = text.indexOf('<', at)) {
            if (text.startsWith("<!--", at)) {
                at = text.indexOf("-->", at) + 3;
            } else if (text.startsWith("<![CDATA[", at)) {
                at = text.indexOf("]]>", at) + 3;
            } else if (text.startsWith("<?", at)) {
                at = text.indexOf("?>", at) + 2;
            } else {
                boolean closes = text.charAt(at + 1) == '/';
                int end = tagEnd(text, at);
                boolean empty = !closes && text.charAt(end - 2) == '/';
                if (!closes && depth++ == 0) {
                    start = at;
                    opened = end;
                }
                if ((closes || empty) && --depth == 0) {
                    found.add(new Element(text, name(text, start), start, opened, empty ? opened : at, end));
                }
                at = end;
            }
        }
        return found;
    }

    private static int tagEnd(String text, int at) {
        char quote = 0;
        for (int i = at; i < text.length(); i++) {
            char character = text.charAt(i);
            if (quote != 0) {
                quote = character == quote ? 0 : quote;
            } else if (character == '"' || character == '\'') {
                quote = character;
            } else if (character == '>') {
                return i + 1;
            }
        }
        throw new IllegalArgumentException("a tag has no end");
    }

    private static String name(String text, int at) {
        int end = at + 1;
        while (!Character.isWhitespace(text.charAt(end)) && text.charAt(end) != '>' && text.charAt(end) != '/') {
            end++;
        }
        return text.substring(at + 1, end);
    }

    void insert(int at, String more) {
        edits.add(new Edit(at, at, more));
    }

    void remove(Element element) {
        edits.add(new Edit(element.start(), element.end(), ""));
    }

    /** Puts something at the end of an element. */
    void append(Element to, String more) {
        if (to.isEmpty()) {
            edits.add(new Edit(to.opened() - 2, to.opened(), ">" + more + "</" + to.name() + ">"));
        } else {
            insert(to.closing(), more);
        }
    }

    /** States an attribute that has no prefix. */
    void attribute(Element of, String name, String value) {
        Matcher stated = Pattern.compile("(?<=\\s)" + name + "\\s*=\\s*(\"[^\"]*\"|'[^']*')").matcher(of.tag());
        if (stated.find()) {
            edits.add(new Edit(of.start() + stated.start(), of.start() + stated.end(), name + "=\"" + value + "\""));
        } else {
            insert(of.start() + 1 + of.name().length(), " " + name + "=\"" + value + "\"");
        }
    }

    /** The text with all that was put in, changed and taken out. */
    String edited() {
        StringBuilder out = new StringBuilder();
        int at = 0;
        for (Edit edit : edits.stream().sorted(Comparator.comparingInt(Edit::from)).toList()) {
            out.append(text, at, edit.from()).append(edit.by());
            at = Math.max(at, edit.to());
        }
        return out.append(text, at, text.length()).toString();
    }

    static String escaped(String words) {
        return words.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\"", "&quot;");
    }
}
