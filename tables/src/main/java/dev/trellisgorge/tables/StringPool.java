package dev.trellisgorge.tables;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Texts by their bytes, so that one that stands on many rows is made once. Of one thread.
 *
 * @param <T> what a text is kept as
 */
final class StringPool<T> {
    private static final int SIZE = 1 << 12;
    /** From here on columns are of names that are all their own, for which nothing is gained. */
    private static final int MOST = SIZE / 2;

    /** Up to so many bytes are told apart as two numbers. */
    static final int SHORT = 15;

    private final Maker<T> maker;
    private final long[] firsts = new long[SIZE];
    private final long[] seconds = new long[SIZE];
    private final Object[] shorts = new Object[SIZE];
    private int shortCount;
    private final byte[][] bytes = new byte[SIZE][];
    private final Object[] texts = new Object[SIZE];
    private int count;
    private boolean lastWasKnown;

    /** Makes a text of its bytes. */
    interface Maker<T> {
        /** @param quotesInside whether each quote is written twice */
        T made(byte[] line, int from, int to, boolean ascii, boolean quotesInside);
    }

    StringPool(Maker<T> maker) {
        this.maker = maker;
    }

    /** As a table keeps it. */
    static String string(byte[] line, int from, int to, boolean ascii, boolean quotesInside) {
        String text = new String(line, from, to - from, ascii ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8);
        return quotesInside ? text.replace("\"\"", "\"") : text;
    }

    /** As UTF-8, which it is written in. */
    static byte[] utf8(byte[] line, int from, int to, boolean ascii, boolean quotesInside) {
        return quotesInside ? string(line, from, to, ascii, true).getBytes(StandardCharsets.UTF_8) : Arrays.copyOfRange(line, from, to);
    }

    /** @param line with room behind, as {@link EightBytes} asks for @param quotesInside whether each quote is written twice */
    @SuppressWarnings("unchecked")
    T text(byte[] line, int from, int to, boolean ascii, boolean quotesInside) {
        int at = hash(line, from, to) & SIZE - 1;
        while (bytes[at] != null) {
            if (Arrays.equals(bytes[at], 0, bytes[at].length, line, from, to)) {
                lastWasKnown = true;
                return (T) texts[at];
            }
            at = at + 1 & SIZE - 1;
        }
        lastWasKnown = false;
        T made = maker.made(line, from, to, ascii, quotesInside);
        if (count < MOST) {
            count++;
            bytes[at] = Arrays.copyOfRange(line, from, to);
            texts[at] = made;
        }
        return made;
    }

    /**
     * A short text without a quote or a character that is no ASCII.
     *
     * @param first  its first eight bytes, with zeros behind its end
     * @param second those that follow, likewise
     */
    @SuppressWarnings("unchecked")
    T text(byte[] line, int from, int to, long first, long second) {
        int at = EightBytes.mixed(first ^ EightBytes.mixed(second)) & SIZE - 1;
        while (shorts[at] != null) {
            if (firsts[at] == first && seconds[at] == second) {
                return (T) shorts[at];
            }
            at = at + 1 & SIZE - 1;
        }
        T made = maker.made(line, from, to, true, false);
        if (shortCount < MOST) {
            shortCount++;
            firsts[at] = first;
            seconds[at] = second;
            shorts[at] = made;
        }
        return made;
    }

    private static int hash(byte[] line, int from, int to) {
        int hash = to - from;
        int i = from;
        for (; i + Long.BYTES < to; i += Long.BYTES) {
            hash = EightBytes.mixed(EightBytes.at(line, i) ^ hash);
        }
        return EightBytes.mixed(EightBytes.at(line, i) << Long.SIZE - (to - i) * Byte.SIZE ^ hash);
    }

    /** Whether the last text had been made before. */
    boolean lastWasKnown() {
        return lastWasKnown;
    }
}
