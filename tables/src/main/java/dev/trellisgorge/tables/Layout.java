package dev.trellisgorge.tables;

import java.nio.charset.Charset;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * How a file of delimited text is laid out, where that is not to be found from the file itself.
 *
 * @param delimiter what divides cells; comma, semicolon, tab or bar, found from the first records, where it is empty
 * @param charset   of the file; where it is empty the one that a byte-order mark says, or UTF-8
 * @param headerRow the line on which the header stands, 1 for the first; what is above it is passed over. The first line
 *                  with anything on it where it is empty
 */
public record Layout(Optional<Character> delimiter, Optional<Charset> charset, OptionalInt headerRow) {
    /** Everything is found. */
    public static final Layout FOUND = new Layout(Optional.empty(), Optional.empty(), OptionalInt.empty());

    public Layout delimiter(char sign) {
        return new Layout(Optional.of(sign), charset, headerRow);
    }

    public Layout charset(Charset of) {
        return new Layout(delimiter, Optional.of(of), headerRow);
    }

    public Layout headerRow(int line) {
        return new Layout(delimiter, charset, OptionalInt.of(line));
    }
}
