package dev.trellisgorge.engine.image;

import de.rototor.pdfbox.graphics2d.PdfBoxGraphics2DFontTextDrawer;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.Shape;
import java.awt.font.TextAttribute;
import java.awt.font.TextLayout;
import java.awt.geom.AffineTransform;
import java.awt.geom.PathIterator;
import java.awt.geom.Rectangle2D;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.text.AttributedCharacterIterator;
import java.text.CharacterIterator;
import java.util.HexFormat;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.graphics.state.RenderingMode;
import org.apache.pdfbox.util.Matrix;

/**
 * Writes text as text, with the typefaces of the document. A run with a sign that its typeface has no glyph for, if only one that
 * is not seen, is drawn as shapes, shaped and ordered by the runtime; what it says is marked on them (ISO 32000, 14.9.4), so that it is found, copied and read aloud.
 */
final class EmbeddedText extends PdfBoxGraphics2DFontTextDrawer {
    private static final String STAND_IN = "o";

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
        String said = text((AttributedCharacterIterator) words.clone());
        Shape outline = new TextLayout(words, surface.getFontRenderContext()).getOutline(null);
        PDPageContentStream content = surface.getContentStream();
        // Where it stands, as not all readers look it up by a name, which is all that the library writes.
        content.appendRawCommands("/Span <</ActualText <" + HexFormat.of().withUpperCase().formatHex(said.getBytes(StandardCharsets.UTF_16)) + ">>> BDC\n");
        surface.applyPaint(surface.getPaint(), outline);
        fill(outline, content);
        unseen(outline.getBounds2D(), surface);
        content.endMarkedContent();
    }

    /** A sign that is not seen and takes the room of the shapes: programs look for marked text where signs are. */
    private void unseen(Rectangle2D room, IFontTextDrawerEnv surface) throws IOException, FontFormatException {
        double size = Math.max(1, room.getHeight());
        Font ours = Fonts.regular(size);
        PDFont font = mapFont(ours, surface);
        PDPageContentStream content = surface.getContentStream();
        content.beginText();
        content.setRenderingMode(RenderingMode.NEITHER);
        content.setFont(font, (float) size);
        content.setHorizontalScaling((float) Math.max(1, 100 * room.getWidth() / Fonts.width(STAND_IN, ours)));
        content.setTextMatrix(new Matrix(1, 0, 0, -1, (float) room.getX(), (float) room.getMaxY()));
        content.showText(STAND_IN);
        content.setHorizontalScaling(100);
        content.setRenderingMode(RenderingMode.FILL);
        content.endText();
    }

    private static String text(AttributedCharacterIterator words) {
        StringBuilder text = new StringBuilder();
        for (char sign = words.first(); sign != CharacterIterator.DONE; sign = words.next()) {
            text.append(sign);
        }
        return text.toString();
    }

    private static void fill(Shape outline, PDPageContentStream content) throws IOException {
        float[] to = new float[6];
        float x = 0;
        float y = 0;
        boolean any = false;
        for (PathIterator path = outline.getPathIterator(new AffineTransform()); !path.isDone(); path.next()) {
            any = true;
            int end = 0;
            switch (path.currentSegment(to)) {
                case PathIterator.SEG_MOVETO -> content.moveTo(to[0], to[1]);
                case PathIterator.SEG_LINETO -> content.lineTo(to[0], to[1]);
                case PathIterator.SEG_QUADTO -> {
                    content.curveTo(x + (to[0] - x) * 2 / 3, y + (to[1] - y) * 2 / 3, to[2] + (to[0] - to[2]) * 2 / 3, to[3] + (to[1] - to[3]) * 2 / 3, to[2], to[3]);
                    end = 2;
                }
                case PathIterator.SEG_CUBICTO -> {
                    content.curveTo(to[0], to[1], to[2], to[3], to[4], to[5]);
                    end = 4;
                }
                default -> content.closePath();
            }
            x = to[end];
            y = to[end + 1];
        }
        if (any) {
            content.fill();
        }
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
