package dev.trellisgorge.cli;

import dev.trellisgorge.sql.Database;
import java.io.PrintStream;
import java.time.Duration;
import java.util.Optional;

/** While a database works: a clock on standard error, where somebody watches, and an end to its statement where the command is broken off. */
final class Waiting {
    private static final long PATIENCE = 1_000; // milliseconds
    private static final long PAUSE = 250;

    private Waiting() {
    }

    /** For as long as the program runs. */
    static void on(Database database, PrintStream err, boolean watched) {
        Runtime.getRuntime().addShutdownHook(new Thread(database::cancel));
        if (watched) {
            Thread clock = new Thread(() -> show(database, err), "clock");
            clock.setDaemon(true);
            clock.start();
        }
    }

    private static void show(Database database, PrintStream err) {
        boolean shown = false;
        try {
            while (true) {
                Optional<Duration> runs = database.runs().filter(time -> time.toMillis() >= PATIENCE);
                runs.ifPresent(time -> err.print("\rthe database works: " + time.toSeconds() + " s"));
                if (runs.isEmpty() && shown) {
                    err.print("\r" + " ".repeat(40) + "\r");
                }
                shown = runs.isPresent();
                err.flush();
                Thread.sleep(PAUSE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
