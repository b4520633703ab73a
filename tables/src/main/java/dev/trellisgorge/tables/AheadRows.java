package dev.trellisgorge.tables;

import dev.trellisgorge.table.Field;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Optional;
import java.util.Queue;

/**
 * Rows of which some are read before anybody asks for them, by a thread of its own: as many as there is room for. Once they are asked for, their
 * readers read the others; where the file has one reader alone, the thread goes on beside whoever takes them.
 */
final class AheadRows implements PlainRows {
    private static final int ROWS_AT_ONCE = 2_048;
    private static final long MOST_CELLS = 1 << 22;
    /** They take no more than such a part of all memory. */
    private static final long PART_OF_MEMORY = 32;

    private final PlainRows rows;
    private final List<Field> fields;
    private final boolean alone;
    private final Thread thread;
    private final Queue<Some> read = new ArrayDeque<>();
    /** What has read ahead, and may not be at its end; none where another has taken it on. */
    private Optional<RowReader> begun;
    private Optional<Throwable> failed = Optional.empty();
    private boolean asked;
    private boolean ended;
    private boolean closed;

    /** Rows that follow each other. @param from where the first one is in the cells */
    private record Some(long first, int from, int count, Cells<byte[]> cells) {
        Some after(int rows) {
            return new Some(first + rows, from + rows, count - rows, cells);
        }
    }

    AheadRows(PlainRows rows, List<Field> fields) {
        this.rows = rows;
        this.fields = fields;
        this.alone = rows.mostReaders() == 1;
        this.begun = Optional.of(rows.reader());
        this.thread = new Thread(() -> readAhead(begun.get()), "ahead");
        thread.setDaemon(true);
        thread.start();
    }

    private void readAhead(RowReader reader) {
        long room = Math.max(1, Math.min(MOST_CELLS, Runtime.getRuntime().maxMemory() / Double.BYTES / PART_OF_MEMORY) / fields.size() / ROWS_AT_ONCE);
        try {
            for (int count = 1; count > 0 && isWanted(room);) {
                Cells<byte[]> cells = Cells.ofBytes(fields, column -> true, ROWS_AT_ONCE);
                count = reader.read(cells, ROWS_AT_ONCE);
                if (count > 0) {
                    add(new Some(reader.first(), 0, count, cells));
                }
            }
        } catch (NotPlain | RuntimeException | Error e) {
            fail(e);
        } finally {
            end();
        }
    }

    /** Waits for room where nobody else reads. */
    private synchronized boolean isWanted(long room) {
        while (alone && read.size() >= room && !closed) {
            pause();
        }
        return !closed && (alone || !asked && read.size() < room);
    }

    private synchronized void add(Some some) {
        read.add(some);
        notifyAll();
    }

    private synchronized void fail(Throwable what) {
        failed = Optional.of(what);
    }

    private synchronized void end() {
        ended = true;
        notifyAll();
    }

    private void pause() {
        try {
            wait();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            closed = true;
        }
    }

    /** The next rows that were read ahead; none where there are no more of them. */
    private synchronized Optional<Some> next() throws NotPlain {
        asked = true;
        while (!ended && (read.isEmpty() || !alone)) {
            if (closed) {
                throw new IllegalStateException("what is read was closed, or its thread interrupted");
            }
            pause();
        }
        if (read.isEmpty() && failed.isPresent()) {
            if (failed.get() instanceof RuntimeException unreadable) {
                throw unreadable;
            } else if (failed.get() instanceof Error full) {
                throw full;
            }
            throw new NotPlain();
        }
        notifyAll();
        return Optional.ofNullable(read.poll());
    }

    /** What goes on where rows were read ahead, for the first who asks; others begin elsewhere. */
    private synchronized RowReader goingOn() {
        RowReader one = begun.orElseGet(rows::reader);
        begun = Optional.empty();
        return one;
    }

    @Override
    public int mostReaders() {
        return rows.mostReaders();
    }

    @Override
    public RowReader reader() {
        return new Reader();
    }

    @Override
    public boolean isWhole() {
        return rows.isWhole();
    }

    @Override
    public void close() throws IOException {
        synchronized (this) {
            closed = true;
            notifyAll();
            while (!ended) {
                pause();
            }
        }
        rows.close();
    }

    /** Of one thread. */
    private final class Reader implements RowReader {
        private Optional<Some> held = Optional.empty();
        private Optional<RowReader> own = Optional.empty();
        private long first;

        @Override
        public int read(Cells<byte[]> into, int most) throws NotPlain {
            if (own.isEmpty() && held.isEmpty()) {
                held = next();
            }
            if (held.isPresent()) {
                return taken(held.get(), into, most);
            }
            RowReader reader = own.orElseGet(AheadRows.this::goingOn);
            own = Optional.of(reader);
            int count = reader.read(into, most);
            first = reader.first();
            return count;
        }

        private int taken(Some some, Cells<byte[]> into, int most) {
            int count = Math.min(most, some.count());
            into.take(some.cells(), some.from(), count);
            first = some.first();
            held = Optional.of(some.after(count)).filter(rest -> rest.count() > 0);
            return count;
        }

        @Override
        public long first() {
            return first;
        }
    }
}
