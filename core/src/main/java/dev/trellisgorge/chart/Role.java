package dev.trellisgorge.chart;

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
}
