package dev.trellisgorge.engine.text;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.table.DisplayWidth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * The figures beside the bars, in columns: series that never have a figure on the same row share one, so that the same column
 * says the same thing on every row.
 */
final class Fields {
    private final Map<Integer, Integer> widths = new HashMap<>();
    private final PlainChart chart;
    private final List<List<Field>> columns = new ArrayList<>();

    /** A label of a series. */
    private record Field(Series series, Label label) {
    }

    Fields(PlainChart chart, List<Series> series) {
        this.chart = chart;
        series.stream().flatMap(each -> each.labels().stream().map(label -> new Field(each, label))).filter(this::hasAny).forEach(labelled ->
                columns.stream().filter(column -> column.stream().noneMatch(other -> meet(other, labelled))).findFirst().orElseGet(this::another).add(labelled));
    }

    private String text(Field field, int row) {
        return chart.labelText(field.series().column(), field.label(), row);
    }

    private List<Field> another() {
        columns.add(new ArrayList<>());
        return columns.get(columns.size() - 1);
    }

    private boolean hasAny(Field field) {
        for (int row = 0; row < chart.data().rowCount(); row++) {
            if (!text(field, row).isEmpty()) {
                return true;
            }
        }
        return false;
    }

    private boolean meet(Field some, Field other) {
        for (int row = 0; row < chart.data().rowCount(); row++) {
            if (!text(some, row).isEmpty() && !text(other, row).isEmpty()) {
                return true;
            }
        }
        return false;
    }

    int count() {
        return columns.size();
    }

    /** What stands over a column: the name of its one series. */
    String title(int column) {
        List<Field> all = columns.get(column);
        boolean again = all.size() == 1 && columns.stream().flatMap(List::stream).filter(field -> field.series().equals(all.get(0).series())).count() > 1;
        return all.size() == 1 && !again ? all.get(0).series().name() : "";
    }

    /** What a column takes up: its widest text, or what stands over it. */
    int width(int column) {
        return widths.computeIfAbsent(column, this::widest);
    }

    /** What all columns take up, each with a blank before it. */
    int width() {
        return IntStream.range(0, count()).map(column -> 1 + width(column)).sum();
    }

    private int widest(int column) {
        int widest = IntStream.range(0, chart.data().rowCount()).map(row -> DisplayWidth.of(text(column, row))).max().orElse(0);
        return count() > 1 ? Math.max(widest, DisplayWidth.of(title(column))) : widest;
    }

    String text(int column, int row) {
        return columns.get(column).stream().map(field -> text(field, row)).filter(text -> !text.isEmpty()).findFirst().orElse("");
    }
}
