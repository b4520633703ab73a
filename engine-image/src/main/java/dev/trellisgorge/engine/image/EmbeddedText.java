package dev.trellisgorge.engine.image;

import de.rototor.pdfbox.graphics2d.PdfBoxGraphics2DFontTextDrawer;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.TextAttribute;
import java.io.IOException;
import java.text.AttributedCharacterIterator;
import java.text.CharacterIterator;
import org.apache.pdfbox.pdmodel.font.PDFont;

/**
 * Writes text as text, with the typefaces of the document. A run with a sign that its typeface has no glyph for, if only one that
 * is not seen, is drawn as shapes instead.
 */
final class EmbeddedText extends PdfBoxGraphics2DFontTextDrawer {

    @Override
    public boolean canDrawText(AttributedCharacterIterator words, IFontTextDrawerEnv surface) throws IOException, FontFormatException {
        return super.canDrawText(words, surface) && hasGlyphs((AttributedCharacterIterator) words.clone(), surface);
    }

    private boolean hasGlyphs(AttributedCharacterIterator words, IFontTextDrawerEnv surface) throws IOException, FontFormatException {
        StringBuilder run = new StringBuilder();
        for (char sign = words.first(); sign != CharacterIterator.DONE; sign = words.next()) {
            run.append(sign);
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
