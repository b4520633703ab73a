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

    private final PrintStream err;
    private final boolean watched;
    private volatile Optional<Database> database = Optional.empty();

    Waiting(PrintStream err, boolean watched) {
        this.err = err;
        this.watched = watched;
    }

    /** From now on for this one. */
    void on(Database next) {
        boolean first = database.isEmpty();
        database = Optional.of(next);
        if (first) {
            Runtime.getRuntime().addShutdownHook(new Thread(() -> database.ifPresent(Database::cancel)));
        }
        if (first && watched) {
            Thread clock = new Thread(this::show, "clock");
            clock.setDaemon(true);
            clock.start();
        }
    }

    private void show() {
        int width = 0;
        try {
            while (true) {
                Optional<Duration> runs = database.flatMap(Database::runs).filter(time -> time.toMillis() >= PATIENCE);
                String line = runs.map(time -> "the database works: " + time.toSeconds() + " s" + told()).orElse("");
                if (width > 0 || !line.isEmpty()) {
                    err.print("\r" + line + " ".repeat(Math.max(0, width - line.length())) + (line.isEmpty() ? "\r" : ""));
                }
                width = line.length();
                err.flush();
                Thread.sleep(PAUSE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** How far it is, where it says so. */
    private String told() {
        OptionalDouble share = database.map(Database::share).orElse(OptionalDouble.empty());
        return share.isPresent() ? "  " + ProgressBar.bar(share.getAsDouble()) : "";
    }
}
