package dev.trellisgorge.engine.workbook;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.setting;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.engine.Lowering;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Gallery;
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
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.poi.openxml4j.opc.PackagePart;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.xmlbeans.XmlError;
import org.apache.xmlbeans.XmlObject;
import org.apache.xmlbeans.XmlOptions;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarChart;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTBarSer;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTManualLayout;
import org.openxmlformats.schemas.drawingml.x2006.chart.CTPlotArea;
import org.openxmlformats.schemas.drawingml.x2006.chart.ChartSpaceDocument;
import org.openxmlformats.schemas.drawingml.x2006.chart.STBarGrouping;
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
        Engines.draw(charts.stream().map(Page::of).toList(), file, Size.STANDARD);
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
        for (String name : chart.plan().series()) {
            for (int row = 0; row < chart.data().rowCount(); row++) {
                Cell cell = HelperCells.cell(sheet, name, row);
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
        for (Column column : chart.data().series()) {
            IntStream.range(0, chart.data().rowCount()).forEach(row -> cells.add(column.isPresent(row) ? String.valueOf(column.number(row)) : "."));
        }
        return cells;
    }

    @Test
    public void everyPartOfEveryPatternFollowsItsSchema() throws Exception {
        List<PlainChart> charts = Gallery.some().stream().map(Gallery.Example::plain).toList();
        try (XSSFWorkbook book = drawn(charts)) {
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
            assertThat(checked).isGreaterThan(3 * charts.size());
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
            assertThat(HelperCells.cell(series, 2, 0).getCellFormula()).isEqualTo("IF($A7<>\"\",IF('against the goal rows'!E7>=goal,'against the goal rows'!E7,NA()),NA())");
            assertThat(HelperCells.cell(series, 0, 0).getStringCellValue()).isEqualTo("North Sluice");
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
                    .containsExactly("'against the goal series'!$B$7:$B$12", "'against the goal series'!$C$7:$C$12", "'against the goal series'!$D$7:$D$12");
            assertThat(bars.getSerList()).extracting(series -> series.getCat().getStrRef().getF()).containsOnly("'against the goal series'!$A$7:$A$12");
            assertThat(bars.getSerList()).extracting(series -> series.getTx().getStrRef().getF())
                    .containsExactly("'against the goal series'!$B$5", "'against the goal series'!$C$5", "'against the goal series'!$D$5");
            assertThat(bars.getSerArray(0).getVal().getNumRef().getNumCache().getPtList()).extracting(point -> point.getIdx() + "=" + point.getV())
                    .containsExactly("2=150.0", "4=0.0", "5=-20.5");
            assertThat(bars.getSerArray(1).getDLbls().getNumFmt().getFormatCode()).isEqualTo("#,##0.0 \"MWh\"");
            assertThat(chart.getCTChart().getDispBlanksAs().getVal()).isEqualTo(STDispBlanksAs.GAP);
            assertThat(chart.getCTChart().getPlotVisOnly().getVal()).as("hidden sheets are drawn too").isFalse();
            assertThat(book.getSheetAt(0).getDrawingPatriarch().getCTDrawing().getTwoCellAnchorArray(0).getGraphicFrame()
                    .getNvGraphicFramePr().getCNvPr().getDescr())
                    .startsWith("March: North Sluice 520.0 MWh (above); ");
            assertThat(chart.getCTChart().getPlotArea().getLineChartArray(0).getSerArray(0).getTx().getStrRef().getF())
                    .isEqualTo("'against the goal series'!$E$5");
            assertThat(book.getSheet("against the goal series").getRow(SheetLayout.SHOWN_AS - 1).getCell(4)).satisfies(title -> {
                assertThat(title.getStringCellValue()).isEqualTo("goal 400.0 MWh");
                assertThat(title.getCellFormula()).contains("FIXED(", "goal");
            });
        }
    }

    @Test
    public void everyNativeChartHasItsSeriesInOrderOverTheirOwnCellsAndSpacersWithoutPaint() throws IOException {
        List<PlainChart> charts = Gallery.some().stream().map(Gallery.Example::plain).toList();
        try (XSSFWorkbook book = drawn(charts)) {
            for (int i = 0; i < charts.size(); i++) {
                List<PlainChart> parts = new Lowering(new WorkbookEngine().abilities()).lower(charts.get(i));
                List<XSSFChart> drawn = book.getSheetAt(i).getDrawingPatriarch() == null ? List.of() : book.getSheetAt(i).getDrawingPatriarch().getCharts();
                for (int part = 0; part < parts.size() && parts.get(part).drawing() instanceof Panels panels; part++) {
                    assertDrawn(panels.panels().get(0), drawn.get(part).getCTChart().getPlotArea(), book.getSheet(charts.get(i).name() + " series"),
                            parts.get(parts.size() - 1));
                }
            }
        }
    }

    @Test
    public void chartsOfPanelsStandInLineHoweverLongTheTitlesAre() throws IOException {
        String words = "A title that goes on for so long that it takes several lines of the sheet, and is still not at its end ".repeat(2);
        List<PlainChart> charts = Gallery.all().stream().filter(example -> example.plain().panels().size() > 1)
                .map(example -> example.chart().title(words).subtitle(words).over(example.table(), example.settings())).toList();
        assertThat(charts).hasSizeGreaterThan(3);
        try (XSSFWorkbook book = drawn(charts)) {
            for (int i = 0; i < charts.size(); i++) {
                boolean upright = charts.get(i).orientation() == Orientation.VERTICAL;
                List<double[]> along = new ArrayList<>();
                for (XSSFChart chart : book.getSheetAt(i).getDrawingPatriarch().getCharts()) {
                    CTManualLayout place = chart.getCTChart().getPlotArea().getLayout().getManualLayout();
                    assertThat(place.getW().getVal()).isGreaterThan(0.05);
                    assertThat(place.getH().getVal()).as(charts.get(i).name()).isGreaterThan(0.05);
                    assertThat(place.getX().getVal() + place.getW().getVal()).isLessThanOrEqualTo(1);
                    assertThat(place.getY().getVal() + place.getH().getVal()).isLessThanOrEqualTo(1);
                    along.add(upright ? new double[] {place.getX().getVal(), place.getW().getVal()} : new double[] {place.getY().getVal(), place.getH().getVal()});
                }
                assertThat(along).as(charts.get(i).name()).hasSize(2).allMatch(place -> Arrays.equals(place, along.get(0)));
            }
        }
    }

    private static void assertDrawn(Panel panel, CTPlotArea plot, Sheet helpers, PlainChart chart) {
        assertThat(plot.sizeOfBarChartArray()).isEqualTo(panel.bars().size());
        boolean upright = chart.orientation() == Orientation.VERTICAL;
        boolean fromZero = !panel.bars().isEmpty() && panel.scale().covered().isEmpty();
        for (int group = 0; group < panel.bars().size(); group++) {
            BarGroup bars = panel.bars().get(group);
            CTBarChart drawn = plot.getBarChartArray(group);
            boolean stacked = bars.placing() == BarGroup.Placing.STACKED;
            assertThat(drawn.getGrouping().getVal()).isEqualTo(stacked ? STBarGrouping.STACKED : STBarGrouping.CLUSTERED);
            assertThat(drawn.getOverlap().getVal().toString()).isEqualTo("100");
            assertThat(drawn.getGapWidth().getVal().toString()).isEqualTo(String.valueOf(Math.round(bars.gap() * 100)));
            // The first of a stack, and as many as the first group has where it is none, over which programs stack else.
            boolean besideNone = group > 0 && stacked && panel.bars().get(0).placing() != BarGroup.Placing.STACKED;
            int zeros = (fromZero && (group > 0 || !upright) ? 1 : 0) + (besideNone ? panel.bars().get(0).series().size() : 0);
            assertThat(drawn.sizeOfSerArray()).isEqualTo(bars.series().size() + zeros);
            for (int i = 0; i < zeros; i++) {
                CTBarSer zero = drawn.getSerArray(i);
                assertThat(zero.getSpPr().isSetNoFill()).isTrue();
                assertZero(helpers, zero.getVal().getNumRef().getF());
            }
            for (int i = 0; i < bars.series().size(); i++) {
                Series series = bars.series().get(i);
                CTBarSer ser = drawn.getSerArray(zeros + i);
                assertHolds(helpers, ser.getVal().getNumRef().getF(), chart, series);
                assertThat(ser.getSpPr().isSetNoFill()).as(series.column()).isEqualTo(series.fill().isEmpty());
                assertThat(ser.getSpPr().getLn().isSetNoFill()).isEqualTo(series.outline().isEmpty());
                assertThat(ser.isSetDLbls()).isEqualTo(series.label().isPresent());
            }
        }
        List<Series> lines = Stream.concat(panel.lines().stream().map(Line::series), panel.points().stream().map(Points::series)).toList();
        assertThat(plot.sizeOfLineChartArray()).isEqualTo(lines.size() + (fromZero && upright ? 1 : 0));
        if (fromZero && upright) {
            assertZero(helpers, plot.getLineChartArray(lines.size()).getSerArray(0).getVal().getNumRef().getF());
        }
        for (int i = 0; i < lines.size(); i++) {
            assertHolds(helpers, plot.getLineChartArray(i).getSerArray(0).getVal().getNumRef().getF(), chart, lines.get(i));
        }
    }

    /** The scale takes in a cell that holds 0, so that no program begins it at the least figure. */
    private static void assertZero(Sheet helpers, String range) {
        CellRangeAddress cells = CellRangeAddress.valueOf(range.substring(range.lastIndexOf('!') + 1));
        assertThat(HelperCells.cell(helpers, cells.getFirstColumn(), 0).getNumericCellValue()).isZero();
        assertThat(HelperCells.column(helpers, "scale from")).isEqualTo(cells.getFirstColumn());
    }

    /** A range is that of the column with the series' cells. */
    private static void assertHolds(Sheet helpers, String range, PlainChart chart, Series series) {
        assertThat(range).startsWith("'" + helpers.getSheetName() + "'!");
        CellRangeAddress cells = CellRangeAddress.valueOf(range.substring(range.lastIndexOf('!') + 1));
        Column column = chart.data().column(series.column());
        assertThat(cells.getFirstRow()).isEqualTo(SheetLayout.FIRST - 1);
        assertThat(cells.getLastRow()).isEqualTo(SheetLayout.FIRST + column.size() - 2);
        assertThat(cells.getFirstColumn()).isEqualTo(HelperCells.column(helpers, series.column()));
        for (int row = 0; row < column.size(); row++) {
            Cell cell = HelperCells.cell(helpers, cells.getFirstColumn(), row);
            assertThat(cell.getCachedFormulaResultType()).isEqualTo(column.isPresent(row) ? CellType.NUMERIC : CellType.ERROR);
            assertThat(column.isPresent(row) ? cell.getNumericCellValue() : 0).isEqualTo(column.isPresent(row) ? column.number(row) : 0);
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
    public void awkwardNamesBecomeNamesThatAWorkbookTakes() throws IOException {
        Table table = Table.of("a/b: [raw]", Column.texts("it's", "x"), Column.numbers("v", 1));
        List<PlainChart> charts = new ArrayList<>();
        for (String name : List.of("A very long name of a chart that goes on", "A very long name of a chart that goes on and on", "settings")) {
            charts.add(Chart.of("it's", Columns.of("v").classify(Split.at(setting("Q1")))).named(name).over(table, Settings.of("Q1", 1).with("r", 2)));
        }
        try (XSSFWorkbook book = drawn(charts)) {
            assertThat(IntStream.range(0, book.getNumberOfSheets()).mapToObj(book::getSheetName)).doesNotHaveDuplicates()
                    .allMatch(name -> name.length() <= 31);
            assertThat(book.getAllNames()).extracting(name -> name.getNameName()).filteredOn(name -> !name.startsWith("_xlnm.")).containsExactly("Q1_", "r_");
        }
    }
}
