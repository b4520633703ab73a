package dev.trellisgorge.brief;

import dev.trellisgorge.problem.Place;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * What a brief is read with instead of what it says, so that next month needs no edit.
 *
 * @param settings other values of settings that the brief states, as they are written
 * @param data     other files for tables that the brief names
 * @param where    a condition on rows of the raw tables that charts are made of, before all steps
 * @param locale   in whose language output is written, as a BCP 47 tag
 * @param there    the database in which it is computed
 * @param names    how messages name all this
 */
public record Overrides(Map<String, String> settings, Map<String, Path> data, Optional<String> where, Optional<String> locale, There there, InputNames names) {
    public static final Overrides NONE = new Overrides(Map.of(), Map.of(), Optional.empty(), Optional.empty(), There.NOWHERE, InputNames.CALLS);

    public Overrides {
        settings = new LinkedHashMap<>(settings);
        data = new LinkedHashMap<>(data);
        Objects.requireNonNull(where, "where");
        Objects.requireNonNull(locale, "locale");
        Objects.requireNonNull(there, "there");
        Objects.requireNonNull(names, "names");
    }

    /** Where an input of the caller's is at fault. */
    Place place(InputNames.Input input) {
        return Place.of(names.of(input));
    }

    /** The same, and all files are read here. */
    Overrides readHere() {
        return new Overrides(settings, data, where, locale, new There(Optional.of(RunOn.READ_HERE), there.tables(), there.rowsBy(), there.zone(), there.tellsAll(), false), names);
    }

    /**
     * What is said of a database.
     *
     * @param on       which; the one that the brief names where it is empty, or none
     * @param tables   tables of it for tables that the brief names
     * @param rowsBy   the column of each of its tables that numbers their rows
     * @param zone     the time zone whose days those of moments are; the one that the brief names where it is empty
     * @param tellsAll whether rows that steps leave out are counted too, to be reported
     * @param writes   whether views are to be written there
     */
    public record There(Optional<RunOn> on, Map<String, String> tables, Optional<String> rowsBy, Optional<String> zone, boolean tellsAll, boolean writes) {
        public static final There NOWHERE = new There(Optional.empty(), Map.of(), Optional.empty(), Optional.empty(), false, false);

        public There {
            Objects.requireNonNull(on, "on");
            tables = new LinkedHashMap<>(tables);
            Objects.requireNonNull(rowsBy, "rowsBy");
            Objects.requireNonNull(zone, "zone");
        }
    }
}
