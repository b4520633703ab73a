package dev.trellisgorge.cli;

import java.io.PrintStream;

/**
 * Where a command writes.
 *
 * @param out results
 * @param err everything else
 * @param terminal what the results are shown on
 */
record Streams(PrintStream out, PrintStream err, Terminal terminal) {

    /** Where a long reading is followed; close it when all is read. */
    ProgressBar progressBar() {
        return new ProgressBar(err, terminal.watched(), System::nanoTime);
    }
}
