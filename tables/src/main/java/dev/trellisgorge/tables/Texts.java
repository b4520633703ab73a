package dev.trellisgorge.tables;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/** Texts that come one by one, null where a cell is missing. One that comes again is kept once. */
final class Texts {
    private static final int FIRST = 64;
    /** A column of ever new texts is not looked through any further. */
    private static final int MOST_KNOWN = 50_000;

    private final Map<String, String> known = new HashMap<>();
    private String[] texts = new String[0];
    private int size;

    void add(String text) {
        if (size == texts.length) {
            texts = Arrays.copyOf(texts, Math.max(FIRST, size + (size >> 1)));
        }
        texts[size++] = text == null ? null : once(text);
    }

    /** Cells without a text, up to so many in all. */
    void fill(int count) {
        while (size < count) {
            add(null);
        }
    }

    private String once(String text) {
        if (known.size() < MOST_KNOWN) {
            String before = known.putIfAbsent(text, text);
            return before == null ? text : before;
        }
        return known.getOrDefault(text, text);
    }

    boolean isBlank(int row) {
        return texts[row] == null;
    }

    String get(int row) {
        return texts[row];
    }

    int size() {
        return size;
    }

    String[] all() {
        return Arrays.copyOf(texts, size);
    }
}
