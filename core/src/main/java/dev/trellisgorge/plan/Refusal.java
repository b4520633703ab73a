package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import java.util.Map;

/**
 * A mistake in the rows: something that a pattern can't show. It reads the shaped table alone.
 *
 * @param when     true on the rows that are wrong
 * @param figures  what to say of such a row, by name: {@code left} is -5
 * @param expected what would be right
 */
public record Refusal(Formula when, Map<String, Formula> figures, String expected) {
}
