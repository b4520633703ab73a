package dev.trellisgorge.tables;

import java.nio.charset.Charset;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * How a file of delimited text or a workbook is laid out, where that is not to be found from the file itself.
 *
 * @param delimiter what divides cells; comma, semicolon, tab or bar, found from the first records, where it is empty
 * @param charset   of the file; where it is empty the one that a byte-order mark says, or UTF-8
 * @param sheet     the sheet of a workbook; the first one where it is empty
 * @param headerRow the line on which the header stands, 1 for the first; what is above it is passed over. Where it is empty:
 *                  the first line of a text; in a workbook the first row with as many cells side by side as any row has
 *                  of its first ones
 */
public record Layout(Optional<Character> delimiter, Optional<Charset> charset, Optional<String> sheet, OptionalInt headerRow) {
    /** Everything is found. */
    public static final Layout FOUND = new Layout(Optional.empty(), Optional.empty(), Optional.empty(), OptionalInt.empty());

    public Layout delimiter(char sign) {
        return new Layout(Optional.of(sign), charset, sheet, headerRow);
    }

    public Layout charset(Charset of) {
        return new Layout(delimiter, Optional.of(of), sheet, headerRow);
    }

    public Layout sheet(String name) {
        return new Layout(delimiter, charset, Optional.of(name), headerRow);
    }

    public Layout headerRow(int line) {
        return new Layout(delimiter, charset, sheet, OptionalInt.of(line));
    }
}
