package dev.trellisgorge.table;

/** The order of texts: by their Unicode code points, the same in every back end and under every locale. Thread-safe. */
public final class TextOrder {
    private TextOrder() {
    }

    /** Below zero where {@code left} comes first, zero where both are equal character by character. */
    public static int compare(String left, String right) {
        int length = Math.min(left.length(), right.length());
        for (int i = 0; i < length; i++) {
            char here = left.charAt(i);
            char there = right.charAt(i);
            if (here != there) {
                // Code points above U+FFFF are written as two surrogates, which are smaller than some single chars.
                return Character.isSurrogate(here) == Character.isSurrogate(there) ? here - there : Character.isSurrogate(here) ? 1 : -1;
            }
        }
        return left.length() - right.length();
    }
}
