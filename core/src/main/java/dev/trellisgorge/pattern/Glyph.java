package dev.trellisgorge.pattern;

import dev.trellisgorge.table.DisplayWidth;
import java.util.Objects;

/**
 * One character as a reader sees it, whatever code points it is made of. Immutable and thread-safe.
 *
 * @param text the character
 */
public record Glyph(String text) {

    /** @throws IllegalArgumentException where the text is none, blank, or more than one */
    public Glyph {
        Objects.requireNonNull(text, "text");
        if (!DisplayWidth.isOneSign(text) || text.isBlank()) {
            throw new IllegalArgumentException("'" + text + "' is not one character");
        }
    }

    /** How many columns of a terminal it takes: 1 or 2. */
    public int width() {
        return DisplayWidth.of(text);
    }
}
