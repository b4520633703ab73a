package dev.trellisgorge.table;

import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/** Puts rows in the order of a key: stable, missing keys last, in time that grows in proportion to the rows. Thread-safe. */
public final class RowOrder {
    private static final int BITS = 11;
    private static final int DIGITS = 1 << BITS;
    private static final int PASSES = (Long.SIZE + BITS - 1) / BITS;

    private RowOrder() {
    }

    /**
     * @param keys one a row; NaN is missing
     * @return the rows (0-based), first is the largest key, or the smallest; equal keys keep their order
     */
    public static int[] of(double[] keys, boolean descending) {
        int count = keys.length;
        long[] from = new long[count];
        int[][] counts = new int[PASSES][DIGITS];
        for (int row = 0; row < count; row++) {
            from[row] = sortable(keys[row], descending);
            for (int pass = 0; pass < PASSES; pass++) {
                counts[pass][digit(from[row], pass)]++;
            }
        }
        int[] rows = new int[count];
        Arrays.setAll(rows, row -> row);
        long[] to = new long[count];
        int[] moved = new int[count];
        for (int pass = 0; pass < PASSES; pass++) {
            if (count == 0 || counts[pass][digit(from[0], pass)] == count) {
                continue; // all rows have the same digit here
            }
            int[] next = starts(counts[pass]);
            for (int i = 0; i < count; i++) {
                int at = next[digit(from[i], pass)]++;
                to[at] = from[i];
                moved[at] = rows[i];
            }
            long[] keysBefore = from;
            from = to;
            to = keysBefore;
            int[] rowsBefore = rows;
            rows = moved;
            moved = rowsBefore;
        }
        return rows;
    }

    /** Bits that, read without a sign, go up with the key (or down); the highest of all for a missing one. */
    private static long sortable(double key, boolean descending) {
        if (key != key) {
            return -1L;
        }
        long bits = Double.doubleToRawLongBits(key + 0.0);
        long rising = bits < 0 ? ~bits : bits | Long.MIN_VALUE;
        return descending ? ~rising : rising;
    }

    private static int digit(long bits, int pass) {
        return (int) (bits >>> pass * BITS) & DIGITS - 1;
    }

    private static int[] starts(int[] counts) {
        int[] starts = new int[DIGITS];
        for (int digit = 1; digit < DIGITS; digit++) {
            starts[digit] = starts[digit - 1] + counts[digit - 1];
        }
        return starts;
    }

    /** The rows in the order of their keys, of any kind: texts by {@link TextOrder}. Equal keys keep their order, missing ones come last. */
    public static int[] of(Column keys, boolean descending) {
        IntStream rows = IntStream.range(0, keys.size());
        if (keys.kind() != Kind.TEXT) {
            return of(rows.mapToDouble(keys::number).toArray(), descending);
        }
        Comparator<Integer> present = Comparator.comparing(keys::written, TextOrder::compare);
        Comparator<Integer> order = Comparator.<Integer, Boolean>comparing(row -> !keys.isPresent(row)).thenComparing(descending ? present.reversed() : present);
        return rows.boxed().sorted(order).mapToInt(Integer::intValue).toArray();
    }
}
