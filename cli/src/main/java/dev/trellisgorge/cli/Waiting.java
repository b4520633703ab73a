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

    private final Database database;
    private final PrintStream err;
    private int width;
    private boolean over;

    private Waiting(Database database, PrintStream err) {
        this.database = database;
        this.err = err;
    }

    /** From now on for this database, until what it gives is closed. @param watched whether there is somebody to see the clock */
    static Streams.Open on(Database database, PrintStream err, boolean watched) {
        Waiting waiting = new Waiting(database, err);
        Thread broken = new Thread(waiting::breakOff, "gorge: break off");
        Runtime.getRuntime().addShutdownHook(broken);
        Thread clock = new Thread(waiting::show, "gorge: clock");
        clock.setDaemon(true);
        if (watched) {
            clock.start();
        }
        return () -> {
            clock.interrupt();
            waiting.end();
            try {
                Runtime.getRuntime().removeShutdownHook(broken);
            } catch (IllegalStateException ending) {
                // the process ends, and the hook does what it is for
            }
        };
    }

    private void breakOff() {
        database.cancel();
        end();
    }

    private synchronized void end() {
        over = true;
        if (width > 0) {
            err.print("\r" + " ".repeat(width + ECHO) + "\r");
            err.flush();
            width = 0;
        }
    }

    private void show() {
        try {
            while (true) {
                Optional<Duration> runs = database.runs().filter(time -> time.toMillis() >= PATIENCE);
                put(runs.map(time -> "the database works: " + time.toSeconds() + " s" + told()).orElse(""));
                Thread.sleep(PAUSE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** In the place of the line before. */
    private synchronized void put(String line) {
        if (!over && (width > 0 || !line.isEmpty())) {
            err.print("\r" + line + " ".repeat(Math.max(0, width - line.length())) + (line.isEmpty() ? "\r" : ""));
            err.flush();
            width = line.length();
        }
    }

    /** How far it is, where it says so. */
    private String told() {
        OptionalDouble share = database.share();
        return share.isPresent() ? "  " + ProgressBar.bar(share.getAsDouble()) : "";
    }
}
