package dev.trellisgorge.formula;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Characters;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.time.LocalDate;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Named values that a reader may change, in the order they were stated: numbers, texts or dates, each a column of one cell.
 * Immutable and thread-safe.
 */
public final class Settings {
    public static final Settings NONE = new Settings(Map.of(), Map.of());

    private final Map<String, Column> values;
    private final Map<String, About> told;

    private Settings(Map<String, Column> values, Map<String, About> told) {
        this.values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
        this.told = Map.copyOf(told);
    }

    /**
     * The description of a setting for readers.
     *
     * @param format  how its figure is written, as a CLDR number pattern; empty for as it is
     * @param unit    what it is counted in, or empty
     * @param meaning what it is, in a few words, or empty
     */
    public record About(String format, String unit, String meaning) {
        /** Nothing is said of it. */
        public static final About NOTHING = new About("", "", "");

        public About {
            Objects.requireNonNull(format, "format");
            Objects.requireNonNull(unit, "unit");
            Objects.requireNonNull(meaning, "meaning");
        }
    }

    /** The same, with a description of one of them; that stays when its value is changed. */
    public Settings telling(String name, About about) {
        Map<String, About> more = new LinkedHashMap<>(told);
        more.put(name, about);
        return new Settings(values, more);
    }

    /** The description of a setting for readers. */
    public About about(String name) {
        return told.getOrDefault(name, About.NOTHING);
    }

    public static Settings of(String name, double value) {
        return NONE.with(name, value);
    }

    /**
     * These settings and one more, or one changed.
     *
     * @param value NaN where it has none
     * @throws IllegalArgumentException where the name holds a character that {@linkplain Characters no output can take}
     */
    public Settings with(String name, double value) {
        return with(Column.numbers(named(name), value));
    }

    /** The same for a text. */
    public Settings with(String name, String value) {
        return with(Column.texts(named(name), Objects.requireNonNull(value, "value")));
    }

    /** The same for a date. */
    public Settings with(String name, LocalDate value) {
        return with(Column.dates(named(name), Objects.requireNonNull(value, "value")));
    }

    private Settings with(Column value) {
        Map<String, Column> more = new LinkedHashMap<>(values);
        more.put(value.name(), value);
        return new Settings(more, told);
    }

    private static String named(String name) {
        if (Characters.firstOther(Objects.requireNonNull(name, "name")) >= 0) {
            throw new IllegalArgumentException("'" + Characters.shown(name) + "' holds a control character, and a setting's name is shown");
        }
        return name;
    }

    /** The one cell of a setting; empty where there is no such setting. */
    public Optional<Column> find(String name) {
        return Optional.ofNullable(values.get(name));
    }

    /**
     * The same.
     *
     * @throws BadInput with the nearest known name where there is no such setting
     */
    public Column value(String name) {
        return find(name).orElseThrow(() -> new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, unknown(name)));
    }

    /** What a setting is. Errors as {@link #value}. */
    public Kind kind(String name) {
        return value(name).kind();
    }

    /** The message for a setting that is not here. */
    public String unknown(String name) {
        return "there is no setting ':" + name + "'. " + Nearest.hint(name, values.keySet());
    }

    /** The one cell of each, by its name. */
    public Map<String, Column> values() {
        return values;
    }
}
