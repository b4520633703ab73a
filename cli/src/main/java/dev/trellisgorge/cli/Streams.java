package dev.trellisgorge.cli;

import java.io.PrintStream;

/**
 * Where a command writes.
 *
 * @param out results
 * @param err everything else
 */
record Streams(PrintStream out, PrintStream err) {
}
