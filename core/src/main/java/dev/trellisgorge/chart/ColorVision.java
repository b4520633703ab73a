package dev.trellisgorge.chart;

/**
 * How different two colours look to readers, those with a colour-vision deficiency among them: the deficiencies as
 * matrices on linear sRGB (Machado, Oliveira and Fernandes 2009, full severity), the difference as CIE 1976 in L*a*b*. Thread-safe.
 */
public final class ColorVision {
    private static final double[][][] READERS = {
        {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}},
        {{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}},
        {{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}},
        {{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}};
    private static final double[][] TO_XYZ = {{0.4124564, 0.3575761, 0.1804375}, {0.2126729, 0.7151522, 0.0721750},
        {0.0193339, 0.1191920, 0.9503041}};
    private static final double[] WHITE = {0.95047, 1, 1.08883};

    private ColorVision() {
    }

    /** The difference to the reader who sees the least of it; below about 10, two areas can hardly be told apart. */
    public static double leastDifference(Color a, Color b) {
        double least = Double.MAX_VALUE;
        for (double[][] reader : READERS) {
            double[] p = lab(a, reader);
            double[] q = lab(b, reader);
            least = Math.min(least, Math.sqrt(square(p[0] - q[0]) + square(p[1] - q[1]) + square(p[2] - q[2])));
        }
        return least;
    }

    private static double[] lab(Color color, double[][] reader) {
        double[] rgb = {Color.linear(color.red()), Color.linear(color.green()), Color.linear(color.blue())};
        double[] xyz = times(TO_XYZ, times(reader, rgb));
        double x = root(xyz[0] / WHITE[0]);
        double y = root(xyz[1] / WHITE[1]);
        double z = root(xyz[2] / WHITE[2]);
        return new double[] {116 * y - 16, 500 * (x - y), 200 * (y - z)};
    }

    private static double[] times(double[][] matrix, double[] vector) {
        double[] product = new double[3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                product[i] += matrix[i][j] * vector[j];
            }
        }
        return product;
    }

    private static double root(double t) {
        return t > 216.0 / 24389 ? Math.cbrt(t) : (24389.0 / 27 * t + 16) / 116;
    }

    private static double square(double d) {
        return d * d;
    }
}
