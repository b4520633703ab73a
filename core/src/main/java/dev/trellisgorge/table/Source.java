package dev.trellisgorge.table;

import dev.trellisgorge.problem.Place;
import java.util.Objects;

/**
 * Where the rows of a table came from, for messages. The lines are not copied:
 * it is immutable and thread-safe where nobody changes them.
 *
 * @param file  the file as the user named it, or empty for a table made in memory
 * @param lines the 1-based line on which each row starts; empty where there are none
 */
public record Source(String file, int[] lines) {
    public static final Source MEMORY = new Source("", new int[0]);

    public Source {
        Objects.requireNonNull(file, "file");
        Objects.requireNonNull(lines, "lines");
    }

    Place row(int row) {
        return row < lines.length ? Place.inFile(file, lines[row], 0) : Place.inFile(file).within("row " + (row + 1));
    }
}
