package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;

/** A table of all rows of a large file of delimited text, for as long as they are as plain as its head. Of one reading. */
final class PlainTable {
    private final InputFile source;
    private final TextHead head;
    private final LineParts parts;
    private final int threads;

    private PlainTable(InputFile source, TextHead head, LineParts parts) {
        this.source = source;
        this.head = head;
        this.parts = parts;
        this.threads = Math.max(1, Math.min(parts.count(), Runtime.getRuntime().availableProcessors()));
    }

    /** @return empty where a cell or line is not plain, the last row may be a total, or there is too much: {@link DelimitedText} then reads, reports or refuses it */
    static Optional<Table> read(String name, InputFile source, TextHead head) {
        try (LineParts parts = new LineParts(source, true)) {
            return new PlainTable(source, head, parts).read(name);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /** The lines are counted first, so that each cell is written to where it stays. */
    private Optional<Table> read(String name) throws IOException {
        int[] lines = new int[parts.count()];
        AtomicInteger next = new AtomicInteger();
        boolean counted = ParallelTasks.isPlain(threads, () -> {
            byte[] room = new byte[0];
            for (int part = next.getAndIncrement(); part < lines.length; part = next.getAndIncrement()) {
                room = parts.read(part, room);
                lines[part] = lines(room, parts.size(part));
            }
        });
        long rows = IntStream.of(lines).asLongStream().sum();
        if (!counted || rows * head.fields().size() > Math.min(head.limits().cells(), (long) head.fields().size() * (Integer.MAX_VALUE - 8))) {
            return Optional.empty();
        }
        Cells<String> cells = Cells.ofTexts(head.fields(), (int) rows);
        return isRead(cells, firstRows(lines)) ? Optional.of(table(name, cells, (int) rows)) : Optional.empty();
    }

    private static int[] firstRows(int[] lines) {
        int[] first = new int[lines.length];
        for (int part = 1; part < first.length; part++) {
            first[part] = first[part - 1] + lines[part - 1];
        }
        return first;
    }

    /** @param first the row that each part begins with */
    private boolean isRead(Cells<String> cells, int[] first) throws IOException {
        boolean inReturns = parts.isAfterReturn();
        WholeFile whole = new WholeFile(head.fields(), head.limits(), parts.count(), head.last());
        AtomicInteger next = new AtomicInteger();
        boolean plain = ParallelTasks.isPlain(threads, () -> {
            PlainLines<String> reader = new PlainLines<>(head, StringPool::string);
            byte[] room = new byte[0];
            for (int part = next.getAndIncrement(); part < first.length; part = next.getAndIncrement()) {
                room = parts.read(part, room);
                reader.take(room, parts.size(part));
                reader.read(cells, first[part], Integer.MAX_VALUE);
                reader.refuseOtherEnds(inReturns);
                whole.read(part, reader.rows(), reader.sums(), Optional.empty());
                parts.passed(part);
            }
        });
        return plain && whole.isWhole();
    }

    private Table table(String name, Cells<String> cells, int rows) {
        List<Column> columns = new ArrayList<>();
        for (int i = 0; i < head.fields().size(); i++) {
            Field field = head.fields().get(i);
            columns.add(field.kind() == Kind.TEXT ? Column.owning(field.name(), cells.texts()[i]) : Column.owning(field.name(), field.kind(), cells.figures()[i]));
        }
        return Table.of(name, new Source(source.shown(), IntStream.range(2, rows + 2).toArray()), columns);
    }

    private static int lines(byte[] part, int end) {
        int lines = part[end - 1] == '\n' ? 0 : 1;
        for (int i = 0; i < end; i++) {
            lines += part[i] == '\n' ? 1 : 0;
        }
        return lines;
    }
}
