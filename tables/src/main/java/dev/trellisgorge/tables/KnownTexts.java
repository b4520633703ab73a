package dev.trellisgorge.tables;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Texts by their bytes, so that one that stands on many rows is made once. Of one thread. */
final class KnownTexts {
    private static final int SIZE = 1 << 12;
    /** From here on columns are of names that are all their own, for which nothing is gained. */
    private static final int MOST = SIZE / 2;

    private final byte[][] bytes = new byte[SIZE][];
    private final String[] texts = new String[SIZE];
    private int count;
    private boolean lastWasKnown;

    /** @param line with room behind, as {@link EightBytes} asks for @param quotesInside whether each quote is written twice */
    String text(byte[] line, int from, int to, boolean ascii, boolean quotesInside) {
        int at = hash(line, from, to) & SIZE - 1;
        while (bytes[at] != null) {
            if (Arrays.equals(bytes[at], 0, bytes[at].length, line, from, to)) {
                lastWasKnown = true;
                return texts[at];
            }
            at = at + 1 & SIZE - 1;
        }
        lastWasKnown = false;
        String text = new String(line, from, to - from, ascii ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8);
        String made = quotesInside ? text.replace("\"\"", "\"") : text;
        if (count < MOST) {
            count++;
            bytes[at] = Arrays.copyOfRange(line, from, to);
            texts[at] = made;
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
