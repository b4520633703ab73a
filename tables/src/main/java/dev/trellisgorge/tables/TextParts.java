package dev.trellisgorge.tables;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

/** The rows of parts of a file of delimited text: the cells are those that {@link DelimitedText} reads, and there is nothing to report of them. Of one thread. */
final class TextParts implements PartRows {
    private final LineParts parts;
    private final boolean inReturns;
    private final PlainLines<byte[]> lines;
    private byte[] room = new byte[0];
    private int part;

    private TextParts(LineParts parts, boolean inReturns, TextHead head) {
        this.parts = parts;
        this.inReturns = inReturns;
        this.lines = new PlainLines<>(head, StringPool::utf8);
    }

    static PlainRows of(InputFile source, TextHead head) throws IOException {
        LineParts parts = new LineParts(source, true);
        boolean inReturns = parts.isAfterReturn();
        return new PlainFile(source, parts.count(), () -> new TextParts(parts, inReturns, head), new WholeFile(head.fields(), head.limits(), parts.count(), head.last()), parts);
    }

    @Override
    public void take(int next) throws IOException {
        part = next;
        room = parts.read(part, room);
        lines.take(room, parts.size(part));
    }

    @Override
    public int read(Cells<byte[]> into, int most) throws NotPlain {
        return lines.read(into, 0, most);
    }

    @Override
    public boolean isAtEnd() {
        return lines.isAtEnd();
    }

    @Override
    public long rows() {
        return lines.rows();
    }

    @Override
    public double[] sums() {
        return lines.sums();
    }

    @Override
    public Optional<List<String>> lastRow() {
        return Optional.empty();
    }

    @Override
    public void leave() throws IOException, NotPlain {
        lines.refuseOtherEnds(inReturns);
        parts.passed(part);
    }
}
