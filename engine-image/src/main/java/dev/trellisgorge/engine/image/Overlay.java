package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Label.At;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.table.Column;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import org.jfree.chart.annotations.AbstractAnnotation;
import org.jfree.chart.annotations.CategoryAnnotation;
import org.jfree.chart.axis.CategoryAxis;
import org.jfree.chart.axis.ValueAxis;
import org.jfree.chart.plot.CategoryPlot;

/**
 * What lies over the bars of a panel: points, the names of reference lines, and the figures. All figures of a panel are of
 * one size: the largest, up to the chart's text size, at which each keeps to its category's place; where that is too small
 * to read they are turned to stand upright. A figure that would lie on another one, or on a point, moves; where there is no
 * place for it, it is left out.
 */
final class Overlay extends AbstractAnnotation implements CategoryAnnotation {
    private static final long serialVersionUID = 1L;
    private static final double GAP_SHARE = 0.3;
    private static final double CAPITALS = 0.75;
    private static final double DOT = 0.34;
    /** Of more rows than this no figure could be read. */
    private static final int MOST_ROWS = 1_000;

    private final transient PlainChart plain;
    private final transient Panel panel;
    private final transient PlainChart.Extent extent;
    private final boolean upright;
    private final double text;
    private final double widestBar;
    private final transient List<Figure> figures;
    private final Font figureFont;
    private final boolean turned;
    private final double size;
    private final transient Omitted omitted;

    /**
     * One figure.
     *
     * @param row    the category that it belongs to, 0-based
     * @param aside  how far from the category's middle its bar stands, as a share of the category's place
     * @param start  where its bar starts on the value axis
     * @param end    where its bar ends, or its point is
     * @param text   never empty
     * @param at     where it is to stand
     * @param onFill its colour where it stands on its bar
     * @param fill   the colour of its bar
     * @param past   its colour where it stands past the end, on the next piece; empty where nothing is drawn there
     * @param pastFill the colour of that piece
     * @param point  the shape of its point; empty where it has a bar
     */
    private record Figure(int row, double aside, double start, double end, String text, At at, Color onFill, Optional<Color> fill, Optional<Color> past, Optional<Color> pastFill,
            Optional<Points.Shape> point) {
    }

    /** A place where a figure could stand: its middle, its colour, and the ground that it needs of its own. */
    private record Spot(Point2D middle, Color color, Optional<Color> ground) {
    }

    /**
     * @param slot      how many pixels of the category axis each category has, roughly
     * @param widestBar the most that a bar is wide, as a share of the axis
     * @param omitted   told what finds no place
     */
    Overlay(PlainChart plain, Panel panel, double slot, double widestBar, double text, Omitted omitted) {
        this.plain = plain;
        this.panel = panel;
        this.upright = plain.orientation() == Orientation.VERTICAL;
        this.text = text;
        this.omitted = omitted;
        this.widestBar = widestBar;
        this.extent = plain.extent(panel);
        this.figures = figures();
        this.figureFont = Scripts.able(plain.looks().bold().getOrDefault(Looks.Purpose.LABELS, false) ? Fonts.strong(text) : Fonts.regular(text), figures.stream().map(Figure::text).toList());
        double fitting = upright ? text * slot * 0.98 / Math.max(1, widest(text)) : slot * 0.9;
        this.turned = upright && fitting < Ink.SMALLEST_TEXT;
        this.size = Math.min(text, Math.max(Ink.SMALLEST_TEXT, turned ? slot * 0.9 : fitting));
    }

    private List<Figure> figures() {
        List<Figure> all = new ArrayList<>();
        if (plain.data().rowCount() > MOST_ROWS) {
            return all;
        }
        for (BarGroup group : panel.bars()) {
            List<PlainChart.Bar> bars = plain.bars(group);
            for (PlainChart.Bar bar : bars) {
                for (Label label : bar.series().labels()) {
                    String words = plain.labelText(bar.series().column(), label, bar.row());
                    if (words.isEmpty()) {
                        continue;
                    }
                    Optional<Series> next = bars.stream().filter(other -> goesOn(bar, other)).findFirst().map(PlainChart.Bar::series);
                    all.add(new Figure(bar.row(), aside(group, bar.series()), bar.start(), bar.end(), words, label.at(),
                            Ink.on(bar.series()), bar.series().fill().map(Ink::awt), next.map(Ink::on), next.flatMap(Series::fill).map(Ink::awt), Optional.empty()));
                }
            }
        }
        for (Points points : panel.points()) {
            Column places = plain.data().column(points.series().column());
            for (int row = 0; row < places.size(); row++) {
                for (Label label : points.series().labels()) {
                    String words = plain.labelText(points.series().column(), label, row);
                    if (words.isEmpty()) {
                        continue;
                    }
                    all.add(new Figure(row, 0, places.number(row), places.number(row), words, label.at(), Ink.awt(Role.INK), Optional.empty(), Optional.empty(), Optional.empty(),
                            Optional.of(points.shape())));
                }
            }
        }
        return all;
    }

    private static double aside(BarGroup group, Series series) {
        int count = group.series().size();
        return group.placing() == BarGroup.Placing.BESIDE ? (group.series().indexOf(series) + 0.5) / count - 0.5 : 0;
    }

    /** Whether a piece of the same stack lies past the end of a bar. */
    private static boolean goesOn(PlainChart.Bar bar, PlainChart.Bar other) {
        return other != bar && other.row() == bar.row() && other.start() == bar.end() && other.end() != other.start()
                && other.series().fill().isPresent() && other.end() > other.start() == bar.end() >= bar.start();
    }

    private double widest(double points) {
        return figures.stream().mapToDouble(figure -> Fonts.width(figure.text(), figures(points))).max().orElse(0);
    }

    private Font figures(double points) {
        return Fonts.sized(figureFont, points);
    }

    /** How many pixels past the end of a bar its figure takes at most. */
    double room() {
        double dots = panel.points().isEmpty() ? 0 : text * DOT;
        return dots + (figures.isEmpty() ? text * 0.4 : 3 * GAP_SHARE * size + (upright && !turned ? size : widest(size)));
    }

    /** Whether some figure belongs to a bar without length, and so stands on the base line. */
    boolean isOnTheBaseLine() {
        return figures.stream().anyMatch(figure -> figure.end() == 0);
    }

    /** How many pixels along the category axis the names of reference lines take. */
    double referenceRoom() {
        if (!upright) {
            return panel.references().isEmpty() ? 0 : text * 1.8;
        }
        return panel.references().stream().mapToDouble(line -> Fonts.width(words(line), strong()) + text).max().orElse(0);
    }

    /** How many pixels the line above a panel takes. */
    double headingRoom() {
        return panel.heading().isEmpty() ? 0 : text * 1.6;
    }

    private Font heading() {
        return Scripts.able(Fonts.strong(Math.max(Ink.SMALLEST_TEXT, text * 0.95)), panel.heading());
    }

    private Font strong() {
        return Scripts.able(Fonts.strong(Math.max(Ink.SMALLEST_TEXT, text * 0.9)), panel.references().stream().map(this::words).toList());
    }

    private String words(ReferenceLine line) {
        return plain.words(line, panel);
    }

    @Override
    public void draw(Graphics2D g, CategoryPlot plot, Rectangle2D area, CategoryAxis categoryAxis, ValueAxis valueAxis) {
        new Drawing(g, plot, area, categoryAxis, valueAxis).draw();
    }

    /** One drawing of the overlay on a surface. */
    private final class Drawing {
        private final Graphics2D g;
        private final CategoryPlot plot;
        private final Rectangle2D area;
        private final CategoryAxis categories;
        private final ValueAxis values;
        private final List<Rectangle2D> taken = new ArrayList<>();

        Drawing(Graphics2D g, CategoryPlot plot, Rectangle2D area, CategoryAxis categories, ValueAxis values) {
            this.g = g;
            this.plot = plot;
            this.area = area;
            this.categories = categories;
            this.values = values;
        }

        void draw() {
            if (panel.scale().covered().isPresent()) {
                panel.bars().forEach(this::breaks);
            }
            panel.points().forEach(this::points);
            headed();
            panel.references().forEach(this::name);
            g.setFont(figures(size));
            figures.forEach(this::figure);
        }

        /** The line above the panel: at its left, or at the base line of a pane whose bars lie. */
        private void headed() {
            if (panel.heading().isEmpty()) {
                return;
            }
            String words = Fonts.cut(panel.heading(), heading(), area.getWidth());
            double wide = Fonts.width(words, heading());
            double x = !upright && panel.scale().backwards() ? area.getMaxX() - wide - text * 0.5 : area.getX() + (upright ? 0 : text * 0.5);
            double high = heading().getSize2D();
            g.setFont(heading());
            g.setColor(Ink.awt(Role.INK));
            g.drawString(words, (float) x, (float) (area.getY() + high));
            taken.add(new Rectangle2D.Double(x, area.getY(), wide, high));
        }

        /** Where a figure lies, or the end of the scale that it lies beyond. */
        private double onAxis(double value) {
            return values.valueToJava2D(panel.scale().covered().isPresent() ? extent.held(value) : value, area, plot.getRangeAxisEdge());
        }

        /** Which way the axis runs on the surface: 1 or -1. */
        private double upwards() {
            return Math.signum(values.valueToJava2D(values.getRange().getUpperBound(), area, plot.getRangeAxisEdge())
                    - values.valueToJava2D(values.getRange().getLowerBound(), area, plot.getRangeAxisEdge()));
        }

        private boolean isSeen(double value) {
            return panel.scale().covered().isEmpty() || extent.held(value) == value;
        }

        private double middle(int row) {
            return categories.getCategoryMiddle(row, Math.max(1, plain.data().rowCount()), area, plot.getDomainAxisEdge());
        }

        /** How wide a bar is. */
        private double barWidth() {
            int count = Math.max(1, plain.data().rowCount());
            double slot = categories.getCategoryEnd(0, count, area, plot.getDomainAxisEdge())
                    - categories.getCategoryStart(0, count, area, plot.getDomainAxisEdge());
            return Math.min(Math.abs(slot), widestBar * (upright ? area.getWidth() : area.getHeight()));
        }

        /** Two strokes of paper across a bar where it goes on past the scale. */
        private void breaks(BarGroup group) {
            double forwards = upwards();
            for (PlainChart.Bar bar : plain.bars(group)) {
                if (bar.series().isSeen() && extent.held(bar.start()) != extent.held(bar.end())) {
                    boolean past = bar.end() > extent.high() || bar.start() > extent.high();
                    boolean before = bar.end() < extent.low() || bar.start() < extent.low();
                    double along = middle(bar.row()) + aside(group, bar.series()) * barWidth();
                    if (past) {
                        slash(along, onAxis(extent.high()) - forwards * text * 0.7);
                    }
                    if (before) {
                        slash(along, onAxis(extent.low()) + forwards * text * 0.7);
                    }
                }
            }
        }

        private void slash(double along, double across) {
            double half = barWidth() / 2 + 1;
            g.setColor(Ink.awt(Role.PAPER));
            g.setStroke(new BasicStroke((float) (text / 7)));
            for (int stroke = -1; stroke <= 1; stroke += 2) {
                double middle = across + stroke * text * 0.16;
                Point2D from = at(along - half, middle + text * 0.2);
                Point2D to = at(along + half, middle - text * 0.2);
                g.draw(new Line2D.Double(from, to));
            }
        }

        private Point2D at(double along, double across) {
            return upright ? new Point2D.Double(along, across) : new Point2D.Double(across, along);
        }

        private void points(Points points) {
            Column places = plain.data().column(points.series().column());
            for (int row = 0; row < places.size(); row++) {
                if (places.isPresent(row) && !isSeen(places.number(row))) {
                    beyond(points, row, places.number(row));
                } else if (places.isPresent(row)) {
                    Point2D middle = at(middle(row), onAxis(places.number(row)));
                    g.setColor(Ink.awt(points.series().fill().orElse(Role.INK.color())));
                    if (points.shape() == Points.Shape.DOT) {
                        double radius = points.size() * Math.min(text * DOT, Math.max(2.5, barWidth() / 2));
                        Ellipse2D dot = new Ellipse2D.Double(middle.getX() - radius, middle.getY() - radius, 2 * radius, 2 * radius);
                        g.fill(dot);
                        edge(dot);
                        taken.add(dot.getBounds2D());
                    } else {
                        double half = barWidth() * 0.72 * points.size();
                        double thick = text / 4.5 * points.size();
                        double wide = upright ? 2 * half : thick;
                        double high = upright ? thick : 2 * half;
                        Rectangle2D dash = new Rectangle2D.Double(middle.getX() - wide / 2, middle.getY() - high / 2, wide, high);
                        g.fill(dash);
                        edge(dash);
                    }
                }
            }
        }

        /** An arrow at the end of the scale, towards a point that lies beyond. */
        private void beyond(Points points, int row, double place) {
            double way = upwards() * (place > extent.high() ? 1 : -1);
            double tip = onAxis(place);
            double half = text * DOT;
            Path2D arrow = new Path2D.Double();
            Point2D[] corners = {at(middle(row) - half, tip - way * 2 * half), at(middle(row) + half, tip - way * 2 * half), at(middle(row), tip)};
            arrow.moveTo(corners[0].getX(), corners[0].getY());
            arrow.lineTo(corners[1].getX(), corners[1].getY());
            arrow.lineTo(corners[2].getX(), corners[2].getY());
            arrow.closePath();
            g.setColor(Ink.awt(points.series().fill().orElse(Role.INK.color())));
            g.fill(arrow);
            edge(arrow);
            taken.add(arrow.getBounds2D());
        }

        private void edge(Shape shape) {
            g.setColor(Ink.awt(Role.PAPER));
            g.setStroke(new BasicStroke((float) (text / 12)));
            g.draw(shape);
        }

        /** The name of a line at its end, on the side where there is room. */
        private void name(ReferenceLine line) {
            if (!isSeen(plain.level(line))) {
                return;
            }
            g.setFont(strong());
            double wide = Fonts.width(words(line), strong());
            double high = text * 0.9 * CAPITALS;
            double gap = text * 0.4;
            double level = onAxis(plain.level(line));
            for (int side = 1; side >= -1; side -= 2) {
                double x = upright ? area.getMaxX() - wide / 2 : level + side * (gap + wide / 2);
                double y = upright ? level - side * (gap + high / 2) : area.getY() + high / 2 + gap;
                Rectangle2D place = new Rectangle2D.Double(x - wide / 2, y - high / 2, wide, high);
                if (isFree(place) && !isCrossed(place)) {
                    taken.add(place);
                    g.setColor(line.color().map(color -> Ink.readable(color)).orElse(Ink.awt(Role.INK)));
                    g.drawString(words(line), (float) (x - wide / 2), (float) (y + high / 2));
                    return;
                }
            }
            omitted.line(plain.name(), words(line));
        }

        /** Whether one of the lines, or the base line, runs through a place. */
        private boolean isCrossed(Rectangle2D place) {
            return DoubleStream.concat(DoubleStream.of(0), panel.references().stream().mapToDouble(plain::level)).filter(level -> !Double.isNaN(level) && isSeen(level)).map(this::onAxis)
                    .anyMatch(at -> upright ? place.getMinY() - 1 < at && at < place.getMaxY() + 1 : place.getMinX() - 1 < at && at < place.getMaxX() + 1);
        }

        private boolean isFree(Rectangle2D place) {
            return area.getX() - 1 <= place.getX() && place.getMaxX() <= area.getMaxX() + 1 && area.getY() - 1 <= place.getY()
                    && place.getMaxY() <= area.getMaxY() + 1 && taken.stream().noneMatch(other -> other.intersects(place));
        }

        private void figure(Figure figure) {
            double wide = Fonts.width(figure.text(), figures(size));
            double high = size * CAPITALS;
            for (Spot spot : spots(figure, wide, high)) {
                double x = spot.middle().getX();
                double y = spot.middle().getY();
                Rectangle2D place = turned ? new Rectangle2D.Double(x - high / 2, y - wide / 2, high, wide)
                        : new Rectangle2D.Double(x - wide / 2, y - high / 2, wide, high);
                if (isFree(place)) {
                    taken.add(place);
                    write(figure.text(), spot, wide);
                    omitted.drawnLabel(plain.name());
                    return;
                }
            }
            omitted.label(plain.name(), figure.text());
        }

        private void write(String words, Spot spot, double wide) {
            double x = spot.middle().getX();
            double y = spot.middle().getY();
            AffineTransform before = g.getTransform();
            if (turned) {
                g.rotate(-Math.PI / 2, x, y);
            }
            if (spot.ground().isPresent()) { // so that a line does not strike the figure through
                g.setColor(spot.ground().get());
                g.fill(new Rectangle2D.Double(x - wide / 2 - 1, y - size * 0.42, wide + 2, size * 0.84));
            }
            g.setColor(spot.color());
            g.drawString(words, (float) (x - wide / 2), (float) (y + size * 0.33));
            g.setTransform(before);
        }

        /** The places for a figure, the best first. */
        private List<Spot> spots(Figure figure, double wide, double high) {
            double gap = size * GAP_SHARE;
            double extent = upright && !turned ? high : wide;
            double across = upright && !turned ? wide : high;
            double start = onAxis(figure.start());
            double end = onAxis(figure.end());
            if (!isSeen(figure.end()) && Math.abs(end - start) > 2 * text) { // below the strokes that say that it goes on
                end -= Math.signum(end - start) * text * 1.3;
            }
            if (!isSeen(figure.start()) && Math.abs(end - start) > 3 * text) {
                start += Math.signum(end - start) * text * 1.1;
            }
            double along = middle(figure.row()) + figure.aside() * barWidth();
            double forwards = (figure.end() < figure.start() ? -1 : 1) * upwards();
            Color ink = Ink.awt(Role.INK);
            Optional<Color> paper = Optional.of(Ink.awt(Role.PAPER));
            if (figure.point().isPresent() && figure.at() != At.END) {
                double thick = figure.point().get() == Points.Shape.DOT ? text * DOT : text / 9;
                double base = onAxis(0);
                Spot after = new Spot(at(along, end + forwards * (thick + gap + extent / 2)), ink, paper);
                Spot before = new Spot(at(along, end - forwards * (thick + gap + extent / 2)), ink, paper);
                Spot atBase = new Spot(at(along, base + forwards * (gap + extent / 2)), ink, paper);
                return figure.at() == At.BASE ? List.of(atBase, after, before) : List.of(after, before);
            }
            if (figure.point().isPresent()) {
                double beside = !isSeen(figure.end()) ? 2 * text * DOT : figure.point().get() == Points.Shape.DOT ? text * DOT : 0;
                double from = figure.point().get() == Points.Shape.DOT ? end : farEnd(figure.row(), end, forwards);
                return List.of(new Spot(at(along, from + forwards * (beside + gap + extent / 2)), ink, paper),
                        new Spot(at(along, end - forwards * (beside + gap + extent / 2)), ink, paper));
            }
            Spot past = new Spot(at(along, end + forwards * (gap + extent / 2)), figure.past().orElse(ink), figure.past().isEmpty() ? paper : figure.pastFill());
            Spot inside = new Spot(at(along, end - forwards * (gap + extent / 2)), figure.onFill(), figure.fill());
            Spot base = new Spot(at(along, start + forwards * (gap + extent / 2)), figure.onFill(), figure.fill());
            boolean fits = Math.abs(end - start) >= extent + 2 * gap && barWidth() >= across;
            if (!fits) {
                return List.of(past);
            }
            return switch (isSeen(figure.end()) ? figure.at() : figure.at() == At.END ? At.INSIDE : figure.at()) {
                case END -> List.of(past, inside);
                case INSIDE -> List.of(inside, past);
                case BASE, CENTRE -> List.of(base, inside, past);
            };
        }

        /** Where the bars of a row end, on the side of a point. */
        private double farEnd(int row, double point, double forwards) {
            double far = point;
            for (BarGroup group : panel.bars()) {
                for (PlainChart.Bar bar : plain.bars(group)) {
                    double end = onAxis(bar.end());
                    far = bar.row() == row && (end - far) * forwards > 0 ? end : far;
                }
            }
            return far;
        }
    }
}
