package dev.trellisgorge.problem;

import java.util.Objects;

/**
 * Where a mistake stands, written the way compilers write it, so that editors can jump there. Immutable and thread-safe.
 *
 * @param file   the file as the user named it, or empty where there is none
 * @param line   1-based line, or 0 where it is unknown
 * @param column 1-based character of the line, or 0 where it is unknown
 * @param within what to look at there (a row, a column of a table), or empty
 */
public record Place(String file, int line, int column, String within) implements java.io.Serializable {
    public Place {
        Objects.requireNonNull(file, "file");
        Objects.requireNonNull(within, "within");
    }

    /** A place that is only a name: a command, a setting, a table made in memory. */
    public static Place of(String within) {
        return new Place("", 0, 0, within);
    }

    public static Place inFile(String file) {
        return new Place(file, 0, 0, "");
    }

    public static Place inFile(String file, int line, int column) {
        return new Place(file, line, column, "");
    }

    /** The same place, narrowed down to {@code what}. */
    public Place within(String what) {
        return new Place(file, line, column, within.isEmpty() ? what : within + ", " + what);
    }

    @Override
    public String toString() {
        StringBuilder text = new StringBuilder(file);
        if (line > 0) {
            text.append(':').append(line);
        }
        if (column > 0) {
            text.append(':').append(column);
        }
        if (!within.isEmpty()) {
            text.append(text.isEmpty() ? "" : ", ").append(within);
        }
        return text.toString();
    }
}
