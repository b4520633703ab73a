package dev.trellisgorge.problem;

import java.util.List;

/**
 * Something that is no mistake but that a reader should know of.
 *
 * @param sentence what is so
 * @param rows     the rows it is so on, each with its figure where there is one: {@code Heron Weir (400)}; may be empty
 * @param urgent   whether it is to be told also where nobody asks, as figures may be wrong without it
 */
public record Note(String sentence, List<String> rows, boolean urgent) {

    /** Told to whoever asks. */
    public Note(String sentence, List<String> rows) {
        this(sentence, rows, false);
    }

    /** {@code equal to the limit, counted as above: Heron Weir (400)}. */
    @Override
    public String toString() {
        return rows.isEmpty() ? sentence : sentence + ": " + String.join(", ", rows);
    }
}
