package dev.trellisgorge.engine.text;

import dev.trellisgorge.plan.PlainChart;
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
    private final List<List<Series>> columns = new ArrayList<>();

    Fields(PlainChart chart, List<Series> series) {
        this.chart = chart;
        for (Series labelled : series) {
            if (hasAny(labelled)) {
                columns.stream().filter(column -> column.stream().noneMatch(other -> meet(other, labelled))).findFirst()
                        .orElseGet(this::another).add(labelled);
            }
        }
    }

    private List<Series> another() {
        columns.add(new ArrayList<>());
        return columns.get(columns.size() - 1);
    }

    private boolean hasAny(Series series) {
        for (int row = 0; row < chart.data().rowCount(); row++) {
            if (!chart.labelText(series, row).isEmpty()) {
                return true;
            }
        }
        return false;
    }

    private boolean meet(Series some, Series other) {
        for (int row = 0; row < chart.data().rowCount(); row++) {
            if (!chart.labelText(some, row).isEmpty() && !chart.labelText(other, row).isEmpty()) {
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
        List<Series> all = columns.get(column);
        return all.size() == 1 ? all.get(0).name() : "";
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
        return columns.get(column).stream().map(series -> chart.labelText(series, row)).filter(text -> !text.isEmpty()).findFirst().orElse("");
    }
}
