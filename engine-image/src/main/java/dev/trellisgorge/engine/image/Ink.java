package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;

/** Colours and sizes in the drawing library's terms. */
final class Ink {
    static final double SMALLEST_TEXT = 9;
    private static final double STANDARD_TEXT = 18;
    private static final double STANDARD_WIDTH = 1280;
    private static final double STANDARD_RATIO = 1.6;
    private static final double SHRINKING = 0.6;

    /** The least contrast of text (WCAG 2). */
    private static final double READABLE = 4.5;

    private Ink() {
    }

    /** The size of text in a chart of that many pixels; in small ones it shrinks less than they do, as it is still to be read. */
    static double textSize(double width, double height) {
        double share = Math.min(width, height * STANDARD_RATIO) / STANDARD_WIDTH;
        return Math.max(SMALLEST_TEXT, STANDARD_TEXT * (share < 1 ? Math.pow(share, SHRINKING) : share));
    }

    static java.awt.Color awt(Color color) {
        return new java.awt.Color(color.rgb());
    }

    static java.awt.Color awt(Role role) {
        return awt(role.color());
    }

    /** A colour for text on paper; the ink where it would be too faint to read. */
    static java.awt.Color readable(Color color) {
        return color.contrast(Role.PAPER.color()) >= READABLE ? awt(color) : awt(Role.INK);
    }

    /** The colour of text on a series' fill: ink or paper, whichever can be read better. */
    static java.awt.Color on(Series series) {
        Color fill = series.fill().orElse(Role.PAPER.color());
        boolean dark = fill.contrast(Role.PAPER.color()) >= fill.contrast(Role.INK.color());
        return awt(dark ? Role.PAPER : Role.INK);
    }
}
