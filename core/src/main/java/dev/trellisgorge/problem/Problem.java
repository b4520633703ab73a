package dev.trellisgorge.problem;

import java.util.Objects;

/**
 * One mistake in what the user gave: where it stands, and one sentence that says what was found and
 * what would be right. {@code toString()} is the line that a user reads. Immutable and thread-safe.
 */
public record Problem(Place place, String message) implements java.io.Serializable {
    public Problem {
        Objects.requireNonNull(place, "place");
        Objects.requireNonNull(message, "message");
    }

    @Override
    public String toString() {
        String where = place.toString();
        return where.isEmpty() ? message : where + ": " + message;
    }
}
