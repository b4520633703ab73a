package dev.trellisgorge.pattern;

import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * What there is to know of a pattern without using it: the one place that briefs are read by, and that its help and its
 * reference are written from. Immutable and thread-safe.
 *
 * @param name       its name in a brief
 * @param purpose    what it is for, one line
 * @param keys       its own keys, beside the ones that every chart has
 * @param classified whether it takes {@code classify}
 * @param categories whether it has a row for each category; else it shows one figure
 * @param series     the helper columns or rows, in words
 * @param picture    a small picture in characters
 * @param brief      the chart of a brief to copy, for the demo's data
 * @param maker      makes the pattern of what was given
 */
public record PatternType(String name, String purpose, List<Key> keys, boolean classified, boolean categories, String series,
        String picture, String brief, Function<Given, Pattern> maker) {
    public PatternType {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(purpose, "purpose");
        keys = List.copyOf(keys);
        Objects.requireNonNull(series, "series");
        Objects.requireNonNull(picture, "picture");
        Objects.requireNonNull(brief, "brief");
        Objects.requireNonNull(maker, "maker");
    }

    /** The keys of a chart by which this pattern is told from others: its own, before them the category's and after them the rule's where it takes one. */
    public List<Key> allKeys() {
        Stream<Key> category = categories ? Stream.of(Key.required("category", Key.Takes.COLUMN, "the column along the chart's base: texts or dates, each on one row")) : Stream.empty();
        return Stream.concat(Stream.concat(category, keys.stream()), classified ? Stream.of(Classifiers.KEY) : Stream.empty()).toList();
    }

    /**
     * Of a pattern with a row for each category that only programs use, and no brief.
     *
     * @param name    what messages call it
     * @param purpose what it is for, one line
     */
    public static PatternType named(String name, String purpose) {
        return new PatternType(name, purpose, List.of(), false, true, "", "", "", given -> {
            throw new IllegalStateException("no brief makes the pattern '" + name + "'");
        });
    }
}
