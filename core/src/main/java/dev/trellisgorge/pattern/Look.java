package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * The looks of a chart: what the user changed, and the labels that the chart made. Immutable and thread-safe.
 *
 * @param names  what readers call a series, by its own name, or by its class's or part's
 * @param colors the fill of a series, by the same
 * @param labels the labels of a series, by its own name
 * @param groups the series of each class and part
 * @param looks  what else was changed
 */
public record Look(Map<String, String> names, Map<String, Color> colors, Map<String, List<Label>> labels, Map<String, List<String>> groups, Looks looks) {
    public Look {
        names = Collections.unmodifiableMap(new LinkedHashMap<>(names));
        colors = Collections.unmodifiableMap(new LinkedHashMap<>(colors));
        labels = Collections.unmodifiableMap(new LinkedHashMap<>(labels));
        groups = Collections.unmodifiableMap(new LinkedHashMap<>(groups));
        Objects.requireNonNull(looks, "looks");
    }

    /** What is given to a series, by its own name; else to a class or part that it is of. */
    static <T> Optional<T> of(String series, Map<String, T> given, Map<String, List<String>> groups) {
        return Optional.ofNullable(given.get(series)).or(() -> groups.entrySet().stream().filter(group -> group.getValue().contains(series) && given.containsKey(group.getKey()))
                .map(group -> given.get(group.getKey())).findFirst());
    }

    /** A series that is seen; the legend names it where there are others. */
    public Series series(String column, Role role, boolean inLegend) {
        return new Series(column, of(column, names, groups).orElse(column), looks.judged(role),
                Optional.of(of(column, colors, groups).orElse(looks.color(looks.judged(role)))),
                Optional.empty(), false, labels.getOrDefault(column, List.of()), inLegend);
    }

    /** What a user calls a series, a class or a part; empty where it keeps its name. */
    Optional<String> given(String name) {
        return Optional.ofNullable(names.get(name));
    }

    /** One of several bands on a scale. */
    Series band(String column, int band, int of) {
        Series series = series(column, Role.MUTED, true);
        return of(column, colors, groups).isPresent() ? series : series.filled(Optional.of(Role.band(band, of)));
    }

    /** The series of a combination; a part that is named as a spacer is one. */
    List<Series> series(Combination combination) {
        boolean legend = combination.classifier().isPresent();
        String last = combination.parts().get(combination.parts().size() - 1).name();
        return combination.made().stream().map(made -> made.is("spacer") ? Series.spacer(made.column())
                : series(made.column(), made.role(), legend && made.is(last))).toList();
    }

    /** One field of bars; its value axis has figures where the bars have none. */
    public Panel panel(Placing placing, double gap, List<Series> series) {
        return Panel.of(new BarGroup(placing, gap, series)).valueAxisShown(labels.isEmpty());
    }

    /** The same, with the lines of its rule. */
    Panel panel(Placing placing, double gap, List<Series> series, Optional<Classifier> rule) {
        return panel(placing, gap, series).references(rule.map(Classifier::lines).orElse(List.of()));
    }
}
