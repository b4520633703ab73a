package dev.trellisgorge.table;

/**
 * Which characters a text may hold, so that every file and every terminal can take it: all but control characters, halves of
 * surrogate pairs, U+FFFE and U+FFFF. Tabs and line ends are no such. Thread-safe.
 */
public final class Characters {
    /** Stands where one of the others was. */
    public static final char REPLACEMENT = '\uFFFD';

    private Characters() {
    }

    /** The text, with {@link #REPLACEMENT} for each character that it may not hold. */
    public static String shown(String text) {
        int at = firstOther(text, 0);
        if (at < 0) {
            return text;
        }
        StringBuilder shown = new StringBuilder(text);
        for (; at >= 0; at = firstOther(text, at + 1)) {
            shown.setCharAt(at, REPLACEMENT);
        }
        return shown.toString();
    }

    /** Where the first character stands that a text may not hold, 0-based; below zero where there is none. */
    public static int firstOther(String text) {
        return firstOther(text, 0);
    }

    private static int firstOther(String text, int from) {
        for (int i = from; i < text.length(); i++) {
            char character = text.charAt(i);
            if (character >= ' ' && character < 0x7F) {
                continue;
            }
            if (Character.isHighSurrogate(character) && i + 1 < text.length() && Character.isLowSurrogate(text.charAt(i + 1))) {
                i++;
            } else if (Character.isSurrogate(character) || character >= 0xFFFE || Character.isISOControl(character) && character != '\t' && character != '\n' && character != '\r') {
                return i;
            }
        }
        return -1;
    }
}
