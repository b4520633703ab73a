package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.Series;
import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.Shape;
import java.awt.geom.Path2D;
import java.awt.geom.RectangularShape;
import java.util.List;
import org.jfree.chart.renderer.category.BarPainter;
import org.jfree.chart.renderer.category.BarRenderer;
import org.jfree.chart.ui.RectangleEdge;

/** Paints each bar as its series says; a spacer leaves no trace. */
final class SeriesPainter implements BarPainter {
    private static final double ROUND = 0.45;

    private final List<Series> all;
    private final double text;

    SeriesPainter(List<Series> all, double text) {
        this.all = all;
        this.text = text;
    }

    @Override
    public void paintBar(Graphics2D g, BarRenderer renderer, int row, int column, RectangularShape bar, RectangleEdge base) {
        Series series = all.get(row);
        if (!series.isSeen() || bar.getWidth() <= 0 || bar.getHeight() <= 0) {
            return;
        }
        Shape shape = series.round() ? rounded(bar, base) : bar;
        series.fill().ifPresent(fill -> {
            g.setColor(Ink.awt(fill));
            g.fill(shape);
        });
        series.outline().ifPresent(line -> {
            g.setColor(Ink.awt(line));
            g.setStroke(new BasicStroke((float) (text / 12)));
            g.draw(shape);
        });
    }

    /** A bar with the corners at its far end rounded. */
    private static Shape rounded(RectangularShape bar, RectangleEdge base) {
        boolean lying = base == RectangleEdge.LEFT || base == RectangleEdge.RIGHT;
        double across = lying ? bar.getHeight() : bar.getWidth();
        double length = lying ? bar.getWidth() : bar.getHeight();
        double radius = Math.min(across * ROUND, length);
        // In the frame of the bar: u runs along it from its base, v across it.
        Path2D path = new Path2D.Double();
        double[][] corners = {{0, 0}, {length - radius, 0}, {length, 0}, {length, radius}, {length, across - radius}, {length, across},
            {length - radius, across}, {0, across}};
        double[][] points = new double[corners.length][];
        for (int i = 0; i < corners.length; i++) {
            points[i] = onPaper(bar, base, corners[i][0], corners[i][1]);
        }
        path.moveTo(points[0][0], points[0][1]);
        path.lineTo(points[1][0], points[1][1]);
        path.quadTo(points[2][0], points[2][1], points[3][0], points[3][1]);
        path.lineTo(points[4][0], points[4][1]);
        path.quadTo(points[5][0], points[5][1], points[6][0], points[6][1]);
        path.lineTo(points[7][0], points[7][1]);
        path.closePath();
        return path;
    }

    private static double[] onPaper(RectangularShape bar, RectangleEdge base, double u, double v) {
        if (base == RectangleEdge.BOTTOM) {
            return new double[] {bar.getX() + v, bar.getMaxY() - u};
        }
        if (base == RectangleEdge.TOP) {
            return new double[] {bar.getX() + v, bar.getY() + u};
        }
        return base == RectangleEdge.LEFT ? new double[] {bar.getX() + u, bar.getY() + v} : new double[] {bar.getMaxX() - u, bar.getY() + v};
    }

    @Override
    public void paintBarShadow(Graphics2D g, BarRenderer renderer, int row, int column, RectangularShape bar, RectangleEdge base,
            boolean pegShadow) {
        // none
    }
}
