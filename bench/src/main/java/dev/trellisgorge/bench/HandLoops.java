package dev.trellisgorge.bench;

import java.util.Arrays;

/** The same helper columns, each written by hand as one plain loop over arrays: what the library is held against. */
final class HandLoops {
    private HandLoops() {
    }

    static double[][] split(double[] v, double at) {
        double[][] out = new double[2][v.length];
        for (int i = 0; i < v.length; i++) {
            out[0][i] = v[i] < at ? v[i] : Double.NaN;
            out[1][i] = v[i] >= at ? v[i] : Double.NaN;
        }
        return out;
    }

    static double[][] bands(double[] v, double[] limits) {
        double[][] out = new double[limits.length + 1][v.length];
        for (int i = 0; i < v.length; i++) {
            int band = 0;
            while (band < limits.length && v[i] >= limits[band]) {
                band++;
            }
            for (int b = 0; b < out.length; b++) {
                out[b][i] = b == band ? v[i] : Double.NaN;
            }
        }
        return out;
    }

    static double[][] toTarget(double[] v, double[] t) {
        double[][] out = new double[4][v.length];
        for (int i = 0; i < v.length; i++) {
            boolean known = v[i] == v[i] && t[i] == t[i];
            out[0][i] = !known ? Double.NaN : Math.min(v[i], t[i]);
            out[1][i] = !known ? Double.NaN : v[i] < 0 ? t[i] : v[i] < t[i] ? t[i] - v[i] : Double.NaN;
            out[2][i] = known && v[i] > t[i] ? v[i] - t[i] : Double.NaN;
            out[3][i] = t[i] != t[i] ? v[i] : Double.NaN;
        }
        return out;
    }

    /** The nine series; without kinds there is no start, subtotal or total. */
    static double[][] waterfall(double[] v) {
        double[][] out = new double[9][v.length];
        double sum = 0;
        double lost = 0;
        double level = 0;
        for (int i = 0; i < v.length; i++) {
            double a = v[i];
            double before = level;
            for (int c = 0; c < 8; c++) {
                out[c][i] = Double.NaN;
            }
            if (a == a) {
                double next = sum + a;
                lost += Math.abs(sum) >= Math.abs(a) ? sum - next + a : a - next + sum;
                sum = next;
                level = sum + lost; // as the series are: what an addition rounds off comes back
                double low = Math.min(before, level);
                double high = Math.max(before, level);
                int piece = a >= 0 ? 1 : 2;
                if (low >= 0) {
                    out[0][i] = low;
                    out[piece][i] = high - low;
                } else if (high <= 0) {
                    out[0][i] = high;
                    out[piece][i] = low - high;
                } else {
                    out[0][i] = 0;
                    out[piece][i] = high;
                    out[piece + 5][i] = low;
                }
            }
            out[8][i] = level;
        }
        return out;
    }

    /** Largest first, equal ones share the first rank: sorted, then looked up. */
    static double[] rank(double[] v) {
        double[] sorted = Arrays.stream(v).filter(d -> d == d).map(d -> -d).toArray();
        Arrays.sort(sorted);
        double[] ranks = new double[v.length];
        for (int i = 0; i < v.length; i++) {
            int at = v[i] != v[i] ? -1 : Arrays.binarySearch(sorted, -v[i]);
            while (at > 0 && sorted[at - 1] == -v[i]) {
                at--;
            }
            ranks[i] = at < 0 ? Double.NaN : at + 1;
        }
        return ranks;
    }
}
