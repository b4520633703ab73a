package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/**
 * A mistake in the rows: something that a pattern can't show. It reads the shaped table alone. Immutable and thread-safe.
 *
 * @param when     true on the rows that are wrong
 * @param figures  what to say of such a row, by name: {@code left} is -5
 * @param expected what would be right
 */
public record Refusal(Formula when, Map<String, Formula> figures, String expected) {
    public Refusal {
        Objects.requireNonNull(when, "when");
        figures = Collections.unmodifiableMap(new LinkedHashMap<>(figures));
        Objects.requireNonNull(expected, "expected");
    }
}
