package dev.trellisgorge.tables;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Optional;

/**
 * The rows of parts of a JSON file: the cells are those that {@link JsonTable} reads, and there is nothing to report of them. Lines are in parts that are
 * read side by side; an array is one part. Of one thread.
 */
final class JsonParts implements PartRows {
    private final Parsers parsers;
    private final JsonRows rows;
    private JsonParser parser;
    private byte[] room = new byte[0];
    private int part;

    /** The parts' parsers. */
    private interface Parsers {
        JsonParser of(JsonParts reader) throws IOException;

        void passed(int part) throws IOException;
    }

    private JsonParts(Parsers parsers, JsonHead head) {
        this.parsers = parsers;
        this.rows = new JsonRows(head.fields(), head.lines());
    }

    static PlainRows of(InputFile source, JsonHead head) throws IOException {
        JsonFactory factory = JsonFactory.builder().enable(StreamReadFeature.USE_FAST_DOUBLE_PARSER).streamReadConstraints(StreamReadConstraints.builder().maxStringLength(head.limits().characters()).build()).build();
        return head.lines() ? lines(source, new LineParts(source, false), factory, head) : array(source, source.open(), factory, head);
    }

    private static PlainRows lines(InputFile source, LineParts parts, JsonFactory factory, JsonHead head) {
        Parsers parsers = new Parsers() {
            @Override
            public JsonParser of(JsonParts reader) throws IOException {
                reader.room = parts.read(reader.part, reader.room);
                return factory.createParser(reader.room, 0, parts.size(reader.part));
            }

            @Override
            public void passed(int part) throws IOException {
                parts.passed(part);
            }
        };
        return new PlainFile(source, parts.count(), () -> new JsonParts(parsers, head), new WholeFile(head.fields(), head.limits(), parts.count(), List.of()), parts);
    }

    private static PlainRows array(InputFile source, InputStream in, JsonFactory factory, JsonHead head) {
        Parsers parsers = new Parsers() {
            @Override
            public JsonParser of(JsonParts reader) throws IOException {
                return factory.createParser(in);
            }

            @Override
            public void passed(int part) {
                // the stream tells how far it is
            }
        };
        return new PlainFile(source, 1, () -> new JsonParts(parsers, head), new WholeFile(head.fields(), head.limits(), 1, List.of()), in);
    }

    @Override
    public void take(int next) throws IOException, NotPlain {
        part = next;
        try {
            parser = parsers.of(this);
            rows.take(parser);
        } catch (JsonProcessingException e) {
            throw new NotPlain(); // whoever reads it says what is wrong
        }
    }

    @Override
    public int read(Cells<byte[]> into, int most) throws IOException, NotPlain {
        try {
            return rows.read(into, most);
        } catch (JsonProcessingException e) {
            throw new NotPlain();
        }
    }

    @Override
    public boolean isAtEnd() {
        return rows.isAtEnd();
    }

    @Override
    public long rows() {
        return rows.rows();
    }

    @Override
    public double[] sums() {
        return rows.sums();
    }

    @Override
    public Optional<List<String>> lastRow() {
        return Optional.of(rows.lastRow());
    }

    @Override
    public void leave() throws IOException {
        parser.close();
        parsers.passed(part);
    }
}
