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
}
