package dev.trellisgorge.tables;

import java.util.Arrays;

/** Line numbers that come one by one, one a row. */
final class Lines {
    private static final int FIRST = 64;

    private int[] lines = new int[0];
    private int size;

    void add(int line) {
        if (size == lines.length) {
            lines = Arrays.copyOf(lines, Math.max(FIRST, size + (size >> 1)));
        }
        lines[size++] = line;
    }

    int size() {
        return size;
    }

    int[] all() {
        return Arrays.copyOf(lines, size);
    }
}
