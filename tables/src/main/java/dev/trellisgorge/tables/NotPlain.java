package dev.trellisgorge.tables;

/** A cell or a line that is read with care, and not as it stands. */
public final class NotPlain extends Exception {
    private static final long serialVersionUID = 1;

    NotPlain() {
        super("not plain", null, false, false);
    }
}
