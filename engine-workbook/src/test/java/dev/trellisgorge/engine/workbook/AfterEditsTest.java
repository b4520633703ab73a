package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Ring;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.pattern.Variance;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a reader is told under the charts of a workbook, before and after the raw cells are edited. */
public class AfterEditsTest {
    private static final String HOLDS = "The pieces add back to the figures on every row.";
    private static final String TEXTS = "some labels are texts of cells";
    private static final Table LEVELS = Table.of("levels", Column.texts("station", "North Sluice", "Mill Race", "Fern Pool"), Column.numbers("level", 0.42, -0.15, 0.1),
            Column.numbers("before", 0.5, Double.NaN, 0.1), Column.texts("kind", "start", "change", "total"));

    private Path file;

    @BeforeMethod
    void makeFile() throws IOException {
        file = Files.createTempFile("gorge", ".xlsx");
    }

    @AfterMethod
    void deleteFile() throws IOException {
        Files.delete(file);
    }

    private XSSFWorkbook drawn(int spare, PlainChart... charts) throws IOException {
        try (OutputStream out = Files.newOutputStream(file)) {
            Engines.draw(List.of(charts).stream().map(Page::of).toList(), "xlsx", Options.STANDARD.spare(spare, OptionalInt.empty()), out);
        }
        try (InputStream in = Files.newInputStream(file)) {
            return new XSSFWorkbook(in);
        }
    }

    /** The lines of notes below a chart, as they are now. */
    private static List<String> told(XSSFWorkbook book) {
        List<String> told = new ArrayList<>();
        for (Row row : book.getSheetAt(0)) {
            Cell first = row.getCell(0);
            if (first != null && first.getCellType() == CellType.FORMULA) {
                told.add(book.getCreationHelper().createFormulaEvaluator().evaluate(first).formatAsString().replace("\"", ""));
            } else if (first != null && first.getCellType() == CellType.STRING && !first.getStringCellValue().isEmpty()) {
                told.add(first.getStringCellValue());
            }
        }
        return told;
    }

    private static Cell raw(XSSFWorkbook book, int row, int column) {
        Sheet sheet = book.getSheet("levels") == book.getSheetAt(0) ? book.getSheet("levels (2)") : book.getSheet("levels");
        return sheet.getRow(row + 1).getCell(column);
    }

    @Test
    public void aCellThatWasFilledAndIsBlankNowIsTold() throws IOException {
        try (XSSFWorkbook book = drawn(0, Chart.of("station", Columns.of("level")).named("c").over(LEVELS, Settings.NONE))) {
            assertThat(told(book)).containsExactly(HOLDS);
            raw(book, 1, 1).setCellValue(0.7);
            assertThat(told(book)).containsExactly(HOLDS);
            raw(book, 1, 1).setBlank();
            assertThat(told(book)).containsExactly("CHECK: a cell of levels that was filled is blank now, or of another kind, and may count as 0 here; fill it, or draw the workbook anew.");
            raw(book, 1, 1).setCellValue(0);
            assertThat(told(book)).containsExactly(HOLDS);
            raw(book, 0, 0).setBlank();
            assertThat(told(book)).singleElement().asString().startsWith("CHECK: a cell of levels ");
        }
    }

    @Test
    public void whatNoFormulaCountsOnMayBeBlank() throws IOException {
        try (XSSFWorkbook book = drawn(0, Chart.of("station", Columns.of("before")).named("c").over(LEVELS, Settings.NONE))) {
            raw(book, 0, 1).setBlank(); // another column
            raw(book, 0, 2).setBlank(); // one with a missing cell before
            assertThat(told(book)).containsExactly(HOLDS);
        }
        try (XSSFWorkbook book = drawn(2, Chart.of("station", Columns.of("level")).named("c").over(LEVELS, Settings.NONE))) {
            raw(book, 1, 1).setBlank(); // where rows are to come, any cell may be missing
            assertThat(told(book)).contains(HOLDS).noneMatch(line -> line.startsWith("CHECK"));
        }
    }

    private static Table wide(Column... columns) {
        return Table.of("levels", columns);
    }

    /** The sums of the columns of a wide table by their names. */
    private static PlainChart byYear(Table wide, List<String> columns, Optional<String> more) {
        Pipeline years = Pipeline.of("levels").then(new Unpivot(columns, "year", "v", more)).then(new Total(List.of("year"), List.of(new Total.Figure("v", Total.Fold.SUM, "v"))));
        return Chart.of("year", Columns.of("v")).named("c").plan(years, new Catalog(Map.of("levels", wide.schema()), Settings.NONE)).over(Executor.over(wide, Settings.NONE));
    }

    private static List<String> series(XSSFWorkbook book) {
        book.getCreationHelper().createFormulaEvaluator().evaluateAll();
        Sheet sheet = book.getSheet("c series");
        return IntStream.rangeClosed(SheetLayout.FIRST - 1, sheet.getLastRowNum()).mapToObj(sheet::getRow).map(line -> HelperCells.cell(sheet, 0, line.getRowNum() - SheetLayout.FIRST + 1))
                .filter(cell -> cell.getCachedFormulaResultType() == CellType.STRING && !cell.getStringCellValue().isEmpty())
                .map(cell -> cell.getStringCellValue() + " " + HelperCells.cell(sheet, "value", cell.getRowIndex() - SheetLayout.FIRST + 1).getNumericCellValue()).toList();
    }

    private static void type(XSSFWorkbook book, int column, Object name, double... cells) {
        Sheet sheet = book.getSheet("levels");
        Cell heading = sheet.getRow(0).createCell(column);
        if (name instanceof Double year) {
            heading.setCellValue(year);
        } else {
            heading.setCellValue((String) name);
        }
        IntStream.range(0, cells.length).forEach(row -> sheet.getRow(row + 1).createCell(column).setCellValue(cells[row]));
    }

    @DataProvider
    public Object[][] namesOfColumns() {
        return new Object[][] {
            {"20*", "2033", true}, {"20*", 2033.0, true}, {"20*", "1999", false}, {"20*", "Sum 20", false}, {"20*", "2032", false}, {"2*3", "2033", true}, {"2*3", "2034", false}, {"2*2*", "2022", false},
            {"*", "2033", true}, {"*", 2033.0, true}, {"*", 48_000.0, false}, {"*", "any", true}, {"*", "2031", false}, {"", "2033", false},
        };
    }

    /** A year more of a wide table is typed in beside the others, where rows may come: it is taken in, or reported. */
    @Test(dataProvider = "namesOfColumns")
    public void aColumnThatIsTypedInBesideTheOthersIsTakenInOrReported(String pattern, Object name, boolean isTaken) throws IOException {
        Table wide = wide(Column.texts("line", "North", "South"), Column.numbers("2031", 3, 5), Column.numbers("2032", 4, 6));
        try (XSSFWorkbook book = drawn(2, byYear(wide, List.of("2031", "2032"), Optional.of(pattern).filter(any -> !any.isEmpty())))) {
            assertThat(told(book)).noneMatch(line -> line.startsWith("CHECK"));
            type(book, 3, name, 10, 20);
            book.getSheet("levels").createRow(3).createCell(0).setCellValue("West");
            book.getSheet("levels").getRow(3).createCell(3).setCellValue(0.5);
            String text = name instanceof Double year ? String.valueOf(year.intValue()) : (String) name;
            assertThat(series(book)).containsExactlyElementsOf(isTaken ? List.of("2031 8.0", "2032 10.0", text + " 30.5") : List.of("2031 8.0", "2032 10.0"));
            if (isTaken) {
                assertThat(told(book)).contains(HOLDS).noneMatch(line -> line.startsWith("CHECK"));
                type(book, 5, "2035", 1, 1); // with a free column between, its place can't be told
            }
            assertThat(told(book)).contains("CHECK: there are more rows or columns now than are read; draw it again.");
        }
    }

    @Test
    public void columnsBeyondTheRoomAreReported() throws IOException {
        Table wide = wide(Column.texts("line", "North", "South"), Column.numbers("2031", 3, 5), Column.numbers("2032", 4, 6), Column.texts("note", "a", "b"));
        try (XSSFWorkbook book = drawn(2, byYear(wide, List.of("2031", "2032"), Optional.of("20*")))) {
            type(book, 4, "2033", 1, 1);
            assertThat(series(book)).endsWith("2033 2.0");
            type(book, 8, "far", 1, 1);
            assertThat(told(book)).contains("CHECK: there are more rows or columns now than are read; draw it again.");
        }
    }

    @Test
    public void aTableWithManyColumnsIsWatchedAsAWhole() throws IOException {
        List<Column> columns = new ArrayList<>(List.of(Column.texts("station", "a", "b")));
        IntStream.range(0, 70).forEach(i -> columns.add(Column.numbers("v" + i, i, i + 1)));
        Table wide = Table.of("levels", columns.toArray(Column[]::new));
        try (XSSFWorkbook book = drawn(0, Chart.of("station", Columns.of(IntStream.range(0, 70).mapToObj(i -> Formulas.column("v" + i)).reduce((a, b) -> a.plus(b)).orElseThrow())).named("c").over(wide, Settings.NONE))) {
            assertThat(told(book)).containsExactly(HOLDS);
            raw(book, 1, 70).setBlank();
            assertThat(told(book)).singleElement().asString().startsWith("CHECK: a cell of levels ");
        }
    }

    @DataProvider
    public Object[][] labels() {
        return new Object[][] {
            {Chart.of("station", Columns.of("level")), true}, {Chart.of("station", Diverging.of("level")), true},
            {Chart.of("station", new Diverging(Formulas.column("level").minus(Formulas.column("before")))).labels(Labels.VALUE.format("+0.00;-0.00")), true},
            {Chart.of("station", Tornado.of("before", "before")), true},
            {Chart.of("station", Variance.of("level").against(Formulas.column("before"))), true},
            {Chart.of("station", Variance.of("level").against(Formulas.column("before")).as(Variance.As.AMOUNT)), true},
            {Chart.of("station", Waterfall.of("level").kinds("kind")), false}, {Chart.of("station", Columns.of("level")).labels(Labels.of(Labels.Show.SHARE)), false}};
    }

    @Test(dataProvider = "labels")
    public void labelsThatSayTheLengthOfTheirBarFollowEverywhere(Chart chart, boolean follow) throws IOException {
        try (XSSFWorkbook book = drawn(0, chart.named("c").over(LEVELS, Settings.NONE))) {
            assertThat(told(book).stream().noneMatch(line -> line.contains(TEXTS))).isEqualTo(follow);
        }
    }

    @Test
    public void theFigureInARingIsToldToBeACellsText() throws IOException {
        Table one = Table.of("levels", Column.numbers("met", 431), Column.numbers("licence", 420));
        try (XSSFWorkbook book = drawn(0, Chart.of(Ring.of("met", "licence")).named("ring").over(one, Settings.NONE))) {
            assertThat(told(book)).containsExactly(HOLDS, "'ring': the figure in the middle is the text of a cell; a program that doesn't know such texts shows it as it was drawn.");
        }
    }

    @Test
    public void linesOfABoardAndOfItsFiguresFollow() throws IOException {
        Executor rows = Executor.over(LEVELS, Settings.NONE);
        Formula sum = Formulas.sum(Formulas.column("level"));
        PlainChart above = Words.lines(Page.ABOVE, Words.of("In all ").and(sum, "0.00"), Words.of("of ").and(Formulas.sum(Formulas.number(1)), "0").and(" stations"), Pipeline.of("levels"), rows, Locale.ROOT);
        PlainChart foot = Words.lines(Page.FOOT, Words.of("Least ").and(Formulas.min(Formulas.column("level")), "0.00"), Words.NONE, Pipeline.of("levels"), rows, Locale.ROOT);
        PlainChart figure = Figure.of("level").total(Figure.Total.SUM).title(Words.of("Sum ").and(sum, "0.0")).text(Words.of("not ").and(sum, "0.000")).over(Pipeline.of("levels"), rows);
        Page board = new Page("board", above.title(), above.subtitle(), foot.title(), 1, List.of(new Tile.OfFigure(figure)), List.of(Page.Span.ONE), List.of(new Tile.OfFigure(above), new Tile.OfFigure(foot)), Looks.OWN, Optional.empty());
        try (OutputStream out = Files.newOutputStream(file)) {
            Engines.draw(List.of(board), "xlsx", Options.STANDARD, out);
        }
        try (InputStream in = Files.newInputStream(file); XSSFWorkbook book = new XSSFWorkbook(in)) {
            assertThat(told(book)).contains("In all 0.37", "of 3 stations", "Sum 0.4", "not 0.370", "Least -0.15").noneMatch(line -> line.startsWith("CHECK"));
            raw(book, 1, 1).setCellValue(-1);
            assertThat(told(book)).contains("In all -0.48", "of 3 stations", "Sum -0.5", "not -0.480", "Least -1.00").noneMatch(line -> line.startsWith("CHECK"));
            raw(book, 1, 1).setBlank();
            assertThat(told(book)).anyMatch(line -> line.startsWith("CHECK: a cell of levels "));
        }
    }

    @Test
    public void theTitleOfASheetOfSeriesFollowsAsThatOfItsChartDoes() throws IOException {
        Chart chart = Chart.of("station", Columns.of("level")).named("c").title(Words.of("In all ").and(Formulas.sum(Formulas.column("level")), "0.00"));
        try (XSSFWorkbook book = drawn(0, chart.over(LEVELS, Settings.NONE))) {
            raw(book, 1, 1).setCellValue(1);
            Cell title = book.getSheet("c series").getRow(0).getCell(0);
            assertThat(title.getStringCellValue()).isEqualTo("In all 0.37");
            assertThat(book.getCreationHelper().createFormulaEvaluator().evaluate(title).getStringValue()).isEqualTo("In all 1.52");
        }
    }

    @Test
    public void aSeriesWithoutAFigureYetHasTheDecimalsOfWhatItMayShow() throws IOException {
        Table rising = Table.of("levels", Column.texts("station", "a", "b"), Column.numbers("level", 1, 2.25));
        try (XSSFWorkbook book = drawn(0, Chart.of("station", Variance.of("level")).named("c").over(rising, Settings.NONE))) {
            String up = HelperCells.cell(book.getSheet("c series"), "up", 0).getCellStyle().getDataFormatString();
            assertThat(HelperCells.cell(book.getSheet("c series"), "down", 0).getCellStyle().getDataFormatString()).isEqualTo(up).contains(".");
        }
    }
}
