package dev.trellisgorge.chart;

import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * What a value axis covers: always zero and every bar, line, point and reference line; and the figures of other columns,
 * so that several panels, or both sides of one, have one scale. Immutable and thread-safe.
 *
 * @param reaches    helper columns whose figures it covers too
 * @param backwards  whether it runs from right to left, or from the top down
 * @param covered    what it covers in place of all that; it need not hold zero
 */
public record Scale(List<String> reaches, boolean backwards, Optional<Looks.Covered> covered) {
    public static final Scale FITTING = new Scale(List.of(), false, Optional.empty());

    public Scale {
        reaches = List.copyOf(reaches);
        Objects.requireNonNull(covered, "covered");
    }

    public static Scale reaching(String... columns) {
        return new Scale(List.of(columns), false, Optional.empty());
    }

    public Scale runBackwards() {
        return new Scale(reaches, true, covered);
    }

    /** From one figure to another, whatever is drawn: what lies beyond is cut off. */
    public Scale covering(Looks.Covered range) {
        return new Scale(reaches, backwards, Optional.of(range));
    }
}
