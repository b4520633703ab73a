package dev.trellisgorge.tables;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Eight bytes of a text looked at in one go, as a whole number whose lowest byte is the first of them. Marks of bytes are in their highest bits; a mark
 * says nothing where one before it is set, as sums carry over.
 */
final class EightBytes {
    /** How many bytes are to be there behind the last one of a text, so that eight can be taken from anywhere. */
    static final int BEHIND = 16;

    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = 0x8080808080808080L;
    private static final long SPACES = of((byte) ' ');
    private static final long QUOTES = of((byte) '"');
    private static final long DELETES = of((byte) 0x7f);
    private static final long ZEROS = of((byte) '0');
    /** What lifts a byte above 9 to a mark. */
    private static final long ABOVE_NINE = of((byte) (0x80 - 10));

    /** An odd number without a pattern. */
    private static final long MIXES = 0x9e3779b97f4a7c15L;

    private EightBytes() {
    }

    /** A number of two bytes that depends on all of them. */
    static int mixed(long eight) {
        return (int) (eight * MIXES >>> Long.SIZE - Short.SIZE);
    }

    /** The same byte eight times. */
    static long of(byte sign) {
        return (sign & 0xff) * ONES;
    }

    static long at(byte[] bytes, int from) {
        return (long) EIGHT.get(bytes, from);
    }

    private static long below(long eight, long limits) {
        return eight - limits & ~eight;
    }

    private static long same(long eight, long others) {
        return below(eight ^ others, ONES);
    }

    /** Marks what ends a text or is not plain in it: a delimiter, a quote, a control character, a byte that is no ASCII. @param delimiters eight of them */
    static long stops(long eight, long delimiters) {
        return (below(eight, SPACES) | same(eight, delimiters) | same(eight, QUOTES) | same(eight, DELETES) | eight) & HIGHEST;
    }

    /** How many bytes stand before the first mark. */
    static int before(long marks) {
        return Long.numberOfTrailingZeros(marks) >> 3;
    }

    /** The first of them, with zeros behind. @param count below 8 */
    static long first(long eight, int count) {
        return eight & (1L << count * Byte.SIZE) - 1;
    }

    /** The digits' values where digits are. */
    static long figures(long eight) {
        return eight ^ ZEROS;
    }

    /** How many digits there are before something else. */
    static int digits(long figures) {
        return before((figures + ABOVE_NINE | figures) & HIGHEST);
    }

    /** The whole number that the first of them are, of which there is one at least. */
    static long number(long figures, int digits) {
        long pairs = (figures << Long.SIZE - digits * Byte.SIZE) * (10 << 8 | 1) >>> 8 & 0x00ff00ff00ff00ffL;
        long fours = pairs * (100 << 16 | 1) >>> 16 & 0x0000ffff0000ffffL;
        return fours * (10_000L << 32 | 1) >>> 32;
    }
}
