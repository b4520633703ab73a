package dev.trellisgorge.engine.text;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Series;
import java.util.Arrays;

/**
 * The bars of one category on a scale, painted in eighths of a character. Between the characters below zero and those above
 * stands one for the base line.
 */
final class Strip {
    private static final int EIGHTHS = 8;
    /** Filled from the left, by eighths. */
    private static final String LEFT = " \u258F\u258E\u258D\u258C\u258B\u258A\u2589\u2588";
    private static final char RIGHT_HALF = '\u2590';
    private static final char RIGHT_EIGHTH = '\u2595';
    private static final char BASE_LINE = '\u2502';

    private final int below;
    private final Glyphs glyphs;
    private final Palette palette;
    private final Series[] eighths;
    private final String[] marks;
    private final Color[] markColors;

    /**
     * @param below how many characters there are below zero
     * @param above how many there are above it
     */
    Strip(int below, int above, Glyphs glyphs, Palette palette) {
        this.below = below;
        this.glyphs = glyphs;
        this.palette = palette;
        this.eighths = new Series[(below + above) * EIGHTHS];
        this.marks = new String[below + above];
        this.markColors = new Color[below + above];
    }

    /** Paints a bar between two places, in eighths from zero; one that is not empty is never painted as if it were. */
    void bar(Series series, double from, double to) {
        int start = at(Math.min(from, to));
        int end = at(Math.max(from, to));
        if (start == end && from != to) {
            if (to > from && end < eighths.length) {
                end++;
            } else if (start > 0) {
                start--;
            }
        }
        Arrays.fill(eighths, start, end, series);
    }

    private int at(double place) {
        return (int) Math.max(0, Math.min(eighths.length, Math.round(place) + below * EIGHTHS));
    }

    /** Puts a character at a place, over what is there. */
    void mark(String sign, Color color, double place) {
        int cell = (int) Math.max(0, Math.min(marks.length - 1, Math.floor(place / EIGHTHS) + below));
        marks[cell] = sign;
        markColors[cell] = color;
    }

    String text() {
        StringBuilder text = new StringBuilder();
        for (int cell = 0; cell < marks.length; cell++) {
            if (cell == below) {
                base(text);
            }
            text.append(cell(cell));
        }
        if (below == marks.length) {
            base(text);
        }
        return text.toString();
    }

    private void base(StringBuilder text) {
        boolean within = below > 0 && below < marks.length;
        Series left = within ? eighths[below * EIGHTHS - 1] : null;
        Series right = within ? eighths[below * EIGHTHS] : null;
        // A bar that goes on across the base line is one bar.
        text.append(left != null && right != null && left.fill().equals(right.fill()) ? filled(right) : String.valueOf(BASE_LINE));
    }

    private String filled(Series series) {
        return palette == Palette.NONE ? String.valueOf(glyphs.of(series)) : palette.painted(String.valueOf(Glyphs.FULL), series.fill().orElse(null), null);
    }

    private String cell(int cell) {
        int from = cell * EIGHTHS;
        Series left = eighths[from];
        Series right = eighths[from + EIGHTHS - 1];
        int turn = 0;
        while (turn < EIGHTHS && eighths[from + turn] == left) {
            turn++;
        }
        if (marks[cell] != null) {
            Series under = eighths[from + EIGHTHS / 2];
            return palette.painted(marks[cell], markColors[cell], under == null ? null : under.fill().orElse(null));
        }
        if (turn == EIGHTHS) {
            return left == null ? " " : filled(left);
        }
        if (left == null && right == null) { // a bar that is shorter than a place, within one: moved to its start
            left = eighths[from + turn];
            Series within = left;
            turn = (int) Arrays.stream(eighths, from, from + EIGHTHS).filter(within::equals).count();
        }
        return palette == Palette.NONE ? plain(left, right, turn) : coloured(left, right, turn);
    }

    private String coloured(Series left, Series right, int turn) {
        String block = String.valueOf(LEFT.charAt(turn));
        if (left == null) {
            return palette.reversed(block, right.fill().orElseThrow());
        }
        return palette.painted(block, left.fill().orElseThrow(), right == null ? null : right.fill().orElse(null));
    }

    /** Only the full block has parts; other glyphs take the whole place or none of it. */
    private String plain(Series left, Series right, int turn) {
        if (left != null && right != null) {
            return String.valueOf(glyphs.of(turn >= EIGHTHS / 2 ? left : right));
        }
        Series only = left == null ? right : left;
        int share = left == null ? EIGHTHS - turn : turn;
        if (glyphs.of(only) != Glyphs.FULL) {
            return share >= EIGHTHS / 2 || isAlone(only) ? String.valueOf(glyphs.of(only)) : " ";
        }
        if (left != null) {
            return String.valueOf(LEFT.charAt(turn));
        }
        return String.valueOf(share > 5 ? Glyphs.FULL : share > 2 ? RIGHT_HALF : RIGHT_EIGHTH);
    }

    /** Whether a bar fills no whole place, so that it would not be seen. */
    private boolean isAlone(Series series) {
        return Arrays.stream(eighths).filter(series::equals).count() < EIGHTHS;
    }
}
