package dev.trellisgorge.cli;

import java.util.Map;
import java.util.OptionalInt;

/**
 * What results are shown on.
 *
 * @param columns     how many characters a line holds; empty where it is no terminal
 * @param watched     whether standard error is a terminal
 * @param environment what the process was told about it
 */
record Terminal(OptionalInt columns, boolean watched, Map<String, String> environment) {
    /** Set by the start script, which can ask. */
    private static final String COLUMNS = "gorge.columns";
    private static final String WATCHED = "gorge.watched";

    /** No terminal: a file, or another program. */
    static final Terminal NONE = new Terminal(OptionalInt.empty(), false, Map.of());

    /** The process's own. */
    static Terminal own() {
        Integer columns = Integer.getInteger(COLUMNS);
        return new Terminal(columns == null ? OptionalInt.empty() : OptionalInt.of(columns), Boolean.getBoolean(WATCHED), System.getenv());
    }
}
