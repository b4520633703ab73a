package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The looks of a chart: what the user changed, and the labels that the chart made.
 *
 * @param names  what readers call a series, by its own name
 * @param colors the fill of a series, by its own name
 * @param labels the label of a series, by its own name
 */
public record Look(Map<String, String> names, Map<String, Color> colors, Map<String, Label> labels) {

    /** A series that is seen; the legend names it where there are others. */
    Series series(String column, Role role, boolean inLegend) {
        return new Series(column, names.getOrDefault(column, column), role, Optional.of(colors.getOrDefault(column, role.color())),
                Optional.empty(), false, Optional.ofNullable(labels.get(column)), inLegend);
    }

    /** One of several bands on a scale. */
    Series band(String column, int band, int of) {
        Series series = series(column, Role.MUTED, true);
        return colors.containsKey(column) ? series : series.filled(Optional.of(Role.band(band, of)));
    }

    /** The series of a combination; a part that is named as a spacer is one. */
    List<Series> series(Combination combination, HelperTable table) {
        boolean legend = combination.classifier().isPresent();
        String last = combination.parts().get(combination.parts().size() - 1).name();
        return combination.madeIn(table).stream().map(made -> made.part().name().equals("spacer") ? Series.spacer(made.column())
                : series(made.column(), made.role(), legend && made.part().name().equals(last))).toList();
    }

    /** One field of bars; its value axis has figures where the bars have none. */
    Panel panel(Placing placing, double gap, List<Series> series) {
        return Panel.of(new BarGroup(placing, gap, series)).valueAxisShown(labels.isEmpty());
    }

    /** The same, with the lines of its rule. */
    Panel panel(Placing placing, double gap, List<Series> series, Optional<Classifier> rule, Settings settings) {
        return panel(placing, gap, series).references(rule.map(r -> r.lines(settings)).orElse(List.of()));
    }
}
