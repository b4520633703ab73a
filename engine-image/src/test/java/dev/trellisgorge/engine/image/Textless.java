package dev.trellisgorge.engine.image;

import java.awt.Color;
import java.awt.Composite;
import java.awt.Font;
import java.awt.FontMetrics;
import java.awt.Graphics2D;
import java.awt.Graphics;
import java.awt.GraphicsConfiguration;
import java.awt.Image;
import java.awt.Paint;
import java.awt.Rectangle;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.Stroke;
import java.awt.font.FontRenderContext;
import java.awt.font.GlyphVector;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.awt.image.BufferedImageOp;
import java.awt.image.ImageObserver;
import java.awt.image.RenderedImage;
import java.awt.image.renderable.RenderableImage;
import java.text.AttributedCharacterIterator;
import java.util.List;
import java.util.Map;

/** A surface on which all is drawn but texts: it is reported where these would stand. */
final class Textless extends Graphics2D {
    private final Graphics2D to;
    private final List<Written> written;

    /**
     * A text that is left out.
     *
     * @param place its capitals, where they would stand
     * @param glyphs whether it is a bar made of characters
     */
    record Written(String words, Rectangle2D place, boolean glyphs) {
    }

    /** @param written gets the texts */
    Textless(Graphics2D to, List<Written> written) {
        this.to = to;
        this.written = written;
    }

    @Override
    public Graphics create() {
        return new Textless((Graphics2D) to.create(), written);
    }

    @Override
    public void drawString(String words, float x, float y) {
        double points = getFont().getSize2D();
        Rectangle2D place = new Rectangle2D.Double(x, y - points * 0.62, Fonts.width(words, getFont()), points * 0.62);
        written.add(new Written(words, getTransform().createTransformedShape(place).getBounds2D(), getFont().getFamily().contains("Mono")));
    }

    @Override
    public void drawString(String words, int x, int y) {
        drawString(words, (float) x, (float) y);
    }

    @Override
    public void drawString(AttributedCharacterIterator words, int x, int y) {
        throw new UnsupportedOperationException();
    }

    @Override
    public void drawString(AttributedCharacterIterator words, float x, float y) {
        throw new UnsupportedOperationException();
    }

    @Override
    public void drawGlyphVector(GlyphVector words, float x, float y) {
        throw new UnsupportedOperationException();
    }

    @Override
    public void addRenderingHints(Map<?, ?> a) {
        to.addRenderingHints(a);
    }

    @Override
    public void clearRect(int a, int b, int c, int d) {
        to.clearRect(a, b, c, d);
    }

    @Override
    public void clip(Shape a) {
        to.clip(a);
    }

    @Override
    public void clipRect(int a, int b, int c, int d) {
        to.clipRect(a, b, c, d);
    }

    @Override
    public void copyArea(int a, int b, int c, int d, int e, int f) {
        to.copyArea(a, b, c, d, e, f);
    }

    @Override
    public void dispose() {
        to.dispose();
    }

    @Override
    public void draw(Shape a) {
        to.draw(a);
    }

    @Override
    public void drawArc(int a, int b, int c, int d, int e, int f) {
        to.drawArc(a, b, c, d, e, f);
    }

    @Override
    public boolean drawImage(Image a, AffineTransform b, ImageObserver c) {
        return to.drawImage(a, b, c);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, Color d, ImageObserver e) {
        return to.drawImage(a, b, c, d, e);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, int d, int e, Color f, ImageObserver g) {
        return to.drawImage(a, b, c, d, e, f, g);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, int d, int e, int f, int g, int h, int i, Color j, ImageObserver k) {
        return to.drawImage(a, b, c, d, e, f, g, h, i, j, k);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, int d, int e, int f, int g, int h, int i, ImageObserver j) {
        return to.drawImage(a, b, c, d, e, f, g, h, i, j);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, int d, int e, ImageObserver f) {
        return to.drawImage(a, b, c, d, e, f);
    }

    @Override
    public boolean drawImage(Image a, int b, int c, ImageObserver d) {
        return to.drawImage(a, b, c, d);
    }

    @Override
    public void drawImage(BufferedImage a, BufferedImageOp b, int c, int d) {
        to.drawImage(a, b, c, d);
    }

    @Override
    public void drawLine(int a, int b, int c, int d) {
        to.drawLine(a, b, c, d);
    }

    @Override
    public void drawOval(int a, int b, int c, int d) {
        to.drawOval(a, b, c, d);
    }

    @Override
    public void drawPolygon(int[] a, int[] b, int c) {
        to.drawPolygon(a, b, c);
    }

    @Override
    public void drawPolyline(int[] a, int[] b, int c) {
        to.drawPolyline(a, b, c);
    }

    @Override
    public void drawRenderableImage(RenderableImage a, AffineTransform b) {
        to.drawRenderableImage(a, b);
    }

    @Override
    public void drawRenderedImage(RenderedImage a, AffineTransform b) {
        to.drawRenderedImage(a, b);
    }

    @Override
    public void drawRoundRect(int a, int b, int c, int d, int e, int f) {
        to.drawRoundRect(a, b, c, d, e, f);
    }

    @Override
    public void fill(Shape a) {
        to.fill(a);
    }

    @Override
    public void fillArc(int a, int b, int c, int d, int e, int f) {
        to.fillArc(a, b, c, d, e, f);
    }

    @Override
    public void fillOval(int a, int b, int c, int d) {
        to.fillOval(a, b, c, d);
    }

    @Override
    public void fillPolygon(int[] a, int[] b, int c) {
        to.fillPolygon(a, b, c);
    }

    @Override
    public void fillRect(int a, int b, int c, int d) {
        to.fillRect(a, b, c, d);
    }

    @Override
    public void fillRoundRect(int a, int b, int c, int d, int e, int f) {
        to.fillRoundRect(a, b, c, d, e, f);
    }

    @Override
    public Color getBackground() {
        return to.getBackground();
    }

    @Override
    public Shape getClip() {
        return to.getClip();
    }

    @Override
    public Rectangle getClipBounds() {
        return to.getClipBounds();
    }

    @Override
    public Color getColor() {
        return to.getColor();
    }

    @Override
    public Composite getComposite() {
        return to.getComposite();
    }

    @Override
    public GraphicsConfiguration getDeviceConfiguration() {
        return to.getDeviceConfiguration();
    }

    @Override
    public Font getFont() {
        return to.getFont();
    }

    @Override
    public FontMetrics getFontMetrics(Font a) {
        return to.getFontMetrics(a);
    }

    @Override
    public FontRenderContext getFontRenderContext() {
        return to.getFontRenderContext();
    }

    @Override
    public Paint getPaint() {
        return to.getPaint();
    }

    @Override
    public Object getRenderingHint(RenderingHints.Key a) {
        return to.getRenderingHint(a);
    }

    @Override
    public RenderingHints getRenderingHints() {
        return to.getRenderingHints();
    }

    @Override
    public Stroke getStroke() {
        return to.getStroke();
    }

    @Override
    public AffineTransform getTransform() {
        return to.getTransform();
    }

    @Override
    public boolean hit(Rectangle a, Shape b, boolean c) {
        return to.hit(a, b, c);
    }

    @Override
    public void rotate(double a, double b, double c) {
        to.rotate(a, b, c);
    }

    @Override
    public void rotate(double a) {
        to.rotate(a);
    }

    @Override
    public void scale(double a, double b) {
        to.scale(a, b);
    }

    @Override
    public void setBackground(Color a) {
        to.setBackground(a);
    }

    @Override
    public void setClip(int a, int b, int c, int d) {
        to.setClip(a, b, c, d);
    }

    @Override
    public void setClip(Shape a) {
        to.setClip(a);
    }

    @Override
    public void setColor(Color a) {
        to.setColor(a);
    }

    @Override
    public void setComposite(Composite a) {
        to.setComposite(a);
    }

    @Override
    public void setFont(Font a) {
        to.setFont(a);
    }

    @Override
    public void setPaint(Paint a) {
        to.setPaint(a);
    }

    @Override
    public void setPaintMode() {
        to.setPaintMode();
    }

    @Override
    public void setRenderingHint(RenderingHints.Key a, Object b) {
        to.setRenderingHint(a, b);
    }

    @Override
    public void setRenderingHints(Map<?, ?> a) {
        to.setRenderingHints(a);
    }

    @Override
    public void setStroke(Stroke a) {
        to.setStroke(a);
    }

    @Override
    public void setTransform(AffineTransform a) {
        to.setTransform(a);
    }

    @Override
    public void setXORMode(Color a) {
        to.setXORMode(a);
    }

    @Override
    public void shear(double a, double b) {
        to.shear(a, b);
    }

    @Override
    public void transform(AffineTransform a) {
        to.transform(a);
    }

    @Override
    public void translate(double a, double b) {
        to.translate(a, b);
    }

    @Override
    public void translate(int a, int b) {
        to.translate(a, b);
    }
}
