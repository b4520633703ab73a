package dev.trellisgorge.tables;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.ClosedByInterruptException;

/** Bytes that end with an error once the thread that reads them is interrupted; it stays so. */
final class InterruptibleStream extends FilterInputStream {
    InterruptibleStream(InputStream in) {
        super(in);
    }

    private static void check() throws IOException {
        if (Thread.currentThread().isInterrupted()) {
            throw new ClosedByInterruptException();
        }
    }

    @Override
    public int read() throws IOException {
        check();
        return super.read();
    }

    @Override
    public int read(byte[] bytes, int from, int count) throws IOException {
        check();
        return super.read(bytes, from, count);
    }
}
