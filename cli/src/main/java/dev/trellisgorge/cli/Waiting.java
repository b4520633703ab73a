package dev.trellisgorge.cli;

import dev.trellisgorge.sql.Database;
import java.io.PrintStream;
import java.time.Duration;
import java.util.Optional;
import java.util.OptionalDouble;

/** While a database works: a clock on standard error, where somebody watches, and an end to its statement where the command is broken off. */
final class Waiting {
    private static final long PATIENCE = 1_000; // milliseconds
    private static final long PAUSE = 250;
    /** What a terminal writes where somebody breaks off. */
    private static final int ECHO = 2;

    private final PrintStream err;
    private final boolean watched;
    private volatile Optional<Database> database = Optional.empty();
    private int width;
    private boolean brokenOff;

    Waiting(PrintStream err, boolean watched) {
        this.err = err;
        this.watched = watched;
    }

    /** From now on for this one. */
    void on(Database next) {
        boolean first = database.isEmpty();
        database = Optional.of(next);
        if (first) {
            Runtime.getRuntime().addShutdownHook(new Thread(this::breakOff));
        }
        if (first && watched) {
            Thread clock = new Thread(this::show, "clock");
            clock.setDaemon(true);
            clock.start();
        }
    }

    private void breakOff() {
        database.ifPresent(Database::cancel);
        synchronized (this) {
            brokenOff = true;
            if (width > 0) {
                err.print("\r" + " ".repeat(width + ECHO) + "\r");
                err.flush();
            }
        }
    }

    private void show() {
        try {
            while (true) {
                Optional<Duration> runs = database.flatMap(Database::runs).filter(time -> time.toMillis() >= PATIENCE);
                put(runs.map(time -> "the database works: " + time.toSeconds() + " s" + told()).orElse(""));
                Thread.sleep(PAUSE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** In the place of the line before. */
    private synchronized void put(String line) {
        if (!brokenOff && (width > 0 || !line.isEmpty())) {
            err.print("\r" + line + " ".repeat(Math.max(0, width - line.length())) + (line.isEmpty() ? "\r" : ""));
            err.flush();
            width = line.length();
        }
    }

    /** How far it is, where it says so. */
    private String told() {
        OptionalDouble share = database.map(Database::share).orElse(OptionalDouble.empty());
        return share.isPresent() ? "  " + ProgressBar.bar(share.getAsDouble()) : "";
    }
}
