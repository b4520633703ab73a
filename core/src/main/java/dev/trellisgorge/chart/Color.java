package dev.trellisgorge.chart;

import dev.trellisgorge.problem.Nearest;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** An opaque sRGB colour, 0xRRGGBB. Immutable and thread-safe. */
public record Color(int rgb) {

    private static final Map<String, Color> NAMED = named();

    /**
     * Reads {@code #rrggbb}, {@code #rgb}, or a name of CSS: {@code teal}.
     *
     * @throws IllegalArgumentException for anything else
     */
    public static Color parse(String text) {
        Color named = NAMED.get(text.toLowerCase(Locale.ROOT));
        if (named != null) {
            return named;
        }
        if (!text.matches("#[0-9a-fA-F]{3}|#[0-9a-fA-F]{6}")) {
            throw new IllegalArgumentException("'" + text + "' is no colour; write #rrggbb, such as #1f5a7a, a name of CSS such as teal, or a role"
                    + (text.startsWith("#") ? "" : ". " + Nearest.hint(text, names())));
        }
        return hex(text);
    }

    /** Reads a colour as {@link #parse} does, or the name of a role: {@code good}. Errors as there. */
    public static Color parse(String text, Function<Role, Color> palette) {
        return Role.named(text).map(palette).orElseGet(() -> parse(text));
    }

    private static List<String> names() {
        return Stream.concat(Stream.of(Role.values()).filter(role -> role != Role.PAPER).map(Role::toString), NAMED.keySet().stream().sorted()).toList();
    }

    private static Color hex(String text) {
        String hex = text.length() == 4 ? text.replaceAll("([0-9a-fA-F])", "$1$1") : text;
        return new Color(Integer.parseInt(hex.substring(1), 16));
    }

    private static Map<String, Color> named() {
        Properties css = new Properties();
        try (InputStream in = Color.class.getResourceAsStream("css-colors.properties")) {
            css.load(in);
        } catch (IOException e) {
            throw new UncheckedIOException("the names of colours can't be read", e);
        }
        return css.stringPropertyNames().stream().collect(Collectors.toUnmodifiableMap(name -> name, name -> hex(css.getProperty(name))));
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
