package dev.trellisgorge.engine.image;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.TextCells.TextColumn;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.plot.PlotState;

/** Bars made of characters: the name, the texts, then the figure, a line a category, all of one size. */
final class TextPlot extends Plot {
    private static final long serialVersionUID = 1L;
    /** Stands in for a sign that the typeface lacks, so that a picture does not depend on the machine. */
    private static final String STAND_IN = "●";
    private static final double LINE = 1.6;
    private static final double WIDEST_NAMES = 30;

    private final transient PlainChart plain;
    private final transient TextCells cells;
    private final double text;

    TextPlot(PlainChart plain, TextCells cells, double text) {
        this.plain = plain;
        this.cells = cells;
        this.text = text;
        setOutlineVisible(false);
    }

    @Override
    public String getPlotType() {
        return "texts";
    }

    /** The widths of the columns at a text size of 1. */
    private record Widths(double names, List<Double> bars, double labels) {
        double all() {
            return names + bars.stream().mapToDouble(Double::doubleValue).sum() + labels + 0.8 * (bars.size() + 1);
        }
    }

    private Widths widths() {
        return new Widths(Math.min(WIDEST_NAMES, widest(IntStream.range(0, rows()).mapToObj(plain::categoryText).toList(), Fonts.regular(100)) / 100),
                columns().stream().map(column -> widest(column, Fonts.glyphs(100)) / 100).toList(),
                widest(IntStream.range(0, rows()).mapToObj(this::label).toList(), Fonts.regular(100)) / 100);
    }

    private int rows() {
        return plain.data().rowCount();
    }

    private List<List<String>> columns() {
        return cells.columns().stream().map(column -> IntStream.range(0, rows()).mapToObj(row -> text(column, row)).toList()).toList();
    }

    private String text(TextColumn texts, int row) {
        return texts.series().stream().map(series -> plain.data().column(series.column())).filter(column -> column.isPresent(row))
                .map(column -> shown(column.written(row))).collect(Collectors.joining());
    }

    private static String shown(String text) {
        StringBuilder all = new StringBuilder();
        text.codePoints().forEach(sign -> all.append(Fonts.glyphs(1).canDisplay(sign) ? Character.toString(sign) : sign == 0xFE0F ? "" : STAND_IN));
        return all.toString();
    }

    private String label(int row) {
        return cells.series().stream().map(series -> plain.labelTexts(series, row)).filter(t -> !t.isEmpty()).findFirst().orElse("");
    }

    private static double widest(List<String> texts, Font font) {
        return texts.stream().mapToDouble(t -> Fonts.width(t, font)).max().orElse(0);
    }

    @Override
    public void draw(Graphics2D g, Rectangle2D area, Point2D anchor, PlotState parent, PlotRenderingInfo info) {
        Widths widths = widths();
        double size = Math.min(text * 1.8, Math.min(area.getWidth() / Math.max(1, widths.all()), area.getHeight() / Math.max(1, rows()) / LINE));
        List<List<String>> columns = columns();
        for (int row = 0; row < rows(); row++) {
            float y = (float) (area.getY() + (row + 1) * size * LINE - size * 0.4);
            double x = area.getX();
            write(g, Fonts.cut(plain.categoryText(row), Fonts.regular(size), widths.names() * size + 1), Fonts.regular(size), x, y, Ink.awt(Role.INK));
            x += (widths.names() + 0.8) * size;
            for (int i = 0; i < columns.size(); i++) {
                String bar = columns.get(i).get(row);
                double room = widths.bars().get(i) * size;
                boolean right = cells.columns().get(i).flushEnd();
                double inset = right ? room - Fonts.width(bar, Fonts.glyphs(size)) : 0;
                write(g, bar, Fonts.glyphs(size), x + inset, y, color(row));
                x += room + (right ? 0 : 0.8 * size);
            }
            write(g, label(row), Fonts.regular(size), x, y, Ink.awt(Role.INK));
        }
    }

    private java.awt.Color color(int row) {
        return cells.series().stream().filter(series -> plain.data().column(series.column()).isPresent(row)).findFirst()
                .flatMap(Series::fill).map(Ink::awt).orElse(Ink.awt(Role.INK));
    }

    private static void write(Graphics2D g, String words, Font font, double x, float y, java.awt.Color color) {
        g.setFont(font);
        g.setColor(color);
        g.drawString(words, (float) x, y);
    }
}
