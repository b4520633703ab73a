package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.Layout;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.TableFile;
import dev.trellisgorge.test.Folder;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Rows of files and tables that the embedded engine is given: in their order, whichever threads bring them. */
public class RowFeedTest {
    /** More than the first rows that are looked at. */
    private static final int ROWS = 5_000;
    private static final List<String> STATIONS = List.of("Mill Race", "Fern Pool", "Otter Bend", "Überlauf", "");
    private static final Table RIVERS = Table.named("rivers").column("station", Kind.TEXT).column("river", Kind.TEXT).row("Fern Pool", "Wend").row("Mill Race", "Arle").row("Überlauf", "Wend").build();
    private static final Step TOTAL = total("station");

    private Folder folder;

    @BeforeClass
    void makeFolder() {
        folder = new Folder();
    }

    @AfterClass
    void deleteFolder() {
        folder.close();
    }

    private static Total total(String... by) {
        return new Total(List.of(by), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"), new Total.Figure("day", Total.Fold.GREATEST, "last")));
    }

    private static String row(String station, int number) {
        return String.format("%s,2031-%02d-%02d,%d.%d,%d%n", station, 1 + number / 7 % 12, 1 + number % 28, number * 7919 % 500, number % 10, number % 3);
    }

    /** Stations that follow each other again and again. */
    private static String mixed() {
        StringBuilder text = new StringBuilder("station,day,mwh,gauge\n");
        IntStream.range(0, ROWS).forEach(row -> text.append(row(STATIONS.get((row + row / 5) % STATIONS.size()), row)));
        return text.toString();
    }

    private static String blocks() {
        StringBuilder text = new StringBuilder("station,day,mwh,gauge\n");
        IntStream.range(0, ROWS).forEach(row -> text.append(row(STATIONS.get(row * STATIONS.size() / ROWS), row)));
        return text.toString();
    }

    private static Pipeline of(Step... steps) {
        Pipeline all = Pipeline.of("generation");
        for (Step step : steps) {
            all = all.then(step);
        }
        return all;
    }

    @DataProvider
    Object[][] files() {
        String late = row("Weir", 3);
        return new Object[][] {
            {"keys again and again", mixed(), of(TOTAL)},
            {"a key that comes late", mixed() + late, of(TOTAL)},
            {"two that come late", mixed() + late + row("Alder Gate", 4) + late, of(TOTAL)},
            {"blocks", blocks(), of(TOTAL)},
            {"a condition before it", mixed(), of(new Keep(Formulas.column("mwh").above(Formulas.number(480))), TOTAL)},
            {"a condition of all rows", mixed(), of(new Keep(Formulas.column("mwh").atLeast(Formulas.max(Formulas.column("mwh")).times(Formulas.number(0.5)))), TOTAL)},
            {"several keys of other kinds", mixed(), of(new AddColumn("much", Formulas.column("mwh").above(Formulas.number(250))), total("gauge", "much", "station"))},
            {"periods", mixed(), of(PeriodOf.of("day", CalendarUnit.MONTH, "month"), total("month", "station"))},
            {"many keys", mixed(), of(new AddColumn("of", Formulas.column("mwh")), total("day", "station", "of"))},
            {"another table at hand", mixed(), of(new Join(Pipeline.of("rivers"), Map.of("station", "station"), Join.Way.INNER, false), total("river"))},
            {"columns that become rows", mixed(), of(new Unpivot(List.of("gauge", "mwh"), "what", "figure"), new Total(List.of("what", "station"), List.of(new Total.Figure("figure", Total.Fold.MEAN, "mean"))))},
            {"a total of all", mixed(), of(total())},
            {"a slice that stands in the last row alone", mixed() + late, of(new Slice("station", new Cut.OneOf(List.of(Formulas.text("Weir")))), TOTAL)},
            {"the first cell of each key", mixed(), of(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.FIRST, "mwh"))))},
            {"rows in an order", mixed(), of(new Order(Formulas.column("mwh"), true), TOTAL)},
            {"the first rows", mixed(), of(new Top(3_000), TOTAL)},
            {"steps after it", mixed() + late, of(TOTAL, new Order(Formulas.column("mwh"), true), new Top(3))},
            {"rows as they are", mixed() + mixed().substring("station,day,mwh,gauge\n".length()).repeat(14) + late, of()},
            {"no total", mixed(), of(new Keep(Formulas.column("mwh").above(Formulas.number(480))))},
        };
    }

    @Test(dataProvider = "files")
    public void totalsAreInTheOrderOfTheFile(String what, String text, Pipeline pipeline) {
        Path file = folder.file("generation.csv", text);
        FileHead head = FileHead.of(file, Layout.FOUND).orElseThrow();
        List<DatabaseTable> tables = List.of(new DatabaseTable("generation", new DatabaseTable.InFile(file, file.toString(), head, Optional.empty()), Optional.empty()), DatabaseTable.of(RIVERS));
        Table expected = Executor.of(Map.of("generation", TableFile.read("generation", file), "rivers", RIVERS), Settings.NONE).run(pipeline);
        try (Database database = Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, tables, Settings.NONE, true)) {
            Table found = database.run(pipeline);
            assertThat(written(found)).as(what).isEqualTo(written(expected));
            assertThat(found.notes()).hasToString(expected.notes().toString());
        }
    }

    private static Database over(Path file) {
        DatabaseTable table = new DatabaseTable("generation", new DatabaseTable.InFile(file, file.toString(), FileHead.of(file, Layout.FOUND).orElseThrow(), Optional.empty()), Optional.empty());
        return Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, List.of(table), Settings.NONE, false);
    }

    @Test
    public void aFileThatIsGoneIsTold() throws IOException {
        Path file = folder.file("gone.csv", mixed());
        try (Database database = over(file)) {
            assertThat(database.run(of(TOTAL)).rowCount()).isEqualTo(STATIONS.size());
            Files.delete(file);
            assertThatThrownBy(() -> database.run(of(TOTAL))).isInstanceOf(BadInput.class).hasMessageEndingWith("gone.csv: there is no such file");
        }
    }

    @Test
    public void aFileThatIsNoMorePlainIsReadOtherwise() throws IOException {
        Path file = folder.file("changed.csv", mixed());
        try (Database database = over(file)) {
            assertThat(database.run(of(TOTAL)).rowCount()).isEqualTo(STATIONS.size());
            Files.writeString(file, "Weir,2031-01-01,1_000,1\n", StandardOpenOption.APPEND);
            assertThatThrownBy(() -> database.run(of(TOTAL))).isInstanceOf(ReadOtherwise.class);
        }
    }

    /** A view would outlast the connection, which alone has them. */
    @Test
    public void noViewNamesThem() {
        try (Database database = over(folder.file("generation.csv", mixed()))) {
            Plan plan = Chart.of("station", Columns.of("mwh")).plan(of(TOTAL), database.known());
            assertThatThrownBy(() -> database.writeViews(Map.of("v", plan))).isInstanceOf(BadInput.class).hasMessage("table 'generation': is a file, which the database has no table of");
        }
    }

    /** The engine stops at the rows that are asked for; those behind may still be read otherwise. */
    @Test
    public void aRowThatNoStatementNeedsIsLookedAtToo() {
        Path file = folder.file("late.csv", mixed() + mixed().substring("station,day,mwh,gauge\n".length()).repeat(40) + "Weir,2031-01-01,1_000,1\n");
        try (Database database = over(file)) {
            assertThatThrownBy(() -> database.run(of(new Top(3)))).isInstanceOf(ReadOtherwise.class);
        }
    }

    private static Map<String, List<String>> written(Table table) {
        Map<String, List<String>> all = new LinkedHashMap<>();
        for (Column column : table.columns()) {
            all.put(column.name(), IntStream.range(0, table.rowCount()).mapToObj(row -> column.isPresent(row) ? column.written(row) : "(missing)").toList());
        }
        return all;
    }

    /** Held to exact arithmetic, over rows enough for several threads. */
    @Test
    public void sumsHangOnNoOrderOfRows() {
        int rows = 800_000;
        StringBuilder text = new StringBuilder("station,mwh\n");
        Map<String, BigDecimal> sums = new LinkedHashMap<>();
        for (int row = 0; row < rows; row++) {
            String station = STATIONS.get(row % 4);
            String figure = row % 1000 == 0 ? "123456789.012" : row % 7 == 0 ? "-0.0000000" + (1 + row % 9) : row * 7919L % 99_991 + "." + (1 + row % 999);
            text.append(station).append(',').append(figure).append('\n');
            sums.merge(station, new BigDecimal(Double.parseDouble(figure)), BigDecimal::add);
        }
        Path file = folder.file("sizes.csv", text.toString());
        Pipeline totals = Pipeline.of("sizes").then(new Total(List.of("station"), Stream.of(Total.Fold.SUM, Total.Fold.MEAN).map(fold -> new Total.Figure("mwh", fold, fold.toString())).toList()));
        DatabaseTable table = new DatabaseTable("sizes", new DatabaseTable.InFile(file, file.toString(), FileHead.of(file, Layout.FOUND).orElseThrow(), Optional.empty()), Optional.empty());
        try (Database database = Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, List.of(table), Settings.NONE, true)) {
            for (int time = 0; time < 5; time++) {
                Table found = database.run(totals);
                assertThat(found.column("station").toTexts()).containsExactly(sums.keySet().toArray(String[]::new));
                assertThat(found.column("sum").toNumbers()).containsExactly(sums.values().stream().mapToDouble(BigDecimal::doubleValue).toArray());
                assertThat(found.column("mean").toNumbers()).containsExactly(sums.values().stream().mapToDouble(sum -> sum.doubleValue() / (rows / 4)).toArray());
            }
        }
    }
}
