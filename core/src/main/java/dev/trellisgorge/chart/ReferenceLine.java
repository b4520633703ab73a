package dev.trellisgorge.chart;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.table.Characters;
import java.util.Objects;
import java.util.Optional;

/**
 * A line across a panel at one value. Immutable and thread-safe.
 *
 * @param name  what the line is: {@code goal}
 * @param at    the value, as a formula that reads no row
 * @param color the ink's where it is empty
 * @param words the computed column that says its name in place of {@code name}, on every row the same
 */
public record ReferenceLine(String name, Formula at, Optional<Color> color, Optional<String> words) {
    public ReferenceLine {
        name = Characters.shown(name);
        Objects.requireNonNull(at, "at");
        Objects.requireNonNull(color, "color");
        Objects.requireNonNull(words, "words");
    }

    /** The same by the name that its column says. */
    public ReferenceLine called(String said) {
        return new ReferenceLine(said, at, color, Optional.empty());
    }

    /** A line in the ink's colour. */
    public ReferenceLine(String name, Formula at) {
        this(name, at, Optional.empty(), Optional.empty());
    }
}
