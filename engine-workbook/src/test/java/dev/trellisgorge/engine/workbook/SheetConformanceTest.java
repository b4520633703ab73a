package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.engine.workbook.PlanSheets.Drawn;
import dev.trellisgorge.test.TestSize;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.poi.ss.usermodel.CellValue;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.FormulaEvaluator;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.Test;

/** The formulas of sheets held to the oracle on random plans. */
public class SheetConformanceTest {
    private static final int BY_EVALUATOR = TestSize.of(80, 600);
    private static final int BY_PROGRAM = TestSize.of(20, 300);

    @Test
    public void sheetsOfRandomPlansGiveTheOraclesCells() throws Exception {
        long columns = 0;
        for (List<Drawn> book : PlanSheets.books(BY_EVALUATOR, Within.PLAIN_SHEET)) {
            Path file = PlanSheets.drawn(book, "xlsx");
            try (InputStream in = Files.newInputStream(file); XSSFWorkbook workbook = new XSSFWorkbook(in)) {
                FormulaEvaluator evaluator = workbook.getCreationHelper().createFormulaEvaluator();
                for (Drawn each : book) {
                    columns += PlanSheets.assertHolds(workbook.getSheet(each.chart().name() + " series"), each, new WorkbookEngine(), cell -> value(evaluator.evaluate(cell)));
                }
            } finally {
                Files.delete(file);
            }
        }
        assertThat(columns).isGreaterThan(5L * BY_EVALUATOR);
    }

    @Test
    public void aSpreadsheetProgramGivesThemToo() throws Exception {
        assertThat(PlanSheets.recalculated(BY_PROGRAM, "xlsx", new WorkbookEngine())).isGreaterThan(BY_PROGRAM);
    }

    /** Null where absent. */
    private static Object value(CellValue value) {
        return switch (value.getCellType()) {
            case NUMERIC -> (Object) value.getNumberValue();
            case BOOLEAN -> value.getBooleanValue();
            case STRING -> value.getStringValue();
            case ERROR -> value.getErrorValue() == FormulaError.NA.getCode() ? null : "the error " + FormulaError.forInt(value.getErrorValue());
            default -> "";
        };
    }
}
