package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * A large file of delimited text, read in parts side by side, for as long as all of it is as plain as its head: the cells are then those
 * that {@link DelimitedText} reads, and there is nothing to tell of them. Of one reading.
 */
final class PlainText {
    private final InputFile source;
    private final TextHead head;
    private final List<PlainLines> readers = new ArrayList<>();

    private PlainText(InputFile source, TextHead head) {
        this.source = source;
        this.head = head;
    }

    /** Whether every cell is plain, there are no more than are read, and the last row is no total. One processor is left to whoever reads the file meanwhile. */
    static boolean isPlain(Path file, TextHead head) {
        InputFile source = new InputFile(file, file.toString(), Progress.NONE);
        try (LineParts parts = new LineParts(source, true, Math.max(1, Runtime.getRuntime().availableProcessors() - 1))) {
            return new PlainText(source, head).areRead(parts, Optional.empty(), new int[parts.count()]);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /** @return empty where a cell or line is not plain, the last row may be a total, or there is too much: {@link DelimitedText} then reads, tells or refuses it */
    static Optional<Table> read(String name, InputFile source, TextHead head) {
        try (LineParts parts = new LineParts(source, true, Runtime.getRuntime().availableProcessors())) {
            return new PlainText(source, head).table(name, parts);
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /** The lines are counted first, so that each cell is written to where it stays. */
    private Optional<Table> table(String name, LineParts parts) throws IOException {
        List<Integer> counted = parts.each((lines, end, part) -> lines(lines, end)).orElse(List.of());
        int[] first = new int[counted.size()];
        long rows = 0;
        for (int i = 0; i < first.length; i++) {
            first[i] = (int) rows;
            rows += counted.get(i);
        }
        if (rows * head.fields().size() > Math.min(head.limits().cells(), (long) head.fields().size() * (Integer.MAX_VALUE - 8))) {
            return Optional.empty();
        }
        PlainLines.Cells cells = PlainLines.Cells.of(head.fields(), (int) rows);
        return areRead(parts, Optional.of(cells), first) ? Optional.of(table(name, cells, (int) rows)) : Optional.empty();
    }

    private Table table(String name, PlainLines.Cells cells, int rows) {
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

    /** @param first the row that each part begins with @return whether all of it is plain, and the last row no total */
    private boolean areRead(LineParts parts, Optional<PlainLines.Cells> cells, int[] first) throws IOException {
        boolean returns = parts.endsInReturn();
        Optional<List<PlainLines.Part>> read = parts.each((lines, end, part) -> {
            PlainLines reader = reader();
            PlainLines.Part done = reader.read(lines, end, cells, first[part]);
            if (done.returns() != (returns ? done.ends() : 0)) {
                throw new NotPlain();
            }
            back(reader);
            parts.passed(end);
            return done;
        });
        long rows = 0;
        double[] sums = new double[head.fields().size()];
        for (PlainLines.Part part : read.orElse(List.of())) {
            rows += part.rows();
            Arrays.setAll(sums, i -> sums[i] + part.sums()[i]);
        }
        return rows > 0 && rows * sums.length <= head.limits().cells() && !LastRow.mayBeTotal(head.fields(), head.last(), sums, rows);
    }

    private synchronized PlainLines reader() {
        return readers.isEmpty() ? new PlainLines(head) : readers.remove(readers.size() - 1);
    }

    private synchronized void back(PlainLines reader) {
        readers.add(reader);
    }
}
