package dev.trellisgorge.sql.query;

/** A query calls a function that may do more than compute. */
final class UnknownFunction extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final String name;

    UnknownFunction(String name) {
        super(name);
        this.name = name;
    }

    String name() {
        return name;
    }
}
