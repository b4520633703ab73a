package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import java.util.List;
import java.util.Objects;

/**
 * A sentence that describes a row of a chart in its own figures. Immutable.
 *
 * @param when  true on the rows that it is said of
 * @param parts in reading order: words as they stand (String), and what formulas come to (Formula)
 */
public record Saying(Formula when, List<Object> parts) {
    /** @throws IllegalArgumentException where a part is neither */
    public Saying {
        Objects.requireNonNull(when, "when");
        parts = List.copyOf(parts);
        for (Object part : parts) {
            if (!(part instanceof String || part instanceof Formula)) {
                throw new IllegalArgumentException("a sentence is made of words and formulas, not of " + part);
            }
        }
    }
}
