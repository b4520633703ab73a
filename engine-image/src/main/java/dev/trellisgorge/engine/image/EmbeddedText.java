package dev.trellisgorge.engine.image;

import de.rototor.pdfbox.graphics2d.PdfBoxGraphics2DFontTextDrawer;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.GlyphVector;
import java.awt.font.TextAttribute;
import java.awt.font.TextLayout;
import java.awt.geom.Point2D;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.text.AttributedCharacterIterator;
import java.text.Bidi;
import java.text.CharacterIterator;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.util.Matrix;

/**
 * Writes text as text, with the typefaces of the document. A run with a character that its typeface has no glyph for, if only one that
 * is not seen, is shaped and ordered by the runtime, and its glyphs go into the document as a font. Each glyph says what it
 * stands for, and where they don't stand in the order of reading, a mark says it (ISO 32000, 14.9.4), so that all is found, copied and read aloud.
 */
final class EmbeddedText extends PdfBoxGraphics2DFontTextDrawer {
    private final List<GlyphFont> machine = new ArrayList<>();

    @Override
    public boolean canDrawText(AttributedCharacterIterator words, IFontTextDrawerEnv surface) {
        return true;
    }

    @Override
    @SuppressWarnings("deprecation")
    public void drawText(AttributedCharacterIterator words, IFontTextDrawerEnv surface) throws IOException, FontFormatException {
        if (super.canDrawText((AttributedCharacterIterator) words.clone(), surface) && hasGlyphs((AttributedCharacterIterator) words.clone(), surface)) {
            super.drawText(words, surface);
            return;
        }
        PDPageContentStream content = surface.getContentStream();
        String said = text((AttributedCharacterIterator) words.clone());
        surface.applyPaint(surface.getPaint(), new TextLayout((AttributedCharacterIterator) words.clone(), surface.getFontRenderContext()).getBounds());
        content.beginText();
        double x = 0;
        for (Piece piece : pieces(words, surface.getFont())) {
            GlyphVector glyphs = piece.font().layoutGlyphVector(surface.getFontRenderContext(), said.toCharArray(), piece.start(), piece.end(), piece.leftwards() ? Font.LAYOUT_RIGHT_TO_LEFT : Font.LAYOUT_LEFT_TO_RIGHT);
            // From the right, programs turn what the glyphs say themselves, and would turn the text of a mark as well.
            boolean marked = !piece.leftwards() && !inOrder(glyphs);
            if (marked) { // The text within the mark, as not all programs look it up by a name, which is all that the library writes.
                content.appendRawCommands("/Span <</ActualText <" + hexadecimal(said.substring(piece.start(), piece.end()).getBytes(StandardCharsets.UTF_16)) + ">>> BDC\n");
            }
            show(glyphs, piece, said, x, content);
            if (marked) {
                content.appendRawCommands("EMC\n");
            }
            x += glyphs.getGlyphPosition(glyphs.getNumGlyphs()).getX();
        }
        content.endText();
    }

    private static String hexadecimal(byte... bytes) {
        return HexFormat.of().withUpperCase().formatHex(bytes);
    }

    /** Whether each glyph stands for characters of its own, one after the other. */
    private static boolean inOrder(GlyphVector glyphs) {
        return IntStream.range(1, glyphs.getNumGlyphs()).allMatch(at -> glyphs.getGlyphCharIndex(at) > glyphs.getGlyphCharIndex(at - 1));
    }

    /** Signs next to each other that have one font and one direction. */
    private record Piece(int start, int end, boolean leftwards, Font font) {
    }

    /** The pieces of some words, in the order in which they stand on the page. */
    private static List<Piece> pieces(AttributedCharacterIterator words, Font usual) {
        Bidi order = new Bidi(words);
        int from = words.getBeginIndex();
        List<Piece> pieces = new ArrayList<>();
        List<Byte> levels = new ArrayList<>();
        int start = from;
        while (start < words.getEndIndex()) {
            words.setIndex(start);
            int level = order.getLevelAt(start - from);
            int end = start + 1;
            while (end < words.getRunLimit(TextAttribute.FONT) && order.getLevelAt(end - from) == level) {
                end++;
            }
            Font font = (Font) words.getAttribute(TextAttribute.FONT);
            pieces.add(new Piece(start - from, end - from, level % 2 == 1, font == null ? usual : font));
            levels.add((byte) level);
            start = end;
        }
        Piece[] seen = pieces.toArray(Piece[]::new);
        byte[] each = new byte[seen.length];
        IntStream.range(0, each.length).forEach(index -> each[index] = levels.get(index));
        Bidi.reorderVisually(each, 0, seen, 0, seen.length);
        return List.of(seen);
    }

    @SuppressWarnings("deprecation")
    private void show(GlyphVector glyphs, Piece piece, String said, double x, PDPageContentStream content) throws IOException {
        int[] starts = IntStream.concat(Arrays.stream(glyphs.getGlyphCharIndices(0, glyphs.getNumGlyphs(), null)), IntStream.of(piece.end() - piece.start())).sorted().distinct().toArray();
        Set<Integer> written = new HashSet<>();
        for (int at = 0; at < glyphs.getNumGlyphs(); at++) {
            int first = glyphs.getGlyphCharIndex(at);
            int next = starts[Arrays.binarySearch(starts, first) + 1];
            // Where several glyphs make one character, the first says it.
            String text = written.add(first) ? said.substring(piece.start() + first, piece.start() + next) : "";
            int code = -1;
            for (int each = 0; code < 0; each++) {
                if (each == machine.size()) {
                    machine.add(new GlyphFont(each + 1));
                }
                code = machine.get(each).code(glyphs.getFont(), glyphs.getGlyphCode(at), text);
                if (code > 0) {
                    content.setFont(machine.get(each).font(), glyphs.getFont().getSize2D());
                }
            }
            Point2D place = glyphs.getGlyphPosition(at);
            content.setTextMatrix(new Matrix(1, 0, 0, -1, (float) (x + place.getX()), (float) place.getY()));
            content.appendRawCommands("<" + hexadecimal((byte) code) + "> Tj\n");
        }
    }

    /** To be called when all is written, before the document is saved. */
    void finish() throws IOException {
        for (GlyphFont font : machine) {
            font.finish();
        }
    }

    private static String text(AttributedCharacterIterator words) {
        StringBuilder text = new StringBuilder();
        for (char character = words.first(); character != CharacterIterator.DONE; character = words.next()) {
            text.append(character);
        }
        return text.toString();
    }

    private boolean hasGlyphs(AttributedCharacterIterator words, IFontTextDrawerEnv surface) throws IOException, FontFormatException {
        StringBuilder run = new StringBuilder();
        for (char character = words.first(); character != CharacterIterator.DONE; character = words.next()) {
            run.append(character);
            if (words.getIndex() + 1 >= words.getRunLimit()) {
                Font font = (Font) words.getAttribute(TextAttribute.FONT);
                PDFont embedded = mapFont(font == null ? surface.getFont() : font, surface);
                if (embedded == null || !hasGlyphs(embedded, run.toString())) {
                    return false;
                }
                run.setLength(0);
            }
        }
        return true;
    }

    private static boolean hasGlyphs(PDFont font, String run) throws IOException {
        try {
            font.encode(run);
            return true;
        } catch (IllegalArgumentException | IllegalStateException e) { // the library's way of saying so
            return false;
        }
    }
}
