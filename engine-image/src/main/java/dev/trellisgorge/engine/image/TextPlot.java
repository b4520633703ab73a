package dev.trellisgorge.engine.image;

import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.plan.PlainChart;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.geom.Line2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jfree.chart.plot.Plot;
import org.jfree.chart.plot.PlotRenderingInfo;
import org.jfree.chart.plot.PlotState;
import org.jfree.svg.SVGGraphics2D;

/** Bars made of characters: the name, the texts, then the figure, a line a category, all of one size. */
final class TextPlot extends Plot {
    private static final long serialVersionUID = 1L;
    /** Stands in for a character that the typeface lacks, so that a picture does not depend on the machine. */
    private static final String STAND_IN = "●";
    private static final double LINE = 1.6;
    private static final double WIDEST_NAMES = 30;
    private static final double MOST_FOR_NAMES = 0.35;
    private static final double MOST_FOR_BESIDE = 0.4;
    private static final double WIDEST_HEADING = 9;
    private static final double HEADING = 0.85;
    private static final double GAP = 0.8;
    /** Of an emoji, as a share of its height. */
    private static final double WIDEST_SIGN = 1.4;

    private final transient PlainChart plain;
    private final transient TextCells cells;
    private final double text;
    private final transient Omitted omitted;

    TextPlot(PlainChart plain, TextCells cells, double text, Omitted omitted) {
        this.plain = plain;
        this.cells = cells;
        this.text = text;
        this.omitted = omitted;
        setOutlineVisible(false);
    }

    @Override
    public String getPlotType() {
        return "texts";
    }

    private IntStream rows() {
        return IntStream.range(0, plain.data().rowCount());
    }

    private int count() {
        return Math.max(1, plain.data().rowCount());
    }

    private Font names() {
        return able(Purpose.AXIS, rows().mapToObj(plain::categoryText));
    }

    private Font figures() {
        return able(Purpose.LABELS, rows().mapToObj(this::label));
    }

    private Font beside() {
        return able(Purpose.AXIS, plain.beside().stream().flatMap(column -> rows().mapToObj(row -> plain.besideText(column, row))));
    }

    private Font headings() {
        return Scripts.able(Fonts.strong(1), plain.beside().stream().map(FigureColumn::name).toList());
    }

    /** Of a purpose and size 1, with all characters of some words. */
    private Font able(Purpose purpose, Stream<String> words) {
        boolean strong = plain.looks().bold().getOrDefault(purpose, false);
        return Scripts.able(strong ? Fonts.strong(1) : Fonts.regular(1), words.toList());
    }

    /** The size that was asked for a purpose, where one was; else what fits. */
    private double size(Purpose purpose, double fitting) {
        return plain.looks().sizes().getOrDefault(purpose, fitting);
    }

    private List<List<List<PlainChart.Piece>>> columns(boolean keeps) {
        return cells.columns().stream().map(column -> rows().mapToObj(row -> plain.pieces(column, row).stream()
                .map(piece -> keeps ? piece : new PlainChart.Piece(shown(piece.text()), piece.fill())).toList()).toList()).toList();
    }

    private static String shown(String text) {
        StringBuilder all = new StringBuilder();
        text.codePoints().forEach(character -> all.append(Fonts.glyphs(1).canDisplay(character) ? Character.toString(character) : character == 0xFE0F ? "" : STAND_IN));
        return all.toString();
    }

    /** Signs that the typeface lacks are as wide as a viewer's fonts may make them. */
    private static double width(String bar, double size) {
        Font font = Fonts.glyphs(size);
        long others = bar.codePoints().filter(character -> !font.canDisplay(character) && character != 0xFE0F).count();
        return Fonts.width(others == 0 ? bar : bar.codePoints().filter(font::canDisplay).collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append).toString(), font)
                + others * WIDEST_SIGN * font.getSize2D();
    }

    private static double width(List<PlainChart.Piece> bar, double size) {
        return bar.stream().mapToDouble(piece -> width(piece.text(), size)).sum();
    }

    private String label(int row) {
        return cells.series().stream().map(series -> plain.labelTexts(series, row)).filter(t -> !t.isEmpty()).findFirst().orElse("");
    }

    private static double widest(Stream<String> texts, Font font, double size) {
        Font sized = Fonts.sized(font, 100);
        return texts.mapToDouble(t -> Fonts.width(t, sized)).max().orElse(0) * size / 100;
    }

    /** How wide a column beside the names is, the gap before it included. */
    private double width(FigureColumn column, double size) {
        double heading = Math.min(WIDEST_HEADING * size, widest(Stream.of(column.name()), headings(), size * HEADING));
        return Math.max(widest(rows().mapToObj(row -> plain.besideText(column, row)), beside(), size), heading) + GAP * size;
    }

    @Override
    public void draw(Graphics2D g, Rectangle2D area, Point2D anchor, PlotState parent, PlotRenderingInfo info) {
        boolean keeps = g instanceof SVGGraphics2D; // whose viewer has fonts of its own
        boolean table = !plain.beside().isEmpty();
        List<List<List<PlainChart.Piece>>> columns = columns(keeps);
        double head = table ? Math.max(Ink.SMALLEST_TEXT, text) * LINE : 0;
        double line = (area.getHeight() - head) / count();
        double namesAtOne = Math.min(WIDEST_NAMES, widest(rows().mapToObj(plain::categoryText), names(), 1));
        double barsAtOne = columns.stream().mapToDouble(column -> column.stream().mapToDouble(bar -> width(bar, 100) / 100).max().orElse(0)).sum();
        double labelsAtOne = widest(rows().mapToObj(this::label), figures(), 1);
        double besideAtOne = plain.beside().stream().mapToDouble(column -> width(column, 1)).sum();
        double all = namesAtOne + besideAtOne + barsAtOne + labelsAtOne + GAP * (columns.size() + 1);
        double fitting = Math.min(text * 1.8, Math.min(area.getWidth() / Math.max(1, all), line / LINE));
        double words = Math.max(Ink.SMALLEST_TEXT, fitting); // bars may be smaller than what can be read, and names and figures not
        double named = size(Purpose.AXIS, words);
        double labelled = size(Purpose.LABELS, words);
        double names = Math.min(namesAtOne * named, area.getWidth() * MOST_FOR_NAMES);
        List<FigureColumn> beside = fitting(named, area.getWidth() * MOST_FOR_BESIDE);
        double left = names + beside.stream().mapToDouble(column -> width(column, named)).sum();
        double others = left + labelsAtOne * labelled + GAP * words * (columns.size() + 1);
        double size = Math.min(fitting, Math.max(1, (area.getWidth() - others) / Math.max(1, barsAtOne)));
        double largest = Math.max(named, labelled);
        int every = (int) Math.max(1, Math.ceil(largest * 1.1 / Math.max(line, size * LINE)));
        if (every > 1) {
            omitted.names(plain.name(), every);
        }
        double step = Math.min(line, Math.max(size, largest) * LINE);
        double first = area.getY();
        if (table) {
            first += head;
            heading(g, beside, area.getX() + names, first - head * 0.3, named);
            rule(g, area, first, Role.INK);
        }
        Font namesFont = Fonts.sized(names(), named);
        Font besideFont = Fonts.sized(beside(), named);
        Font figuresFont = Fonts.sized(figures(), labelled);
        List<Double> besideWidths = beside.stream().map(column -> width(column, named)).toList();
        List<Double> rooms = columns.stream().map(column -> column.stream().mapToDouble(each -> width(each, size)).max().orElse(0)).toList();
        for (int row = 0; row < plain.data().rowCount(); row++) {
            float y = (float) (step < largest ? first + row * step + largest * 0.9 : first + (row + 1) * step - size * 0.4);
            boolean said = row % every == 0;
            double x = area.getX();
            write(g, said ? Fonts.cut(plain.categoryText(row), namesFont, names + 1) : "", namesFont, x, y, Ink.awt(Role.INK));
            x += names;
            for (int i = 0; i < beside.size(); i++) {
                x += besideWidths.get(i);
                String figure = said ? plain.besideText(beside.get(i), row) : "";
                write(g, figure, besideFont, x - Fonts.width(figure, besideFont), y, Ink.awt(Role.INK));
            }
            x += GAP * words;
            for (int i = 0; i < columns.size(); i++) {
                List<PlainChart.Piece> bar = columns.get(i).get(row);
                double room = rooms.get(i);
                boolean right = cells.columns().get(i).flushEnd();
                double at = x + (right ? room - width(bar, size) : 0);
                for (PlainChart.Piece piece : bar) {
                    write(g, piece.text(), Fonts.glyphs(size), at, y, piece.fill().map(Ink::awt).orElse(Ink.awt(Role.INK)));
                    at += width(piece.text(), size);
                }
                x += room + (right ? 0 : GAP * words);
            }
            write(g, said ? label(row) : "", figuresFont, x, y, Ink.awt(Role.INK));
            if (table && every == 1) {
                rule(g, area, y + step * 0.3, Role.MUTED);
            }
        }
    }

    /** As many columns beside the names as have room. */
    private List<FigureColumn> fitting(double size, double room) {
        List<FigureColumn> fitting = new ArrayList<>();
        double left = room;
        for (FigureColumn column : plain.beside()) {
            left -= width(column, size);
            if (left < 0) {
                break;
            }
            fitting.add(column);
        }
        if (fitting.size() < plain.beside().size()) {
            omitted.columns(plain.name(), plain.beside().subList(fitting.size(), plain.beside().size()).stream().map(FigureColumn::name).toList());
        }
        return fitting;
    }

    private void heading(Graphics2D g, List<FigureColumn> columns, double from, double y, double size) {
        double x = from;
        Font font = Fonts.sized(headings(), Math.max(Ink.SMALLEST_TEXT, Math.min(size * HEADING, text)));
        for (FigureColumn column : columns) {
            x += width(column, size);
            String heading = Fonts.cut(column.name(), font, width(column, size) - GAP * size * 0.5);
            write(g, heading, font, x - Fonts.width(heading, font), y, Ink.awt(Role.INK));
        }
    }

    private static void rule(Graphics2D g, Rectangle2D area, double y, Role role) {
        g.setStroke(new BasicStroke(role == Role.INK ? 1f : 0.6f));
        g.setColor(Ink.awt(role));
        g.draw(new Line2D.Double(area.getX(), y, area.getMaxX(), y));
    }

    private static void write(Graphics2D g, String words, Font font, double x, double y, Color color) {
        g.setFont(font);
        g.setColor(color);
        if (!words.isEmpty()) {
            g.drawString(words, (float) x, (float) y);
        }
    }
}
