package dev.trellisgorge.tables;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Tells how many bytes have come through. */
final class CountedStream extends FilterInputStream {
    private final Listener listener;
    private long passed;

    /** Hears of the bytes so far; an error stops the reading. */
    @FunctionalInterface
    interface Listener {
        void passed(long bytes) throws IOException;
    }

    CountedStream(InputStream in, Listener listener) {
        super(in);
        this.listener = listener;
    }

    @Override
    public int read() throws IOException {
        int sign = super.read();
        count(sign < 0 ? 0 : 1);
        return sign;
    }

    @Override
    public int read(byte[] bytes, int from, int most) throws IOException {
        int got = super.read(bytes, from, most);
        count(got);
        return got;
    }

    private void count(int bytes) throws IOException {
        if (bytes > 0) {
            passed += bytes;
            listener.passed(passed);
        }
    }
}
