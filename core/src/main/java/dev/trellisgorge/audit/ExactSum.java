package dev.trellisgorge.audit;

import java.util.Arrays;

/**
 * A sum without any rounding: it is kept as doubles that don't overlap, smallest first, whose sum it is (Shewchuk 1997). Apart
 * from the arithmetic that it proves. For one thread.
 */
final class ExactSum {
    private double[] parts = new double[8];
    private int used;
    private long count;
    private double size;

    void add(double figure) {
        used = added(parts, used, figure);
        if (used == parts.length) {
            parts = Arrays.copyOf(parts, used * 2);
        }
        count++;
        size += Math.abs(figure);
    }

    /** How many figures were added. */
    long count() {
        return count;
    }

    /** The sum of their sizes, roughly. */
    double size() {
        return size;
    }

    /** The exact sum without {@code figure}, rounded once at the end. */
    double minus(double figure) {
        double[] left = Arrays.copyOf(parts, used + 1);
        int many = added(left, used, -figure);
        double rounded = 0;
        for (int i = 0; i < many; i++) {
            rounded += left[i];
        }
        return rounded;
    }

    private static int added(double[] parts, int used, double figure) {
        double rest = figure;
        int kept = 0;
        for (int i = 0; i < used; i++) {
            double large = Math.abs(rest) < Math.abs(parts[i]) ? parts[i] : rest;
            double small = large == rest ? parts[i] : rest;
            double sum = large + small;
            double off = small - (sum - large);
            if (off != 0) {
                parts[kept++] = off;
            }
            rest = sum;
        }
        parts[kept] = rest;
        return kept + 1;
    }
}
