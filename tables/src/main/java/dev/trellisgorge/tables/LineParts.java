package dev.trellisgorge.tables;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
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

/** A large file in parts of whole lines, which threads of its own read side by side. Close it when all is read. Used by one thread. */
final class LineParts implements AutoCloseable {
    private static final int LEAST_PART = 1 << 20;
    private static final int LARGEST_PART = 1 << 21;
    private static final int PARTS = 16;

    private final InputFile source;
    private final FileChannel file;
    private final ExecutorService threads;
    private final List<Long> starts = new ArrayList<>();
    private final List<byte[]> free = new ArrayList<>();
    private long passed;

    /** What is done with a part. */
    interface Reading<T> {
        /**
         * @param lines with zeros behind, as {@link EightBytes} asks for
         * @param end   where the last one ends
         * @param part  which it is, from 0
         * @throws NotPlain where one is not
         */
        T of(byte[] lines, int end, int part) throws NotPlain, IOException;
    }

    /**
     * @param header       whether the first line is left out
     * @param threadsAtOnce that read
     */
    LineParts(InputFile source, boolean header, int threadsAtOnce) throws IOException {
        this.source = source;
        this.file = FileChannel.open(source.path(), StandardOpenOption.READ);
        this.threads = Executors.newFixedThreadPool(threadsAtOnce, task -> {
            Thread thread = new Thread(task, "text");
            thread.setDaemon(true);
            // what a part fails with is thrown where the part is awaited; a thread that fails besides, as for memory, has nothing to tell
            thread.setUncaughtExceptionHandler((failed, what) -> { });
            return thread;
        });
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
    boolean endsInReturn() throws IOException {
        ByteBuffer two = ByteBuffer.allocate(2);
        return starts.get(0) >= 2 && file.read(two, starts.get(0) - 2) == 2 && two.get(0) == '\r';
    }

    /** What is read of each part, in their order; empty where one is not plain. */
    <T> Optional<List<T>> each(Reading<T> reading) throws IOException {
        List<Future<T>> waiting = new ArrayList<>();
        for (int i = 0; i < count(); i++) {
            int part = i;
            waiting.add(threads.submit(() -> read(reading, part)));
        }
        List<T> all = new ArrayList<>();
        for (Future<T> one : waiting) {
            Optional<T> done = done(one);
            if (done.isEmpty()) {
                return Optional.empty();
            }
            all.add(done.get());
        }
        return Optional.of(all);
    }

    private <T> T read(Reading<T> reading, int part) throws NotPlain, IOException {
        int size = Math.toIntExact(starts.get(part + 1) - starts.get(part));
        byte[] bytes = room(size + EightBytes.BEHIND);
        ByteBuffer buffer = ByteBuffer.wrap(bytes, 0, size);
        while (buffer.hasRemaining() && file.read(buffer, starts.get(part) + buffer.position()) >= 0) {
            // until all of it is there
        }
        Arrays.fill(bytes, size, size + EightBytes.BEHIND, (byte) 0);
        T read = reading.of(bytes, size, part);
        back(bytes);
        return read;
    }

    private synchronized byte[] room(int size) {
        byte[] last = free.isEmpty() ? new byte[0] : free.remove(free.size() - 1);
        return last.length >= size ? last : new byte[size + size / 8];
    }

    private synchronized void back(byte[] bytes) {
        free.add(bytes);
    }

    /** Tells that so many bytes are read for the last time. */
    synchronized void passed(int bytes) throws IOException {
        passed += bytes;
        source.passed(passed);
    }

    /** @return empty where something is not plain */
    private static <T> Optional<T> done(Future<T> part) throws IOException {
        try {
            return Optional.of(part.get());
        } catch (ExecutionException e) {
            if (e.getCause() instanceof NotPlain) {
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

    /** What the parts hold is free again afterwards: whoever tells that memory ended needs some. */
    @Override
    public void close() throws IOException {
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
        file.close();
    }
}
