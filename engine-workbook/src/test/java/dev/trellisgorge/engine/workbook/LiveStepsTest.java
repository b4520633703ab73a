package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.testng.annotations.Test;

/** Workbooks whose steps are formulas follow the raw cells, and say what does not. */
@Test(groups = TestSize.SLOW)
public class LiveStepsTest {
    private static final int EDITED = TestSize.of(8, 100);
    private static final int SPARE = 4;
    private static final double CLOSE = 1e-9;
    private static final Table GENERATION = Table.of("generation", Column.texts("month", "2031-01", "2031-01", "2031-02", "2031-02", "2031-03", "2031-03"),
            Column.texts("station", "Mill Race", "Heron Weir", "Mill Race", "Heron Weir", "Mill Race", "Heron Weir"), Column.numbers("mwh", 150, 400, 120, 380, 210, 90));

    /** A plan whose steps are formulas throughout, and what it comes to once some raw cells are others. */
    private record Edited(Path file, PlainChart drawn, PlainChart after) {
    }

    private static Path drawn(PlainChart chart, Consumer<String> warnings) throws IOException {
        return drawn(chart, Options.STANDARD, warnings);
    }

    private static Path drawn(PlainChart chart, Options options, Consumer<String> warnings) throws IOException {
        Path file = Files.createTempFile("steps", ".xlsx");
        try (OutputStream out = Files.newOutputStream(file)) {
            Engines.draw(List.of(Page.of(chart)), new WorkbookEngine(), "xlsx", options, out, warnings);
        }
        return file;
    }

    private static void edit(Path file, Consumer<XSSFWorkbook> edits) throws IOException {
        XSSFWorkbook book;
        try (InputStream in = Files.newInputStream(file)) {
            book = new XSSFWorkbook(in);
        }
        edits.accept(book);
        try (OutputStream out = Files.newOutputStream(file)) {
            book.write(out);
        }
        book.close();
    }

    /** Writes into the cell that a setting's name stands for. */
    private static void setting(XSSFWorkbook book, String name, Object value) {
        CellReference at = new CellReference(book.getName(name).getRefersToFormula());
        set(book.getSheet(at.getSheetName()).getRow(at.getRow()).createCell(at.getCol()), value);
    }

    private static void set(Sheet sheet, String column, int row, Object cell) {
        int at = IntStream.range(0, sheet.getRow(0).getLastCellNum()).filter(i -> sheet.getRow(0).getCell(i).getStringCellValue().equals(column)).findFirst().orElseThrow();
        set((sheet.getRow(row + 1) == null ? sheet.createRow(row + 1) : sheet.getRow(row + 1)).createCell(at), cell);
    }

    private static void set(Cell changed, Object cell) {
        if (cell instanceof String text) {
            changed.setCellValue(text);
        } else if (cell instanceof LocalDate day) {
            changed.setCellValue(day);
        } else if (cell instanceof Boolean truth) {
            changed.setCellValue(truth);
        } else {
            changed.setCellValue((Double) cell);
        }
    }

    /** The cells of a row below the others. */
    private static void add(Sheet sheet, Table table, int row) {
        for (Column column : table.columns()) {
            if (column.isPresent(row)) {
                set(sheet, column.name(), row, switch (column.kind()) {
                    case TEXT -> column.written(row);
                    case DATE -> column.date(row).orElseThrow();
                    case TRUTH -> column.number(row) == 1;
                    case NUMBER -> column.number(row);
                });
            }
        }
    }

    /** A table with copies of some of its rows below the others. */
    private static Table longer(Table table, int[] copied) {
        int[] rows = IntStream.concat(IntStream.range(0, table.rowCount()), IntStream.of(copied)).toArray();
        return Table.of(table.name(), table.columns().stream().map(column -> column.at(rows)).toArray(Column[]::new));
    }

    private static Table with(Table table, String column, Map<Integer, Double> figures) {
        List<Column> columns = new ArrayList<>();
        for (Column each : table.columns()) {
            columns.add(!each.name().equals(column) ? each : Column.numbers(column, IntStream.range(0, table.rowCount()).mapToDouble(row -> figures.getOrDefault(row, each.number(row))).toArray()));
        }
        return Table.of(table.name(), columns.toArray(Column[]::new));
    }

    /** Other values of the settings that plans read, each of its kind. */
    private static Settings other(Settings settings, Random dice) {
        List<String> places = List.of("Weir", "weir", "We", "W", "r1");
        return settings.with("goal", dice.nextInt(-2, 7)).with("place", places.get(dice.nextInt(places.size()))).with("day", LocalDate.of(2030, 6, 1).plusDays(dice.nextInt(600)));
    }

    /** A random plan with two raw figures changed, and settings where that is asked for; empty where a step stays as it was, or the changed rows make no chart. */
    private static Optional<Edited> edited(long seed, int added, boolean settings) throws IOException {
        RandomPlan random = RandomPlan.of(seed, Within.SHEET);
        Random dice = new Random(seed);
        Table raw = random.tables().get("rows");
        String column = dice.nextBoolean() ? "a" : "b";
        List<Integer> there = IntStream.range(0, raw.rowCount()).filter(raw.column(column)::isPresent).boxed().toList();
        if (there.isEmpty() || random.plan().pipeline().steps().isEmpty()) {
            return Optional.empty();
        }
        Map<Integer, Double> figures = new LinkedHashMap<>();
        IntStream.range(0, 2).forEach(i -> figures.put(there.get(dice.nextInt(there.size())), (double) dice.nextInt(-4, 9)));
        Map<String, Table> tables = new LinkedHashMap<>(random.tables());
        int[] copied = IntStream.range(0, added).map(i -> dice.nextInt(raw.rowCount())).toArray();
        IntStream.range(0, added).filter(i -> raw.column(column).isPresent(copied[i])).forEach(i -> figures.put(raw.rowCount() + i, (double) dice.nextInt(-4, 9)));
        Table changed = with(longer(raw, copied), column, figures);
        tables.put("rows", changed);
        Settings values = settings ? other(random.settings(), dice) : random.settings();
        if (settings && random.plan().settingsRead().isEmpty() && random.plan().settingsOfSteps().isEmpty()) {
            return Optional.empty();
        }
        try {
            PlainChart drawn = random.plan().over(random.executor());
            PlainChart after = random.plan().over(Executor.of(tables, values));
            List<String> warnings = new ArrayList<>();
            if (drawn.data().rowCount() == 0) {
                return Optional.empty();
            }
            Path file = drawn(drawn, added == 0 ? Options.STANDARD : Options.STANDARD.spare(SPARE, OptionalInt.of(SPARE)), warnings::add);
            boolean[] isLive = new boolean[1];
            edit(file, book -> {
                isLive[0] = warnings.stream().noneMatch(sentence -> sentence.contains("stay as") || sentence.contains("stays as")) && book.getSheet("rows") != null;
                if (isLive[0]) {
                    IntStream.range(raw.rowCount(), changed.rowCount()).forEach(row -> add(book.getSheet("rows"), changed, row));
                    if (settings) {
                        List.of("goal", "place", "day").forEach(name -> setting(book, name, RandomPlan.cell(values.value(name), 0)));
                    }
                    figures.forEach((row, figure) -> set(book.getSheet("rows"), column, row, figure));
                }
            });
            if (!isLive[0]) {
                Files.delete(file);
                return Optional.empty();
            }
            return Optional.of(new Edited(file, drawn, after));
        } catch (BadInput refused) {
            return Optional.empty();
        }
    }

    private static Object value(Cell cell) {
        CellType type = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
        return switch (type) {
            case NUMERIC -> (Object) cell.getNumericCellValue();
            case BOOLEAN -> cell.getBooleanCellValue();
            case STRING -> cell.getStringCellValue();
            case ERROR -> null;
            default -> "";
        };
    }

    @Test
    public void seriesFollowEditsOfRawCellsThroughAllSteps() throws Exception {
        follow(0, false);
    }

    @Test
    public void seriesTakeInRowsThatAreAddedBelow() throws Exception {
        follow(2, false);
    }

    @Test
    public void seriesFollowSettingsAndWhatIsPickedFromListsBesideEditsOfRawCells() throws Exception {
        follow(0, true);
    }

    private static void follow(int added, boolean settings) throws Exception {
        Office.require();
        List<Edited> all = new ArrayList<>();
        for (long seed = 5_000; all.size() < EDITED; seed++) {
            edited(seed, added, settings).ifPresent(all::add);
        }
        List<Path> saved = Office.recalculated(all.stream().map(Edited::file).toList());
        int compared = 0;
        for (int i = 0; i < all.size(); i++) {
            try (InputStream in = Files.newInputStream(saved.get(i)); XSSFWorkbook book = new XSSFWorkbook(in)) {
                compared += compared(book, all.get(i));
            } finally {
                Files.delete(saved.get(i));
                Files.delete(all.get(i).file());
            }
        }
        assertThat(compared).isGreaterThan(EDITED * 3 / 4);
    }

    /** 1 where the rows have room and all cells are the same; 0 where the page says that they have none. */
    private static int compared(XSSFWorkbook book, Edited edited) {
        Sheet sheet = book.getSheet(edited.drawn().name() + " series");
        int first = HelperCells.column(sheet, edited.drawn().plan().series().get(0));
        int lines = (int) IntStream.rangeClosed(SheetLayout.FIRST - 1, sheet.getLastRowNum()).filter(line -> sheet.getRow(line) != null && sheet.getRow(line).getCell(first) != null).count();
        ComputedColumns after = edited.after().data();
        if (after.rowCount() > lines) {
            List<Object> page = new ArrayList<>();
            book.getSheet(edited.drawn().name()).forEach(line -> line.forEach(cell -> page.add(value(cell))));
            assertThat(page).as(edited.drawn().name()).contains("CHECK: there are more rows or columns now than are read; draw it again.");
            return 0;
        }
        for (String series : edited.drawn().plan().series()) {
            Column cells = after.column(series);
            for (int row = 0; row < lines; row++) {
                Object wanted = row >= after.rowCount() || !cells.isPresent(row) ? null : cells.kind() == Kind.TEXT ? cells.written(row) : (Object) cells.number(row);
                Object found = value(HelperCells.cell(sheet, series, row));
                boolean same = wanted instanceof Double figure && found instanceof Double other ? Math.abs(figure - other) <= CLOSE * Math.max(1, Math.abs(figure)) : Objects.equals(wanted, found);
                assertThat(same).as("%s, %s, row %d: %s for %s%n%s%n%s", edited.drawn().name(), series, row, found, wanted, edited.drawn().plan().pipeline().steps(),
                        HelperCells.cell(sheet, series, row).getCellFormula()).isTrue();
            }
        }
        return 1;
    }

    private static PlainChart monthly(Table generation) {
        Executor executor = Executor.over(generation, Settings.of("goal", 100));
        Pipeline steps = Pipeline.of("generation").then(new Keep(Formulas.column("mwh").atLeast(Formulas.setting("goal"))))
                .then(new Total(List.of("month"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh")))).then(new Order(Formulas.column("mwh"), true));
        return Chart.of("month", Columns.of("mwh")).named("monthly").plan(steps, executor.known()).over(executor);
    }

    @Test
    public void totalOfWhatIsKeptIsInOrderAfterARawCellAndASettingAreChanged() throws Exception {
        Office.require();
        Path file = drawn(monthly(GENERATION), sentence -> {
            throw new AssertionError(sentence);
        });
        edit(file, book -> {
            set(book.getSheet("generation"), "mwh", 5, 700.0);
            book.getSheet("Settings").getRow(1).getCell(1).setCellValue(130);
        });
        try (InputStream in = Files.newInputStream(Office.recalculated(file)); XSSFWorkbook book = new XSSFWorkbook(in)) {
            Sheet sheet = book.getSheet("monthly series");
            assertThat(IntStream.range(0, 3).mapToObj(row -> value(HelperCells.cell(sheet, 0, row)) + " " + value(HelperCells.cell(sheet, "value", row))))
                    .containsExactly("2031-03 910.0", "2031-01 550.0", "2031-02 380.0");
            assertThat(book.getSheet("monthly rows").getRow(SheetLayout.PROOF - 1).getCell(0).getStringCellValue()).isEqualTo("keep the rows where mwh >= :goal");
        } finally {
            Files.delete(file);
        }
    }

    @Test
    public void sliceIsACellWithAListOfWhatThereIs() throws Exception {
        Office.require();
        Executor executor = Executor.over(GENERATION, Settings.NONE);
        Pipeline steps = Pipeline.of("generation").then(new Slice("month", "2031-03"));
        PlainChart chart = Chart.of("station", Columns.of("mwh")).named("shown").plan(steps, executor.known()).over(executor);
        Path file = drawn(chart, sentence -> {
            throw new AssertionError(sentence);
        });
        edit(file, book -> {
            Sheet settings = book.getSheet("Settings");
            assertThat(settings.getRow(1)).extracting(LiveStepsTest::value).contains("month", "2031-03", "which month is shown by shown");
            assertThat(settings.getDataValidations()).singleElement().satisfies(list -> {
                assertThat(list.getValidationConstraint().getFormula1()).isEqualTo("Settings!$F$2:$F$4");
                assertThat(list.getRegions().getCellRangeAddresses()).extracting(Object::toString).allMatch(range -> range.contains("B2"));
            });
            settings.getRow(1).getCell(1).setCellValue("2031-01");
        });
        try (InputStream in = Files.newInputStream(Office.recalculated(file)); XSSFWorkbook book = new XSSFWorkbook(in)) {
            Sheet sheet = book.getSheet("shown series");
            assertThat(IntStream.range(0, 2).mapToObj(row -> value(HelperCells.cell(sheet, 0, row)) + " " + value(HelperCells.cell(sheet, "value", row)))).containsExactly("Mill Race 150.0", "Heron Weir 400.0");
        } finally {
            Files.delete(file);
        }
    }

    @Test
    public void slicesBySeveralCellsAndByARangeBeforeATotalAreCellsToo() throws Exception {
        Office.require();
        Executor executor = Executor.over(GENERATION, Settings.NONE);
        Pipeline steps = Pipeline.of("generation").then(new Slice("month", new Cut.Range(Optional.of(Formulas.text("2031-01")), Optional.of(Formulas.text("2031-02")))))
                .then(new Slice("station", new Cut.OneOf(List.of(Formulas.text("Mill Race"), Formulas.text("Heron Weir")))))
                .then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))));
        PlainChart chart = Chart.of("station", Columns.of("mwh")).named("some").plan(steps, executor.known()).over(executor);
        Path file = drawn(chart, sentence -> {
            throw new AssertionError(sentence);
        });
        edit(file, book -> {
            Sheet settings = book.getSheet("Settings");
            assertThat(IntStream.rangeClosed(1, 4).mapToObj(row -> value(settings.getRow(row).getCell(0)) + " " + value(settings.getRow(row).getCell(1)) + " " + value(settings.getRow(row).getCell(3))))
                    .containsExactly("month_from 2031-01 from which month on some shows", "month_to 2031-02 up to which month some shows", "station Mill Race a station that is shown by some",
                            "station_2 Heron Weir a station that is shown by some");
            settings.getRow(1).getCell(1).setCellValue("2031-02");
            settings.getRow(2).getCell(1).setCellValue("2031-03");
            settings.getRow(3).getCell(1).setCellValue("Heron Weir");
        });
        Path saved = Office.recalculated(file);
        try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
            Sheet sheet = book.getSheet("some series");
            assertThat(IntStream.range(0, 2).mapToObj(row -> value(HelperCells.cell(sheet, 0, row)) + " " + value(HelperCells.cell(sheet, "value", row)))).containsExactly("Heron Weir 470.0", " null");
        } finally {
            Files.delete(file);
            Files.delete(saved);
        }
    }

    @Test
    public void orderOfRankedRowsIsTurnedByACell() throws Exception {
        Office.require();
        Table ties = Table.of("t", Column.texts("station", "Mill Race", "Heron Weir", "Low Lock", "Fern Pool"), Column.numbers("mwh", 150, 400, Double.NaN, 150));
        Executor executor = Executor.over(ties, Settings.NONE);
        PlainChart chart = Chart.of("station", Columns.of("mwh")).named("ranked").rank(Ranking.by(Formulas.column("mwh"))).plan(Pipeline.of("t"), executor.known()).over(executor);
        Map<String, List<String>> wanted = Map.of("largest first", List.of("Heron Weir", "Mill Race", "Fern Pool", "Low Lock"), "smallest first", List.of("Mill Race", "Fern Pool", "Heron Weir", "Low Lock"),
                "as in the table", List.of("Mill Race", "Heron Weir", "Low Lock", "Fern Pool"));
        for (Map.Entry<String, List<String>> order : wanted.entrySet()) {
            Path file = drawn(chart, sentence -> {
                throw new AssertionError(sentence);
            });
            edit(file, book -> book.getSheet("Settings").getRow(1).getCell(1).setCellValue(order.getKey()));
            Path saved = Office.recalculated(file);
            try (InputStream in = Files.newInputStream(saved); XSSFWorkbook book = new XSSFWorkbook(in)) {
                Sheet sheet = book.getSheet("ranked series");
                assertThat(IntStream.range(0, 4).mapToObj(row -> value(HelperCells.cell(sheet, 0, row)))).as(order.getKey()).isEqualTo(new ArrayList<Object>(order.getValue()));
            } finally {
                Files.delete(file);
                Files.delete(saved);
            }
        }
    }

    @Test
    public void rowsThatDoNotFitOnASheetStayAsTheyWereTotalled() throws Exception {
        Table many = Table.of("many", Column.texts("n", IntStream.range(0, 1_100_000).mapToObj(row -> "s" + row % 3).toArray(String[]::new)),
                Column.numbers("v", IntStream.range(0, 1_100_000).mapToDouble(row -> 1).toArray()));
        Executor executor = Executor.over(many, Settings.NONE);
        Pipeline steps = Pipeline.of("many").then(new Total(List.of("n"), List.of(new Total.Figure("v", Total.Fold.SUM, "v"))));
        List<String> warnings = new ArrayList<>();
        Path file = drawn(Chart.of("n", Columns.of("v")).named("c").plan(steps, executor.known()).over(executor), warnings::add);
        assertThat(warnings).singleElement().asString().endsWith("stays as it was when this was drawn, with all steps before it: the rows before it don't fit on a sheet");
        edit(file, book -> assertThat(value(HelperCells.cell(book.getSheet("c series"), "value", 0))).isEqualTo(366_667.0));
        Files.delete(file);
    }

    @Test
    public void stepThatStaysIsToldWithItsReasonAndListedOnThePage() throws Exception {
        Executor executor = Executor.over(GENERATION, Settings.NONE);
        Pipeline steps = Pipeline.of("generation").then(Previous.row("mwh", "before").within("station")).then(new Slice("month", "2031-03"));
        PlainChart chart = Chart.of("station", Columns.of("before")).named("before").plan(steps, executor.known()).over(executor);
        List<String> warnings = new ArrayList<>();
        Path file = drawn(chart, warnings::add);
        String sentence = "'before': 'add before: mwh of the row before, for each station by itself' stays as it was when this was drawn, with all steps before it: the row before is looked for within station";
        assertThat(warnings).containsExactly(sentence);
        edit(file, book -> {
            List<Object> page = new ArrayList<>();
            book.getSheet("before").forEach(line -> line.forEach(cell -> page.add(value(cell))));
            assertThat(page).contains(sentence);
            assertThat(book.getSheet("before rows")).as("what follows it is formulas").isNotNull();
        });
        Files.delete(file);
    }
}
