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
import org.jfree.svg.SVGGraphics2D;

/** Bars made of characters: the name, the texts, then the figure, a line a category, all of one size. */
final class TextPlot extends Plot {
    private static final long serialVersionUID = 1L;
    /** Stands in for a sign that the typeface lacks, so that a picture does not depend on the machine. */
    private static final String STAND_IN = "●";
    private static final double LINE = 1.6;
    private static final double WIDEST_NAMES = 30;
    private static final double MOST_FOR_NAMES = 0.35;
    private static final double GAP = 0.8;
    /** Of an emoji, as a share of its height. */
    private static final double WIDEST_SIGN = 1.4;

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

    private Widths widths(boolean keeps) {
        return new Widths(Math.min(WIDEST_NAMES, widest(IntStream.range(0, rows()).mapToObj(plain::categoryText).toList(), Scripts.able(Fonts.regular(100), IntStream.range(0, rows()).mapToObj(plain::categoryText).toList())) / 100),
                columns(keeps).stream().map(column -> column.stream().mapToDouble(bar -> width(bar, 100) / 100).max().orElse(0)).toList(),
                widest(IntStream.range(0, rows()).mapToObj(this::label).toList(), Fonts.regular(100)) / 100);
    }

    private int rows() {
        return plain.data().rowCount();
    }

    private List<List<String>> columns(boolean keeps) {
        return cells.columns().stream().map(column -> IntStream.range(0, rows()).mapToObj(row -> text(column, row, keeps)).toList()).toList();
    }

    private String text(TextColumn texts, int row, boolean keeps) {
        return texts.series().stream().map(series -> plain.data().column(series.column())).filter(column -> column.isPresent(row))
                .map(column -> keeps ? column.written(row) : shown(column.written(row))).collect(Collectors.joining());
    }

    private static String shown(String text) {
        StringBuilder all = new StringBuilder();
        text.codePoints().forEach(sign -> all.append(Fonts.glyphs(1).canDisplay(sign) ? Character.toString(sign) : sign == 0xFE0F ? "" : STAND_IN));
        return all.toString();
    }

    /** Signs that the typeface lacks are as wide as a viewer's fonts may make them. */
    private static double width(String bar, double size) {
        Font font = Fonts.glyphs(size);
        long others = bar.codePoints().filter(sign -> !font.canDisplay(sign) && sign != 0xFE0F).count();
        return Fonts.width(others == 0 ? bar : bar.codePoints().filter(font::canDisplay).collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append).toString(), font)
                + others * WIDEST_SIGN * font.getSize2D();
    }

    private String label(int row) {
        return cells.series().stream().map(series -> plain.labelTexts(series, row)).filter(t -> !t.isEmpty()).findFirst().orElse("");
    }

    private static double widest(List<String> texts, Font font) {
        return texts.stream().mapToDouble(t -> Fonts.width(t, font)).max().orElse(0);
    }

    @Override
    public void draw(Graphics2D g, Rectangle2D area, Point2D anchor, PlotState parent, PlotRenderingInfo info) {
        boolean keeps = g instanceof SVGGraphics2D; // whose viewer has fonts of its own
        Widths widths = widths(keeps);
        double line = area.getHeight() / Math.max(1, rows());
        double fitting = Math.min(text * 1.8, Math.min(area.getWidth() / Math.max(1, widths.all()), line / LINE));
        double words = Math.max(Ink.SMALLEST_TEXT, fitting); // bars may be smaller than what can be read, and names and figures not
        double names = Math.min(widths.names() * words, area.getWidth() * MOST_FOR_NAMES);
        double beside = names + widths.labels() * words + GAP * words * (cells.columns().size() + 1);
        double glyphs = Math.max(1, widths.bars().stream().mapToDouble(Double::doubleValue).sum());
        double size = Math.min(fitting, Math.max(1, (area.getWidth() - beside) / glyphs));
        int every = (int) Math.max(1, Math.ceil(words * 1.1 / Math.max(line, size * LINE)));
        Font named = Scripts.able(Fonts.regular(words), IntStream.range(0, rows()).mapToObj(plain::categoryText).toList());
        Font figures = Scripts.able(Fonts.regular(words), IntStream.range(0, rows()).mapToObj(this::label).toList());
        List<List<String>> columns = columns(keeps);
        for (int row = 0; row < rows(); row++) {
            double step = Math.min(line, Math.max(size, words) * LINE);
            float y = (float) (area.getY() + (row + 1) * Math.min(step, line) - size * 0.4);
            boolean said = row % every == 0;
            double x = area.getX();
            write(g, said ? Fonts.cut(plain.categoryText(row), named, names + 1) : "", named, x, y, Ink.awt(Role.INK));
            x += names + GAP * words;
            for (int i = 0; i < columns.size(); i++) {
                String bar = columns.get(i).get(row);
                double room = widths.bars().get(i) * size;
                boolean right = cells.columns().get(i).flushEnd();
                double inset = right ? room - width(bar, size) : 0;
                write(g, bar, Fonts.glyphs(size), x + inset, y, color(row));
                x += room + (right ? 0 : GAP * words);
            }
            write(g, said ? label(row) : "", figures, x, y, Ink.awt(Role.INK));
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
