package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import java.io.PrintStream;
import java.util.ArrayList;
import java.util.List;

/**
 * Where a command writes.
 *
 * @param out results
 * @param err everything else
 * @param terminal what the results are shown on
 * @param read     the briefs that the command works on, which may hold a database open
 */
record Streams(PrintStream out, PrintStream err, Terminal terminal, List<Brief> read) {

    Streams(PrintStream out, PrintStream err, Terminal terminal) {
        this(out, err, terminal, new ArrayList<>());
    }

    /** Leaves what the command had open. */
    void leave() {
        read.forEach(Brief::close);
        read.clear();
    }

    /** Where a long reading is followed; close it when all is read. */
    ProgressBar progressBar() {
        return new ProgressBar(err, terminal.watched(), System::nanoTime);
    }
}
