package dev.trellisgorge.tables;

import java.nio.charset.Charset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * How a file of delimited text or a workbook is laid out and how its cells are written, where that is not to be found from the
 * file itself. Immutable; each method gives a changed copy.
 */
public final class Layout {
    /** Everything is found. */
    public static final Layout FOUND = new Layout(new Changes());

    private final Optional<Character> delimiter;
    private final Optional<Charset> charset;
    private final Optional<String> sheet;
    private final OptionalInt headerRow;
    private final Optional<Character> decimal;
    private final Optional<DateTimeFormatter> dates;
    private final List<String> missing;
    private final TotalRow totalRow;

    /** What becomes of a last row that is the total of the ones above. */
    public enum TotalRow {
        /** It stays, and a reader is told of it. */
        TOLD,
        /** It stays, and nothing is said. */
        KEEP,
        /** It goes; it is an error where there is none. */
        DROP
    }

    private static final class Changes {
        private Optional<Character> delimiter = Optional.empty();
        private Optional<Charset> charset = Optional.empty();
        private Optional<String> sheet = Optional.empty();
        private OptionalInt headerRow = OptionalInt.empty();
        private Optional<Character> decimal = Optional.empty();
        private Optional<DateTimeFormatter> dates = Optional.empty();
        private List<String> missing = List.of("-", "\u2013", "n/a", "N/A");
        private TotalRow totalRow = TotalRow.TOLD;
    }

    private interface Change {
        void to(Changes changes);
    }

    private Layout(Changes c) {
        this.delimiter = c.delimiter;
        this.charset = c.charset;
        this.sheet = c.sheet;
        this.headerRow = c.headerRow;
        this.decimal = c.decimal;
        this.dates = c.dates;
        this.missing = List.copyOf(c.missing);
        this.totalRow = c.totalRow;
    }

    private Layout with(Change change) {
        Changes c = new Changes();
        c.delimiter = delimiter;
        c.charset = charset;
        c.sheet = sheet;
        c.headerRow = headerRow;
        c.decimal = decimal;
        c.dates = dates;
        c.missing = missing;
        c.totalRow = totalRow;
        change.to(c);
        return new Layout(c);
    }

    /** What divides the cells of a text; comma, semicolon, tab or bar, found from the first records, where it is not said. */
    public Layout delimiter(char sign) {
        return with(c -> c.delimiter = Optional.of(sign));
    }

    /** Of a text; the one that a byte-order mark says, or UTF-8, where it is not said. */
    public Layout charset(Charset of) {
        return with(c -> c.charset = Optional.of(of));
    }

    /** Of a workbook; the first one where it is not said. */
    public Layout sheet(String name) {
        return with(c -> c.sheet = Optional.of(name));
    }

    /**
     * The line on which the header stands, 1 for the first; what is above it is passed over. Where it is not said: the first
     * line of a text; of a sheet the first row with as many cells side by side as any of its first rows has.
     */
    public Layout headerRow(int line) {
        return with(c -> c.headerRow = OptionalInt.of(line));
    }

    /** The decimal sign, {@code .} or {@code ,}; the other one groups. Where it is not said, the one that all cells of a column take. */
    public Layout decimal(char sign) {
        return with(c -> c.decimal = Optional.of(sign));
    }

    /** How dates are written beside ISO 8601. */
    public Layout dates(DateTimeFormatter pattern) {
        return with(c -> c.dates = Optional.of(pattern));
    }

    /** What stands for a missing cell in columns of numbers and dates, beside a blank; a dash and {@code n/a} where it is not said. */
    public Layout missing(List<String> words) {
        return with(c -> c.missing = new ArrayList<>(words));
    }

    public Layout totalRow(TotalRow what) {
        return with(c -> c.totalRow = what);
    }

    Optional<Character> delimiter() {
        return delimiter;
    }

    Optional<Charset> charset() {
        return charset;
    }

    Optional<String> sheet() {
        return sheet;
    }

    OptionalInt headerRow() {
        return headerRow;
    }

    Optional<Character> decimal() {
        return decimal;
    }

    Optional<DateTimeFormatter> dates() {
        return dates;
    }

    List<String> missing() {
        return missing;
    }

    TotalRow totalRow() {
        return totalRow;
    }
}
