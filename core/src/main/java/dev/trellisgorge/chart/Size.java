package dev.trellisgorge.chart;

import dev.trellisgorge.problem.Bound;

/** The size of a picture in pixels. Immutable and thread-safe. */
public record Size(int width, int height) {
    private static final int SMALLEST = 64;
    private static final int LARGEST = Bound.PICTURE_SIDE.count();

    public static final Size STANDARD = new Size(1280, 800);

    /** @throws IllegalArgumentException where a side is below 64 or above 16384 pixels */
    public Size {
        if (width < SMALLEST || height < SMALLEST || width > LARGEST || height > LARGEST) {
            throw new IllegalArgumentException("a picture is " + SMALLEST + " to " + LARGEST
                    + " pixels on each side, not " + width + "x" + height);
        }
    }

    /** Reads {@code 1280x800}; errors as for the constructor. */
    public static Size parse(String text) {
        if (!text.matches("[0-9]{1,6}[xX×][0-9]{1,6}")) {
            throw new IllegalArgumentException("'" + text + "' is no size; write WIDTHxHEIGHT, such as 1280x800");
        }
        String[] sides = text.split("[xX×]");
        return new Size(Integer.parseInt(sides[0]), Integer.parseInt(sides[1]));
    }

    @Override
    public String toString() {
        return width + "x" + height;
    }
}
