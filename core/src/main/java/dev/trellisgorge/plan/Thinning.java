package dev.trellisgorge.plan;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.table.Column;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Which rows are drawn where there are far more of them than pixels: of each so many neighbours, in each panel, the one that
 * reaches highest and the one that reaches lowest, unless that starts at zero, where its neighbour hides it. Each that is drawn is
 * drawn as it is, and the outline of the whole stays.
 */
final class Thinning {
    private static final int BOTH_ENDS = 2;

    private final PlainChart chart;
    private final int together;

    /** @param most how many rows there is room for, 1 or more */
    Thinning(PlainChart chart, int most) {
        this.chart = chart;
        int buckets = Math.max(1, most / (BOTH_ENDS * chart.panels().size()));
        this.together = (chart.data().rowCount() + buckets - 1) / buckets;
    }

    static boolean isNeeded(PlainChart chart, int most) {
        return !chart.panels().isEmpty() && chart.data().rowCount() > BOTH_ENDS * most;
    }

    String sentence() {
        return String.format(Locale.ROOT, "%,d rows are more than can be told apart here: of each %,d neighbours those that reach farthest are drawn",
                chart.data().rowCount(), together);
    }

    /** In order, 0-based. */
    int[] rows() {
        boolean[] drawn = new boolean[chart.data().rowCount()];
        chart.panels().forEach(panel -> choose(panel, drawn));
        return IntStream.range(0, drawn.length).filter(row -> drawn[row]).toArray();
    }

    private void choose(Panel panel, boolean[] drawn) {
        double[] high = new double[drawn.length];
        double[] low = new double[drawn.length];
        Arrays.fill(high, Double.NEGATIVE_INFINITY);
        Arrays.fill(low, Double.POSITIVE_INFINITY);
        for (BarGroup group : panel.bars()) {
            for (PlainChart.Bar bar : chart.bars(group)) {
                if (bar.series().isSeen()) {
                    high[bar.row()] = Math.max(high[bar.row()], Math.max(bar.start(), bar.end()));
                    low[bar.row()] = Math.min(low[bar.row()], Math.min(bar.start(), bar.end()));
                }
            }
        }
        List<String> marks = Stream.concat(panel.lines().stream().map(Line::series), panel.points().stream().map(Points::series)).map(series -> series.column()).toList();
        for (String mark : marks) {
            Column cells = chart.data().column(mark);
            for (int row = 0; row < drawn.length; row++) {
                high[row] = cells.isPresent(row) ? Math.max(high[row], cells.number(row)) : high[row];
                low[row] = cells.isPresent(row) ? Math.min(low[row], cells.number(row)) : low[row];
            }
        }
        for (int from = 0; from < drawn.length; from += together) {
            int highest = from;
            int lowest = from;
            for (int row = from; row < Math.min(drawn.length, from + together); row++) {
                highest = high[row] > high[highest] ? row : highest;
                lowest = low[row] < low[lowest] || low[row] == low[lowest] && high[row] < high[lowest] ? row : lowest;
            }
            drawn[highest] = true;
            drawn[lowest] |= low[lowest] != 0 && !Double.isInfinite(low[lowest]);
        }
    }
}
