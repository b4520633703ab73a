package dev.trellisgorge.pattern;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/**
 * A key of a pattern in a brief: what it is read by, and what its help, its schema and its reference say. Immutable and thread-safe.
 *
 * @param name     as it is written
 * @param takes    what it takes
 * @param fallback what counts by default; empty where it is required, or nothing does
 * @param required whether the pattern can't be without it
 * @param meaning  one line
 * @param words    the words that it may be; empty where it takes others
 * @param keys     the keys of its mapping, or of each mapping of its list; empty where it takes none
 */
public record Key(String name, Takes takes, String fallback, boolean required, String meaning, List<String> words, List<Key> keys) {
    public Key {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(takes, "takes");
        Objects.requireNonNull(fallback, "fallback");
        Objects.requireNonNull(meaning, "meaning");
        words = List.copyOf(words);
        keys = List.copyOf(keys);
    }

    /** What a key takes. */
    public enum Takes {
        FIGURE("an expression of a number"),
        FIGURES("a list of expressions"),
        EXPRESSION("an expression"),
        COLUMN("a column"),
        NUMBER("a number"),
        NUMBERS("a list of numbers"),
        COUNT("a whole number from 1 up"),
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
        return new Key(name, takes, "", true, meaning, List.of(), List.of());
    }

    static Key optional(String name, Takes takes, String fallback, String meaning) {
        return new Key(name, takes, fallback, false, meaning, List.of(), List.of());
    }

    /** The same, of an enum's constants in lower case. */
    Key among(Class<? extends Enum<?>> choices) {
        return new Key(name, takes, fallback, required, meaning, Arrays.stream(choices.getEnumConstants()).map(each -> each.name().toLowerCase(Locale.ROOT)).toList(), keys);
    }

    /** The same, whose mapping has these keys and no others. */
    Key of(Key... inside) {
        return new Key(name, takes, fallback, required, meaning, words, List.of(inside));
    }
}
