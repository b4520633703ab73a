package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
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
        return new Object[][] {{Dialect.POSTGRESQL, "SELECT 1 AS a, 'NaN'::float8 AS v", "row 1, column 'v': the database gives a NaN"}, {Dialect.DUCKDB, "SELECT 1 AS a, 'nan'::DOUBLE AS v", "row 1, column 'v': the database gives a NaN"},
            {Dialect.H2, "SELECT 1 AS \"a\", CAST('NaN' AS DOUBLE PRECISION) AS \"v\"", "row 1, column 'v': the database gives a NaN"},
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

    /** Sums that the rounding of each addition, or of its decimal digits, would change. */
    @Test(dataProvider = "databases")
    public void sumsOfDoublesAreTheSameToTheLastDigit(Dialect dialect) {
        SplittableRandom random = new SplittableRandom(20310);
        List<String> keys = new ArrayList<>();
        List<Double> figures = new ArrayList<>();
        for (int group = 0; group < TestSize.of(30, 120); group++) {
            double scale = new double[] {10, 100, 1e6, 0x1p20}[random.nextInt(4)];
            double size = Math.pow(10, random.nextInt(-1, 13));
            for (int i = random.nextInt(1, group % 9 == 0 ? 400 : 7); i > 0; i--) {
                keys.add("g" + group);
                figures.add(Math.rint((random.nextDouble() - (group % 3 == 0 ? 0.5 : 0)) * Math.min(size * scale, 1e15)) / scale);
            }
        }
        keys.addAll(List.of("tenths", "tenths", "tenths", "ends", "ends", "ends", "tiny", "tiny", "none"));
        figures.addAll(Arrays.asList(0.1, 0.1, 0.1, 1e16, 1.0, -1e16, 1e-300, 3e-300, null));
        Table table = Table.of("t", Column.texts("key", keys.toArray(String[]::new)), Column.numbers("v", figures.stream().mapToDouble(v -> v == null ? Double.NaN : v).toArray()));
        Formula v = Formulas.column("v");
        List<Pipeline> pipelines = List.of(Pipeline.of("t").then(new Total(List.of("key"), List.of(new Total.Figure("v", Total.Fold.SUM, "sum"), new Total.Figure("v", Total.Fold.MEAN, "mean")))),
                Pipeline.of("t").then(new AddColumn("so far", Formulas.cumulative(v))), Pipeline.of("t").then(new AddColumn("share", v.over(Formulas.sum(v)))));
        Executor here = Executor.over(table, Settings.NONE);
        try (Database there = Database.open(login(dialect), dialect, List.of(DatabaseTable.of(table)), Settings.NONE, false)) {
            pipelines.forEach(pipeline -> assertThat(written(there.run(pipeline))).as(pipeline.toString()).isEqualTo(written(here.run(pipeline))));
        }
    }

    private static final String METERS = "SELECT 1 AS n, CAST(9007199254740992 AS BIGINT) AS meter, CAST(0.1 AS DECIMAL(5, 1)) AS mwh UNION ALL SELECT 2, 9007199254740993, 0.2 UNION ALL SELECT 3, 9007199254740993, 0.3";

    private static Pipeline byMeter(Total.Fold fold) {
        return Pipeline.of("q").then(new Total(List.of("meter"), List.of(new Total.Figure("mwh", fold, "mwh"))));
    }

    private static DatabaseTable query(Dialect dialect, Map<String, Kind> kinds) {
        String text = dialect == Dialect.H2 ? "SELECT N AS \"n\", METER AS \"meter\", MWH AS \"mwh\" FROM (" + METERS + ") AS r" : METERS;
        return DatabaseTable.asked("q", text).rowsBy("n").kinds(kinds);
    }

    /** Of a query: their codes are keys, and reported apart; they come over as texts, or not at all. */
    @Test(dataProvider = "databases")
    public void keysThatNoDoubleTellsApartAreTwo(Dialect dialect) {
        try (Database there = Database.open(login(dialect), dialect, List.of(query(dialect, Map.of())), Settings.NONE, false)) {
            assertThatThrownBy(() -> there.run(byMeter(Total.Fold.SUM))).isInstanceOf(BadInput.class)
                    .hasMessageContaining("table 'q', row 2, column 'meter': the database holds a whole number of more digits than a figure keeps: 9007199254740993; kinds: {meter: text} has such numbers as codes, and 'number' rounded");
            Pipeline counted = byMeter(Total.Fold.SUM).then(new Total(List.of(), List.of(new Total.Figure("mwh", Total.Fold.COUNT, "meters"), new Total.Figure("mwh", Total.Fold.GREATEST, "most"))));
            assertThat(written(there.run(counted))).isEqualTo("[[2, 0.5]]");
            assertThat(written(there.run(Pipeline.of("q").then(new Keep(Formulas.column("meter").equalTo(Formulas.number(9007199254740992.0)))).then(new Choose(List.of("n")))))).isEqualTo("[[1]]");
        }
        try (Database there = Database.open(login(dialect), dialect, List.of(query(dialect, Map.of("meter", Kind.TEXT))), Settings.NONE, false)) {
            assertThat(written(there.run(byMeter(Total.Fold.SUM)))).isEqualTo("[[9007199254740992, 0.1], [9007199254740993, 0.5]]");
        }
        try (Database there = Database.open(login(dialect), dialect, List.of(query(dialect, Map.of("meter", Kind.NUMBER))), Settings.NONE, false)) {
            assertThat(written(there.run(byMeter(Total.Fold.SUM)))).isEqualTo("[[9007199254740992, 0.6]]");
        }
        Table here = JdbcQuery.read("q", login(dialect), dialect, (DatabaseTable.Asked) query(dialect, Map.of()).rows());
        assertThat(written(here)).isEqualTo("[[1, 9007199254740992, 0.1], [2, 9007199254740993, 0.2], [3, 9007199254740993, 0.3]]");
        assertThat(here.notes()).extracting(Note::sentence).containsExactly("'meter' is read as codes, as it holds whole numbers of more digits than a figure keeps; kinds: {meter: number} has them as figures all the same");
        assertThat(JdbcQuery.read("q", login(dialect), dialect, (DatabaseTable.Asked) query(dialect, Map.of()).rows(), Map.of("meter", Kind.NUMBER)).column("meter").number(1)).isEqualTo(9007199254740992.0);
        assertThatThrownBy(() -> JdbcQuery.read("q", login(dialect), dialect, (DatabaseTable.Asked) query(dialect, Map.of()).rows(), Map.of("metre", Kind.NUMBER))).hasMessageContaining("there is no column 'metre'. Did you mean 'meter'?");
        assertThatThrownBy(() -> JdbcQuery.read("q", login(dialect), dialect, (DatabaseTable.Asked) query(dialect, Map.of()).rows(), Map.of("meter", Kind.DATE))).hasMessageContaining("'kinds': 'meter' is a number in the database, not a date; convert it in a query");
    }

    /** Of a table, which is looked at before: codes are texts from the start, and decimals are added up as such. */
    @Test(dataProvider = "databases")
    public void wholeNumbersAndDecimalsOfATableAreExact(Dialect dialect) throws SQLException {
        try (Folder folder = new Folder()) {
            String url = dialect == Dialect.DUCKDB ? "jdbc:duckdb:" + folder.path("plant.db") : dialect == Dialect.H2 ? "jdbc:h2:mem:exact" : server.url();
            checkTable(dialect, new Login(url, login(dialect).user(), login(dialect).password()));
        }
    }

    private static void checkTable(Dialect dialect, Login login) throws SQLException {
        Connection kept = login.open(Place.of(""), Map.of());
        try (java.sql.Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"exact\" (\"n\" INTEGER, \"meter\" BIGINT, \"mwh\" NUMERIC(9, 2), \"more\" NUMERIC(4, 1))");
            use.execute("INSERT INTO \"exact\" SELECT n, 9007199254740992 + MOD(n, 2), 0.1, 0.2 FROM (VALUES (1), (2), (3), (4), (5), (6), (7), (8), (9), (10)) AS v (n)");
            if (dialect == Dialect.DUCKDB) {
                kept.close(); // a file that is open to write is not opened to read
            }
            DatabaseTable table = DatabaseTable.named("t", "exact").rowsBy("n");
            Pipeline all = Pipeline.of("t");
            try (Database there = Database.open(login, dialect, List.of(table), Settings.NONE, false)) {
                assertThat(there.known().sources().get("t").field("meter").kind()).isEqualTo(Kind.TEXT);
                Table sums = there.run(all.then(new Total(List.of("meter"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"), new Total.Figure("n", Total.Fold.COUNT, "rows")))));
                assertThat(written(sums)).isEqualTo("[[9007199254740993, 0.5, 5], [9007199254740992, 0.5, 5]]");
                assertThat(sums.notes()).extracting(Note::sentence).contains("'meter' is read as codes, as it holds whole numbers of more digits than a figure keeps; kinds: {meter: number} has them as figures all the same");
                assertThat(written(there.run(all.then(new Total(List.of(), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))))))).isEqualTo("[[1]]");
                assertThat(written(there.run(all.then(new Unpivot(List.of("mwh", "more"), "which", "v")).then(new Total(List.of("which"), List.of(new Total.Figure("v", Total.Fold.SUM, "v")))))))
                        .isEqualTo("[[mwh, 1], [more, 2]]");
                assertThat(written(there.run(all.then(new AddColumn("so far", Formulas.cumulative(Formulas.column("mwh")))).then(new Top(3)).then(new Choose(List.of("n", "so far")))))).isEqualTo("[[1, 0.1], [2, 0.2], [3, 0.3]]");
                Pipeline join = all.then(new Join(Pipeline.of("t").then(Total.distinct("meter")), Map.of("meter", "meter"), Join.Way.INNER, false));
                assertThat(there.run(join).rowCount()).isEqualTo(10);
            }
            try (Database there = Database.open(login, dialect, List.of(table.kinds(Map.of("meter", Kind.NUMBER))), Settings.NONE, false)) {
                assertThat(there.run(all).notes()).extracting(Note::sentence).contains("'meter' holds whole numbers of more digits than a figure keeps, and is read as figures: they are rounded");
            }
        } finally {
            kept.close();
        }
    }

    /** Half past eleven in the evening of one day, in UTC, is the next day further east. */
    @Test(dataProvider = "databases")
    public void daysOfMomentsAreThoseOfTheTimeZoneThatIsStated(Dialect dialect) {
        String moment = "SELECT 1 AS n, CAST('2031-03-30 23:30:00+00' AS TIMESTAMP WITH TIME ZONE) AS at, CAST('2031-03-30 23:30:00' AS TIMESTAMP) AS clock";
        DatabaseTable query = DatabaseTable.asked("q", dialect == Dialect.H2 ? "SELECT N AS \"n\", AT AS \"at\", CLOCK AS \"clock\" FROM (" + moment + ") AS r" : moment).rowsBy("n");
        Map<Login, String> days = Map.of(login(dialect), "2031-03-30", login(dialect).in(ZoneId.of("Europe/Berlin")), "2031-03-31", login(dialect).in(ZoneId.of("America/Lima")), "2031-03-30");
        days.forEach((login, day) -> {
            String note = "'at' holds moments, whose days are those of the time zone " + login.zoneName();
            try (Database there = Database.open(login, dialect, List.of(query), Settings.NONE, false)) {
                Table rows = there.run(Pipeline.of("q"));
                assertThat(written(rows)).isEqualTo("[[1, " + day + ", 2031-03-30]]");
                assertThat(rows.notes()).extracting(Note::sentence).containsExactly(note);
                assertThat(there.run(Pipeline.of("q").then(new Slice("at", day))).rowCount()).isEqualTo(1);
            }
            Table here = JdbcQuery.read("q", login, dialect, (DatabaseTable.Asked) query.rows());
            assertThat(written(here)).isEqualTo("[[1, " + day + ", 2031-03-30]]");
            assertThat(here.notes()).extracting(Note::sentence).containsExactly(note);
        });
    }
}
