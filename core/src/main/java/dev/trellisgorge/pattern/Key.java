package dev.trellisgorge.pattern;

import java.util.Objects;

/**
 * A key of a pattern in a brief, for the one who reads about it. Immutable and thread-safe.
 *
 * @param name     as it is written
 * @param takes    what it takes
 * @param fallback what counts by default; empty where it is required, or nothing does
 * @param required whether the pattern can't be without it
 * @param meaning  one line
 */
public record Key(String name, Takes takes, String fallback, boolean required, String meaning) {
    public Key {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(takes, "takes");
        Objects.requireNonNull(fallback, "fallback");
        Objects.requireNonNull(meaning, "meaning");
    }

    /** What a key takes. */
    public enum Takes {
        FIGURE("an expression of a number"),
        EXPRESSION("an expression"),
        COLUMN("a column"),
        NUMBER("a number"),
        TEXT("a text"),
        CHOICE("one of a few words"),
        CHOICES("one of a few words, or a list of them"),
        NAMES("a list of category names"),
        MAPPING("a mapping"),
        LIST("a list"),
        TRUTH("true or false");

        private final String phrase;

        Takes(String phrase) {
            this.phrase = phrase;
        }

        /** What a user reads: {@code an expression of a number}. */
        public String phrase() {
            return phrase;
        }
    }

    static Key required(String name, Takes takes, String meaning) {
        return new Key(name, takes, "", true, meaning);
    }

    static Key optional(String name, Takes takes, String fallback, String meaning) {
        return new Key(name, takes, fallback, false, meaning);
    }
}
