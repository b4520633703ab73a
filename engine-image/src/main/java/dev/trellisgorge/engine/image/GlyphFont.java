package dev.trellisgorge.engine.image;

import java.awt.Font;
import java.awt.Shape;
import java.awt.font.FontRenderContext;
import java.awt.font.GlyphVector;
import java.awt.geom.PathIterator;
import java.awt.geom.Rectangle2D;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSFloat;
import org.apache.pdfbox.cos.COSInteger;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.font.PDType3Font;

/**
 * The glyphs that a document uses of a font of the machine, as a font within the document (ISO 32000, 9.6.4): each with its
 * outline, its width and the text that it stands for. It takes the outlines as the runtime shapes them, whatever the file of the font holds.
 */
final class GlyphFont {
    private static final float UNITS = 1000;
    /** Programs judge the size of such a font by the width of its m, so one that is never drawn stands before all others. */
    private static final int JUDGED = 1;
    private static final String JUDGED_BY = "m";
    private static final float JUDGED_WIDTH = 600;
    private static final int FIRST = 2;
    private static final int MOST = 256 - FIRST;
    private static final FontRenderContext EXACT = new FontRenderContext(null, true, true);

    /** A glyph of a font, and the text that it stands for where it is used. */
    private record Glyph(Font font, int code, String text) {
    }

    private final Map<Glyph, Integer> codes = new LinkedHashMap<>();
    private final COSDictionary dictionary = new COSDictionary();
    private final COSDictionary outlines = new COSDictionary();
    private final COSArray names = new COSArray();
    private final COSArray widths = new COSArray();
    private final COSStream texts = new COSStream();
    private final Rectangle2D.Double box = new Rectangle2D.Double();
    private final PDType3Font font;

    GlyphFont(int number) throws IOException {
        names.add(COSInteger.get(JUDGED));
        put(COSName.getPDFName(JUDGED_BY), JUDGED_WIDTH, "");
        COSDictionary encoding = new COSDictionary();
        encoding.setItem(COSName.TYPE, COSName.ENCODING);
        encoding.setItem(COSName.DIFFERENCES, names);
        dictionary.setItem(COSName.TYPE, COSName.FONT);
        dictionary.setItem(COSName.SUBTYPE, COSName.TYPE3);
        dictionary.setName(COSName.NAME, "Glyphs" + number);
        dictionary.setItem(COSName.FONT_MATRIX, numbers(1 / UNITS, 0, 0, 1 / UNITS, 0, 0));
        dictionary.setItem(COSName.CHAR_PROCS, outlines);
        dictionary.setItem(COSName.ENCODING, encoding);
        dictionary.setItem(COSName.WIDTHS, widths);
        dictionary.setItem(COSName.RESOURCES, new PDResources());
        dictionary.setItem(COSName.TO_UNICODE, texts);
        finish();
        font = new PDType3Font(dictionary);
    }

    PDType3Font font() {
        return font;
    }

    /** The code of a glyph, or -1 where the font is full. */
    int code(Font face, int glyph, String text) throws IOException {
        Glyph wanted = new Glyph(face.deriveFont(UNITS), glyph, text);
        Integer known = codes.get(wanted);
        if (known != null) {
            return known;
        }
        if (codes.size() == MOST) {
            return -1;
        }
        int code = FIRST + codes.size();
        codes.put(wanted, code);
        add(wanted, COSName.getPDFName("g" + code));
        return code;
    }

    private void add(Glyph glyph, COSName name) throws IOException {
        GlyphVector drawn = glyph.font().createGlyphVector(EXACT, new int[] {glyph.code()});
        Shape outline = drawn.getGlyphOutline(0);
        Rectangle2D room = outline.getBounds2D();
        float width = drawn.getGlyphMetrics(0).getAdvanceX();
        box.setRect(box.createUnion(new Rectangle2D.Double(room.getX(), -room.getMaxY(), room.getWidth(), room.getHeight())));
        put(name, width, written(room.getX(), -room.getMaxY(), room.getMaxX(), -room.getY()) + "d1\n" + path(outline));
    }

    private void put(COSName name, float width, String drawing) throws IOException {
        names.add(name);
        widths.add(new COSFloat(width));
        COSStream stream = new COSStream();
        try (OutputStream out = stream.createOutputStream(COSName.FLATE_DECODE)) {
            out.write((written(width) + "0 " + (drawing.isEmpty() ? "d0\n" : drawing)).getBytes(StandardCharsets.US_ASCII));
        }
        outlines.setItem(name, stream);
    }

    /** States what the glyphs in it take and say. */
    void finish() throws IOException {
        dictionary.setItem(COSName.FONT_BBOX, numbers((float) box.getX(), (float) box.getY(), (float) box.getMaxX(), (float) box.getMaxY()));
        dictionary.setInt(COSName.FIRST_CHAR, JUDGED);
        dictionary.setInt(COSName.LAST_CHAR, JUDGED + codes.size());
        try (OutputStream out = texts.createOutputStream(COSName.FLATE_DECODE)) {
            out.write(map().getBytes(StandardCharsets.US_ASCII));
        }
    }

    /** The text of each code (ISO 32000, 9.10.3). Not more than a hundred stand in one block. */
    private String map() {
        StringBuilder map = new StringBuilder("/CIDInit /ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def\n"
                + "/CMapName /Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<00> <FF>\nendcodespacerange\n");
        for (Map.Entry<Glyph, Integer> each : codes.entrySet()) {
            if (!each.getKey().text().isEmpty()) {
                map.append("1 beginbfchar\n<").append(String.format(Locale.ROOT, "%02X", each.getValue())).append("> <")
                        .append(HexFormat.of().withUpperCase().formatHex(each.getKey().text().getBytes(StandardCharsets.UTF_16BE))).append(">\nendbfchar\n");
            }
        }
        return map.append("endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n").toString();
    }

    /** An outline in the units of the font, with y upwards. */
    private static String path(Shape outline) {
        StringBuilder path = new StringBuilder();
        float[] to = new float[6];
        float x = 0;
        float y = 0;
        for (PathIterator each = outline.getPathIterator(null); !each.isDone(); each.next()) {
            int end = 0;
            switch (each.currentSegment(to)) {
                case PathIterator.SEG_MOVETO -> path.append(written(to[0], -to[1])).append("m\n");
                case PathIterator.SEG_LINETO -> path.append(written(to[0], -to[1])).append("l\n");
                case PathIterator.SEG_QUADTO -> {
                    path.append(written(x + (to[0] - x) * 2 / 3, -y - (to[1] - y) * 2 / 3, to[2] + (to[0] - to[2]) * 2 / 3, -to[3] - (to[1] - to[3]) * 2 / 3, to[2], -to[3])).append("c\n");
                    end = 2;
                }
                case PathIterator.SEG_CUBICTO -> {
                    path.append(written(to[0], -to[1], to[2], -to[3], to[4], -to[5])).append("c\n");
                    end = 4;
                }
                default -> path.append("h\n");
            }
            x = to[end];
            y = to[end + 1];
        }
        return path.isEmpty() ? "" : path.append("f\n").toString();
    }

    private static String written(double... numbers) {
        return Arrays.stream(numbers).mapToObj(number -> String.format(Locale.ROOT, "%.2f ", number)).collect(Collectors.joining());
    }

    private static COSArray numbers(float... numbers) {
        COSArray array = new COSArray();
        array.setFloatArray(numbers);
        return array;
    }
}
