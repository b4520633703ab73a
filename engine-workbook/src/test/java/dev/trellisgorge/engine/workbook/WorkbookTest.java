package dev.trellisgorge.engine.workbook;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.setting;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Engines;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.formula.HelperColumn;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.apache.poi.openxml4j.opc.PackagePart;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.xmlbeans.XmlError;
import org.apache.xmlbeans.XmlObject;
import org.apache.xmlbeans.XmlOptions;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.ChartSpaceDocument;
import org.openxmlformats.schemas.drawingml.x2006.chart.STDispBlanksAs;
import org.openxmlformats.schemas.drawingml.x2006.spreadsheetDrawing.WsDrDocument;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.SstDocument;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.StyleSheetDocument;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.WorkbookDocument;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.WorksheetDocument;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class WorkbookTest {
    private static final double MISSING = Double.NaN;
    private static final LocalDate MARCH = LocalDate.of(2031, 3, 1);
    private static final Table STATIONS = Table.of("stations",
            Column.dates("month", MARCH.minusMonths(1), MARCH, MARCH, MARCH, MARCH, MARCH, MARCH),
            Column.texts("station", "North Sluice", "North Sluice", "Heron's \"Weir\"", "Mill Race", "Stone Leat", "Fern Pool", "Alder Gate"),
            Column.numbers("mwh", 455, 520, 400, 150, MISSING, 0, -20.5),
            Column.numbers("own goal", 450, 520, 500, MISSING, 100, 0, -30));
    private static final Settings GOAL = Settings.of("goal", 400);

    /** Reads a part as the root element that its schema gives it. */
    private interface Reading {
        XmlObject parse(InputStream in) throws Exception;
    }

    private static final Map<String, Reading> SCHEMAS = Map.of("/xl/charts/chart\\d+\\.xml", ChartSpaceDocument.Factory::parse,
            "/xl/worksheets/sheet\\d+\\.xml", WorksheetDocument.Factory::parse, "/xl/drawings/drawing\\d+\\.xml", WsDrDocument.Factory::parse,
            "/xl/workbook\\.xml", WorkbookDocument.Factory::parse, "/xl/styles\\.xml", StyleSheetDocument.Factory::parse,
            "/xl/sharedStrings\\.xml", SstDocument.Factory::parse);

    private Path file;

    @BeforeMethod
    void makeFile() throws IOException {
        file = Files.createTempFile("gorge", ".xlsx");
    }

    @AfterMethod
    void deleteFile() throws IOException {
        Files.delete(file);
    }

    private static Chart march(String name, Split rule) {
        return Chart.of("station", Columns.of("mwh").classify(rule)).named(name).title("March").slice("month", "2031-03-01");
    }

    private static List<PlainChart> charts() {
        return List.of(march("against the goal", Split.at(setting("goal"))).labels(Labels.VALUE.format("#,##0.0 'MWh'")).over(STATIONS, GOAL),
                march("against its own", Split.at(column("own goal"))).orientation(Orientation.HORIZONTAL).over(STATIONS, GOAL));
    }

    private XSSFWorkbook drawn(List<PlainChart> charts) throws IOException {
        Engines.draw(charts, file, Size.STANDARD);
        return open(file);
    }

    private static XSSFWorkbook open(Path workbook) throws IOException {
        try (InputStream in = Files.newInputStream(workbook)) {
            return new XSSFWorkbook(in);
        }
    }

    /** The helper cells of a chart as a sheet holds them: {@code .} where absent. */
    private static List<String> cells(XSSFWorkbook book, PlainChart chart) {
        Sheet sheet = book.getSheet(chart.name() + " series");
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < chart.data().columns().size(); i++) {
            for (int row = 0; row < chart.data().rowCount(); row++) {
                Cell cell = sheet.getRow(row + 1).getCell(i + 1);
                boolean error = cell.getCachedFormulaResultType() == CellType.ERROR;
                if (error) {
                    assertThat(cell.getErrorCellValue()).isEqualTo(FormulaError.NA.getCode());
                }
                cells.add(error ? "." : String.valueOf(cell.getNumericCellValue()));
            }
        }
        return cells;
    }

    private static List<String> cells(PlainChart chart) {
        List<String> cells = new ArrayList<>();
        for (HelperColumn column : chart.data().columns()) {
            IntStream.range(0, chart.data().rowCount()).forEach(row -> cells.add(
                    column.cells().isPresent(row) ? String.valueOf(column.cells().number(row)) : "."));
        }
        return cells;
    }

    @Test
    public void everyPartFollowsItsSchema() throws Exception {
        try (XSSFWorkbook book = drawn(charts())) {
            int checked = 0;
            for (PackagePart part : book.getPackage().getParts()) {
                for (Map.Entry<String, Reading> schema : SCHEMAS.entrySet()) {
                    if (part.getPartName().getName().matches(schema.getKey())) {
                        List<XmlError> errors = new ArrayList<>();
                        try (InputStream in = part.getInputStream()) {
                            schema.getValue().parse(in).validate(new XmlOptions().setErrorListener(errors));
                        }
                        assertThat(errors).as(part.getPartName().getName()).isEmpty();
                        checked++;
                    }
                }
            }
            assertThat(checked).isEqualTo(6 + 2 + 2 + 3);
        }
    }

    @Test
    public void cellsAreFormulasWithTheirOwnValuesWritten() throws IOException {
        List<PlainChart> charts = charts();
        try (XSSFWorkbook book = drawn(charts)) {
            for (PlainChart chart : charts) {
                assertThat(cells(book, chart)).isEqualTo(cells(chart));
            }
            Sheet series = book.getSheet("against the goal series");
            assertThat(series.getRow(1).getCell(2).getCellFormula()).isEqualTo("IF(AND(COUNT(stations!C3,goal)=2,stations!C3>=goal),stations!C3,NA())");
            assertThat(series.getRow(1).getCell(0).getStringCellValue()).isEqualTo("North Sluice");
            assertThat(book.getName("goal").getRefersToFormula()).isEqualTo("Settings!$B$2");
            assertThat(book.getSheet("stations").getRow(1).getCell(0).getLocalDateTimeCellValue().toLocalDate()).isEqualTo("2031-02-01");
            assertThat(book.getSheet("stations").getRow(5).getCell(2)).isNull();
        }
    }

    @Test
    public void chartIsBoundToTheHelperRanges() throws IOException {
        try (XSSFWorkbook book = drawn(charts())) {
            XSSFChart chart = chartOn(book, 0);
            CTBarChart bars = chart.getCTChart().getPlotArea().getBarChartArray(0);
            assertThat(bars.getOverlap().getVal().toString()).isEqualTo("100");
            assertThat(bars.getGapWidth().getVal().toString()).isEqualTo("60");
            assertThat(bars.getSerList()).extracting(CTBarSer::getVal).extracting(val -> val.getNumRef().getF())
                    .containsExactly("'against the goal series'!$B$2:$B$7", "'against the goal series'!$C$2:$C$7");
            assertThat(bars.getSerList()).extracting(series -> series.getCat().getStrRef().getF()).containsOnly("'against the goal series'!$A$2:$A$7");
            assertThat(bars.getSerList()).extracting(series -> series.getTx().getStrRef().getF())
                    .containsExactly("'against the goal series'!$B$1", "'against the goal series'!$C$1");
            assertThat(bars.getSerArray(0).getVal().getNumRef().getNumCache().getPtList()).extracting(point -> point.getIdx() + "=" + point.getV())
                    .containsExactly("2=150.0", "4=0.0", "5=-20.5");
            assertThat(bars.getSerArray(1).getDLbls().getNumFmt().getFormatCode()).isEqualTo("#,##0.0 \"MWh\"");
            assertThat(chart.getCTChart().getDispBlanksAs().getVal()).isEqualTo(STDispBlanksAs.GAP);
            assertThat(chart.getCTChart().getPlotVisOnly().getVal()).as("hidden sheets are drawn too").isFalse();
            assertThat(book.getSheetAt(0).getDrawingPatriarch().getCTDrawing().getTwoCellAnchorArray(0).getGraphicFrame()
                    .getNvGraphicFramePr().getCNvPr().getDescr())
                    .startsWith("March: North Sluice 520.0 MWh (above); ");
            assertThat(chart.getCTChart().getPlotArea().getLineChartArray(0).getSerArray(0).getTx().getStrRef().getF())
                    .isEqualTo("'against the goal series'!$D$1");
        }
    }

    private static XSSFChart chartOn(XSSFWorkbook book, int sheet) {
        return book.getSheetAt(sheet).getDrawingPatriarch().getCharts().get(0);
    }

    @Test
    public void eachChartPrintsOnOneLandscapePage() throws IOException {
        try (XSSFWorkbook book = drawn(charts())) {
            for (int i = 0; i < 2; i++) {
                assertThat(book.getSheetAt(i).getPrintSetup().getLandscape()).isTrue();
                assertThat(book.getSheetAt(i).getPrintSetup().getFitHeight()).isEqualTo((short) 1);
            }
        }
    }

    @Test
    public void recalculatedCellsAreTheSeriesAndFollowAnEdit() throws Exception {
        Office.require();
        List<PlainChart> charts = charts();
        Engines.draw(charts, file, Size.STANDARD);
        assertRecalculated(charts);

        try (XSSFWorkbook book = open(file)) {
            book.getSheet("Settings").getRow(1).getCell(1).setCellValue(150);
            book.getSheet("stations").getRow(3).getCell(2).setCellValue(-1);
            book.getSheet("stations").getRow(4).createCell(3).setCellValue(151);
            book.getSheet("stations").getRow(5).createCell(2).setCellValue(100);
            book.setSheetHidden(book.getSheetIndex("against the goal series"), true);
            try (var out = Files.newOutputStream(file)) {
                book.write(out);
            }
        }
        Table edited = Table.of("stations", STATIONS.column("month"), STATIONS.column("station"),
                Column.numbers("mwh", 455, 520, -1, 150, 100, 0, -20.5), Column.numbers("own goal", 450, 520, 500, 151, 100, 0, -30));
        Settings lower = GOAL.with("goal", 150);
        List<PlainChart> after = List.of(march("against the goal", Split.at(setting("goal"))).over(edited, lower),
                march("against its own", Split.at(column("own goal"))).over(edited, lower));
        Path recalculated = Office.recalculated(file);
        try (XSSFWorkbook book = open(recalculated)) {
            assertThat(cells(book, after.get(0))).isEqualTo(cells(after.get(0)));
            assertThat(cells(book, after.get(1))).isEqualTo(cells(after.get(1)).subList(0, 12));
        } finally {
            Files.delete(recalculated);
        }
    }

    private void assertRecalculated(List<PlainChart> charts) throws Exception {
        Path recalculated = Office.recalculated(file);
        try (XSSFWorkbook book = open(recalculated)) {
            for (PlainChart chart : charts) {
                assertThat(cells(book, chart)).as(chart.name()).isEqualTo(cells(chart));
            }
        } finally {
            Files.delete(recalculated);
        }
    }

    @Test
    public void manyRandomTablesRecalculateToTheSameCells() throws Exception {
        Office.require();
        Random random = new Random(11);
        List<PlainChart> charts = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            int rows = 1 + random.nextInt(40);
            Table table = Table.of("table " + i, Column.texts("c", IntStream.range(0, rows).mapToObj(r -> "r" + r).toArray(String[]::new)),
                    Column.numbers("v", random.ints(rows, -3, 5).mapToDouble(v -> v == 4 ? MISSING : v * 0.25).toArray()),
                    Column.numbers("limit", random.ints(rows, -3, 5).mapToDouble(v -> v == 4 ? MISSING : v * 0.25).toArray()));
            Split rule = i % 3 == 0 ? Split.at(column("limit")) : i % 3 == 1 ? Split.at(setting("goal")) : Split.at(0.25);
            charts.add(Chart.of("c", Columns.of("v").classify(i % 2 == 0 ? rule : rule.ties(dev.trellisgorge.pattern.Ties.BELOW))).named("chart " + i)
                    .over(table, Settings.of("goal", 0.5)));
        }
        Engines.draw(charts, file, Size.STANDARD);
        assertRecalculated(charts);
    }

    @Test
    public void awkwardNamesBecomeNamesThatAWorkbookTakes() throws IOException {
        Table table = Table.of("a/b: [raw]", Column.texts("it's", "x"), Column.numbers("v", 1));
        List<PlainChart> charts = new ArrayList<>();
        for (String name : List.of("A very long name of a chart that goes on", "A very long name of a chart that goes on and on", "settings")) {
            charts.add(Chart.of("it's", Columns.of("v").classify(Split.at(setting("Q1")))).named(name).over(table, Settings.of("Q1", 1).with("r", 2)));
        }
        try (XSSFWorkbook book = drawn(charts)) {
            assertThat(IntStream.range(0, book.getNumberOfSheets()).mapToObj(book::getSheetName)).doesNotHaveDuplicates()
                    .allMatch(name -> name.length() <= 31);
            assertThat(book.getAllNames()).extracting(name -> name.getNameName()).containsExactly("Q1_", "r_");
        }
    }
}
