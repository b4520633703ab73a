package dev.trellisgorge.audit;

import java.util.List;

/**
 * Something that is no mistake but that a reader should know of.
 *
 * @param sentence what is so
 * @param rows     the rows it is so on, each with its figure where there is one: {@code Heron Weir (400)}
 */
public record Finding(String sentence, List<String> rows) {

    /** {@code equal to the limit, counted as above: Heron Weir (400)}. */
    @Override
    public String toString() {
        return sentence + ": " + String.join(", ", rows);
    }
}
