package dev.trellisgorge.table;

import java.util.Locale;

/** What the cells of a column are. A cell of any kind may be missing. */
public enum Kind {
    /** A double; never infinite in a figure that is charted. */
    NUMBER,
    TEXT,
    /** A day of the ISO calendar. */
    DATE,
    /** True or false. */
    TRUTH;

    /** The word a message uses, with its article: {@code a number}. */
    public String phrase() {
        return this == TRUTH ? "true or false" : "a " + name().toLowerCase(Locale.ROOT);
    }
}
