package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.plan.PlainChart;
import java.awt.BasicStroke;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.geom.Line2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.jfree.chart.axis.AxisSpace;
import org.jfree.chart.axis.AxisState;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.ui.RectangleEdge;

/** The names of lying bars and the figures beside them as a table: a heading over each column, and a rule below each row that goes on under the bars. */
final class TableAxis extends CategoryAxis {
    private static final long serialVersionUID = 1L;
    private static final double MOST_FOR_NAMES = 0.3;
    private static final double MOST_FOR_ALL = 0.7;
    private static final double WIDEST_HEADING = 9;

    private final transient PlainChart plain;
    private final double text;
    private final int namedEvery;
    private final transient Font font;
    private final double names;
    private final transient List<Placed> columns = new ArrayList<>();

    /** A column with its width in pixels, the gap before it included. */
    private record Placed(FigureColumn column, double width) {
    }

    /**
     * @param width      of the picture
     * @param font       of names and figures
     * @param namedEvery only every so many rows are written
     * @param omitted    told the columns that find no place
     */
    TableAxis(PlainChart plain, double width, double text, Font font, int namedEvery, Omitted omitted) {
        this.plain = plain;
        this.text = text;
        this.font = Scripts.able(font, plain.beside().stream().flatMap(column -> rows(plain).mapToObj(row -> plain.besideText(column, row))).toList());
        this.namedEvery = namedEvery;
        this.names = Math.min(width * MOST_FOR_NAMES, rows(plain).mapToDouble(row -> Fonts.width(plain.categoryText(row), font)).max().orElse(0) + text * 0.3);
        double left = width * MOST_FOR_ALL - names;
        List<String> none = new ArrayList<>();
        for (FigureColumn column : plain.beside()) {
            double widest = rows(plain).mapToDouble(row -> Fonts.width(plain.besideText(column, row), font)).max().orElse(0);
            double wide = Math.max(widest, Math.min(text * WIDEST_HEADING, Fonts.width(column.name(), heading()) + 1)) + text * 1.2;
            if (none.isEmpty() && wide <= left) {
                columns.add(new Placed(column, wide));
                left -= wide;
            } else {
                none.add(column.name());
            }
        }
        if (!none.isEmpty()) {
            omitted.columns(plain.name(), none);
        }
    }

    private static IntStream rows(PlainChart plain) {
        return IntStream.range(0, plain.data().rowCount());
    }

    private Font heading() {
        return Scripts.able(Fonts.strong(Math.max(Ink.SMALLEST_TEXT, text * 0.85)), plain.beside().stream().map(FigureColumn::name).toList());
    }

    /** What it takes of the picture's width. */
    double width() {
        return names + columns.stream().mapToDouble(Placed::width).sum() + text * 0.8;
    }

    @Override
    public AxisSpace reserveSpace(Graphics2D g, Plot plot, Rectangle2D area, RectangleEdge edge, AxisSpace space) {
        AxisSpace whole = space == null ? new AxisSpace() : space;
        whole.ensureAtLeast(width(), edge);
        return whole;
    }

    @Override
    public AxisState draw(Graphics2D g, double cursor, Rectangle2D area, Rectangle2D data, RectangleEdge edge, PlotRenderingInfo info) {
        double left = data.getMinX() - width();
        int count = plain.data().rowCount();
        double at = left + names;
        double from = count == 0 ? data.getMinY() : boundary(-1, count, data, edge);
        g.setColor(Ink.awt(Role.INK));
        for (Placed each : columns) {
            at += each.width();
            String heading = Fonts.cut(each.column().name(), heading(), each.width() - text * 0.8);
            write(g, heading, heading(), at - Fonts.width(heading, heading()), from - text * 0.5);
        }
        rule(g, left, data.getMaxX(), from, Role.INK);
        for (int row = 0; row < count; row++) {
            double middle = getCategoryMiddle(row, count, data, edge);
            double base = middle + font.getSize2D() * 0.34;
            if (row % namedEvery == 0) {
                write(g, Fonts.cut(plain.categoryText(row), font, names), font, left, base);
                at = left + names;
                for (Placed each : columns) {
                    at += each.width();
                    String figure = plain.besideText(each.column(), row);
                    write(g, figure, font, at - Fonts.width(figure, font), base);
                }
            }
            if (namedEvery == 1) {
                rule(g, left, data.getMaxX(), boundary(row, count, data, edge), Role.MUTED);
            }
        }
        return new AxisState(cursor - width());
    }

    /** Half-way between a row and the next one; before the first where {@code row} is -1. */
    private double boundary(int row, int count, Rectangle2D data, RectangleEdge edge) {
        double half = count > 1 ? (getCategoryMiddle(1, count, data, edge) - getCategoryMiddle(0, count, data, edge)) / 2 : data.getMaxY() - getCategoryMiddle(0, count, data, edge);
        return row < 0 ? Math.max(data.getMinY(), getCategoryMiddle(0, count, data, edge) - half) : Math.min(data.getMaxY(), getCategoryMiddle(row, count, data, edge) + half);
    }

    private static void rule(Graphics2D g, double from, double to, double y, Role role) {
        g.setStroke(new BasicStroke(role == Role.INK ? 1f : 0.6f));
        g.setColor(Ink.awt(role));
        g.draw(new Line2D.Double(from, y, to, y));
        g.setColor(Ink.awt(Role.INK));
    }

    private static void write(Graphics2D g, String words, Font font, double x, double y) {
        if (!words.isEmpty()) {
            g.setFont(font);
            g.drawString(words, (float) x, (float) y);
        }
    }
}
