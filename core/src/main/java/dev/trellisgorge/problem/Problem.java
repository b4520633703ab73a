package dev.trellisgorge.problem;

/**
 * One mistake in what the user gave: where it stands, and one sentence that says what was found and
 * what would be right. {@code toString()} is the line that a user reads.
 */
public record Problem(Place place, String message) implements java.io.Serializable {

    @Override
    public String toString() {
        String where = place.toString();
        return where.isEmpty() ? message : where + ": " + message;
    }
}
