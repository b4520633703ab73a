package dev.trellisgorge.pattern;

import java.util.Locale;

/** The side that takes a value equal to a limit. */
public enum Ties {
    ABOVE, BELOW;

    /** The word in a brief. */
    @Override
    public String toString() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The side that does not. */
    public Ties other() {
        return this == ABOVE ? BELOW : ABOVE;
    }
}
