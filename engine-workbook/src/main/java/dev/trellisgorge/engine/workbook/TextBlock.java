package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.TextCells.TextColumn;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Kind;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.ConditionalFormattingRule;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFColor;
import org.apache.poi.xssf.usermodel.XSSFFontFormatting;
import org.apache.poi.xssf.usermodel.XSSFSheet;

/** Bars made of characters, in cells: the category, the bars, and the figure beside them. */
final class TextBlock {
    private static final int TITLES = 3;
    /** Pixels. */
    private static final double GLYPH = 9;
    private static final byte OPAQUE = -1;

    private final PlainChart chart;
    private final TextCells texts;
    private final HelperSheet helpers;
    private final XSSFSheet sheet;
    private final Styles styles;

    TextBlock(PlainChart chart, TextCells texts, HelperSheet helpers, XSSFSheet sheet, Styles styles) {
        this.chart = chart;
        this.texts = texts;
        this.helpers = helpers;
        this.sheet = sheet;
        this.styles = styles;
    }

    /** How many rows of the sheet a chart takes. */
    static int rows(PlainChart chart) {
        return chart.data().rowCount() + TITLES + 1;
    }

    void fill(Area area) {
        write(area.row(), area.column(), chart.stamp().map(words -> words + ": ").orElse("") + chart.title(), styles.title());
        write(area.row() + 1, area.column(), chart.subtitle(), styles.note());
        int nameColumns = Math.max(1, area.columns() / 5);
        int figureColumns = Math.max(1, area.columns() / 10);
        int barColumns = Math.max(1, Math.min((area.columns() - nameColumns - figureColumns) / texts.columns().size(),
                (int) Math.ceil(longest() * GLYPH / Area.COLUMN)));
        for (int row = 0; row < chart.data().rowCount(); row++) {
            int line = area.row() + TITLES + row;
            Cell name = write(line, area.column(), chart.categoryText(row), styles.plain());
            name.setCellFormula(helpers.categoryCell(row));
            merge(line, area.column(), nameColumns);
            int at = area.column() + nameColumns;
            for (TextColumn column : texts.columns()) {
                bar(line, at, column, row);
                merge(line, at, barColumns);
                at += barColumns;
            }
            figure(line, at, row);
            merge(line, at, figureColumns);
        }
        int at = area.column() + nameColumns;
        for (TextColumn column : texts.columns()) {
            colors(column, area.row() + TITLES, at, barColumns);
            at += barColumns;
        }
    }

    private int longest() {
        return chart.series().stream().map(series -> chart.data().column(series.column()))
                .flatMap(cells -> IntStream.range(0, cells.size()).mapToObj(cells::written)).mapToInt(DisplayWidth::of).max().orElse(0);
    }

    /** Whichever series of the column is there. */
    private void bar(int line, int at, TextColumn column, int row) {
        String text = column.series().stream().filter(series -> present(series, row)).map(series -> chart.data().column(series.column()).written(row))
                .findFirst().orElse("");
        write(line, at, text, column.flushEnd() ? styles.barAtEnd() : styles.bar()).setCellFormula(firstOf(column.series().stream()
                .map(series -> helpers.cellOf(series, row)).toList()));
    }

    private void figure(int line, int at, int row) {
        List<Series> labelled = texts.columns().stream().flatMap(column -> column.series().stream()).filter(series -> series.label().isPresent()).toList();
        if (labelled.isEmpty()) {
            return;
        }
        Cell cell = write(line, at, "", styles.figure(labelled.get(0).label().orElseThrow().format()));
        cell.setCellFormula(firstPresent(labelled, row));
        Optional<Series> shown = labelled.stream().filter(series -> !chart.labelText(series, row).isEmpty()).findFirst();
        Column figures = shown.map(series -> chart.data().column(series.label().orElseThrow().column())).orElse(null);
        if (figures != null && figures.kind() == Kind.NUMBER
                && !NumberFormats.hasOptionalDecimals(shown.get().label().orElseThrow().format())) {
            cell.setCellValue(figures.number(row));
        } else {
            cell.setCellValue(shown.map(series -> chart.labelText(series, row)).orElse(""));
        }
    }

    private String firstPresent(List<Series> labelled, int row) {
        String formula = "\"\"";
        for (int i = labelled.size() - 1; i >= 0; i--) {
            String cell = helpers.labelCell(labelled.get(i), row);
            formula = "IF(" + cell + "=\"\"," + formula + "," + cell + ")";
        }
        return formula;
    }

    private static String firstOf(List<String> cells) {
        String formula = "\"\"";
        for (int i = cells.size() - 1; i >= 0; i--) {
            formula = "IFERROR(" + cells.get(i) + "," + formula + ")";
        }
        return formula;
    }

    private boolean present(Series series, int row) {
        return chart.data().column(series.column()).isPresent(row);
    }

    /** Each class keeps its colour when a figure changes sides. */
    private void colors(TextColumn column, int firstLine, int at, int columns) {
        if (chart.data().rowCount() == 0) {
            return;
        }
        CellRangeAddress cells = new CellRangeAddress(firstLine, firstLine + chart.data().rowCount() - 1, at, at + columns - 1);
        ConditionalFormattingRule[] rules = column.series().stream().filter(series -> series.fill().isPresent()).map(series -> {
            String relative = helpers.cellOf(series, 0).replaceAll("\\$([0-9]+)$", "$1");
            ConditionalFormattingRule rule = sheet.getSheetConditionalFormatting().createConditionalFormattingRule("NOT(ISERROR(" + relative + "))");
            byte[] color = ChartFrame.bytes(series.fill().get());
            XSSFFontFormatting font = (XSSFFontFormatting) rule.createFontFormatting();
            font.setFontColor(new XSSFColor(color));
            font.getFontColor().getCTColor().setRgb(new byte[] {OPAQUE, color[0], color[1], color[2]}); // as the schema has it
            return rule;
        }).toArray(ConditionalFormattingRule[]::new);
        for (int i = 0; i < rules.length; i += 3) {
            sheet.getSheetConditionalFormatting().addConditionalFormatting(new CellRangeAddress[] {cells},
                    Arrays.copyOfRange(rules, i, Math.min(rules.length, i + 3)));
        }
    }

    private void merge(int line, int column, int columns) {
        if (columns > 1) {
            sheet.addMergedRegion(new CellRangeAddress(line, line, column, column + columns - 1));
        }
    }

    private Cell write(int line, int column, String words, CellStyle style) {
        Row row = sheet.getRow(line) == null ? sheet.createRow(line) : sheet.getRow(line);
        Cell cell = row.createCell(column);
        cell.setCellStyle(style);
        cell.setCellValue(words);
        return cell;
    }
}
