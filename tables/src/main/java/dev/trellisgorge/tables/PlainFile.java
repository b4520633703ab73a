package dev.trellisgorge.tables;

import java.io.Closeable;
import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;

/** A plain file in parts, which readers divide between them. */
final class PlainFile implements PlainRows {
    private final InputFile source;
    private final int parts;
    private final Supplier<PartRows> rows;
    private final WholeFile whole;
    private final Closeable held;
    private final AtomicInteger next = new AtomicInteger();

    /** @param rows for each reader its own @param held closed at the end */
    PlainFile(InputFile source, int parts, Supplier<PartRows> rows, WholeFile whole, Closeable held) {
        this.source = source;
        this.parts = parts;
        this.rows = rows;
        this.whole = whole;
        this.held = held;
    }

    @Override
    public int mostReaders() {
        return Math.max(1, Math.min(parts, Runtime.getRuntime().availableProcessors()));
    }

    @Override
    public RowReader reader() {
        return new Reader(rows.get());
    }

    @Override
    public boolean isWhole() {
        return whole.isWhole();
    }

    @Override
    public void close() throws IOException {
        held.close();
    }

    /** Of one thread. */
    private final class Reader implements RowReader {
        private final PartRows at;
        private int part;
        private boolean reading;
        private long first;

        Reader(PartRows at) {
            this.at = at;
        }

        @Override
        public int read(Cells<byte[]> into, int most) throws NotPlain {
            try {
                int read = 0;
                while (read == 0 && isReading()) {
                    read = some(into, most);
                }
                return read;
            } catch (IOException e) {
                throw source.unreadable(e);
            }
        }

        private int some(Cells<byte[]> into, int most) throws IOException, NotPlain {
            first = ((long) part << Integer.SIZE) + at.rows();
            int read = at.read(into, most);
            if (at.isAtEnd()) {
                at.leave();
                whole.read(part, at.rows(), at.sums(), at.lastRow());
                reading = false;
            }
            return read;
        }

        private boolean isReading() throws IOException, NotPlain {
            if (!reading) {
                part = next.getAndIncrement();
                reading = part < parts;
                if (reading) {
                    at.take(part);
                }
            }
            return reading;
        }

        @Override
        public long first() {
            return first;
        }
    }
}
