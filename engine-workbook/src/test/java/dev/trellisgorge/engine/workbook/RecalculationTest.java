package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Lowering;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Gallery;
import dev.trellisgorge.pattern.Gallery.Example;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.pattern.Ties;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Every formula of every pattern, computed by a real spreadsheet program, as drawn and after a reader's edits. */
@Test(groups = TestSize.SLOW)
public class RecalculationTest {
    private static final double CLOSE = 1e-12;
    private static final double MISSING = Double.NaN;
    /** A reader's edits: table, column, row, and the new figure; a missing one empties the cell. */
    private static final List<Edit> EDITS = List.of(new Edit("rows", "signed", 0, -33), new Edit("rows", "signed", 5, MISSING),
            new Edit("rows", "signed", 4, 612), new Edit("rows", "size", 0, 410), new Edit("rows", "other", 6, 77), new Edit("rows", "other", 1, 550),
            new Edit("rows", "from", 0, -35), new Edit("rows", "moves", 1, 45), new Edit("months", "v", 0, 70), new Edit("months", "plan", 0, 90),
            new Edit("one", "v", 0, 9));

    private record Edit(String table, String column, int row, double figure) {
    }

    private Path file;

    @BeforeMethod
    void makeFile() throws IOException {
        Office.require();
        file = Files.createTempFile("gorge", ".xlsx");
    }

    @AfterMethod(alwaysRun = true)
    void deleteFile() throws IOException {
        if (file != null) {
            Files.delete(file);
        }
    }

    private interface Check {
        void of(XSSFWorkbook book);
    }

    private void recalculated(Check check) throws Exception {
        Path recalculated = Office.recalculated(file);
        try (InputStream in = Files.newInputStream(recalculated); XSSFWorkbook book = new XSSFWorkbook(in)) {
            check.of(book);
        } finally {
            Files.delete(recalculated);
        }
    }

    /** The cells of a sheet's column, found by its header; {@code .} where absent. */
    private static Optional<List<Object>> cells(Sheet sheet, String header, int rows) {
        return HelperCells.find(sheet, header).map(column -> IntStream.range(0, rows).mapToObj(row -> value(HelperCells.cell(sheet, column, row))).toList());
    }

    private static Object value(Cell cell) {
        if (cell == null) {
            return "";
        }
        CellType type = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
        if (type == CellType.ERROR) {
            assertThat(cell.getErrorCellValue()).as(cell.getSheet().getSheetName() + " " + cell.getAddress() + " " + cell).isEqualTo(FormulaError.NA.getCode());
            return ".";
        }
        return type == CellType.NUMERIC ? cell.getNumericCellValue() : type == CellType.BOOLEAN ? (Object) cell.getBooleanCellValue() : cell.getStringCellValue();
    }

    private static List<Object> cells(Column column) {
        return IntStream.range(0, column.size()).<Object>mapToObj(row -> !column.isPresent(row) ? "."
                : column.kind() == Kind.TEXT ? column.written(row) : column.kind() == Kind.TRUTH ? (Object) (column.number(row) == 1) : column.number(row)).toList();
    }

    private static void assertSame(String what, List<Object> found, List<Object> expected) {
        for (int row = 0; row < expected.size(); row++) {
            if (expected.get(row) instanceof Double figure && found.get(row) instanceof Double cell) {
                assertThat(Math.abs(cell - figure)).as("%s, row %s: %s for %s", what, row, cell, figure).isLessThanOrEqualTo(CLOSE * Math.max(1, Math.abs(figure)));
            } else {
                assertThat(found.get(row)).as("%s, row %s", what, row).isEqualTo(expected.get(row));
            }
        }
    }

    /** Every series, working and lowered column of a chart, and the words beside its bars. */
    private static void assertHolds(XSSFWorkbook book, PlainChart chart) {
        Sheet sheet = book.getSheet(chart.name() + " series");
        List<PlainChart> lowered = new Lowering(new WorkbookEngine().abilities()).lower(chart);
        ComputedColumns data = lowered.get(lowered.size() - 1).data();
        List<String> names = new ArrayList<>(data.plan().series());
        data.plan().columns().stream().map(Derived::name).filter(name -> !names.contains(name) && !data.plan().wording().contains(name)).forEach(names::add);
        for (String name : names) {
            assertSame(chart.name() + ": " + name, cells(sheet, name, data.rowCount()).orElseThrow(), cells(data.column(name)));
        }
        for (PlainChart part : lowered) {
            part.series().stream().filter(series -> series.label().isPresent() && !(part.drawing() instanceof TextCells)).forEach(series -> {
                Optional<List<Object>> words = cells(sheet, "words beside " + series.column(), data.rowCount());
                Label label = series.label().orElseThrow();
                Column figures = data.column(label.column());
                for (int row = 0; words.isPresent() && row < data.rowCount(); row++) {
                    Object word = words.get().get(row);
                    String written = word instanceof Double figure ? label.format().write(figure) : (String) word;
                    assertThat(written).as("%s: label of %s, row %s", chart.name(), series.column(), row)
                            .isEqualTo(figures.isPresent(row) ? part.labelText(series, row) : "");
                }
            });
        }
        for (int line = SheetLayout.TITLE; line < SheetLayout.FIRST; line++) {
            assertThat(sheet.getRow(line - 1)).noneMatch(cell -> value(cell).equals("."));
        }
    }

    private static void assertProved(XSSFWorkbook book, PlainChart chart) {
        Sheet sheet = book.getSheet(chart.name() + " series");
        chart.plan().identities().forEach(identity -> assertThat(cells(sheet, identity.statement(), chart.data().rowCount()).orElseThrow())
                .as(chart.name() + ": " + identity.statement()).containsOnly("OK"));
        if (!chart.plan().identities().isEmpty()) {
            assertThat(value(sheet.getRow(SheetLayout.PROOF - 1).getCell(1))).as(chart.name()).isEqualTo("OK");
        }
    }

    @Test(groups = "nightly")
    public void everyPatternRecalculatesToItsSeries() throws Exception {
        List<Example> gallery = Gallery.all();
        Engines.draw(gallery.stream().map(example -> Page.of(example.plain())).toList(), file, Size.STANDARD);
        recalculated(book -> gallery.forEach(example -> {
            PlainChart plain = example.plain();
            assertHolds(book, plain);
            assertProved(book, plain);
        }));
    }

    @Test
    public void everyPatternFollowsEditsOfCellsAndSettings() throws Exception {
        List<Example> gallery = Gallery.some();
        Engines.draw(gallery.stream().map(example -> Page.of(example.plain())).toList(), file, Size.STANDARD);
        try (XSSFWorkbook book = open()) {
            EDITS.forEach(edit -> apply(edit, book.getSheet(edit.table())));
            book.getSheet("Settings").getRow(1).getCell(1).setCellValue(300);
            for (int i = 0; i < book.getNumberOfSheets(); i++) {
                book.setSheetHidden(i, book.getSheetName(i).endsWith(" series"));
            }
            try (OutputStream out = Files.newOutputStream(file)) {
                book.write(out);
            }
        }
        Settings lower = Gallery.SETTINGS.with("goal", 300);
        recalculated(book -> gallery.forEach(example -> {
            PlainChart after = example.chart().over(edited(example.table()), lower);
            assertHolds(book, after);
            assertProved(book, example.plain());
        }));
    }

    private XSSFWorkbook open() throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return new XSSFWorkbook(in);
        }
    }

    private static void apply(Edit edit, Sheet sheet) {
        int column = IntStream.range(0, sheet.getRow(0).getLastCellNum())
                .filter(i -> sheet.getRow(0).getCell(i).getStringCellValue().equals(edit.column())).findFirst().orElseThrow();
        Row row = sheet.getRow(edit.row() + 1);
        if (Double.isNaN(edit.figure())) {
            row.removeCell(row.getCell(column));
        } else {
            row.createCell(column).setCellValue(edit.figure());
        }
    }

    private static Table edited(Table table) {
        Map<String, Column> columns = new LinkedHashMap<>();
        table.columns().forEach(column -> columns.put(column.name(), column));
        for (Edit edit : EDITS) {
            if (edit.table().equals(table.name())) {
                double[] figures = IntStream.range(0, table.rowCount()).mapToDouble(columns.get(edit.column())::number).toArray();
                figures[edit.row()] = edit.figure();
                columns.put(edit.column(), Column.numbers(edit.column(), figures));
            }
        }
        return Table.of(table.name(), columns.values().toArray(Column[]::new));
    }

    @Test
    public void manyRandomTablesRecalculateToTheSameCells() throws Exception {
        Random random = new Random(11);
        List<PlainChart> charts = new ArrayList<>();
        for (int i = 0; i < TestSize.of(12, 30); i++) {
            int rows = 1 + random.nextInt(40);
            Table table = Table.of("table " + i, Column.texts("c", IntStream.range(0, rows).mapToObj(r -> "r" + r).toArray(String[]::new)),
                    Column.numbers("v", random.ints(rows, -3, 5).mapToDouble(v -> v == 4 ? MISSING : v * 0.25).toArray()),
                    Column.numbers("limit", random.ints(rows, -3, 5).mapToDouble(v -> v == 4 ? MISSING : v * 0.25).toArray()));
            Split rule = i % 3 == 0 ? Split.at(dev.trellisgorge.formula.Formulas.column("limit")) : i % 3 == 1 ? Split.atSetting("goal") : Split.at(0.25);
            charts.add(Chart.of("c", Columns.of("v").classify(i % 2 == 0 ? rule : rule.ties(Ties.BELOW))).named("chart " + i)
                    .over(table, Settings.of("goal", 0.5)));
        }
        Engines.draw(charts.stream().map(Page::of).toList(), file, Size.STANDARD);
        recalculated(book -> charts.forEach(chart -> assertHolds(book, chart)));
    }

    @Test
    public void sentenceUnderAWaterfallIsFalseOnceItsOpeningRowIsMovedDown() throws Exception {
        Table storage = Table.of("storage", Column.texts("item", "Opening", "Rain", "Release"), Column.texts("kind", "start", "change", "change"),
                Column.numbers("volume_ml", 30, 20, -10));
        PlainChart chart = Chart.of("item", Waterfall.of("volume_ml").kinds("kind")).named("balance").over(storage, Settings.NONE);
        Engines.draw(chart, file);
        recalculated(book -> assertThat(texts(book.getSheet("balance"))).contains("The pieces add back to the figures on every row."));
        try (XSSFWorkbook book = open()) {
            Sheet raw = book.getSheet("storage");
            for (int column = 0; column < 3; column++) {
                Object first = value(raw.getRow(1).getCell(column));
                Object second = value(raw.getRow(2).getCell(column));
                set(raw.getRow(1).createCell(column), second);
                set(raw.getRow(2).createCell(column), first);
            }
            try (OutputStream out = Files.newOutputStream(file)) {
                book.write(out);
            }
        }
        recalculated(book -> {
            assertThat(texts(book.getSheet("balance"))).doesNotContain("The pieces add back to the figures on every row.").anyMatch(text -> text.startsWith("CHECK"));
            assertThat(cells(book.getSheet("balance series"), "no movement and no other start is lost before a start", 3).orElseThrow()).containsExactly("OK", "fails", "OK");
            Sheet series = book.getSheet("balance series");
            assertThat(value(HelperCells.over(series, SheetLayout.PROOF, "no movement and no other start is lost before a start"))).isEqualTo("row 8 fails");
            assertThat((String) value(series.getRow(SheetLayout.PROOF - 1).getCell(1))).startsWith("fails, see the columns ");
        });
    }

    private static List<String> texts(Sheet sheet) {
        List<String> texts = new ArrayList<>();
        sheet.forEach(row -> row.forEach(cell -> texts.add(String.valueOf(value(cell)))));
        return texts;
    }

    private static void set(Cell cell, Object value) {
        if (value instanceof Double figure) {
            cell.setCellValue(figure);
        } else {
            cell.setCellValue((String) value);
        }
    }

    @Test
    public void figuresOfABoardFollowTheirRows() throws Exception {
        Figure sum = Figure.of("size").total(Figure.Total.MEAN).title("Mean").text("MWh").slice("kind", "change");
        Engines.draw(List.of(new Page("board", "The board", 2, List.of(new Tile.OfFigure(sum.over(Gallery.ROWS, Gallery.SETTINGS))))), file, Size.STANDARD);
        recalculated(book -> {
            double mean = (520.5 + 70.25 + 150 + 431) / 4;
            assertSame("mean", cells(book.getSheet("size series"), "figure", 1).orElseThrow(), List.of(mean));
            List<Object> board = new ArrayList<>();
            book.getSheet("board").forEach(row -> row.forEach(cell -> board.add(value(cell))));
            assertThat(board).contains("The board", "Mean", "MWh").anySatisfy(cell -> assertSame("figure", List.of(cell), List.of(mean)));
        });
    }
}
