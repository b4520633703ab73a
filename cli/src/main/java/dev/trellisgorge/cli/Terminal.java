package dev.trellisgorge.cli;

import java.util.Map;
import java.util.OptionalInt;

/**
 * What results are shown on.
 *
 * @param columns     how many characters a line holds; empty where it is no terminal
 * @param environment what the process was told about it
 */
record Terminal(OptionalInt columns, Map<String, String> environment) {
    /** Set by the start script, which can ask. */
    private static final String COLUMNS = "gorge.columns";

    /** No terminal: a file, or another program. */
    static final Terminal NONE = new Terminal(OptionalInt.empty(), Map.of());

    /** The process's own. */
    static Terminal own() {
        Integer columns = Integer.getInteger(COLUMNS);
        return new Terminal(columns == null ? OptionalInt.empty() : OptionalInt.of(columns), System.getenv());
    }
}
