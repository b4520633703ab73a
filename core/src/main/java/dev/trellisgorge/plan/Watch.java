package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Formula;
import java.util.Objects;

/**
 * Something that is no mistake but that a reader should know of: the rows on which it is so are reported. Immutable and thread-safe.
 *
 * @param sentence what is so, without the rows: {@code equal to the limit, counted as above}
 * @param when     true on the rows that are reported
 * @param figure   the number that is reported beside each row's name; nothing where it is absent
 */
public record Watch(String sentence, Formula when, Formula figure) {
    public Watch {
        Objects.requireNonNull(sentence, "sentence");
        Objects.requireNonNull(when, "when");
        Objects.requireNonNull(figure, "figure");
    }
}
