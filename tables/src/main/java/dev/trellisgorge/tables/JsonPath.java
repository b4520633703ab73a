package dev.trellisgorge.tables;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where in a JSON document rows are: a query of RFC 9535 that is made of names, {@code [*]} and places in arrays, such as {@code $.items[*]}. Immutable and thread-safe.
 *
 * @param written  as it was given
 * @param segments from the root on
 */
public record JsonPath(String written, List<Segment> segments) {
    private static final Pattern SEGMENT = Pattern.compile("\\s*(?:\\.(?<name>[\\p{L}_][\\p{L}\\p{N}_]*)|(?<every>\\.\\*|\\[\\s*\\*\\s*\\])|\\[\\s*(?<index>0|[1-9]\\d{0,8})\\s*\\]|\\[\\s*'(?<single>(?:[^'\\\\]|\\\\.)*)'\\s*\\]|\\[\\s*\"(?<quoted>(?:[^\"\\\\]|\\\\.)*)\"\\s*\\])");

    /** A step further into a document. */
    public sealed interface Segment {
    }

    /** Into an object. */
    public record Name(String name) implements Segment {
    }

    /** Into an array, 0 for its first item. */
    public record Index(int at) implements Segment {
    }

    /** Into each item of an array, or each value of an object. */
    public record Every() implements Segment {
    }

    public JsonPath {
        segments = List.copyOf(segments);
    }

    /** Empty where the text is no such path. */
    public static Optional<JsonPath> of(String text) {
        if (!text.startsWith("$")) {
            return Optional.empty();
        }
        List<Segment> segments = new ArrayList<>();
        Matcher next = SEGMENT.matcher(text).region(1, text.length());
        int end = 1;
        while (next.lookingAt()) {
            segments.add(segment(next));
            end = next.end();
            next.region(end, text.length());
        }
        return end == text.length() ? Optional.of(new JsonPath(text, segments)) : Optional.empty();
    }

    private static Segment segment(Matcher matched) {
        if (matched.group("every") != null) {
            return new Every();
        } else if (matched.group("index") != null) {
            return new Index(Integer.parseInt(matched.group("index")));
        }
        String name = matched.group("name") != null ? matched.group("name") : matched.group("single") != null ? unescaped(matched.group("single")) : unescaped(matched.group("quoted"));
        return new Name(name);
    }

    private static String unescaped(String quoted) {
        return quoted.replaceAll("\\\\(.)", "$1");
    }

    /** Whether it may lead to several values. */
    boolean isOfSeveral() {
        return segments.stream().anyMatch(Every.class::isInstance);
    }

    @Override
    public String toString() {
        return written;
    }
}
