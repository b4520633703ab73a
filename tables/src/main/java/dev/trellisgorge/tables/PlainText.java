package dev.trellisgorge.tables;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;

/**
 * A large file of delimited text, read in parts side by side, for as long as all of it is as plain as its head: the cells are then those
 * that {@link DelimitedText} reads, and there is nothing to tell of them. Of one reading; the parts' threads are its own.
 */
final class PlainText {
    private static final int LEAST_PART = 1 << 20;
    private static final int LARGEST_PART = 1 << 21;
    private static final int PARTS = 16;

    private final InputFile source;
    private final TextHead head;
    private final List<Reader> readers = new ArrayList<>();
    private long passed;

    private PlainText(InputFile source, TextHead head) {
        this.source = source;
        this.head = head;
    }

    /** Whether every cell is plain, there are no more than are read, and the last row is no total. */
    static boolean isPlain(Path file, TextHead head) {
        return new PlainText(new InputFile(file, file.toString(), Progress.NONE), head).isPlain();
    }

    /** @return empty where a cell or line is not plain, the last row may be a total, or there is too much: {@link DelimitedText} then reads, tells or refuses it */
    static Optional<Table> read(String name, InputFile source, TextHead head) {
        return new PlainText(source, head).table(name);
    }

    /** What a thread reads a part with, and then another one. */
    private final class Reader {
        private final PlainLines lines = new PlainLines(head);
        private byte[] bytes = {};

        /** Some bytes of the file, with zeros behind, as {@link PlainLines} asks for. */
        byte[] bytes(FileChannel file, long from, int size) throws IOException {
            if (bytes.length < size + EightBytes.BEHIND) {
                bytes = new byte[size + size / 8 + EightBytes.BEHIND];
            }
            ByteBuffer buffer = ByteBuffer.wrap(bytes, 0, size);
            while (buffer.hasRemaining() && file.read(buffer, from + buffer.position()) >= 0) {
                // until all of it is there
            }
            Arrays.fill(bytes, size, size + EightBytes.BEHIND, (byte) 0);
            return bytes;
        }
    }

    /** Something that is done to the file by several threads. */
    private interface Work<T> {
        T on(FileChannel file, ExecutorService threads) throws IOException;
    }

    private <T> T with(int threadsAtOnce, Work<T> work) {
        ExecutorService threads = Executors.newFixedThreadPool(threadsAtOnce, task -> {
            Thread thread = new Thread(task, "text");
            thread.setDaemon(true);
            // what a part fails with is thrown where the part is awaited; a thread that fails besides, as for memory, has nothing to tell
            thread.setUncaughtExceptionHandler((failed, what) -> { });
            return thread;
        });
        try (FileChannel file = FileChannel.open(source.path(), StandardOpenOption.READ)) {
            try {
                return work.on(file, threads);
            } finally {
                end(threads);
            }
        } catch (IOException e) {
            throw source.unreadable(e);
        }
    }

    /** What the parts hold is free again afterwards: whoever tells that memory ended needs some. */
    private static void end(ExecutorService threads) {
        boolean awaited = false;
        while (!awaited) {
            try {
                threads.shutdownNow();
                threads.awaitTermination(1, TimeUnit.MINUTES);
                awaited = true;
            } catch (OutOfMemoryError e) {
                // the parts that still run hold all there is; each is about to end
                Thread.onSpinWait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                awaited = true;
            }
        }
    }

    /** One processor is left to whoever reads the file meanwhile. */
    private boolean isPlain() {
        return with(Math.max(1, Runtime.getRuntime().availableProcessors() - 1), (file, threads) -> areRead(file, threads, starts(file), Optional.empty(), new int[0]));
    }

    /** The lines are counted first, so that each cell is written to where it stays. */
    private Optional<Table> table(String name) {
        return with(Runtime.getRuntime().availableProcessors(), (file, threads) -> {
            List<Long> starts = starts(file);
            List<Future<Integer>> counted = new ArrayList<>();
            for (int i = 0; i + 1 < starts.size(); i++) {
                long from = starts.get(i);
                long to = starts.get(i + 1);
                counted.add(threads.submit(() -> lines(file, from, (int) (to - from))));
            }
            int[] first = new int[counted.size()];
            long rows = 0;
            for (int i = 0; i < first.length; i++) {
                first[i] = (int) rows;
                rows += done(counted.get(i)).orElse(0);
            }
            if (rows * head.fields().size() > Math.min(head.limits().cells(), (long) head.fields().size() * (Integer.MAX_VALUE - 8))) {
                return Optional.empty();
            }
            PlainLines.Cells cells = PlainLines.Cells.of(head.fields(), (int) rows);
            return areRead(file, threads, starts, Optional.of(cells), first) ? Optional.of(table(name, cells, (int) rows)) : Optional.empty();
        });
    }

    private Table table(String name, PlainLines.Cells cells, int rows) {
        List<Column> columns = new ArrayList<>();
        for (int i = 0; i < head.fields().size(); i++) {
            Field field = head.fields().get(i);
            columns.add(field.kind() == Kind.TEXT ? Column.owning(field.name(), cells.texts()[i]) : Column.owning(field.name(), field.kind(), cells.figures()[i]));
        }
        return Table.of(name, new Source(source.shown(), IntStream.range(2, rows + 2).toArray()), columns);
    }

    /** Where the parts start, each with a line, and where the last one ends. */
    private static List<Long> starts(FileChannel file) throws IOException {
        long size = file.size();
        long part = Math.max(LEAST_PART, Math.min(LARGEST_PART, size / PARTS));
        List<Long> starts = new ArrayList<>();
        for (long from = lineAfter(file, 0); from < size; from = from + part >= size ? size : lineAfter(file, from + part)) {
            starts.add(from);
        }
        starts.add(size);
        return starts;
    }

    private int lines(FileChannel file, long from, int end) throws IOException {
        Reader reader = reader();
        byte[] part = reader.bytes(file, from, end);
        int lines = part[end - 1] == '\n' ? 0 : 1;
        for (int i = 0; i < end; i++) {
            lines += part[i] == '\n' ? 1 : 0;
        }
        back(reader);
        return lines;
    }

    /** @return whether all of it is plain, and the last row no total */
    private boolean areRead(FileChannel file, ExecutorService threads, List<Long> starts, Optional<PlainLines.Cells> cells, int[] first) throws IOException {
        boolean returns = endsInReturn(file, starts.get(0));
        List<Future<PlainLines.Part>> reading = new ArrayList<>();
        for (int i = 0; i + 1 < starts.size(); i++) {
            long from = starts.get(i);
            long to = starts.get(i + 1);
            int row = cells.isPresent() ? first[i] : 0;
            reading.add(threads.submit(() -> part(file, from, (int) (to - from), cells, row)));
        }
        long rows = 0;
        double[] sums = new double[head.fields().size()];
        for (Future<PlainLines.Part> each : reading) {
            Optional<PlainLines.Part> part = done(each);
            if (part.isEmpty() || part.get().returns() != (returns ? part.get().ends() : 0)) {
                return false;
            }
            rows += part.get().rows();
            Arrays.setAll(sums, i -> sums[i] + part.get().sums()[i]);
        }
        return rows > 0 && rows * sums.length <= head.limits().cells() && !LastRow.mayBeTotal(head.fields(), head.last(), sums, rows);
    }

    /** @return empty where something is not plain */
    private static <T> Optional<T> done(Future<T> part) throws IOException {
        try {
            return Optional.of(part.get());
        } catch (ExecutionException e) {
            if (e.getCause() instanceof PlainLines.NotPlain) {
                return Optional.empty();
            } else if (e.getCause() instanceof IOException failed) {
                throw failed;
            } else if (e.getCause() instanceof OutOfMemoryError full) {
                throw full;
            }
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    private PlainLines.Part part(FileChannel file, long from, int end, Optional<PlainLines.Cells> cells, int row) throws IOException, PlainLines.NotPlain {
        Reader reader = reader();
        PlainLines.Part part = reader.lines.read(reader.bytes(file, from, end), end, cells, row);
        back(reader);
        tell(end);
        return part;
    }

    private synchronized Reader reader() {
        return readers.isEmpty() ? new Reader() : readers.remove(readers.size() - 1);
    }

    private synchronized void back(Reader reader) {
        readers.add(reader);
    }

    private synchronized void tell(int bytes) throws IOException {
        passed += bytes;
        source.passed(passed);
    }

    /** Whether a carriage return stands before a line feed that ends at a byte. */
    private static boolean endsInReturn(FileChannel file, long end) throws IOException {
        ByteBuffer two = ByteBuffer.allocate(2);
        return end >= 2 && file.read(two, end - 2) == 2 && two.get(0) == '\r';
    }

    /** Where the line ends in which a byte lies. */
    private static long lineAfter(FileChannel file, long at) throws IOException {
        ByteBuffer some = ByteBuffer.allocate(1 << 12);
        long from = at;
        while (file.read(some.clear(), from) > 0) {
            for (int i = 0; i < some.position(); i++) {
                if (some.get(i) == '\n') {
                    return from + i + 1;
                }
            }
            from += some.position();
        }
        return from;
    }
}
