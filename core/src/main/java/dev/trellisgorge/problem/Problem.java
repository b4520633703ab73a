package dev.trellisgorge.problem;

import java.util.Objects;

/**
 * One mistake in what the user gave. {@code toString()} is the line that a user reads. Immutable and thread-safe.
 *
 * @param place   where it is
 * @param kind    what sort of mistake it is, for programs
 * @param message one sentence that says what was found and what would be right, in the library's words; what a database says is passed on as it is
 */
public record Problem(Place place, ProblemKind kind, String message) implements java.io.Serializable {
    public Problem {
        Objects.requireNonNull(place, "place");
        Objects.requireNonNull(kind, "kind");
        Objects.requireNonNull(message, "message");
    }

    /** The same mistake, seen from another place; its own is named in the message. */
    public Problem at(Place other) {
        return new Problem(other, kind, toString());
    }

    @Override
    public String toString() {
        String where = place.toString();
        return where.isEmpty() ? message : where + ": " + message;
    }
}
