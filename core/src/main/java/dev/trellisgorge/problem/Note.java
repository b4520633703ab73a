package dev.trellisgorge.problem;

import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * Something that is no mistake but that a reader should know of. Immutable and thread-safe.
 *
 * @param sentence  what is so
 * @param rows      the rows it is so on, each with its figure where there is one: {@code Heron Weir (400)}; may be empty
 * @param urgent    whether it is to be reported even where nobody asks, as figures may be wrong without it
 * @param noFigures what would be wrong if a column of texts were to hold figures, where that is what is so
 */
public record Note(String sentence, List<String> rows, boolean urgent, Optional<NoFigures> noFigures) {
    public Note {
        Objects.requireNonNull(sentence, "sentence");
        rows = List.copyOf(rows);
        Objects.requireNonNull(noFigures, "noFigures");
    }

    /**
     * A column of texts most of which are figures.
     *
     * @param column its name
     * @param cells  the others, each with its place
     */
    public record NoFigures(String column, List<Problem> cells) {
        public NoFigures {
            Objects.requireNonNull(column, "column");
            cells = List.copyOf(cells);
        }
    }

    /** Told to whoever asks. */
    public Note(String sentence, List<String> rows) {
        this(sentence, rows, false, Optional.empty());
    }

    /** Told also where nobody asks. */
    public static Note urgent(String sentence, List<String> rows) {
        return new Note(sentence, rows, true, Optional.empty());
    }

    /** {@code equal to the limit, counted as above: Heron Weir (400)}. */
    @Override
    public String toString() {
        return rows.isEmpty() ? sentence : sentence + ": " + String.join(", ", rows);
    }
}
