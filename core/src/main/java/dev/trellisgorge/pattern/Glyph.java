package dev.trellisgorge.pattern;

import java.util.regex.Pattern;

/**
 * One sign as a reader sees it (a grapheme cluster, Unicode Standard Annex 29), whatever code points it is made of.
 *
 * @param text the sign
 */
public record Glyph(String text) {
    private static final Pattern ONE = Pattern.compile("\\X");
    private static final int EMOJI_PRESENTATION = 0xFE0F;
    /** First and last code points that take two columns (Unicode Standard Annex 11, wide and fullwidth; emoji). */
    private static final int[][] WIDE = {{0x1100, 0x115F}, {0x231A, 0x231B}, {0x23E9, 0x23EC}, {0x2614, 0x2615}, {0x26BD, 0x26BE},
        {0x2705, 0x2705}, {0x2728, 0x2728}, {0x274C, 0x274C}, {0x2753, 0x2757}, {0x2795, 0x2797}, {0x2B1B, 0x2B1C}, {0x2B50, 0x2B50},
        {0x2E80, 0x303E}, {0x3041, 0xA4CF}, {0xA960, 0xA97F}, {0xAC00, 0xD7A3}, {0xF900, 0xFAFF}, {0xFE30, 0xFE6F}, {0xFF00, 0xFF60},
        {0xFFE0, 0xFFE6}, {0x1F004, 0x1F004}, {0x1F0CF, 0x1F0CF}, {0x1F18E, 0x1F19A}, {0x1F1E6, 0x1F265}, {0x1F300, 0x1F64F},
        {0x1F680, 0x1F6FF}, {0x1F7E0, 0x1F7F0}, {0x1F900, 0x1FAFF}, {0x20000, 0x3FFFD}};

    /** @throws IllegalArgumentException where the text is none, or more than one */
    public Glyph {
        if (!ONE.matcher(text).matches() || text.isBlank()) {
            throw new IllegalArgumentException("'" + text + "' is not one sign");
        }
    }

    /** How many columns of a terminal it takes: 1 or 2. */
    public int width() {
        int first = text.codePointAt(0);
        if (text.codePoints().anyMatch(point -> point == EMOJI_PRESENTATION)) {
            return 2;
        }
        for (int[] range : WIDE) {
            if (first >= range[0] && first <= range[1]) {
                return 2;
            }
        }
        return 1;
    }
}
