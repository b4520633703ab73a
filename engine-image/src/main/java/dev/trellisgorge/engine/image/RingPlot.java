package dev.trellisgorge.engine.image;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import java.awt.BasicStroke;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Arc2D;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.plot.PlotState;

/** A ring as large as the sheet allows for what is seen of it: a half that is hidden takes up no room. */
final class RingPlot extends Plot {
    private static final long serialVersionUID = 1L;
    private static final double QUARTER = 90;

    private final transient PlainChart plain;
    private final transient Ring ring;
    private final double text;

    RingPlot(PlainChart plain, Ring ring, double text) {
        this.plain = plain;
        this.ring = ring;
        this.text = text;
        setOutlineVisible(false);
    }

    @Override
    public String getPlotType() {
        return "ring";
    }

    private List<Ring.Slice> seen(List<Series> track) {
        return plain.slices(ring, track).stream().filter(slice -> slice.series().isSeen()).toList();
    }

    /** What is seen of a ring of radius 1 around the origin. */
    private Rectangle2D bounds() {
        Rectangle2D bounds = new Rectangle2D.Double(-1, -1, 2, 2);
        List<Ring.Slice> all = ring.tracks().stream().flatMap(track -> seen(track).stream()).toList();
        if (!all.isEmpty()) {
            Shape first = slice(all.get(0), 1, ring.hole());
            bounds = first.getBounds2D();
            for (Ring.Slice slice : all) {
                Rectangle2D.union(bounds, slice(slice, 1, ring.hole()).getBounds2D(), bounds);
            }
        }
        bounds.add(0, 0);
        return bounds;
    }

    @Override
    public void draw(Graphics2D g, Rectangle2D area, Point2D anchor, PlotState parent, PlotRenderingInfo info) {
        Rectangle2D bounds = bounds();
        double below = ring.start() == 0 ? 0 : text * 1.2;
        double beside = labels().stream().mapToDouble(label -> Fonts.width(label.words(), labelled()) + text).max().orElse(0);
        double above = beside == 0 ? 0 : text + labelled().getSize2D();
        double radius = Math.max(0, Math.min((area.getWidth() - 2 * beside) / bounds.getWidth(), (area.getHeight() - below - 2 * above) / bounds.getHeight()) * 0.96);
        double x = area.getCenterX() - bounds.getCenterX() * radius;
        double y = area.getCenterY() - below / 2 - bounds.getCenterY() * radius;
        double thick = (1 - ring.hole()) / ring.tracks().size();
        for (int i = 0; i < ring.tracks().size(); i++) {
            double outer = 1 - thick * i;
            for (Ring.Slice slice : seen(ring.tracks().get(i))) {
                Path2D path = slice(slice, outer * radius, (outer - thick) * radius);
                path.transform(AffineTransform.getTranslateInstance(x, y));
                slice.series().fill().ifPresent(fill -> {
                    g.setColor(Ink.awt(fill));
                    g.fill(path);
                });
                g.setColor(Ink.awt(Role.PAPER));
                g.setStroke(new BasicStroke((float) (text / 12)));
                g.draw(path);
            }
        }
        labels().forEach(label -> write(g, label, x, y, radius, thick));
        centre(g, x, y, radius, bounds);
    }

    /**
     * What is written at a slice.
     *
     * @param track 0 for the outermost ring
     */
    private record SliceLabel(Ring.Slice slice, int track, String words, boolean inside) {
    }

    private List<SliceLabel> labels() {
        List<SliceLabel> labels = new ArrayList<>();
        for (int track = 0; track < ring.tracks().size(); track++) {
            for (Ring.Slice slice : seen(ring.tracks().get(track))) {
                for (Label label : slice.series().labels()) {
                    String words = plain.labelText(slice.series().column(), label, 0);
                    if (!words.isEmpty()) {
                        labels.add(new SliceLabel(slice, track, words, label.at() == Label.At.INSIDE));
                    }
                }
            }
        }
        return labels;
    }

    private Font labelled() {
        return Fonts.of(plain.looks(), Purpose.LABELS, text, false);
    }

    /** Within the slice where it fits there and is to stand there; else beside the ring, where nothing lies behind it. */
    private void write(Graphics2D g, SliceLabel label, double x, double y, double radius, double thick) {
        Font font = Scripts.able(labelled(), label.words());
        double high = font.getSize2D();
        double wide = Fonts.width(label.words(), font);
        double turn = Math.toRadians(label.slice().start() + label.slice().sweep() / 2);
        double middle = (1 - thick * (label.track() + 0.5)) * radius;
        double arc = middle * Math.toRadians(label.slice().sweep());
        boolean within = label.inside() && wide <= Math.min(thick * radius, arc) * 0.95 && high <= Math.min(thick * radius, arc);
        double from = within ? middle : radius + text * 0.6;
        double side = Math.sin(turn);
        double shift = within || Math.abs(side) < 0.25 ? -wide / 2 : side > 0 ? 0 : -wide;
        double drop = within ? 0.34 : 0.34 - 0.4 * Math.cos(turn);
        g.setFont(font);
        g.setColor(within ? Ink.on(label.slice().series()) : Ink.awt(Role.INK));
        g.drawString(label.words(), (float) (x + side * from + shift), (float) (y - Math.cos(turn) * from + high * drop));
    }

    private void centre(Graphics2D g, double x, double y, double radius, Rectangle2D bounds) {
        String words = plain.data().rowCount() == 0 ? "" : ring.centre().map(series -> plain.labelText(series, 0)).orElse("");
        if (words.isEmpty()) {
            return;
        }
        boolean half = bounds.getMaxY() < 0.5;
        double room = radius * ring.hole() * (half ? 1.2 : 1.3);
        Font font = Scripts.able(Fonts.of(plain.looks(), Purpose.LABELS, radius * ring.hole() * 0.5, true), words);
        double wide = Fonts.width(words, font);
        font = wide > room ? Fonts.sized(font, font.getSize2D() * room / wide) : font;
        g.setFont(font);
        g.setColor(Ink.awt(Role.INK));
        double base = half ? y - font.getSize2D() * 0.12 : y + font.getSize2D() * 0.34;
        g.drawString(words, (float) (x - Fonts.width(words, font) / 2), (float) base);
    }

    /** A slice around the origin; degrees run clockwise from the top. */
    private static Path2D slice(Ring.Slice slice, double outer, double inner) {
        // Arc2D counts from the right, anticlockwise.
        double from = QUARTER - slice.start();
        List<Arc2D> rims = new ArrayList<>();
        rims.add(new Arc2D.Double(-outer, -outer, 2 * outer, 2 * outer, from, -slice.sweep(), Arc2D.OPEN));
        rims.add(new Arc2D.Double(-inner, -inner, 2 * inner, 2 * inner, from - slice.sweep(), slice.sweep(), Arc2D.OPEN));
        Path2D path = new Path2D.Double();
        path.append(rims.get(0), false);
        path.append(rims.get(1), slice.sweep() < 360);
        path.closePath();
        return path;
    }
}
