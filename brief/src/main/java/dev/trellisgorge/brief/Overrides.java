package dev.trellisgorge.brief;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * What a brief is read with instead of what it says, so that next month needs no edit.
 *
 * @param settings other values of settings that the brief states
 * @param data     other files for tables that the brief names
 */
public record Overrides(Map<String, Double> settings, Map<String, Path> data) {
    public static final Overrides NONE = new Overrides(Map.of(), Map.of());

    public Overrides {
        settings = new LinkedHashMap<>(settings);
        data = new LinkedHashMap<>(data);
    }
}
