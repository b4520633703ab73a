package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Sign;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.plan.PlainChart;
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
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCfRule;
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
