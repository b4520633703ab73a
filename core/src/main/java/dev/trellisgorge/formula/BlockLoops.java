package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Relation;

/**
 * The loops over a block of rows, each small enough for the runtime to unroll. Conditions are masks of all bits or none, as
 * branches would be guessed wrong too often; a missing figure is NaN.
 */
final class BlockLoops {
    private static final long ABSENT = Double.doubleToRawLongBits(Double.NaN);

    private BlockLoops() {
    }

    static void arithmetic(Numeric.Operator operator, double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        switch (operator) {
            case PLUS -> {
                for (int i = 0; i < count; i++) {
                    out[oi + i] = a[ai + i] + b[bi + i];
                }
            }
            case MINUS -> {
                for (int i = 0; i < count; i++) {
                    out[oi + i] = a[ai + i] - b[bi + i];
                }
            }
            case TIMES -> {
                for (int i = 0; i < count; i++) {
                    out[oi + i] = a[ai + i] * b[bi + i];
                }
            }
            case OVER -> over(a, ai, b, bi, out, oi, count);
        }
    }

    /** A division by zero has no figure. */
    private static void over(double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            double quotient = a[ai + i] / b[bi + i];
            out[oi + i] = b[bi + i] == 0 ? Double.NaN : quotient;
        }
    }

    static void least(double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = Math.min(a[ai + i], b[bi + i]);
        }
    }

    static void greatest(double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = Math.max(a[ai + i], b[bi + i]);
        }
    }

    static void negate(double[] a, int ai, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = 0.0 - a[ai + i];
        }
    }

    static void abs(double[] a, int ai, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = Math.abs(a[ai + i]);
        }
    }

    static void coalesce(double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            long there = a[ai + i] == a[ai + i] ? -1L : 0L;
            out[oi + i] = Double.longBitsToDouble(Double.doubleToRawLongBits(a[ai + i]) & there | Double.doubleToRawLongBits(b[bi + i]) & ~there);
        }
    }

    /** {@code a} where the mask is set, else {@code b}. */
    static void select(long[] mask, double[] a, int ai, double[] b, int bi, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = Double.longBitsToDouble(Double.doubleToRawLongBits(a[ai + i]) & mask[i] | Double.doubleToRawLongBits(b[bi + i]) & ~mask[i]);
        }
    }

    /** {@code a} where the mask is set, else nothing. */
    static void only(long[] mask, double[] a, int ai, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = Double.longBitsToDouble(Double.doubleToRawLongBits(a[ai + i]) & mask[i] | ABSENT & ~mask[i]);
        }
    }

    static void truths(long[] yes, long[] no, double[] out, int oi, int count) {
        for (int i = 0; i < count; i++) {
            out[oi + i] = yes[i] != 0 ? 1 : no[i] != 0 ? 0 : Double.NaN;
        }
    }

    static void and(long[] a, long[] b, long[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[i] & b[i];
        }
    }

    static void or(long[] a, long[] b, long[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[i] | b[i];
        }
    }

    static void present(double[] a, int ai, long whenThere, long[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[ai + i] == a[ai + i] ? whenThere : ~whenThere;
        }
    }

    static void present(String[] a, int ai, long whenThere, long[] out, int count) {
        for (int i = 0; i < count; i++) {
            out[i] = a[ai + i] != null ? whenThere : ~whenThere;
        }
    }

    /** Set where the comparison is certainly true. */
    static void compare(Relation relation, double[] a, int ai, double[] b, int bi, long[] out, int count) {
        switch (relation) {
            case BELOW -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] < b[bi + i] ? -1L : 0L;
                }
            }
            case AT_MOST -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] <= b[bi + i] ? -1L : 0L;
                }
            }
            case ABOVE -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] > b[bi + i] ? -1L : 0L;
                }
            }
            case AT_LEAST -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] >= b[bi + i] ? -1L : 0L;
                }
            }
            case EQUAL -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] == b[bi + i] ? -1L : 0L;
                }
            }
            case UNEQUAL -> {
                for (int i = 0; i < count; i++) {
                    out[i] = a[ai + i] < b[bi + i] | a[ai + i] > b[bi + i] ? -1L : 0L;
                }
            }
        }
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
