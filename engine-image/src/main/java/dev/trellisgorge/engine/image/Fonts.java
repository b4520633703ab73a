package dev.trellisgorge.engine.image;

import java.awt.Font;
import java.awt.FontFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;

/** The typeface of every picture. It comes with the engine, so that pictures do not depend on the machine. */
final class Fonts {
    /** For a viewer that may not have the typeface; in double quotes, as it stands in an attribute in single ones. */
    private static final String FAMILIES = "\"Source Sans 3\", \"Source Sans Pro\", \"Helvetica Neue\", Arial, sans-serif";

    private static final Font REGULAR = load("SourceSans3-Regular.ttf");
    private static final Font STRONG = load("SourceSans3-Semibold.ttf");

    private Fonts() {
    }

    static Font regular(double points) {
        return REGULAR.deriveFont((float) points);
    }

    static Font strong(double points) {
        return STRONG.deriveFont((float) points);
    }

    /** A family of ours as a style sheet names it, with its weight. */
    static String inStyleSheet(String family) {
        return family.equals(STRONG.getFamily()) && !family.equals(REGULAR.getFamily()) ? FAMILIES + "; font-weight: 600" : FAMILIES;
    }

    private static Font load(String file) {
        try (InputStream in = Fonts.class.getResourceAsStream(file)) {
            return Font.createFont(Font.TRUETYPE_FONT, in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (FontFormatException e) {
            throw new IllegalStateException("the typeface " + file + " is damaged", e);
        }
    }
}
