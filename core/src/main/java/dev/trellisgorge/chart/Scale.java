package dev.trellisgorge.chart;

import java.util.List;

/**
 * What a value axis covers: always zero and every bar, line, point and reference line; and the figures of other columns,
 * so that several panels, or both sides of one, have one scale. Immutable and thread-safe.
 *
 * @param reaches    helper columns whose figures it covers too
 * @param backwards  whether it runs from right to left, or from the top down
 */
public record Scale(List<String> reaches, boolean backwards) {
    public static final Scale FITTING = new Scale(List.of(), false);

    public Scale {
        reaches = List.copyOf(reaches);
    }

    public static Scale reaching(String... columns) {
        return new Scale(List.of(columns), false);
    }

    public Scale runBackwards() {
        return new Scale(reaches, true);
    }
}
