package dev.trellisgorge.table;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How many columns of a terminal text takes (Unicode Standard Annexes 11 and 29): 2 for a wide sign, else 1. Thread-safe. */
public final class DisplayWidth {
    private static final Pattern SIGN = Pattern.compile("\\X");
    private static final int EMOJI_PRESENTATION = 0xFE0F;
    /** First and last code points that take two columns: wide, fullwidth, and emoji. */
    private static final int[][] WIDE = {{0x1100, 0x115F}, {0x231A, 0x231B}, {0x23E9, 0x23EC}, {0x2614, 0x2615}, {0x26BD, 0x26BE},
        {0x2705, 0x2705}, {0x2728, 0x2728}, {0x274C, 0x274C}, {0x2753, 0x2757}, {0x2795, 0x2797}, {0x2B1B, 0x2B1C}, {0x2B50, 0x2B50},
        {0x2E80, 0x303E}, {0x3041, 0xA4CF}, {0xA960, 0xA97F}, {0xAC00, 0xD7A3}, {0xF900, 0xFAFF}, {0xFE30, 0xFE6F}, {0xFF00, 0xFF60},
        {0xFFE0, 0xFFE6}, {0x1F004, 0x1F004}, {0x1F0CF, 0x1F0CF}, {0x1F18E, 0x1F19A}, {0x1F1E6, 0x1F265}, {0x1F300, 0x1F64F},
        {0x1F680, 0x1F6FF}, {0x1F7E0, 0x1F7F0}, {0x1F900, 0x1FAFF}, {0x20000, 0x3FFFD}};

    private DisplayWidth() {
    }

    /** The columns that a text takes. */
    public static int of(String text) {
        if (text.chars().allMatch(c -> c < 0x300)) {
            return text.length();
        }
        int width = 0;
        for (Matcher sign = SIGN.matcher(text); sign.find();) {
            width += ofSign(sign.group());
        }
        return width;
    }

    /** Whether a text is one character as a reader sees it, whatever code points it is made of. */
    public static boolean isOneSign(String text) {
        return SIGN.matcher(text).matches();
    }

    private static int ofSign(String sign) {
        if (sign.codePoints().anyMatch(point -> point == EMOJI_PRESENTATION)) {
            return 2;
        }
        int first = sign.codePointAt(0);
        for (int[] range : WIDE) {
            if (first >= range[0] && first <= range[1]) {
                return 2;
            }
        }
        return 1;
    }
}
