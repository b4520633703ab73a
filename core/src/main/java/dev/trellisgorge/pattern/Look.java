package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Role;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * What the user changed about the looks of a chart.
 *
 * @param labels what is written beside the bars
 * @param names  what readers call a series, by its own name
 * @param colors the fill of a series, by its own name
 */
public record Look(Labels labels, Map<String, String> names, Map<String, Color> colors) {

    String name(String series) {
        return names.getOrDefault(series, series);
    }

    Color color(String series, Role role) {
        return colors.getOrDefault(series, role.color());
    }

    /** The label that shows {@code column}, unless labels are off. */
    Optional<Label> label(String column, Supplier<Format> fitting) {
        return labels.show() == Labels.Show.NONE ? Optional.empty()
                : Optional.of(new Label(column, labels.format().orElseGet(fitting), labels.at()));
    }
}
