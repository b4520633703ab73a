package dev.trellisgorge.tables;

import java.io.Closeable;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;

/** A large file in parts of whole lines, which threads read side by side. Close it when all is read. Thread-safe. */
final class LineParts implements Closeable {
    private static final int LEAST_PART = 1 << 20;
    private static final int LARGEST_PART = 1 << 21;
    private static final int PARTS = 16;

    private final InputFile source;
    private final FileChannel file;
    private final List<Long> starts = new ArrayList<>();
    private final AtomicLong passed = new AtomicLong();

    /** @param header whether the first line is left out */
    LineParts(InputFile source, boolean header) throws IOException {
        this.source = source;
        this.file = FileChannel.open(source.path(), StandardOpenOption.READ);
        long size = file.size();
        long part = Math.max(LEAST_PART, Math.min(LARGEST_PART, size / PARTS));
        for (long from = header ? lineAfter(0) : 0; from < size; from = from + part >= size ? size : lineAfter(from + part)) {
            starts.add(from);
        }
        starts.add(size);
    }

    int count() {
        return starts.size() - 1;
    }

    /** Whether a carriage return stands before the first part, as at the end of a header. */
    boolean isAfterReturn() throws IOException {
        ByteBuffer two = ByteBuffer.allocate(2);
        return starts.get(0) >= 2 && file.read(two, starts.get(0) - 2) == 2 && two.get(0) == '\r';
    }

    /** How many bytes a part has. */
    int size(int part) {
        return Math.toIntExact(starts.get(part + 1) - starts.get(part));
    }

    /** Reads a part, with zeros behind as {@link EightBytes} asks for. @param before where an earlier part was read to @return where this one is: there again, if there is room */
    byte[] read(int part, byte[] before) throws IOException {
        int size = size(part);
        int needed = size + EightBytes.BEHIND;
        byte[] room = before.length >= needed ? before : new byte[needed + size / 8];
        ByteBuffer buffer = ByteBuffer.wrap(room, 0, size);
        while (buffer.hasRemaining()) {
            if (file.read(buffer, starts.get(part) + buffer.position()) < 0) {
                throw new EOFException("it has become shorter while it is read");
            }
        }
        Arrays.fill(room, size, needed, (byte) 0);
        return room;
    }

    /** Tells that a part is read for the last time. */
    void passed(int part) throws IOException {
        source.passed(passed.addAndGet(size(part)));
    }

    /** Where the line ends in which a byte lies. */
    private long lineAfter(long at) throws IOException {
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

    @Override
    public void close() throws IOException {
        file.close();
    }
}
