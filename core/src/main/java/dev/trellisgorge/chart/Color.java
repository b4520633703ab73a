package dev.trellisgorge.chart;

import java.util.Locale;

/** An opaque sRGB colour, 0xRRGGBB. Immutable and thread-safe. */
public record Color(int rgb) {

    /**
     * Reads {@code #rrggbb} or {@code #rgb}.
     *
     * @throws IllegalArgumentException for anything else
     */
    public static Color parse(String text) {
        String hex = text.matches("#[0-9a-fA-F]{3}") ? text.replaceAll("([0-9a-fA-F])", "$1$1") : text;
        if (!hex.matches("#[0-9a-fA-F]{6}")) {
            throw new IllegalArgumentException("'" + text + "' is no colour; write #rrggbb, such as #1f5a7a");
        }
        return new Color(Integer.parseInt(hex.substring(1), 16));
    }

    public int red() {
        return rgb >> 16 & 0xFF;
    }

    public int green() {
        return rgb >> 8 & 0xFF;
    }

    public int blue() {
        return rgb & 0xFF;
    }

    /** The contrast ratio with another colour, 1 to 21 (WCAG 2, relative luminance of sRGB). */
    public double contrast(Color other) {
        double a = luminance();
        double b = other.luminance();
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    private double luminance() {
        return 0.2126 * linear(red()) + 0.7152 * linear(green()) + 0.0722 * linear(blue());
    }

    static double linear(int channel) {
        double c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }

    /** {@code #rrggbb}. */
    @Override
    public String toString() {
        return String.format(Locale.ROOT, "#%06x", rgb);
    }
}
