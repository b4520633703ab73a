package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/**
 * What is known before a cell is computed: the raw tables' columns, and the settings by name. Immutable.
 *
 * @param sources  by the names that pipelines use
 * @param settings their kinds are read, and not their values
 */
public record Catalog(Map<String, Schema> sources, Settings settings) {

    public Catalog {
        Objects.requireNonNull(settings, "settings");
        sources = Collections.unmodifiableMap(new LinkedHashMap<>(sources));
    }

    /** Of tables that were read. */
    public static Catalog of(Map<String, Table> tables, Settings settings) {
        Map<String, Schema> sources = new LinkedHashMap<>();
        tables.forEach((name, table) -> sources.put(name, table.schema()));
        return new Catalog(sources, settings);
    }

    /** @throws BadInput with the nearest name where there is no such table */
    Schema source(String name) {
        Schema source = sources.get(name);
        if (source == null) {
            throw new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, "there is no table '" + name + "'. " + Nearest.hint(name, sources.keySet()));
        }
        return source;
    }
}
