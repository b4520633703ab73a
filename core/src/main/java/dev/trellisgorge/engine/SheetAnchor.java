package dev.trellisgorge.engine;

import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A place on a sheet of a workbook that exists. Immutable and thread-safe.
 *
 * @param sheet   its name
 * @param column  of the first cell, from 0
 * @param row     of the first cell, from 0
 * @param columns how many it takes, 1 or more
 * @param rows    how many it takes, 1 or more
 */
public record SheetAnchor(String sheet, int column, int row, int columns, int rows) {
    /** Where only the first cell is named. */
    private static final int USUAL_COLUMNS = 9;
    private static final int USUAL_ROWS = 20;
    private static final int MOST_COLUMNS = 16_384;
    private static final int MOST_ROWS = 1_048_576;
    private static final int LETTERS = 26;
    private static final Pattern WRITTEN = Pattern.compile("(?:'((?:[^']|'')+)'|([^'!]+))!\\$?([A-Za-z]{1,3})\\$?([0-9]{1,7})(?::\\$?([A-Za-z]{1,3})\\$?([0-9]{1,7}))?");

    /** @throws IllegalArgumentException where it is no place at all */
    public SheetAnchor {
        Objects.requireNonNull(sheet, "sheet");
        if (column < 0 || row < 0 || columns < 1 || rows < 1) {
            throw new IllegalArgumentException("a place has at least one cell, from column and row 0 on");
        }
    }

    /**
     * Reads {@code Summary!B4}, which takes 9 columns and 20 rows, or {@code 'The summary'!B4:J20}.
     *
     * @throws IllegalArgumentException where it is none
     */
    public static SheetAnchor parse(String written) {
        Matcher spot = WRITTEN.matcher(written.strip());
        if (!spot.matches()) {
            throw new IllegalArgumentException("'" + written + "' is no place on a sheet; write SHEET!CELL, such as Summary!B4, or SHEET!FIRST:LAST, such as 'The summary'!B4:J20");
        }
        int column = column(spot.group(3));
        int row = Integer.parseInt(spot.group(4)) - 1;
        int lastColumn = spot.group(5) == null ? column + USUAL_COLUMNS - 1 : column(spot.group(5));
        int lastRow = spot.group(6) == null ? row + USUAL_ROWS - 1 : Integer.parseInt(spot.group(6)) - 1;
        if (row < 0 || lastColumn < column || lastRow < row || lastColumn >= MOST_COLUMNS || lastRow >= MOST_ROWS) {
            throw new IllegalArgumentException("'" + written + "' is no place on a sheet: its cells go from A1 to XFD1048576, the first one before the last");
        }
        String sheet = spot.group(1) == null ? spot.group(2) : spot.group(1).replace("''", "'");
        return new SheetAnchor(sheet, column, row, lastColumn - column + 1, lastRow - row + 1);
    }

    private static int column(String letters) {
        int column = 0;
        for (char letter : letters.toUpperCase(Locale.ROOT).toCharArray()) {
            column = column * LETTERS + letter - 'A' + 1;
        }
        return column - 1;
    }
}
