package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperColumn;
import dev.trellisgorge.formula.Inputs;
import dev.trellisgorge.formula.SheetFormula;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.Name;
import org.apache.poi.ss.usermodel.PrintOrientation;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFPrintSetup;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/**
 * The workbook: a sheet for each chart, one for the settings, one for each raw table, and one for each chart's helper
 * columns, in that order.
 */
final class LiveWorkbook {
    private static final String SETTINGS = "Settings";
    private static final short A4 = 9;

    private final List<PlainChart> charts;
    private final Size size;
    private final SheetNames names = new SheetNames();

    LiveWorkbook(List<PlainChart> charts, Size size) {
        this.charts = charts;
        this.size = size;
    }

    void writeTo(OutputStream out) throws IOException {
        try (XSSFWorkbook book = new XSSFWorkbook()) {
            Styles styles = new Styles(book);
            Map<PlainChart, XSSFSheet> chartSheets = new LinkedHashMap<>();
            charts.forEach(chart -> chartSheets.put(chart, book.createSheet(names.sheet(chart.name()))));
            settings(book, styles);
            Map<Table, XSSFSheet> raw = rawSheets(book, styles);
            for (PlainChart chart : charts) {
                XSSFSheet rows = raw.get(chart.data().inputs().whole());
                XSSFSheet helpers = book.createSheet(names.sheet(chart.name() + " series"));
                HelperSheet filled = new HelperSheet(chart, helpers, rows, names, styles);
                filled.fill();
                new ChartSheet(chart, chartSheets.get(chart), filled, names, styles).fill(size);
            }
            book.setActiveSheet(0);
            book.write(out);
        }
    }

    /** Why a chart can't be held live yet; empty where it can. */
    static Optional<String> refusal(PlainChart chart) {
        for (HelperColumn column : chart.data().columns()) {
            Optional<Formula> part = SheetFormula.unwritable(column.formula());
            if (part.isPresent()) {
                return Optional.of("a workbook can't hold the series '" + column.name() + "' as a live formula yet: " + part.get());
            }
        }
        boolean allSeries = chart.data().columns().stream().flatMap(column -> Inputs.helpersOf(column.formula()).stream())
                .allMatch(chart.data().columnNames()::contains);
        boolean made = IntStream.range(0, chart.data().rowCount()).anyMatch(row -> chart.data().inputs().wholeRow(row) < 0);
        if (made || !allSeries) {
            return Optional.of("a workbook can't hold " + (made ? "a row that was added to the table" : "a series that reads a working column") + " yet");
        }
        return chart.series().stream().filter(series -> !labelledByLength(chart, series)).findFirst()
                .map(series -> "a workbook can't label the series '" + series.column() + "' with other figures than its lengths yet");
    }

    /** Native labels show a bar's own length, so each must be the true figure. */
    private static boolean labelledByLength(PlainChart chart, Series series) {
        Column lengths = chart.data().column(series.column()).cells();
        return series.label().isEmpty() || IntStream.range(0, lengths.size()).filter(lengths::isPresent).allMatch(row -> {
            Column figures = chart.data().column(series.label().get().column()).cells();
            return figures.kind() == Kind.NUMBER && lengths.number(row) == figures.number(row);
        });
    }

    /** One line a setting: its name, and the cell that carries the name. */
    private void settings(XSSFWorkbook book, Styles styles) {
        Map<String, Double> settings = new LinkedHashMap<>();
        charts.forEach(chart -> settings.putAll(chart.data().settings().values()));
        if (settings.isEmpty()) {
            return;
        }
        XSSFSheet sheet = book.createSheet(names.sheet(SETTINGS));
        header(sheet, styles, List.of("Setting", "Value"));
        int at = 1;
        for (Map.Entry<String, Double> setting : settings.entrySet()) {
            Row row = sheet.createRow(at);
            row.createCell(0).setCellValue(setting.getKey());
            Cell value = row.createCell(1);
            value.setCellStyle(styles.changeable());
            if (!Double.isNaN(setting.getValue())) {
                value.setCellValue(setting.getValue());
            }
            Name name = book.createName();
            name.setNameName(names.defined(setting.getKey()));
            name.setRefersToFormula(new CellReference(sheet.getSheetName(), at, 1, true, true).formatAsString());
            at++;
        }
        sheet.createRow(at + 1).createCell(0).setCellValue("Change a value here: the helper columns and the charts follow.");
        sheet.setColumnWidth(0, 24 * 256);
        sheet.setColumnWidth(1, 14 * 256);
    }

    private Map<Table, XSSFSheet> rawSheets(XSSFWorkbook book, Styles styles) {
        Map<Table, XSSFSheet> raw = new LinkedHashMap<>();
        for (PlainChart chart : charts) {
            raw.computeIfAbsent(chart.data().inputs().whole(), table -> rawSheet(book, table, styles));
        }
        return raw;
    }

    private XSSFSheet rawSheet(XSSFWorkbook book, Table table, Styles styles) {
        XSSFSheet sheet = book.createSheet(names.sheet(table.name()));
        header(sheet, styles, table.columnNames());
        List<Column> columns = table.columns();
        for (int row = 0; row < table.rowCount(); row++) {
            Row line = sheet.createRow(row + 1);
            for (int i = 0; i < columns.size(); i++) {
                if (columns.get(i).isPresent(row)) {
                    fill(line.createCell(i), columns.get(i), row, styles);
                }
            }
        }
        for (int i = 0; i < columns.size(); i++) {
            sheet.setColumnWidth(i, Styles.width(columns.get(i)));
        }
        return sheet;
    }

    private static void fill(Cell cell, Column column, int row, Styles styles) {
        if (column.kind() == Kind.TEXT) {
            cell.setCellValue(column.written(row));
        } else if (column.kind() == Kind.DATE) {
            cell.setCellValue(column.date(row).orElseThrow());
            cell.setCellStyle(styles.date());
        } else if (column.kind() == Kind.TRUTH) {
            cell.setCellValue(column.number(row) == 1);
        } else {
            cell.setCellValue(column.number(row));
        }
    }

    static void header(XSSFSheet sheet, Styles styles, List<String> titles) {
        Row row = sheet.createRow(0);
        for (int i = 0; i < titles.size(); i++) {
            Cell cell = row.createCell(i);
            cell.setCellValue(titles.get(i));
            cell.setCellStyle(styles.header());
        }
        sheet.createFreezePane(0, 1);
        onePageWide(sheet);
    }

    /** Landscape, as many pages down as it takes. */
    static void onePageWide(XSSFSheet sheet) {
        sheet.setFitToPage(true);
        XSSFPrintSetup setup = sheet.getPrintSetup();
        setup.setOrientation(PrintOrientation.LANDSCAPE);
        setup.setPaperSize(A4);
        setup.setFitWidth((short) 1);
        setup.setFitHeight((short) 0);
    }
}
