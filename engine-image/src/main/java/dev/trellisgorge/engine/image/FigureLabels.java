package dev.trellisgorge.engine.image;

import static dev.trellisgorge.engine.image.Picture.awt;

import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Role;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.font.FontRenderContext;
import java.awt.geom.AffineTransform;
import java.awt.geom.Rectangle2D;
import java.util.List;
import org.jfree.chart.annotations.AbstractAnnotation;
import org.jfree.chart.annotations.CategoryAnnotation;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.axis.ValueAxis;
import org.jfree.chart.plot.CategoryPlot;

/**
 * The figures beside the bars. They are drawn last and on a little paper of their own, so that a reference line does
 * not strike them through. All figures of a group of bars are of one size: the largest, up to the chart's text size, at which
 * each keeps to its bar's place; where that is too small to read they are turned to stand upright.
 */
final class FigureLabels extends AbstractAnnotation implements CategoryAnnotation {
    private static final long serialVersionUID = 1L;
    private static final double GAP_SHARE = 0.3;

    private static final FontRenderContext METRICS = new FontRenderContext(null, true, true);

    private final transient List<Figure> figures;
    private final int categories;
    private final boolean upright;
    private final boolean turned;
    private final double size;

    /**
     * One figure.
     *
     * @param row    the category that it belongs to, 0-based
     * @param start  where its bar starts on the value axis
     * @param end    where its bar ends
     * @param text   never empty
     * @param at     where it is to stand; a figure that its bar has no room for stands past the end
     * @param onFill its colour where it stands on its bar
     * @param free   whether nothing is drawn past the end of the bar
     */
    record Figure(int row, double start, double end, String text, At at, Color onFill, boolean free) {
    }

    /**
     * @param categories how many categories there are
     * @param place      how many pixels of the category axis each has
     * @param points     the size of text where there is room
     * @param smallest   the size below which it can't be read
     */
    FigureLabels(List<Figure> figures, int categories, boolean upright, double place, double points, double smallest) {
        this.figures = List.copyOf(figures);
        this.categories = categories;
        this.upright = upright;
        double fitting = upright ? points * place * 0.98 / Math.max(1, widest(points)) : place * 0.9;
        this.turned = upright && fitting < smallest;
        this.size = Math.min(points, Math.max(smallest, turned ? place * 0.9 : fitting));
    }

    private double widest(double points) {
        return figures.stream().mapToDouble(figure -> width(figure.text(), points)).max().orElse(0);
    }

    /** How many pixels past the end of a bar its figure takes at most. */
    double room() {
        return 3 * GAP_SHARE * size + (upright && !turned ? size : widest(size));
    }

    @Override
    public void draw(Graphics2D g, CategoryPlot plot, Rectangle2D area, CategoryAxis categoryAxis, ValueAxis valueAxis) {
        g.setFont(Fonts.regular(size));
        for (Figure figure : figures) {
            double along = categoryAxis.getCategoryMiddle(figure.row(), categories, area, plot.getDomainAxisEdge());
            double start = valueAxis.valueToJava2D(figure.start(), area, plot.getRangeAxisEdge());
            double end = valueAxis.valueToJava2D(figure.end(), area, plot.getRangeAxisEdge());
            draw(g, figure, along, start, end);
        }
    }

    private void draw(Graphics2D g, Figure figure, double along, double start, double end) {
        double width = width(figure.text(), size);
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
        double x = upright ? along : middle;
        double y = upright ? middle : along;
        AffineTransform before = g.getTransform();
        if (turned) {
            g.rotate(-Math.PI / 2, x, y);
        }
        if (at == At.END && figure.free()) {
            g.setColor(awt(Role.PAPER));
            g.fill(new Rectangle2D.Double(x - width / 2 - 1, y - size * 0.42, width + 2, size * 0.84));
        }
        g.setColor(at == At.END ? awt(Role.INK) : figure.onFill());
        g.drawString(figure.text(), (float) (x - width / 2), (float) (y + size * 0.33));
        if (turned) {
            g.setTransform(before);
        }
    }

    static double width(String text, double points) {
        return Fonts.regular(points).getStringBounds(text, METRICS).getWidth();
    }
}
