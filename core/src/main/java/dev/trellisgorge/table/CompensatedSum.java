package dev.trellisgorge.table;

import java.util.stream.DoubleStream;

/**
 * A sum that carries along what each addition rounds off, and adds it at the end (Neumaier 1974; the error of an addition
 * after Knuth, without a branch): ten times 0.1 is 1, and 1e16 + 1 + 1 − 1e16 is 2. A sum that overflows is infinite. For one
 * thread.
 */
public final class CompensatedSum {
    private double sum;
    private double lost;

    /** Of nothing yet. */
    public CompensatedSum() {
        sum = 0;
    }

    /** The sum of finite figures; 0 of none. */
    public static double of(DoubleStream figures) {
        CompensatedSum all = new CompensatedSum();
        figures.forEach(all::add);
        return all.value();
    }

    public void add(double figure) {
        double next = sum + figure;
        lost += lost(sum, figure, next);
        sum = next;
    }

    public double value() {
        return value(sum, lost);
    }

    /** What {@code a + b = sum} rounded off; NaN where it overflows. */
    public static double lost(double a, double b, double sum) {
        double added = sum - a;
        return a - (sum - added) + (b - added);
    }

    /** A sum and all that was lost on the way; the sum alone where it overflowed. */
    public static double value(double sum, double lost) {
        double whole = sum + lost;
        return whole == whole ? whole : sum;
    }
}
