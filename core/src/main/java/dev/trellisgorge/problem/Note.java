package dev.trellisgorge.problem;

import java.util.List;

/**
 * Something that is no mistake but that a reader should know of.
 *
 * @param sentence what is so
 * @param rows     the rows it is so on, each with its figure where there is one: {@code Heron Weir (400)}; may be empty
 */
public record Note(String sentence, List<String> rows) {

    /** {@code equal to the limit, counted as above: Heron Weir (400)}. */
    @Override
    public String toString() {
        return rows.isEmpty() ? sentence : sentence + ": " + String.join(", ", rows);
    }
}
