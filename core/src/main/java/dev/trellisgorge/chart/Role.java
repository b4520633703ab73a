package dev.trellisgorge.chart;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** What a colour says. The palette is stated here, once. */
public enum Role {
    /** The ordinary figure. */
    BASE(0x1D5470),
    GOOD(0x3C8D6E),
    BAD(0x9E2B4B),
    CAUTION(0xB9770E),
    /** What stands back: the rest, the remaining, the unjudged. */
    MUTED(0x88929A),
    /** What stands out from the base. */
    ACCENT(0xCF5B33),
    /** Text and lines. */
    INK(0x22303A),
    /** The ground. */
    PAPER(0xFFFFFF);

    private final Color color;

    Role(int rgb) {
        this.color = new Color(rgb);
    }

    public Color color() {
        return color;
    }

    /** The role that is called so in a brief. */
    public static Optional<Role> named(String word) {
        return Stream.of(values()).filter(role -> role.toString().equals(word)).findFirst();
    }

    /** As a brief calls it. */
    @Override
    public String toString() {
        return name().toLowerCase(Locale.ROOT);
    }

    private static final Color LIGHTEST_BAND = new Color(0x85929C);
    private static final Color DARKEST_BAND = new Color(0x2C4251);

    /**
     * The colour of a band on a scale: they darken from the first to the last, and leave the colours that judge to what
     * stands on them.
     *
     * @param band 0 for the first
     * @param of   how many there are
     */
    public static Color band(int band, int of) {
        double share = of == 1 ? 0 : (double) band / (of - 1);
        return new Color(mixed(16, share) << 16 | mixed(8, share) << 8 | mixed(0, share));
    }

    private static int mixed(int shift, double share) {
        int light = LIGHTEST_BAND.rgb() >> shift & 0xFF;
        int dark = DARKEST_BAND.rgb() >> shift & 0xFF;
        return (int) Math.round(light + (dark - light) * share);
    }
}
