package dev.trellisgorge.engine.image;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Base64;
import java.util.List;
import java.util.Set;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TTFSubsetter;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/** A typeface with no more glyphs than some text needs. */
final class FontSubset {
    /** What a browser asks of a typeface; kerning and alternative glyphs, which nothing was measured with, are left out. */
    private static final List<String> TABLES = List.of("OS/2", "cmap", "cvt ", "fpgm", "glyf", "head", "hhea", "hmtx", "loca", "maxp", "name", "post", "prep");

    private FontSubset() {
    }

    /** A style-sheet rule that holds the typeface itself, so that the text has its measured widths wherever it is shown. */
    static String rule(String family, int weight, InputStream file, Set<Integer> codePoints) throws IOException {
        ByteArrayOutputStream subset = new ByteArrayOutputStream();
        try (TrueTypeFont font = new TTFParser().parse(new RandomAccessReadBuffer(file))) {
            TTFSubsetter subsetter = new TTFSubsetter(font, TABLES);
            subsetter.addAll(codePoints);
            subsetter.writeToStream(subset);
        }
        return "@font-face{font-family:\"" + family + "\";font-weight:" + weight + ";src:url(data:font/ttf;base64,"
                + Base64.getEncoder().encodeToString(subset.toByteArray()) + ")}";
    }
}
