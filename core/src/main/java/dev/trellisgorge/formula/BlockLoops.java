package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Relation;

/**
 * The loops over a block of rows. All of them count from zero in every array, so that the runtime can take several rows at a
 * time. A condition is a mask of figures: zero on the rows where it holds, NaN on the others; so that what is added to it is left
 * where it holds and missing elsewhere, without a branch that would be guessed wrong too often.
 */
final class BlockLoops {
    private static final long ABSENT = Double.doubleToRawLongBits(Double.NaN);

    private BlockLoops() {
    }

    static void arithmetic(Numeric.Operator operator, double[] a, double[] b, double[] out, int count) {
        switch (operator) {
            case PLUS -> plus(a, b, out, count);
            case MINUS -> minus(a, b, out, count);
            case TIMES -> times(a, b, out, count);
            case OVER -> over(a, b, out, count);
        }
    }

    static void plus(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[i] + b[i];
        }
    }

    private static void minus(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[i] - b[i];
        }
    }

    private static void times(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[i] * b[i];
        }
    }

    /** A division by zero has no figure. */
    private static void over(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            double quotient = a[i] / b[i];
            out[i] = b[i] == 0 ? Double.NaN : quotient;
        }
    }

    static void least(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = Math.min(a[i], b[i]);
        }
    }

    static void greatest(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = Math.max(a[i], b[i]);
        }
    }

    static void negate(double[] a, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = 0.0 - a[i];
        }
    }

    static void abs(double[] a, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = Math.abs(a[i]);
        }
    }

    static void coalesce(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            long missing = a[i] == a[i] ? 0L : -1L;
            out[i] = chosen(missing, a[i], b[i]);
        }
    }

    /** {@code a} where the mask holds, else {@code b}. */
    static void select(double[] mask, double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            long not = Double.doubleToRawLongBits(mask[i]) << 1 >> 63; // a bit that NaN has and zero has not
            out[i] = chosen(not, a[i], b[i]);
        }
    }

    private static double chosen(long second, double a, double b) {
        return Double.longBitsToDouble(Double.doubleToRawLongBits(a) & ~second | Double.doubleToRawLongBits(b) & second);
    }

    static void truths(double[] yes, double[] no, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = yes[i] == 0 ? 1 : no[i] == 0 ? 0 : Double.NaN;
        }
    }

    static void or(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] == 0 | b[i] == 0);
        }
    }

    static void present(double[] a, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = Math.min(Math.abs(a[i]), 0.0);
        }
    }

    static void missing(double[] a, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] != a[i]);
        }
    }

    static void present(String[] a, boolean wanted, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] != null == wanted);
        }
    }

    /** Holds where the comparison is certainly true. */
    static void compare(Relation relation, double[] a, double[] b, double[] out, int count) {
        switch (relation) {
            case BELOW -> below(a, b, out, count);
            case AT_MOST -> atMost(a, b, out, count);
            case ABOVE -> below(b, a, out, count);
            case AT_LEAST -> atMost(b, a, out, count);
            case EQUAL -> equal(a, b, out, count);
            case UNEQUAL -> unequal(a, b, out, count);
        }
    }

    private static void below(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] < b[i]);
        }
    }

    private static void atMost(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] <= b[i]);
        }
    }

    private static void equal(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] == b[i]);
        }
    }

    private static void unequal(double[] a, double[] b, double[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = holds(a[i] < b[i] | a[i] > b[i]);
        }
    }

    /** What a mask has on a row. */
    static double holds(boolean so) {
        return Double.longBitsToDouble(so ? 0L : ABSENT);
    }

    static Relation opposite(Relation relation) {
        return switch (relation) {
            case BELOW -> Relation.AT_LEAST;
            case AT_MOST -> Relation.ABOVE;
            case ABOVE -> Relation.AT_MOST;
            case AT_LEAST -> Relation.BELOW;
            case EQUAL -> Relation.UNEQUAL;
            case UNEQUAL -> Relation.EQUAL;
        };
    }
}
