package dev.trellisgorge.drawn;

import dev.trellisgorge.chart.Color;
import java.awt.geom.AffineTransform;
import java.awt.geom.GeneralPath;
import java.awt.geom.PathIterator;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.contentstream.PDFGraphicsStreamEngine;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.graphics.color.PDColor;
import org.apache.pdfbox.pdmodel.graphics.image.PDImage;
import org.apache.pdfbox.util.Matrix;
import org.apache.pdfbox.util.Vector;

/**
 * What is drawn on a page of a PDF, as a reader of it sees it: filled shapes, lines, pictures and words, where they stand. In
 * points from the upper left corner; what is filled without a colour of one kind, such as a picture, has none.
 *
 * @param fills  shapes in drawing order, by the boxes round them
 * @param lines  what is drawn with a pen, piece by piece
 * @param frames closed shapes that are drawn with a pen
 */
public record DrawnPage(double width, double height, List<Fill> fills, List<Line> lines, List<Fill> frames, List<Words> words) {

    /** A filled shape. */
    public record Fill(Rectangle2D box, Optional<Color> color) {
    }

    /** A straight piece of a line. */
    public record Line(Point2D from, Point2D to, Color color, double wide) {
        public Rectangle2D box() {
            Rectangle2D box = new Rectangle2D.Double();
            box.setFrameFromDiagonal(from, to);
            return box;
        }
    }

    /** Some words that were written at once. */
    public record Words(String text, Rectangle2D box) {
    }

    /** The pages of a document. */
    public static List<DrawnPage> of(Path pdf) throws IOException {
        List<DrawnPage> pages = new ArrayList<>();
        try (PDDocument document = Loader.loadPDF(pdf.toFile())) {
            for (PDPage page : document.getPages()) {
                Reader reader = new Reader(page);
                reader.processPage(page);
                pages.add(reader.page());
            }
        }
        return pages;
    }

    private static final class Reader extends PDFGraphicsStreamEngine {
        private static final double OVER = 0.35;
        private final AffineTransform upsideDown;
        private final PDPage page;
        private final List<Fill> fills = new ArrayList<>();
        private final List<Line> lines = new ArrayList<>();
        private final List<Fill> frames = new ArrayList<>();
        private final List<Words> words = new ArrayList<>();
        private final StringBuilder text = new StringBuilder();
        private Rectangle2D written;
        private GeneralPath path = new GeneralPath();

        Reader(PDPage page) {
            super(page);
            this.page = page;
            this.upsideDown = new AffineTransform(1, 0, 0, -1, -page.getCropBox().getLowerLeftX(), page.getCropBox().getUpperRightY());
        }

        DrawnPage page() {
            return new DrawnPage(page.getCropBox().getWidth(), page.getCropBox().getHeight(), fills, lines, frames, words);
        }

        private static Optional<Color> color(PDColor color) {
            try {
                return color.isPattern() ? Optional.empty() : Optional.of(new Color(color.toRGB()));
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        }

        private void fill() {
            Rectangle2D box = seen(path);
            if (!box.isEmpty() && getGraphicsState().getNonStrokeAlphaConstant() > 0) {
                fills.add(new Fill(box, color(getGraphicsState().getNonStrokingColor())));
            }
        }

        /** The part of a shape that is not clipped away, on the page. */
        private Rectangle2D seen(GeneralPath shape) {
            Rectangle2D whole = upsideDown.createTransformedShape(shape).getBounds2D();
            Rectangle2D clip = upsideDown.createTransformedShape(getGraphicsState().getCurrentClippingPath()).getBounds2D();
            return whole.createIntersection(clip);
        }

        private void pen() {
            Color color = color(getGraphicsState().getStrokingColor()).orElseThrow();
            double wide = getGraphicsState().getLineWidth() * Math.abs(getGraphicsState().getCurrentTransformationMatrix().getScalingFactorX());
            double[] at = new double[6];
            Point2D start = null;
            Point2D last = null;
            int pieces = 0;
            boolean closed = false;
            for (var each = path.getPathIterator(upsideDown); !each.isDone(); each.next()) {
                int kind = each.currentSegment(at);
                Point2D to = switch (kind) {
                    case PathIterator.SEG_CUBICTO -> new Point2D.Double(at[4], at[5]);
                    case PathIterator.SEG_CLOSE -> start;
                    default -> new Point2D.Double(at[0], at[1]);
                };
                if (kind == PathIterator.SEG_MOVETO) {
                    start = to;
                } else if (last != null) {
                    lines.add(new Line(last, to, color, wide));
                    pieces++;
                    closed |= to.distance(start) < 0.01;
                }
                last = to;
            }
            if (closed && pieces >= 4) {
                frames.add(new Fill(upsideDown.createTransformedShape(path).getBounds2D(), Optional.of(color)));
            }
        }

        @Override
        public void appendRectangle(Point2D p0, Point2D p1, Point2D p2, Point2D p3) {
            path.moveTo(p0.getX(), p0.getY());
            path.lineTo(p1.getX(), p1.getY());
            path.lineTo(p2.getX(), p2.getY());
            path.lineTo(p3.getX(), p3.getY());
            path.closePath();
        }

        @Override
        public void drawImage(PDImage image) {
            Matrix at = getGraphicsState().getCurrentTransformationMatrix();
            GeneralPath box = new GeneralPath();
            box.append(at.createAffineTransform().createTransformedShape(new Rectangle2D.Double(0, 0, 1, 1)), false);
            fills.add(new Fill(seen(box), Optional.empty()));
        }

        @Override
        public void clip(int windingRule) {
            path.setWindingRule(windingRule);
            getGraphicsState().intersectClippingPath(path);
        }

        @Override
        public void moveTo(float x, float y) {
            path.moveTo(x, y);
        }

        @Override
        public void lineTo(float x, float y) {
            path.lineTo(x, y);
        }

        @Override
        public void curveTo(float x1, float y1, float x2, float y2, float x3, float y3) {
            path.curveTo(x1, y1, x2, y2, x3, y3);
        }

        @Override
        public Point2D getCurrentPoint() {
            return path.getCurrentPoint();
        }

        @Override
        public void closePath() {
            path.closePath();
        }

        @Override
        public void endPath() {
            path = new GeneralPath();
        }

        @Override
        public void strokePath() {
            pen();
            endPath();
        }

        @Override
        public void fillPath(int windingRule) {
            fill();
            endPath();
        }

        @Override
        public void fillAndStrokePath(int windingRule) {
            fill();
            pen();
            endPath();
        }

        @Override
        public void shadingFill(COSName shadingName) {
            fills.add(new Fill(upsideDown.createTransformedShape(getGraphicsState().getCurrentClippingPath()).getBounds2D(), Optional.empty()));
        }

        @Override
        protected void showGlyph(Matrix at, PDFont font, int code, Vector displacement) throws IOException {
            String letter = font.toUnicode(code);
            double size = at.getScalingFactorY();
            Rectangle2D here = upsideDown.createTransformedShape(at.createAffineTransform().createTransformedShape(new Rectangle2D.Double(0, 0, Math.max(0.01, displacement.getX()), 0.7))).getBounds2D();
            if (written != null && (here.getX() > written.getMaxX() + OVER * size || here.getX() < written.getMaxX() - OVER * size || Math.abs(here.getMaxY() - written.getMaxY()) > 1)) {
                flush();
            }
            text.append(letter == null ? "?" : letter);
            written = written == null ? here : written.createUnion(here);
        }

        private void flush() {
            if (written != null && !text.toString().isBlank()) {
                words.add(new Words(text.toString().strip(), written));
            }
            text.setLength(0);
            written = null;
        }

        @Override
        public void beginText() throws IOException {
            flush();
            super.beginText();
        }

        @Override
        public void processPage(PDPage some) throws IOException {
            super.processPage(some);
            flush();
        }
    }
}
