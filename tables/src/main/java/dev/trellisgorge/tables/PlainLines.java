package dev.trellisgorge.tables;

import ch.randelshofer.fastdoubleparser.JavaDoubleParser;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.LongStream;

/**
 * Reads lines of delimited text from bytes, as long as every cell is as plain as can be: a number without a code's leading zero, a sign but a
 * minus or an exponent; a day as ISO 8601 writes it; a text of characters that stand for themselves, on one line. What is not is never read.
 * Of one thread.
 *
 * @param <T> what a text is kept as
 */
final class PlainLines<T> {
    private static final int MOST_DIGITS = 18;
    private static final int MOST_DECIMALS = 17;
    /** So many digits are exact in a double, as are the powers of ten up to 22. */
    private static final int EXACT_DIGITS = 15;
    private static final double[] TENS = IntStream.rangeClosed(0, MOST_DECIMALS).mapToDouble(power -> Double.parseDouble("1e" + power)).toArray();
    private static final long[] TENFOLD = LongStream.iterate(1, power -> power * 10).limit(MOST_DIGITS).toArray();
    private static final int DAY = 10;
    private static final byte PLAIN = 1;
    private static final byte SPACE = 2;
    /** Of a character that is no ASCII. */
    private static final byte OTHER = 4;
    private static final byte STOP = 8;
    private static final byte REFUSED = 16;
    private static final int LONGEST_LINE = 1 << 20;
    private static final int MONTHS = 1 << 8;

    private final byte delimiter;
    private final long delimiters;
    private final Kind[] kinds;
    private final int longest;
    private final List<StringPool<T>> known;
    private double[][] figures;
    private T[][] texts;
    private int into;
    private double[] sums;
    private final byte[] classes;
    private final byte[] classesInQuotes;
    private double figure;
    private int rows;
    private int returns;
    private int ends;

    private byte[] bytes;
    private int at;
    private int end;
    private boolean quotesInside;
    /** Some months that were met, by a number that is made of their characters. */
    private final Month[] months = new Month[MONTHS];

    /**
     * A month.
     *
     * @param characters its year, a dash, the month and a dash
     * @param eve   the number of the day before its first one
     */
    private record Month(long characters, long eve, int days) {
    }

    PlainLines(TextHead head, StringPool.Maker<T> maker) {
        List<Field> fields = head.fields();
        this.delimiter = (byte) head.delimiter();
        this.delimiters = EightBytes.of(delimiter);
        this.kinds = fields.stream().map(Field::kind).toArray(Kind[]::new);
        this.classes = classes(delimiter);
        this.classesInQuotes = classes((byte) '\n');
        classesInQuotes['\n'] = REFUSED;
        classesInQuotes['\r'] = REFUSED;
        classesInQuotes['"'] = PLAIN; // the second one of two
        this.longest = head.limits().characters();
        this.known = fields.stream().map(field -> new StringPool<>(maker)).toList();
    }

    /** What each byte of a text is. */
    private static byte[] classes(byte delimiter) {
        byte[] classes = new byte[1 << Byte.SIZE];
        for (int i = 0; i < classes.length; i++) {
            classes[i] = i > Byte.MAX_VALUE ? OTHER : i == ' ' ? SPACE : i < ' ' || i == Byte.MAX_VALUE || i == '"' ? REFUSED : PLAIN;
        }
        classes['\n'] = STOP;
        classes['\r'] = STOP;
        classes[delimiter] = STOP;
        return classes;
    }

    /**
     * Takes whole lines to be read next.
     *
     * @param lines    and as many zeros behind as {@link EightBytes} asks for
     * @param linesEnd where the last one ends
     */
    void take(byte[] lines, int linesEnd) {
        bytes = lines;
        at = 0;
        end = linesEnd;
        rows = 0;
        returns = 0;
        ends = 0;
        sums = new double[kinds.length];
    }

    /** Whether all of them have been read. */
    boolean isAtEnd() {
        return at >= end;
    }

    /**
     * Reads some rows of them.
     *
     * @param first where the first one is kept
     * @return how many
     * @throws NotPlain at the first cell that is not
     */
    int read(Cells<T> cells, int first, int most) throws NotPlain {
        figures = cells.figures();
        texts = cells.texts();
        into = first;
        while (at < end && into - first < most) {
            at = row(at, end);
            into++;
        }
        rows += into - first;
        return into - first;
    }

    /** How many rows have been read of these lines. */
    int rows() {
        return rows;
    }

    /** The sums of the columns of numbers in them, by the places of the columns. */
    double[] sums() {
        return sums;
    }

    /** @param inReturns whether lines end in a carriage return and a line feed @throws NotPlain where one of them ends otherwise */
    void refuseOtherEnds(boolean inReturns) throws NotPlain {
        if (returns != (inReturns ? ends : 0)) {
            throw new NotPlain();
        }
    }

    /** @return where the next one starts */
    private int row(int start, int end) throws NotPlain {
        int i = start;
        int last = kinds.length - 1;
        for (int column = 0; column < last; column++) {
            i = cell(column, i, end);
            if (i >= end || bytes[i] != delimiter) {
                throw new NotPlain();
            }
            i++;
        }
        i = lineEnd(cell(last, i, end), end);
        if (i - start > LONGEST_LINE) {
            throw new NotPlain();
        }
        return i;
    }

    /** Reads a cell and what it may stand in. @return what follows */
    private int cell(int column, int from, int end) throws NotPlain {
        if (bytes[from] != '"') {
            return cell(column, from, end, false);
        }
        int to = closing(from + 1, end);
        if (cell(column, from + 1, to, true) != to) {
            throw new NotPlain();
        }
        return to + 1;
    }

    /** Reads a cell that ends at {@code to} at last. @return where it ends */
    private int cell(int column, int from, int to, boolean quoted) throws NotPlain {
        Kind kind = kinds[column];
        if (kind == Kind.TEXT) {
            return text(column, from, to, quoted);
        }
        boolean missing = from == to || classes[bytes[from] & 0xff] == STOP && !quoted;
        int stop = missing ? from : kind == Kind.NUMBER ? number(from, to) : day(from, to);
        if (figures[column] != null) {
            figures[column][into] = missing ? Double.NaN : figure;
        }
        sums[column] += missing ? 0 : figure;
        return stop;
    }

    private int lineEnd(int at, int end) throws NotPlain {
        int i = at;
        if (i < end && bytes[i] == '\r') {
            i++;
            returns++;
        }
        if (i < end && bytes[i] != '\n') {
            throw new NotPlain();
        }
        ends += i < end ? 1 : 0;
        return i + 1;
    }

    /** Where the quote stands that ends a cell in quotes. */
    private int closing(int from, int end) throws NotPlain {
        quotesInside = false;
        for (int i = from; i < end && bytes[i] != '\n'; i++) {
            if (bytes[i] == '"') {
                if (i + 1 >= end || bytes[i + 1] != '"') {
                    return i;
                }
                quotesInside = true;
                i++;
            }
        }
        throw new NotPlain();
    }

    private static boolean isDigit(byte character) {
        return character >= '0' && character <= '9';
    }

    /** Of up to seven digits on each side of a point in one go; of others character by character. */
    private int number(int from, int to) throws NotPlain {
        byte[] line = bytes;
        int start = line[from] == '-' ? from + 1 : from;
        long figures = EightBytes.figures(EightBytes.at(line, start));
        int whole = EightBytes.digits(figures);
        if (whole == 0 || whole == Long.BYTES || whole > 1 && line[start] == '0') {
            return longNumber(from, start, to);
        }
        long digits = EightBytes.number(figures, whole);
        int i = start + whole;
        int decimals = 0;
        if (line[i] == '.') {
            long behind = EightBytes.figures(EightBytes.at(line, i + 1));
            decimals = EightBytes.digits(behind);
            if (decimals == 0 || decimals == Long.BYTES) {
                return longNumber(from, start, to);
            }
            digits = digits * TENFOLD[decimals] + EightBytes.number(behind, decimals);
            i += 1 + decimals;
        }
        return number(start > from, digits / TENS[decimals], i);
    }

    private int longNumber(int from, int start, int end) throws NotPlain {
        byte[] line = bytes;
        int i = start;
        long digits = 0;
        while (i < end && isDigit(line[i])) {
            digits = digits * 10 + line[i++] - '0';
        }
        int whole = i - start;
        boolean plain = whole > 0 && whole <= MOST_DIGITS && (line[start] != '0' || whole == 1);
        int decimals = 0;
        if (plain && i < end && line[i] == '.') {
            int point = ++i;
            while (i < end && isDigit(line[i])) {
                digits = digits * 10 + line[i++] - '0';
            }
            decimals = i - point;
            plain = decimals > 0 && decimals <= MOST_DECIMALS;
        }
        if (!plain || decimals == 0 && whole > EXACT_DIGITS && (long) (double) digits != digits) { // a code, and no figure
            throw new NotPlain();
        }
        return number(start > from, whole + decimals <= EXACT_DIGITS ? digits / TENS[decimals] : JavaDoubleParser.parseDouble(line, start, i - start), i);
    }

    /** @param size digits and a power of ten are exact as doubles, so their quotient is the nearest one to the figure */
    private int number(boolean negative, double size, int stop) {
        figure = negative ? 0.0 - size : size;
        return stop;
    }

    private int digits(int start, int end) throws NotPlain {
        int number = 0;
        for (int i = start; i < end; i++) {
            if (!isDigit(bytes[i])) {
                throw new NotPlain();
            }
            number = number * 10 + bytes[i] - '0';
        }
        return number;
    }

    private int day(int from, int to) throws NotPlain {
        int stop = from + DAY;
        if (stop > to) {
            throw new NotPlain();
        }
        long characters = EightBytes.at(bytes, from);
        int slot = EightBytes.mixed(characters) & MONTHS - 1;
        Month month = months[slot];
        if (month == null || month.characters() != characters) {
            month = month(from, characters);
            months[slot] = month;
        }
        int day = digits(from + 8, stop);
        if (day < 1 || day > month.days()) {
            throw new NotPlain();
        }
        figure = month.eve() + day;
        return stop;
    }

    private Month month(int from, long characters) throws NotPlain {
        if (bytes[from + 4] != '-' || bytes[from + 7] != '-') {
            throw new NotPlain();
        }
        int year = digits(from, from + 4);
        int month = digits(from + 5, from + 7);
        try {
            LocalDate first = LocalDate.of(year, month, 1);
            return new Month(characters, first.toEpochDay() - 1, first.lengthOfMonth());
        } catch (DateTimeException e) {
            throw new NotPlain();
        }
    }

    /** Of up to fifteen plain characters in one go; of others character by character. */
    private int text(int column, int from, int to, boolean quoted) throws NotPlain {
        byte[] line = bytes;
        if (quoted || line[from] == ' ') {
            return longText(column, from, to, quoted);
        }
        long first = EightBytes.at(line, from);
        long stops = EightBytes.stops(first, delimiters);
        long second = 0;
        int count;
        if (stops != 0) {
            count = EightBytes.before(stops);
            first = EightBytes.first(first, count);
        } else {
            second = EightBytes.at(line, from + Long.BYTES);
            stops = EightBytes.stops(second, delimiters);
            count = Long.BYTES + EightBytes.before(stops);
            if (count > StringPool.SHORT) {
                return longText(column, from, to, false);
            }
            second = EightBytes.first(second, count - Long.BYTES);
        }
        int stop = from + count;
        if (stop < to && classes[line[stop] & 0xff] != STOP || stop > to || count > longest) {
            return longText(column, from, to, false);
        }
        if (texts[column] != null) {
            texts[column][into] = count == 0 ? null : known.get(column).text(line, from, stop, first, second);
        }
        return stop;
    }

    private int longText(int column, int from, int to, boolean quoted) throws NotPlain {
        byte[] line = bytes;
        byte[] each = quoted ? classesInQuotes : classes;
        int seen = 0;
        int i = from;
        if (!quoted && line[from] != ' ') {
            i = plainSigns(from, to);
            seen = i == from ? 0 : PLAIN;
        }
        while (i < to) {
            int kind = each[line[i] & 0xff];
            if (kind >= STOP) {
                if (kind == STOP) {
                    break;
                }
                throw new NotPlain();
            }
            seen |= kind;
            i++;
        }
        boolean odd = (seen & OTHER) != 0;
        if (seen == SPACE || !odd && i - from > longest) {
            throw new NotPlain();
        }
        boolean wanted = texts[column] != null;
        T text = null;
        if (i > from && (odd || wanted)) {
            text = known.get(column).text(line, from, i, !odd, quoted && quotesInside);
            if (odd && !known.get(column).lastWasKnown()) {
                refuseOdd(StringPool.string(line, from, i, false, quoted && quotesInside));
            }
        }
        if (wanted) {
            texts[column][into] = text;
        }
        return i;
    }

    /** Where the plain characters end that a text begins with. */
    private int plainSigns(int from, int to) {
        int i = from;
        long stops = EightBytes.stops(EightBytes.at(bytes, i), delimiters);
        while (stops == 0 && i + Long.BYTES < to) {
            i += Long.BYTES;
            stops = EightBytes.stops(EightBytes.at(bytes, i), delimiters);
        }
        return Math.min(i + EightBytes.before(stops), to);
    }

    /** A character that no text has, as bytes that are none are read, that is shown as another, or that can't be seen. */
    static boolean isOdd(char character) {
        return character == '\uFFFD' || character == '\uFEFF' || character == '\u2028' || character == '\u2029' || Character.isISOControl(character);
    }

    private void refuseOdd(String text) throws NotPlain {
        boolean seen = false;
        for (int i = 0; i < text.length(); i++) {
            char character = text.charAt(i);
            if (isOdd(character)) {
                throw new NotPlain();
            }
            seen |= !Character.isSpaceChar(character) && !Character.isWhitespace(character);
        }
        if (!seen || text.length() > longest) {
            throw new NotPlain();
        }
    }
}
