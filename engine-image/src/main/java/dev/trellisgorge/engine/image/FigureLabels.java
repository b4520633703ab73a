package dev.trellisgorge.engine.image;

import static dev.trellisgorge.engine.image.Picture.awt;

import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Role;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.util.List;
import org.jfree.chart.annotations.AbstractAnnotation;
import org.jfree.chart.annotations.CategoryAnnotation;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.axis.ValueAxis;
import org.jfree.chart.plot.CategoryPlot;
import org.jfree.chart.plot.PlotOrientation;

/**
 * The figures beside the bars. They are drawn last and on a little paper of their own, so that a reference line does
 * not strike them through. All figures of a group of bars are of one size: the largest, up to the chart's text size, at which
 * each keeps to its bar's place; where that is too small to read they are turned to stand upright.
 */
final class FigureLabels extends AbstractAnnotation implements CategoryAnnotation {
    private static final long serialVersionUID = 1L;
    private static final double GAP_SHARE = 0.3;

    private final transient List<Figure> figures;
    private final int categories;
    private final double points;
    private final double smallest;

    /**
     * One figure.
     *
     * @param row    the category that it belongs to, 0-based
     * @param start  where its bar starts on the value axis
     * @param end    where its bar ends
     * @param text   never empty
     * @param at     where it is to stand; a figure that its bar has no room for stands past the end
     * @param onFill its colour where it stands on its bar
     */
    record Figure(int row, double start, double end, String text, At at, Color onFill) {
    }

    FigureLabels(List<Figure> figures, int categories, double points, double smallest) {
        this.figures = List.copyOf(figures);
        this.categories = categories;
        this.points = points;
        this.smallest = smallest;
    }

    @Override
    public void draw(Graphics2D g, CategoryPlot plot, Rectangle2D area, CategoryAxis categoryAxis, ValueAxis valueAxis) {
        boolean upright = plot.getOrientation() == PlotOrientation.VERTICAL;
        double place = place(categoryAxis, area, plot);
        double widest = figures.stream().mapToDouble(f -> width(g, f.text(), points)).max().orElse(0);
        double fitting = upright ? points * place * 0.98 / Math.max(1, widest) : place * 0.9;
        boolean turned = upright && fitting < smallest;
        double size = Math.min(points, Math.max(smallest, turned ? place * 0.9 : fitting));
        g.setFont(Fonts.regular(size));
        for (Figure figure : figures) {
            double along = categoryAxis.getCategoryMiddle(figure.row(), categories, area, plot.getDomainAxisEdge());
            double start = valueAxis.valueToJava2D(figure.start(), area, plot.getRangeAxisEdge());
            double end = valueAxis.valueToJava2D(figure.end(), area, plot.getRangeAxisEdge());
            draw(g, figure, along, start, end, upright, turned);
        }
    }

    /** How many pixels the category axis has for each category. */
    private double place(CategoryAxis axis, Rectangle2D area, CategoryPlot plot) {
        if (categories > 1) {
            return Math.abs(axis.getCategoryMiddle(1, categories, area, plot.getDomainAxisEdge())
                    - axis.getCategoryMiddle(0, categories, area, plot.getDomainAxisEdge()));
        }
        return plot.getOrientation() == PlotOrientation.VERTICAL ? area.getWidth() : area.getHeight();
    }

    private void draw(Graphics2D g, Figure figure, double along, double start, double end, boolean upright, boolean turned) {
        double size = g.getFont().getSize2D();
        double width = width(g, figure.text(), size);
        double gap = size * GAP_SHARE;
        double extent = upright && !turned ? size * 0.75 : width;
        At at = Math.abs(end - start) < extent + 2 * gap ? At.END : figure.at();
        // Pixels grow downwards, values grow upwards or to the right.
        double forwards = (figure.end() < figure.start() ? -1 : 1) * (upright ? -1 : 1);
        double middle = switch (at) {
            case END -> end + forwards * (gap + extent / 2);
            case INSIDE -> end - forwards * (gap + extent / 2);
            case BASE -> start + forwards * (gap + extent / 2);
        };
        AffineTransform before = g.getTransform();
        g.translate(upright ? along : middle, upright ? middle : along);
        if (turned) {
            g.rotate(-Math.PI / 2);
        }
        if (at == At.END) {
            g.setColor(awt(Role.PAPER));
            g.fill(new Rectangle2D.Double(-width / 2 - 1, -size * 0.42, width + 2, size * 0.84));
        }
        g.setColor(at == At.END ? awt(Role.INK) : figure.onFill());
        g.drawString(figure.text(), (float) (-width / 2), (float) (size * 0.33));
        g.setTransform(before);
    }

    private static double width(Graphics2D g, String text, double size) {
        Font font = Fonts.regular(size);
        return font.getStringBounds(text, g.getFontRenderContext()).getWidth();
    }
}
