package dev.trellisgorge.cli;

import dev.trellisgorge.tables.Progress;
import java.io.PrintStream;
import java.util.function.LongSupplier;

/** A line on standard error that shows how far a long reading is, while somebody watches; it is gone when all is read. */
final class ProgressBar implements Progress, AutoCloseable {
    private static final long PATIENCE = 700_000_000; // nanoseconds
    private static final long PAUSE = 100_000_000;
    private static final int CELLS = 30;
    private static final int MOST_NAME = 40;

    private final PrintStream err;
    private final boolean watched;
    private final LongSupplier clock;
    private final long start;
    private long shownAt;
    private int width;

    /** @param clock in nanoseconds */
    ProgressBar(PrintStream err, boolean watched, LongSupplier clock) {
        this.err = err;
        this.watched = watched;
        this.clock = clock;
        this.start = watched ? clock.getAsLong() : 0;
        this.shownAt = start;
    }

    @Override
    public void read(String file, double share) {
        if (!watched) {
            return;
        }
        long now = clock.getAsLong();
        if (now - start >= PATIENCE && now - shownAt >= PAUSE) {
            shownAt = now;
            String name = file.length() > MOST_NAME ? "…" + file.substring(file.length() - MOST_NAME + 1) : file;
            show("reading " + name + "  " + bar(share));
        }
    }

    /** How far something is, in characters. */
    static String bar(double share) {
        int full = (int) (share * CELLS);
        return "[" + "#".repeat(full) + " ".repeat(CELLS - full) + "] " + (int) (share * 100) + " %";
    }

    private void show(String line) {
        err.print("\r" + line + " ".repeat(Math.max(0, width - line.length())));
        err.flush();
        width = line.length();
    }

    @Override
    public void close() {
        if (width > 0) {
            err.print("\r" + " ".repeat(width) + "\r");
            err.flush();
        }
    }
}
