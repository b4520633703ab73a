package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Series;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.SheetChart.Range;
import dev.trellisgorge.table.Column;
import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * A chart's copies of the cells that it reads, for programs that do not compute. A chart of very many rows has none, and no
 * labels: nobody could read them, and they would not fit in memory.
 */
final class Cached {
    private static final int MOST_ROWS = 5_000;

    private Cached() {
    }

    /** Whether a chart carries copies and labels. */
    static boolean isWhole(PlainChart chart) {
        return chart.data().rowCount() <= MOST_ROWS;
    }

    private static int rows(PlainChart chart) {
        return isWhole(chart) ? chart.data().rowCount() : 0;
    }

    static Range<String> categories(PlainChart chart, HelperSheet helpers) {
        return new Range<>(helpers.categories(), IntStream.range(0, rows(chart)).mapToObj(helpers::categoryText).toList());
    }

    /** A 0 on the first row, and no other cell. */
    static Range<Double> zero(PlainChart chart, String cells) {
        Double[] figures = new Double[rows(chart)];
        if (figures.length > 0) {
            figures[0] = 0.0;
        }
        return new Range<>(cells, Arrays.asList(figures));
    }

    /** Absent cells have no copy. */
    static Range<Double> figures(PlainChart chart, Series series, HelperSheet helpers) {
        Column cells = chart.data().column(series.column());
        Double[] figures = IntStream.range(0, rows(chart)).mapToObj(row -> cells.isPresent(row) ? cells.number(row) : null).toArray(Double[]::new);
        return new Range<>(helpers.valuesOf(series), Arrays.asList(figures));
    }
}
