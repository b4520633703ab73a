package dev.trellisgorge.cli;

import java.io.PrintStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * Where a command writes.
 *
 * @param out results
 * @param err everything else
 * @param terminal what the results are shown on
 * @param open     what is to be closed when the command is done, the last one first
 */
record Streams(PrintStream out, PrintStream err, Terminal terminal, List<Open> open) {

    Streams(PrintStream out, PrintStream err, Terminal terminal) {
        this(out, err, terminal, new ArrayList<>());
    }

    /** Something that a command holds while it works: a brief, whose database may be open, or what watches it. */
    interface Open extends AutoCloseable {
        @Override
        void close();
    }

    /** Closes what the command had open. */
    void leave() {
        Collections.reverse(open);
        open.forEach(Open::close);
        open.clear();
    }

    /** Where a long reading is followed; close it when all is read. */
    ProgressBar progressBar() {
        return new ProgressBar(err, terminal.watched(), System::nanoTime);
    }
}
