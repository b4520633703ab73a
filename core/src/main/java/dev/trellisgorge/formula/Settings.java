package dev.trellisgorge.formula;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Characters;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;

/** Named numbers that a reader may change, in the order they were stated; NaN where one has no value. Immutable and thread-safe. */
public final class Settings {
    public static final Settings NONE = new Settings(Map.of());

    private final Map<String, Double> values;

    private Settings(Map<String, Double> values) {
        this.values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
    }

    public static Settings of(String name, double value) {
        return NONE.with(name, value);
    }

    /**
     * These settings and one more, or one changed.
     *
     * @throws IllegalArgumentException where the name holds a character that {@linkplain Characters no output can take}
     */
    public Settings with(String name, double value) {
        if (Characters.firstOther(name) >= 0) {
            throw new IllegalArgumentException("'" + Characters.shown(name) + "' holds a control character, and a setting's name is shown");
        }
        Map<String, Double> more = new LinkedHashMap<>(values);
        more.put(Objects.requireNonNull(name, "name"), value);
        return new Settings(more);
    }

    public OptionalDouble find(String name) {
        Double value = values.get(name);
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    /** @throws BadInput with the nearest known name where there is no such setting */
    public double value(String name) {
        return find(name).orElseThrow(() -> new BadInput(Place.of(""), unknown(name)));
    }

    /** The message for a setting that is not here. */
    public String unknown(String name) {
        return "there is no setting ':" + name + "'. " + Nearest.hint(name, values.keySet());
    }

    public Map<String, Double> values() {
        return values;
    }
}
