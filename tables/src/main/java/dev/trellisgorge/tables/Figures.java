package dev.trellisgorge.tables;

import java.util.Arrays;

/** Figures that come one by one. */
final class Figures {
    private static final int FIRST = 64;

    private double[] figures = new double[0];
    private int size;

    void add(double figure) {
        if (size == figures.length) {
            figures = Arrays.copyOf(figures, Math.max(FIRST, size + (size >> 1)));
        }
        figures[size++] = figure;
    }

    double get(int row) {
        return figures[row];
    }

    int size() {
        return size;
    }

    double[] all() {
        return Arrays.copyOf(figures, size);
    }
}
