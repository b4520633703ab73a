package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Month;
import java.time.Year;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Looks through a JSON file of rows for what an engine would read otherwise than {@link JsonTable}: keys that the first rows did not have, or that a row has
 * twice; cells of another kind than those of the first rows; texts with signs that can't be seen; what is nested. Of one reading.
 */
final class PlainJson {
    private static final int DAY = 10;
    private static final char DELETE = 0x7f;

    private final JsonParser parser;
    private final JsonHead head;
    private final List<Field> fields;
    private final char[][] last;
    private final int[] lengths;
    private final double[] sums;
    private final long[] rowOf;
    private long rows;

    private PlainJson(JsonParser parser, JsonHead head) {
        this.parser = parser;
        this.head = head;
        this.fields = head.fields();
        this.last = new char[fields.size()][DAY];
        this.lengths = new int[fields.size()];
        this.sums = new double[fields.size()];
        this.rowOf = new long[fields.size()];
    }

    /** Lines are looked through side by side, as that takes longer than what an engine does with them meanwhile. */
    static boolean isPlain(Path file, JsonHead head) {
        InputFile source = new InputFile(file, file.toString(), Progress.NONE);
        JsonFactory factory = JsonFactory.builder().enable(StreamReadFeature.USE_FAST_DOUBLE_PARSER).streamReadConstraints(StreamReadConstraints.builder().maxStringLength(head.limits().characters()).build()).build();
        try {
            return head.lines() ? areLines(source, head, factory) : isArray(source, head, factory);
        } catch (JsonProcessingException e) {
            return false; // whoever reads it says what is wrong
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    private static boolean isArray(InputFile source, JsonHead head, JsonFactory factory) throws IOException {
        try (InputStream in = source.open(); JsonParser parser = factory.createParser(in)) {
            PlainJson rows = new PlainJson(parser, head);
            return parser.nextToken() == JsonToken.START_ARRAY && rows.areRows(JsonToken.END_ARRAY) && parser.nextToken() == null && isPlain(List.of(rows));
        }
    }

    private static boolean areLines(InputFile source, JsonHead head, JsonFactory factory) throws IOException {
        try (LineParts parts = new LineParts(source, false, Runtime.getRuntime().availableProcessors())) {
            return parts.each((lines, end, part) -> {
                try (JsonParser parser = factory.createParser(lines, 0, end)) {
                    PlainJson rows = new PlainJson(parser, head);
                    if (!rows.areRows(null)) {
                        throw new NotPlain();
                    }
                    return rows;
                }
            }).filter(PlainJson::isPlain).isPresent();
        }
    }

    /** Whether all parts together are no more than is read, and do not end in a total. */
    private static boolean isPlain(List<PlainJson> parts) {
        PlainJson last = parts.get(parts.size() - 1);
        long rows = parts.stream().mapToLong(part -> part.rows).sum();
        double[] sums = IntStream.range(0, last.fields.size()).mapToDouble(i -> parts.stream().mapToDouble(part -> part.sums[i]).sum()).toArray();
        return last.rows > 0 && rows * last.fields.size() <= last.head.limits().cells() && !LastRow.mayBeTotal(last.fields, last.lastRow(), sums, rows);
    }

    private boolean areRows(JsonToken end) throws IOException {
        for (JsonToken token = parser.nextToken(); token != end; token = parser.nextToken()) {
            rows++;
            if (token != JsonToken.START_OBJECT || head.lines() && !isOnItsLine() || !isRow() || head.lines() && !isOnItsLine()) {
                return false;
            }
        }
        return true;
    }

    private boolean isOnItsLine() {
        return parser.currentTokenLocation().getLineNr() == rows;
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
            case VALUE_TRUE, VALUE_FALSE -> fields.get(column).kind() == Kind.TRUTH;
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> fields.get(column).kind() == Kind.NUMBER && isNumber(column);
            case VALUE_STRING -> fields.get(column).kind() == Kind.TEXT ? isText(column) : fields.get(column).kind() == Kind.DATE && isDay(column);
            default -> false;
        };
    }

    private boolean isMissing(int column) {
        lengths[column] = 0;
        return true;
    }

    private boolean isNumber(int column) throws IOException {
        double figure = parser.getDoubleValue();
        sums[column] += figure;
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
        return year >= 0 && month >= 1 && month <= 12 && day >= 1 && day <= Month.of(month).length(Year.isLeap(year));
    }

    /** @return below 0 where a sign is no digit */
    private static int number(char[] text, int from, int to) {
        int number = 0;
        for (int i = from; i < to; i++) {
            number = text[i] >= '0' && text[i] <= '9' && number >= 0 ? number * 10 + text[i] - '0' : -1;
        }
        return number;
    }

    /** Empty or seen: signs that no text has, that are shown as others, or that can't be seen are read with care. */
    private boolean isText(int column) throws IOException {
        char[] text = kept(column);
        int length = lengths[column];
        boolean seen = length == 0;
        for (int i = 0; i < length; i++) {
            char sign = text[i];
            if (sign < ' ' || sign >= DELETE && !isPlain(text, i, length)) {
                return false;
            }
            seen |= sign > ' ' && (sign < DELETE || !Character.isSpaceChar(sign) && !Character.isWhitespace(sign));
        }
        return seen;
    }

    private static boolean isPlain(char[] text, int at, int length) {
        char sign = text[at];
        boolean alone = Character.isHighSurrogate(sign) ? at + 1 == length || !Character.isLowSurrogate(text[at + 1]) : Character.isLowSurrogate(sign) && (at == 0 || !Character.isHighSurrogate(text[at - 1]));
        return !alone && !PlainLines.isOdd(sign);
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

    private List<String> lastRow() {
        return IntStream.range(0, last.length).mapToObj(i -> rowOf[i] == rows ? new String(last[i], 0, lengths[i]) : "").toList();
    }
}
