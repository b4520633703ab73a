package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.TextCells.TextColumn;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.TextLine;
import dev.trellisgorge.table.DisplayWidth;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.apache.poi.sl.usermodel.TableCell.BorderEdge;
import org.apache.poi.sl.usermodel.TextParagraph.TextAlign;
import org.apache.poi.sl.usermodel.VerticalAlignment;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xslf.usermodel.XSLFTable;
import org.apache.poi.xslf.usermodel.XSLFTableCell;
import org.apache.poi.xslf.usermodel.XSLFTextRun;
import org.openxmlformats.schemas.presentationml.x2006.main.CTGraphicalObjectFrame;

/** Names and figures as a table of a slide; beside it native bars, or in it bars made of characters. */
final class SlideTable {
    private static final int FEWEST_FOR_BARS = 3;
    private static final int HIGHEST_ROW = 3;
    private static final int HEADING = 2;
    /** In 1/100 point. */
    private static final int TITLE = 1200;
    private static final int SUBTITLE = 1000;
    private static final double POINTS = 11;
    private static final double GLYPH = 0.9;
    /** Pixels. */
    private static final double LABEL = Area.COLUMN * 1.5;
    private static final String FIXED = "Courier New";

    private final List<PlainChart> parts;
    private final PlainChart chart;
    private final HelperSheet helpers;
    private final XSLFSlide slide;
    private final SlideCanvas canvas;
    private final Consumer<String> warnings;
    private double barSize = POINTS;

    /** @param parts the panels, each as a chart */
    SlideTable(List<PlainChart> parts, HelperSheet helpers, XSLFSlide slide, SlideCanvas canvas, Consumer<String> warnings) {
        this.parts = parts;
        this.chart = parts.get(0);
        this.helpers = helpers;
        this.slide = slide;
        this.canvas = canvas;
        this.warnings = warnings;
    }

    /** A cell of the table: pieces of text, each in a colour. */
    private record Piece(String words, Color color) {
    }

    /** @return whether it found room; where not, nothing is drawn */
    boolean fill(Area whole) {
        int rows = chart.data().rowCount();
        boolean titled = !chart.title().isEmpty() || !chart.subtitle().isEmpty();
        Area area = titled ? new Area(whole.column(), whole.row() + 2, whole.columns(), whole.rows() - 2) : whole;
        int high = Math.min(HIGHEST_ROW, (area.rows() - HEADING - 2) / Math.max(1, rows));
        if (high < 1) {
            if (!(chart.drawing() instanceof TextCells)) {
                warnings.accept("'" + chart.name() + "': has more rows than a slide has lines, so the figures beside its bars are left out");
            }
            return false;
        }
        if (titled) {
            Rectangle2D line = canvas.place(new Area(whole.column(), whole.row(), whole.columns(), 1));
            canvas.words(line.getX(), line.getY(), line.getWidth(), line.getHeight(), chart.title(), TITLE, true, TextLine.At.LEFT, Role.INK.color());
            Rectangle2D second = canvas.place(new Area(whole.column(), whole.row() + 1, whole.columns(), 1));
            canvas.words(second.getX(), second.getY(), second.getWidth(), second.getHeight(), chart.subtitle(), SUBTITLE, false, TextLine.At.LEFT, Role.INK.color());
        }
        boolean texts = chart.drawing() instanceof TextCells;
        TableCells.Widths widths = TableCells.widths(chart, area.columns() - FEWEST_FOR_BARS, warnings);
        List<Double> columns = new ArrayList<>();
        columns.add((double) widths.names() * Area.COLUMN);
        widths.figures().values().forEach(wide -> columns.add((double) wide * Area.COLUMN));
        if (chart.drawing() instanceof TextCells bars) {
            double left = (area.columns() - widths.all()) * (double) Area.COLUMN - LABEL;
            int signs = bars.columns().stream().mapToInt(this::longest).sum();
            bars.columns().forEach(column -> columns.add(Math.min(left * longest(column) / signs, longest(column) * POINTS / SlideDeck.POINTS_PER_PIXEL * GLYPH)));
            columns.add(LABEL);
            barSize = Math.min(POINTS, left / signs / GLYPH * SlideDeck.POINTS_PER_PIXEL);
        } else {
            columns.add((double) (area.columns() - widths.all()) * Area.COLUMN);
        }
        XSLFTable table = slide.createTable(rows + 1, columns.size());
        Rectangle2D place = canvas.place(area);
        table.setAnchor(SlideCanvas.points(place.getX(), place.getY(), columns.stream().mapToDouble(Double::doubleValue).sum(), (HEADING + (double) rows * high) * Area.ROW));
        for (int at = 0; at < columns.size(); at++) {
            table.setColumnWidth(at, columns.get(at) * SlideDeck.POINTS_PER_PIXEL);
        }
        table.setRowHeight(0, HEADING * Area.ROW * SlideDeck.POINTS_PER_PIXEL);
        var named = ((CTGraphicalObjectFrame) table.getXmlObject()).getNvGraphicFramePr().getCNvPr();
        named.setName(chart.name());
        named.setDescr(chart.alternative());
        for (int at = 0; at < columns.size(); at++) {
            String heading = at >= 1 && at <= widths.figures().size() ? List.copyOf(widths.figures().keySet()).get(at - 1).name() : "";
            cell(table, 0, at, List.of(new Piece(heading, Role.INK.color())), true, TextAlign.RIGHT, false, Role.INK.color());
        }
        for (int row = 0; row < rows; row++) {
            table.setRowHeight(row + 1, high * Area.ROW * SlideDeck.POINTS_PER_PIXEL);
            row(table, row, widths);
        }
        if (!texts && rows > 0) {
            new TableBars(parts, helpers, warnings).drawOn(canvas, new Area(area.column() + widths.all(), area.row() + HEADING, area.columns() - widths.all(), rows * high));
        }
        return true;
    }

    /** How many characters the longest bar has, and one to spare. */
    private int longest(TextColumn column) {
        return 1 + column.series().stream().map(series -> chart.data().column(series.column())).flatMap(cells -> IntStream.range(0, cells.size()).mapToObj(cells::written)).mapToInt(DisplayWidth::of).max().orElse(0);
    }

    private void row(XSLFTable table, int row, TableCells.Widths widths) {
        int at = 0;
        cell(table, row + 1, at++, List.of(new Piece(chart.categoryText(row), Role.INK.color())), false, TextAlign.LEFT, false, Role.MUTED.color());
        for (FigureColumn column : widths.figures().keySet()) {
            cell(table, row + 1, at++, List.of(new Piece(chart.besideText(column, row), Role.INK.color())), false, TextAlign.RIGHT, false, Role.MUTED.color());
        }
        if (chart.drawing() instanceof TextCells texts) {
            String label = "";
            for (TextColumn column : texts.columns()) {
                Optional<Series> there = column.series().stream().filter(series -> chart.data().column(series.column()).isPresent(row)).findFirst();
                cell(table, row + 1, at++, there.map(series -> pieces(column, series, row)).orElse(List.of()), false, column.flushEnd() ? TextAlign.RIGHT : TextAlign.LEFT, true, Role.MUTED.color());
                label = column.series().stream().filter(series -> series.label().isPresent()).map(series -> chart.labelText(series, row)).filter(words -> !words.isEmpty()).findFirst().orElse(label);
            }
            cell(table, row + 1, at, List.of(new Piece(label, Role.INK.color())), false, TextAlign.LEFT, false, Role.MUTED.color());
        } else {
            cell(table, row + 1, at, List.of(), false, TextAlign.LEFT, false, Role.MUTED.color());
        }
    }

    /** A bar, and what is left after it in a colour of its own. */
    private List<Piece> pieces(TextColumn column, Series series, int row) {
        String words = chart.data().column(series.column()).written(row);
        Color color = series.fill().orElse(Role.BASE.color());
        String left = column.rest().filter(rest -> chart.data().column(rest.column()).isPresent(row)).map(rest -> chart.data().column(rest.column()).written(row)).filter(words::endsWith).orElse("");
        Color ofRest = column.rest().flatMap(Series::fill).orElse(color);
        return left.isEmpty() ? List.of(new Piece(words, color)) : List.of(new Piece(words.substring(0, words.length() - left.length()), color), new Piece(left, ofRest));
    }

    private void cell(XSLFTable table, int row, int column, List<Piece> pieces, boolean strong, TextAlign align, boolean fixed, Color rule) {
        XSLFTableCell cell = table.getCell(row, column);
        cell.setText(""); // makes the body that the schema wants
        var paragraph = cell.getTextParagraphs().get(0);
        paragraph.setTextAlign(align);
        for (Piece piece : pieces.isEmpty() ? List.of(new Piece("", Role.INK.color())) : pieces) {
            XSLFTextRun run = paragraph.addNewTextRun();
            run.setText(piece.words());
            run.setFontSize(fixed ? barSize : POINTS);
            run.setFontFamily(fixed ? FIXED : CellLook.FONT);
            run.setBold(strong);
            run.setFontColor(awt(piece.color()));
        }
        cell.setTopInset(0);
        cell.setBottomInset(0);
        cell.setLeftInset(2);
        cell.setRightInset(2);
        cell.setVerticalAlignment(row == 0 ? VerticalAlignment.BOTTOM : VerticalAlignment.MIDDLE);
        cell.setBorderWidth(BorderEdge.bottom, 0.75);
        cell.setBorderColor(BorderEdge.bottom, awt(rule));
    }

    private static java.awt.Color awt(Color color) {
        return new java.awt.Color(color.red(), color.green(), color.blue());
    }
}
