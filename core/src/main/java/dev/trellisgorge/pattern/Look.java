package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.BarGroup.Placing;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.ReferenceLine;
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
        return new Series(column, names.getOrDefault(column, column), Optional.of(colors.getOrDefault(column, role.color())),
                Optional.ofNullable(labels.get(column)), inLegend);
    }

    /** A series that takes up room and is never seen. */
    Series spacer(String column) {
        return new Series(column, column, Optional.empty(), Optional.empty(), false);
    }

    /** The series of a combination; a part that is named as a spacer is one. */
    List<Series> series(Combination combination, HelperTable table) {
        boolean legend = combination.classifier().isPresent();
        String last = combination.parts().get(combination.parts().size() - 1).name();
        return combination.madeIn(table).stream().map(made -> made.part().name().equals("spacer") ? spacer(made.column())
                : series(made.column(), made.role(), legend && made.part().name().equals(last))).toList();
    }

    /** One field of bars, with the lines of its rule. */
    Panel panel(Placing placing, double gap, List<Series> series, Optional<Classifier> rule, Settings settings) {
        List<ReferenceLine> lines = rule.map(r -> r.lines(settings)).orElse(List.of());
        return new Panel(List.of(new BarGroup(placing, gap, series)), lines, false, labels.isEmpty());
    }
}
