package dev.trellisgorge.brief;

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
 */
public record Overrides(Map<String, String> settings, Map<String, Path> data, Optional<String> where, Optional<String> locale) {
    public static final Overrides NONE = new Overrides(Map.of(), Map.of(), Optional.empty(), Optional.empty());

    public Overrides {
        settings = new LinkedHashMap<>(settings);
        data = new LinkedHashMap<>(data);
        Objects.requireNonNull(where, "where");
        Objects.requireNonNull(locale, "locale");
    }
}
