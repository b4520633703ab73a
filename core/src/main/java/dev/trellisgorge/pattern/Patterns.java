package dev.trellisgorge.pattern;

import java.util.List;
import java.util.Optional;

/** The catalogue. A pattern's class is loaded when it is asked for, which a short command feels. Thread-safe. */
public final class Patterns {
    private static final List<String> NAMES = List.of("columns", "to-target", "marker", "progress", "variance", "waterfall", "breakdown",
            "tornado", "diverging", "dial", "ring", "range", "text-bar");

    private Patterns() {
    }

    /** The patterns' names, in the order of the reference. */
    public static List<String> names() {
        return NAMES;
    }

    /** Every pattern, in that order. */
    public static List<PatternType> all() {
        return NAMES.stream().map(name -> find(name).orElseThrow()).toList();
    }

    /** The pattern of that name; empty where there is none. */
    public static Optional<PatternType> find(String name) {
        return Optional.ofNullable(switch (name) {
            case "columns" -> Columns.TYPE;
            case "to-target" -> ToTarget.TYPE;
            case "marker" -> Marker.TYPE;
            case "progress" -> Progress.TYPE;
            case "variance" -> Variance.TYPE;
            case "waterfall" -> Waterfall.TYPE;
            case "breakdown" -> Breakdown.TYPE;
            case "tornado" -> Tornado.TYPE;
            case "diverging" -> Diverging.TYPE;
            case "dial" -> Dial.TYPE;
            case "ring" -> Ring.TYPE;
            case "range" -> Range.TYPE;
            case "text-bar" -> TextBar.TYPE;
            default -> null;
        });
    }
}
