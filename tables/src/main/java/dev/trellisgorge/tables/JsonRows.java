package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.Month;
import java.time.Year;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Reads rows of JSON, as long as there is nothing to report of them: no keys that the first rows did not have, or that a row has twice; no cells of
 * another kind than those of the first rows; no texts with characters that can't be seen; nothing nested. Of one thread.
 */
final class JsonRows {
    private static final int DAY = 10;
    /** From here on there are whole numbers that no double is. */
    private static final double INEXACT = 1L << 53;
    private static final char DELETE = 0x7f;

    private final List<Field> fields;
    private final boolean lines;
    private final char[][] last;
    private final int[] lengths;
    private final long[] rowOf;
    private double[] sums;
    private JsonParser parser;
    private long rows;
    private boolean atEnd;
    private Cells<byte[]> cells;
    private int into;

    /** @param lines whether each row stands on a line of its own; else they are the items of an array */
    JsonRows(List<Field> fields, boolean lines) {
        this.fields = fields;
        this.lines = lines;
        this.last = new char[fields.size()][DAY];
        this.lengths = new int[fields.size()];
        this.rowOf = new long[fields.size()];
    }

    /** Takes what is to be read next. @throws NotPlain where it is to be an array, and is none */
    void take(JsonParser next) throws IOException, NotPlain {
        parser = next;
        rows = 0;
        atEnd = false;
        sums = new double[fields.size()];
        Arrays.fill(rowOf, 0);
        if (!lines) {
            refuseUnless(parser.nextToken() == JsonToken.START_ARRAY);
        }
    }

    /** Whether all of it has been read. */
    boolean isAtEnd() {
        return atEnd;
    }

    /** Reads some rows. @return how many @throws NotPlain at the first that is not */
    int read(Cells<byte[]> kept, int most) throws IOException, NotPlain {
        cells = kept;
        for (into = 0; into < most; into++) {
            JsonToken token = parser.nextToken();
            if (token == (lines ? null : JsonToken.END_ARRAY)) {
                atEnd = true;
                refuseUnless(lines || parser.nextToken() == null);
                return into;
            }
            rows++;
            refuseUnless(token == JsonToken.START_OBJECT && isOnItsLine());
            emptied();
            refuseUnless(isRow() && isOnItsLine());
        }
        return into;
    }

    private static void refuseUnless(boolean plain) throws NotPlain {
        if (!plain) {
            throw new NotPlain();
        }
    }

    /** How many rows have been read of what was taken last. */
    long rows() {
        return rows;
    }

    /** The sums of the columns of numbers in them, by the places of the columns. */
    double[] sums() {
        return sums;
    }

    private boolean isOnItsLine() {
        return !lines || parser.currentTokenLocation().getLineNr() == rows;
    }

    /** Cells without a key are missing. */
    private void emptied() {
        for (int column = 0; column < rowOf.length; column++) {
            if (cells.figures()[column] != null) {
                cells.figures()[column][into] = Double.NaN;
            } else if (cells.texts()[column] != null) {
                cells.texts()[column][into] = null;
            }
        }
    }

    private void figure(int column, double figure) {
        if (cells.figures()[column] != null) {
            cells.figures()[column][into] = figure;
        }
    }

    private boolean isRow() throws IOException {
        int next = 0;
        while (parser.nextToken() == JsonToken.FIELD_NAME) {
            int column = column(parser.currentName(), next);
            if (column < 0 || rowOf[column] == rows) {
                return false;
            }
            rowOf[column] = rows;
            next = column + 1;
            if (!isCell(parser.nextToken(), column)) {
                return false;
            }
        }
        return true;
    }

    /** Most rows have their keys in one order. */
    private int column(String name, int next) {
        if (next < fields.size() && fields.get(next).name().equals(name)) {
            return next;
        }
        return IntStream.range(0, fields.size()).filter(i -> fields.get(i).name().equals(name)).findFirst().orElse(-1);
    }

    private boolean isCell(JsonToken token, int column) throws IOException {
        return switch (token) {
            case VALUE_NULL -> isMissing(column);
            case VALUE_TRUE, VALUE_FALSE -> fields.get(column).kind() == Kind.TRUTH && isTruth(token, column);
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> fields.get(column).kind() == Kind.NUMBER && isNumber(column);
            case VALUE_STRING -> fields.get(column).kind() == Kind.TEXT ? isText(column) : fields.get(column).kind() == Kind.DATE && isDay(column);
            default -> false;
        };
    }

    private boolean isMissing(int column) {
        lengths[column] = 0;
        return true;
    }

    private boolean isTruth(JsonToken token, int column) {
        figure(column, token == JsonToken.VALUE_TRUE ? 1 : 0);
        return true;
    }

    private boolean isNumber(int column) throws IOException {
        double figure = parser.getDoubleValue();
        if (Math.abs(figure) >= INEXACT && Kinds.isInexact(parser.getText())) {
            return false; // a code, and no figure
        }
        sums[column] += figure;
        figure(column, figure);
        char first = kept(column)[0];
        return !Double.isInfinite(figure) && (figure != 0 || first != '-'); // a zero has no sign here
    }

    private boolean isDay(int column) throws IOException {
        char[] text = kept(column);
        if (lengths[column] != DAY || text[4] != '-' || text[7] != '-') {
            return false;
        }
        int year = number(text, 0, 4);
        int month = number(text, 5, 7);
        int day = number(text, 8, DAY);
        boolean known = year >= 0 && month >= 1 && month <= 12 && day >= 1 && day <= Month.of(month).length(Year.isLeap(year));
        if (known) {
            figure(column, LocalDate.of(year, month, day).toEpochDay());
        }
        return known;
    }

    /** @return below 0 where a character is no digit */
    private static int number(char[] text, int from, int to) {
        int number = 0;
        for (int i = from; i < to; i++) {
            number = text[i] >= '0' && text[i] <= '9' && number >= 0 ? number * 10 + text[i] - '0' : -1;
        }
        return number;
    }

    /** Empty or seen: characters that no text has, that are shown as others, or that can't be seen are read with care. */
    private boolean isText(int column) throws IOException {
        char[] text = kept(column);
        int length = lengths[column];
        boolean seen = length == 0;
        boolean ascii = true;
        for (int i = 0; i < length; i++) {
            char character = text[i];
            if (character < ' ' || character >= DELETE && !isPlain(text, i, length)) {
                return false;
            }
            ascii &= character < DELETE;
            seen |= character > ' ' && (character < DELETE || !Character.isSpaceChar(character) && !Character.isWhitespace(character));
        }
        if (cells.texts()[column] != null && length > 0) {
            cells.texts()[column][into] = utf8(text, length, ascii);
        }
        return seen;
    }

    private static byte[] utf8(char[] text, int length, boolean ascii) {
        if (!ascii) {
            return new String(text, 0, length).getBytes(StandardCharsets.UTF_8);
        }
        byte[] bytes = new byte[length];
        for (int i = 0; i < length; i++) {
            bytes[i] = (byte) text[i];
        }
        return bytes;
    }

    private static boolean isPlain(char[] text, int at, int length) {
        char character = text[at];
        boolean alone = Character.isHighSurrogate(character) ? at + 1 == length || !Character.isLowSurrogate(text[at + 1]) : Character.isLowSurrogate(character) && (at == 0 || !Character.isHighSurrogate(text[at - 1]));
        return !alone && !PlainLines.isOdd(character);
    }

    /** What stands in the cell, which may be one of the last row. */
    private char[] kept(int column) throws IOException {
        int length = parser.getTextLength();
        if (last[column].length < length) {
            last[column] = new char[length * 2];
        }
        System.arraycopy(parser.getTextCharacters(), parser.getTextOffset(), last[column], 0, length);
        lengths[column] = length;
        return last[column];
    }

    /** The row that was read last, as it stands. */
    List<String> lastRow() {
        return IntStream.range(0, last.length).mapToObj(i -> rowOf[i] == rows ? new String(last[i], 0, lengths[i]) : "").toList();
    }
}
