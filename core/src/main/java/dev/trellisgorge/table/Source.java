package dev.trellisgorge.table;

import dev.trellisgorge.problem.Place;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;

/**
 * Where the rows of a table came from. The lines are not copied:
 * it is immutable and thread-safe where nobody changes them.
 *
 * @param file  the file as messages call it, or empty for a table made in memory
 * @param lines the 1-based line on which each row starts; empty where there are none
 * @param sheet where the cells stand, when the file is a workbook; empty of any other
 */
public record Source(String file, int[] lines, Optional<OfSheet> sheet) {
    public static final Source MEMORY = new Source("", new int[0]);

    /**
     * Cells on a sheet.
     *
     * @param book    the workbook
     * @param name    of the sheet
     * @param columns the column, from 0, of each column of the table; below 0 where its cells are not as the sheet has them, as they had to be read
     */
    public record OfSheet(Path book, String name, int[] columns) {
        public OfSheet {
            Objects.requireNonNull(book, "book");
            Objects.requireNonNull(name, "name");
            Objects.requireNonNull(columns, "columns");
        }
    }

    /** Of a file that is no workbook. */
    public Source(String file, int[] lines) {
        this(file, lines, Optional.empty());
    }

    public Source {
        Objects.requireNonNull(sheet, "sheet");
        Objects.requireNonNull(file, "file");
        Objects.requireNonNull(lines, "lines");
    }

    Place row(int row) {
        return row < lines.length ? Place.inFile(file, lines[row], 0) : Place.inFile(file).within("row " + (row + 1));
    }
}
