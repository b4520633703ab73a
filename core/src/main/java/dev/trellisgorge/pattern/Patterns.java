package dev.trellisgorge.pattern;

import java.util.List;

/** The catalogue. */
public final class Patterns {

    /** Every pattern, in the order of the reference. */
    public static final List<PatternType> ALL = List.of(Columns.TYPE, ToTarget.TYPE, Marker.TYPE, Progress.TYPE, Variance.TYPE, Waterfall.TYPE,
            Breakdown.TYPE, Tornado.TYPE, Diverging.TYPE, Dial.TYPE, Ring.TYPE, Range.TYPE, TextBar.TYPE);

    private Patterns() {
    }

    /** Their names, in that order. */
    public static List<String> names() {
        return ALL.stream().map(PatternType::name).toList();
    }
}
