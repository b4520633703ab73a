package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.test.DatabaseServer;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Cells at the ends of what there is, computed here and in each database. */
public class SameEverywhereTest {
    private static final LocalDate[] DAYS = {LocalDate.of(1, 1, 1), LocalDate.of(1582, 10, 4), LocalDate.of(1582, 10, 14), LocalDate.of(1582, 10, 15), LocalDate.of(1900, 2, 28), null, LocalDate.of(9999, 12, 31), LocalDate.of(1000, 2, 28)};
    /** A letter whose first half sorts before the one before it. */
    private static final String[] NAMES = {"\uffee weir", "\ud83d\ude00 weir", "weir", "Weir", "\u00e9", null, "\ud834\udd1e", "z"};
    private static final Table ROWS = Table.of("t", Column.texts("name", NAMES), Column.dates("day", DAYS), Column.numbers("v", 1, 2, -0.0, 4, 5, 6, 7, 1e-300));

    private DatabaseServer server;

    @BeforeClass
    void start() {
        server = DatabaseServer.start();
    }

    @AfterClass
    void leave() {
        server.close();
    }

    private Login login(Dialect dialect) {
        return dialect == Dialect.POSTGRESQL ? new Login(server.url(), Optional.of(DatabaseServer.USER), Optional.of(DatabaseServer.PASSWORD)) : Login.to(dialect == Dialect.H2 ? "jdbc:h2:mem:" : "jdbc:duckdb:");
    }

    private static String written(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream().map(column -> column.isPresent(row) ? column.written(row) : "·").toList().toString()).toList().toString();
    }

    @DataProvider
    Object[][] databases() {
        return new Object[][] {{Dialect.H2}, {Dialect.POSTGRESQL}, {Dialect.DUCKDB}};
    }

    @Test(dataProvider = "databases")
    public void oldDaysAndTextsBeyondTheFirstPlaneAreTheSameThere(Dialect dialect) {
        Pipeline all = Pipeline.of("t");
        List<Pipeline> pipelines = List.of(all, all.then(new Order(Formulas.column("day"), false)), all.then(new Order(Formulas.column("name"), true)), all.then(new Slice("day", "1582-10-14")),
                all.then(new Keep(Formulas.column("day").atMost(Formulas.date(LocalDate.of(1582, 10, 14))))), all.then(new Keep(Formulas.column("name").above(Formulas.text("\uffee")))), all.then(new Keep(Formulas.column("day").atMost(Formulas.setting("end")))),
                all.then(new Total(List.of(), List.of(new Total.Figure("day", Total.Fold.LEAST, "first"), new Total.Figure("day", Total.Fold.GREATEST, "last")))));
        Settings settings = Settings.NONE.with("end", LocalDate.of(1582, 10, 14));
        Executor here = Executor.over(ROWS, settings);
        try (Database there = Database.open(login(dialect), dialect, List.of(DatabaseTable.of(ROWS)), settings, false)) {
            pipelines.forEach(pipeline -> assertThat(written(there.run(pipeline))).as(pipeline.toString()).isEqualTo(written(here.run(pipeline))));
        }
    }

    @DataProvider
    Object[][] others() {
        return new Object[][] {{Dialect.POSTGRESQL, "SELECT 1 AS a, 'NaN'::float8 AS v", "row 1, column 'v': the database holds a NaN"}, {Dialect.DUCKDB, "SELECT 1 AS a, 'nan'::DOUBLE AS v", "row 1, column 'v': the database holds a NaN"},
            {Dialect.H2, "SELECT 1 AS \"a\", CAST('NaN' AS DOUBLE PRECISION) AS \"v\"", "row 1, column 'v': the database holds a NaN"},
            {Dialect.POSTGRESQL, "SELECT 1 AS a, 'infinity'::date AS v", "the database holds a date that is none of the years 0 to 9999: infinity"}, {Dialect.DUCKDB, "SELECT 1 AS a, 'infinity'::DATE AS v", "a date that is none of the years 0 to 9999"},
            {Dialect.POSTGRESQL, "SELECT 1 AS a, '0044-03-15 BC'::date AS v", "a date that is none of the years 0 to 9999"}};
    }

    @Test(dataProvider = "others")
    public void whatIsNoNumberAndNoDayIsRefusedWithItsRow(Dialect dialect, String query, String message) {
        DatabaseTable table = DatabaseTable.asked("q", query).rowsBy("a");
        assertThatThrownBy(() -> JdbcQuery.read("q", login(dialect), dialect, (DatabaseTable.Asked) table.rows())).isInstanceOf(BadInput.class).hasMessageContaining(message);
        try (Database there = Database.open(login(dialect), dialect, List.of(table), Settings.NONE, false)) {
            assertThatThrownBy(() -> there.run(Pipeline.of("q"))).isInstanceOf(BadInput.class).hasMessageContaining(message);
        }
    }
}
