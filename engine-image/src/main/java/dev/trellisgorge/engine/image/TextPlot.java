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
    private static final double MOST_FOR_NAMES = 0.35;
    private static final double GAP = 0.8;

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
            return names + bars.stream().mapToDouble(Double::doubleValue).sum() + labels + GAP * (bars.size() + 1);
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
        double line = area.getHeight() / Math.max(1, rows());
        double fitting = Math.min(text * 1.8, Math.min(area.getWidth() / Math.max(1, widths.all()), line / LINE));
        double words = Math.max(Ink.SMALLEST_TEXT, fitting); // bars may be smaller than what can be read, and names and figures not
        double names = Math.min(widths.names() * words, area.getWidth() * MOST_FOR_NAMES);
        double beside = names + widths.labels() * words + GAP * words * (columns().size() + 1);
        double glyphs = Math.max(1, widths.bars().stream().mapToDouble(Double::doubleValue).sum());
        double size = Math.min(fitting, Math.max(1, (area.getWidth() - beside) / glyphs));
        int every = (int) Math.max(1, Math.ceil(words * 1.1 / Math.max(line, size * LINE)));
        List<List<String>> columns = columns();
        for (int row = 0; row < rows(); row++) {
            double step = Math.min(line, Math.max(size, words) * LINE);
            float y = (float) (area.getY() + (row + 1) * Math.min(step, line) - size * 0.4);
            boolean said = row % every == 0;
            double x = area.getX();
            write(g, said ? Fonts.cut(plain.categoryText(row), Fonts.regular(words), names + 1) : "", Fonts.regular(words), x, y, Ink.awt(Role.INK));
            x += names + GAP * words;
            for (int i = 0; i < columns.size(); i++) {
                String bar = columns.get(i).get(row);
                double room = widths.bars().get(i) * size;
                boolean right = cells.columns().get(i).flushEnd();
                double inset = right ? room - Fonts.width(bar, Fonts.glyphs(size)) : 0;
                write(g, bar, Fonts.glyphs(size), x + inset, y, color(row));
                x += room + (right ? 0 : GAP * words);
            }
            write(g, said ? label(row) : "", Fonts.regular(words), x, y, Ink.awt(Role.INK));
        }
    }

    private java.awt.Color color(int row) {
        return cells.series().stream().filter(series -> plain.data().column(series.column()).isPresent(row)).findFirst()
                .flatMap(Series::fill).map(Ink::awt).orElse(Ink.awt(Role.INK));
    }

    private static void write(Graphics2D g, String words, Font font, double x, float y, java.awt.Color color) {
        g.setFont(font);
        g.setColor(color);
        if (!words.isEmpty()) {
            g.drawString(words, (float) x, y);
        }
    }
}
