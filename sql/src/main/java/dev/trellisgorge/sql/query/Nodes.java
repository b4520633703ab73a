package dev.trellisgorge.sql.query;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;

/** How parsed pieces of some kind are written, by their exact class; a class that isn't here can't be checked. */
final class Nodes {
    /** Stands for what can't be checked; no token, so it is never what was parsed. */
    static final String UNKNOWN = "?";

    private final Map<Class<?>, Function<Object, String>> writers = new HashMap<>();

    /** What a piece of that class is written as. */
    <T> void add(Class<T> type, Function<T, String> writer) {
        writers.put(type, piece -> writer.apply(type.cast(piece)));
    }

    String written(Object piece) {
        Function<Object, String> writer = piece == null ? null : writers.get(piece.getClass());
        return writer == null ? UNKNOWN : writer.apply(piece);
    }
}
