package dev.trellisgorge.sql.query;

/** A query holds something of which nobody here can tell what it does. The message says what. */
final class Unchecked extends Exception {
    private static final long serialVersionUID = 1L;

    Unchecked(String message) {
        super(message);
    }
}
