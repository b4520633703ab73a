package dev.trellisgorge.engine.text;

import dev.trellisgorge.chart.Color;
import java.util.Locale;

/** The colours that a text may have (ECMA-48). */
public enum Palette {
    /** None at all, nor other looks: series are told apart by their glyphs. */
    NONE,
    /** The 240 of a terminal with 256 colours that all such terminals show alike. */
    INDEXED,
    /** Any. */
    DIRECT;

    private static final String ESCAPE = "\u001B[";
    private static final String PLAIN = ESCAPE + "0m";
    private static final int[] STEPS = {0, 95, 135, 175, 215, 255};

    /**
     * What a terminal has, as its environment says.
     *
     * @param noColor   {@code NO_COLOR}, or null
     * @param term      {@code TERM}, or null
     * @param colorTerm {@code COLORTERM}, or null
     */
    public static Palette of(String noColor, String term, String colorTerm) {
        if (noColor != null && !noColor.isEmpty() || term == null || term.equals("dumb")) {
            return NONE;
        }
        if (colorTerm != null && colorTerm.toLowerCase(Locale.ROOT).matches("truecolor|24bit")) {
            return DIRECT;
        }
        return term.contains("256") ? INDEXED : NONE;
    }

    String strong(String words) {
        return this == NONE ? words : ESCAPE + "1m" + words + PLAIN;
    }

    /** Words in a colour, on another where {@code ground} is not null; a ground alone where {@code color} is null. */
    String painted(String words, Color color, Color ground) {
        if (this == NONE || color == null && ground == null) {
            return words;
        }
        String looks = (color == null ? "" : "38;" + code(color)) + (color != null && ground != null ? ";" : "") + (ground == null ? "" : "48;" + code(ground));
        return ESCAPE + looks + "m" + words + PLAIN;
    }

    /** A block in a colour with its glyph left free, and all around it filled. */
    String reversed(String glyph, Color color) {
        return ESCAPE + "7;38;" + code(color) + "m" + glyph + PLAIN;
    }

    private String code(Color color) {
        return this == DIRECT ? "2;" + color.red() + ";" + color.green() + ";" + color.blue()
                : "5;" + (16 + 36 * step(color.red()) + 6 * step(color.green()) + step(color.blue()));
    }

    private static int step(int channel) {
        int nearest = 0;
        for (int i = 1; i < STEPS.length; i++) {
            nearest = Math.abs(STEPS[i] - channel) < Math.abs(STEPS[nearest] - channel) ? i : nearest;
        }
        return nearest;
    }
}
