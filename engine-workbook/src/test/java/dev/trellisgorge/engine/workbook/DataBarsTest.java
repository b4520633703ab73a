package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Beside;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.pattern.Progress;
import dev.trellisgorge.pattern.Range;
import dev.trellisgorge.pattern.Sign;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCfRule;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCfvo;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTConditionalFormatting;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.STCfType;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Bars in cells: the format's own, unless characters were asked for. */
public class DataBarsTest {
    private static final Table LEVELS = Table.of("levels", Column.texts("station", "North Sluice", "Heron Weir", "Stone Leat", "Mill Race"), Column.numbers("level", 0.42, -0.15, Double.NaN, 0));

    private Path file;

    @BeforeMethod
    void makeFile() throws IOException {
        file = Files.createTempFile("bars", ".xlsx");
    }

    @AfterMethod
    void deleteFile() throws IOException {
        Files.delete(file);
    }

    private static PlainChart chart(TextBar bars) {
        return Chart.of("station", bars).named("levels").color("bar left", Color.parse("crimson")).over(LEVELS, Settings.NONE);
    }

    private static List<CTCfRule> rules(XSSFSheet sheet) {
        List<CTCfRule> rules = new ArrayList<>();
        List.of(sheet.getCTWorksheet().getConditionalFormattingArray()).forEach(area -> rules.addAll(List.of(area.getCfRuleArray())));
        return rules;
    }

    private static List<Object> under(XSSFSheet sheet, int column, int first) {
        List<Object> cells = new ArrayList<>();
        for (int row = first; row < first + 4; row++) {
            cells.add(PlanSheets.saved(sheet.getRow(row).getCell(column)));
        }
        return cells;
    }

    @Test
    public void barsAreAsLongAsTheirCellsOnOneScaleThatTakesInZero() throws Exception {
        Engines.draw(chart(TextBar.of("level")), file);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            XSSFSheet sheet = book.getSheet("levels");
            assertThat(rules(sheet)).singleElement().satisfies(rule -> {
                assertThat(rule.getType()).isEqualTo(STCfType.DATA_BAR);
                assertThat(rule.getDataBar().getShowValue()).isFalse();
                assertThat(rule.getDataBar().getCfvoList()).extracting(end -> end.getVal()).containsExactly("MIN(0,$D$4:$M$7)", "MAX(0,$D$4:$M$7)");
                String id = rule.getExtLst().getExtArray(0).getDomNode().getFirstChild().getFirstChild().getNodeValue();
                assertThat(sheet.getCTWorksheet().getExtLst().xmlText()).contains("id=\"" + id + "\"", "axisPosition=\"automatic\"", "negativeFillColor rgb=\"FFDC143C\"", ">D4:M7<");
            });
            assertThat(under(sheet, 3, 3)).containsExactly(0.42, -0.15, "", 0.0);
        }
    }

    @Test
    public void theyFollowAnEdit() throws Exception {
        Office.require();
        Engines.draw(chart(TextBar.of("level")), file);
        XSSFWorkbook book;
        try (InputStream in = Files.newInputStream(file)) {
            book = new XSSFWorkbook(in);
        }
        Cell changed = book.getSheet("levels (2)") == null ? book.getSheetAt(1).getRow(2).getCell(1) : book.getSheet("levels (2)").getRow(2).getCell(1);
        assertThat(changed.getNumericCellValue()).isEqualTo(-0.15);
        changed.setCellValue(0.9);
        try (OutputStream out = Files.newOutputStream(file)) {
            book.write(out);
        }
        Path saved = Office.recalculated(file);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook after = new XSSFWorkbook(in)) {
            assertThat(under(after.getSheetAt(0), 3, 3)).containsExactly(0.42, 0.9, "", 0.0);
            assertThat(rules(after.getSheetAt(0))).extracting(CTCfRule::getType).containsExactly(STCfType.DATA_BAR);
        } finally {
            Files.delete(saved);
        }
    }

    private static Chart inCells(Pattern pattern, String beside) {
        return Chart.of("station", pattern).named("levels").orientation(Orientation.HORIZONTAL).beside(Beside.of(Formulas.column(beside), beside)).inCells();
    }

    @Test
    public void lossesAndGainsMeetInCellsOnOneScaleWhoseEndStandsInACell() throws Exception {
        Engines.draw(inCells(Diverging.of("level"), "level").over(LEVELS, Settings.NONE), file);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            XSSFSheet sheet = book.getSheet("levels");
            assertThat(sheet.getDrawingPatriarch()).isNull();
            List<CTConditionalFormatting> panes = List.of(sheet.getCTWorksheet().getConditionalFormattingArray());
            CellRangeAddress losses = CellRangeAddress.valueOf(panes.get(0).getSqref().get(0).toString());
            CellRangeAddress gains = CellRangeAddress.valueOf(panes.get(1).getSqref().get(0).toString());
            assertThat(gains.getFirstColumn()).isEqualTo(losses.getLastColumn() + 1);
            assertThat(under(sheet, losses.getFirstColumn(), 3)).containsExactly("", -0.15, "", "");
            assertThat(under(sheet, gains.getFirstColumn(), 3)).containsExactly(0.42, "", "", "");
            String end = new CellReference(losses.getLastRow() + 1, losses.getFirstColumn(), true, true).formatAsString();
            assertThat(PlanSheets.saved(sheet.getRow(losses.getLastRow() + 1).getCell(losses.getFirstColumn()))).isEqualTo(0.42);
            assertThat(rules(sheet)).extracting(rule -> rule.getDataBar().getCfvoList().stream().map(CTCfvo::getVal).toList())
                    .containsExactly(List.of("-" + end, "0"), List.of("MIN(0," + gains.formatAsString(null, true) + ")", end));
        }
    }

    @Test
    public void theEndOfTheScaleFollowsAnEdit() throws Exception {
        Office.require();
        Engines.draw(inCells(Diverging.of("level"), "level").over(LEVELS, Settings.NONE), file);
        XSSFWorkbook book;
        try (InputStream in = Files.newInputStream(file)) {
            book = new XSSFWorkbook(in);
        }
        book.getSheetAt(1).getRow(2).getCell(1).setCellValue(-0.9);
        try (OutputStream out = Files.newOutputStream(file)) {
            book.write(out);
        }
        Path saved = Office.recalculated(file);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook after = new XSSFWorkbook(in)) {
            CellRangeAddress losses = CellRangeAddress.valueOf(after.getSheetAt(0).getCTWorksheet().getConditionalFormattingArray(0).getSqref().get(0).toString());
            assertThat(under(after.getSheetAt(0), losses.getFirstColumn(), 3)).containsExactly("", -0.9, "", "");
            assertThat(PlanSheets.saved(after.getSheetAt(0).getRow(7).getCell(losses.getFirstColumn()))).isEqualTo(0.9);
        } finally {
            Files.delete(saved);
        }
    }

    @Test
    public void eachSeriesHasAColumnOfCells() throws IOException {
        Table budget = Table.of("budget", Column.texts("station", "North Sluice", "Heron Weir"), Column.numbers("spent", 120, 90), Column.numbers("budget", 100, 150));
        Engines.draw(inCells(ToTarget.of("spent", "budget"), "budget").name("met", "Spent").over(budget, Settings.NONE), file);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            List<String> headings = new ArrayList<>();
            book.getSheet("levels").getRow(2).forEach(cell -> headings.add(cell.getStringCellValue()));
            assertThat(headings).filteredOn(words -> !words.isEmpty()).containsExactly("budget", "Spent", "remaining", "above");
        }
    }

    private List<List<String>> ends(Pattern pattern) throws IOException {
        Table budget = Table.of("budget", Column.texts("station", "North Sluice", "Heron Weir"), Column.numbers("spent", 75, 30), Column.numbers("budget", 100, 150));
        Engines.draw(inCells(pattern, "budget").over(budget, Settings.NONE), file);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            return rules(book.getSheet("levels")).stream().map(rule -> rule.getDataBar().getCfvoList().stream().map(CTCfvo::getVal).toList()).toList();
        }
    }

    @Test
    public void bothSidesOfATornadoMeetAtZero() throws IOException {
        List<List<String>> ends = ends(Tornado.of("budget", "spent"));
        assertThat(ends).hasSize(2);
        assertThat(ends.get(0).get(0)).isEqualTo("-" + ends.get(1).get(1));
        assertThat(ends.get(0).get(1)).isEqualTo("0");
    }

    @Test
    public void progressIsOneBarThatIsAsFarAsItsBandsAreLong() throws IOException {
        assertThat(ends(Progress.of("spent", "budget", new Progress.Band("low", 0.5), new Progress.Band("full", 0.5)))).hasSize(1);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            List<Object> below = new ArrayList<>();
            book.getSheet("levels").getRow(5).forEach(cell -> below.add(PlanSheets.saved(cell)));
            assertThat(below).contains(1.0);
        }
    }

    @DataProvider
    public Object[][] notInCells() {
        return new Object[][] {{Chart.of("station", Columns.of("level")).orientation(Orientation.HORIZONTAL).inCells(), "say which in 'beside'"},
            {inCells(Range.of("level", "level"), "level"), "float"}, {inCells(TextBar.of("level"), "level"), "text-bar has its own bars in cells"}};
    }

    @Test(dataProvider = "notInCells", expectedExceptions = BadInput.class)
    public void barsThatCannotStandInCellsAreRefused(Chart chart, String why) {
        try {
            chart.over(LEVELS, Settings.NONE);
        } catch (BadInput e) {
            assertThat(e).hasMessageContaining(why);
            throw e;
        }
    }

    @DataProvider
    public Object[][] characters() {
        return new Object[][] {{TextBar.of("level").width(40)}, {TextBar.of("level").glyph("█")}, {TextBar.of("level").inEighths()}, {TextBar.of("level").classify(new Sign())}};
    }

    @Test(dataProvider = "characters")
    public void charactersStayWhereTheyAreAskedForOrEachClassHasAColour(TextBar bars) throws IOException {
        Engines.draw(chart(bars), file);
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(rules(book.getSheet("levels"))).isNotEmpty().extracting(CTCfRule::getType).containsOnly(STCfType.EXPRESSION);
        }
    }
}
