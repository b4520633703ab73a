package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.file.Temporaries;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.FontRenderContext;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The typeface of every picture. It comes with the engine, so that pictures do not depend on the machine. */
final class Fonts {
    /** For a viewer that may not have the typeface; in double quotes, as it stands in an attribute in single ones. */
    private static final String FAMILY = "Source Sans 3";
    private static final String GLYPH_FAMILY = "DejaVu Sans Mono";
    private static final Pattern SVG_TEXT = Pattern.compile("<text[^>]*>([^<]*)");
    private static final String FAMILIES = "\"" + FAMILY + "\", \"Source Sans Pro\", \"Helvetica Neue\", Arial, sans-serif";

    private static final String REGULAR_FILE = "SourceSans3-Regular.ttf";
    private static final String STRONG_FILE = "SourceSans3-Semibold.ttf";
    private static final String GLYPHS_FILE = "DejaVuSansMono.ttf";
    private static final String ELLIPSIS = "…";
    private static final int MOST_ON_A_LINE = 10_000;
    private static final FontRenderContext METRICS = new FontRenderContext(null, true, true);

    /** Each is read once a process, when it is first drawn with. */
    private static final Map<String, Typeface> TYPEFACES = new ConcurrentHashMap<>();

    private Fonts() {
    }

    static Font regular(double points) {
        return sized(REGULAR_FILE, points);
    }

    static Font strong(double points) {
        return sized(STRONG_FILE, points);
    }

    /** Of the size and weight that were asked for a purpose; else of the usual ones. */
    static Font of(Looks looks, Looks.Purpose purpose, double usual, boolean strong) {
        double points = looks.sizes().getOrDefault(purpose, usual);
        return looks.bold().getOrDefault(purpose, strong) ? strong(points) : regular(points);
    }

    /** The typeface of bars made of characters: every character is equally wide. */
    static Font glyphs(double points) {
        return sized(GLYPHS_FILE, points);
    }

    /** In whole pixels, as an SVG writes sizes, so that what is measured is what is drawn. */
    static Font sized(Font font, double points) {
        return font.deriveFont((float) Math.max(1, Math.floor(points + 1e-6)));
    }

    private static Font sized(String file, double points) {
        return sized(typeface(file).font(), points);
    }

    static double width(String words, Font font) {
        return font.getStringBounds(words, METRICS).getWidth();
    }

    /** The words, or as many of their first characters as fit in the room, and an ellipsis. */
    static String cut(String words, Font font, double room) {
        if (words.length() * font.getSize2D() < room || width(words.substring(0, Math.min(words.length(), MOST_ON_A_LINE)), font) <= room && words.length() <= MOST_ON_A_LINE) {
            return words;
        }
        int fits = 0;
        int tooMany = Math.min(words.length(), MOST_ON_A_LINE);
        while (tooMany - fits > 1) {
            int some = (fits + tooMany) / 2;
            if (width(words.substring(0, some) + ELLIPSIS, font) <= room) {
                fits = some;
            } else {
                tooMany = some;
            }
        }
        return words.substring(0, fits > 0 && Character.isHighSurrogate(words.charAt(fits - 1)) ? fits - 1 : fits).stripTrailing() + ELLIPSIS;
    }

    /** Something that takes each typeface: its name and its file. */
    interface Taker {
        void take(String name, File file) throws IOException;
    }

    /** Hands out the typefaces for a document that carries them. */
    static void each(Taker taker) throws IOException {
        for (String file : List.of(REGULAR_FILE, STRONG_FILE, GLYPHS_FILE)) {
            taker.take(typeface(file).font().getFontName(), typeface(file).file());
        }
    }

    /** A family of ours as a style sheet names it, with its weight. */
    static String inStyleSheet(String family) {
        if (family.equals(GLYPH_FAMILY)) {
            return "\"" + GLYPH_FAMILY + "\", monospace";
        }
        boolean strong = family.equals(strong(1).getFamily()) && !family.equals(regular(1).getFamily());
        return strong ? FAMILIES + "; font-weight: 600" : FAMILIES;
    }

    /** The rules that carry the typefaces that a drawing uses, with the glyphs of its texts. */
    static String styleSheet(String svg) throws IOException {
        Set<Integer> used = new TreeSet<>();
        Matcher text = SVG_TEXT.matcher(svg);
        while (text.find()) {
            text.group(1).codePoints().forEach(used::add);
        }
        used.addAll(List.of((int) '&', (int) '<', (int) '>', (int) ' '));
        StringBuilder rules = new StringBuilder();
        if (svg.contains(FAMILIES + ";")) {
            rules.append(rule(FAMILY, 400, REGULAR_FILE, used));
        }
        if (svg.contains("font-weight: 600")) {
            rules.append(rule(FAMILY, 600, STRONG_FILE, used));
        }
        if (svg.contains(GLYPH_FAMILY)) {
            rules.append(rule(GLYPH_FAMILY, 400, GLYPHS_FILE, used));
        }
        return rules.toString();
    }

    private static String rule(String family, int weight, String file, Set<Integer> used) throws IOException {
        try (InputStream in = Fonts.class.getResourceAsStream(file)) {
            return FontSubset.rule(family, weight, in, used);
        }
    }

    /**
     * A typeface that pictures are drawn with.
     *
     * @param file where the runtime, which reads typefaces from files alone, finds it for as long as the process lives
     */
    private record Typeface(Font font, File file) {
    }

    private static Typeface typeface(String name) {
        return TYPEFACES.computeIfAbsent(name, Fonts::load);
    }

    private static Typeface load(String name) {
        Path file = null;
        try (InputStream in = Fonts.class.getResourceAsStream(name)) {
            file = Temporaries.make();
            Files.copy(in, file, StandardCopyOption.REPLACE_EXISTING);
            return new Typeface(Font.createFont(Font.TRUETYPE_FONT, file.toFile()), file.toFile());
        } catch (IOException e) {
            if (file != null) {
                Temporaries.remove(file);
            }
            throw new BadInput(Place.of(Temporaries.NAMED), ProblemKind.NOT_WRITABLE, "can't hold the typefaces: " + AtomicFiles.reason(e));
        } catch (FontFormatException e) {
            throw new IllegalStateException("the typeface " + name + " is damaged", e);
        }
    }
}
