package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.conformance.SameCharts;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Diverging;
import dev.trellisgorge.pattern.Figure;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Words;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.DriverPropertyInfo;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Properties;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.logging.Logger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.h2.jdbcx.JdbcDataSource;
import org.testng.annotations.AfterClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Plans that are run in databases: the same charts, notes and refusals as over tables at hand. */
@Test(groups = TestSize.SLOW)
public class DatabaseTest {
    private static final Table GENERATION = Table.named("generation").column("station", Kind.TEXT).column("month", Kind.DATE).column("mwh", Kind.NUMBER).column("river", Kind.TEXT)
            .row("Fern Pool", LocalDate.of(2031, 1, 1), 120, "Wend").row("Mill Race", LocalDate.of(2031, 1, 1), 80, "Wend").row("Fern Pool", LocalDate.of(2031, 3, 1), 100, "Wend").row("Mill Race", LocalDate.of(2031, 3, 1), null, "Wend")
            .row("Otter Bend", LocalDate.of(2031, 3, 1), 40, "Wend").build();
    private static final Table CAPACITY = Table.named("capacity").column("station", Kind.TEXT).column("kw", Kind.NUMBER).row("Fern Pool", 400).row("Mill Race", 300).row("Mill Race", 200).row("Alder Gate", 100).build();

    private DatabaseServer server;

    @DataProvider
    public Object[][] databases() {
        return new Object[][] {{Dialect.DUCKDB, TestSize.of(20, 100)}, {Dialect.H2, TestSize.of(20, 60)}, {Dialect.POSTGRESQL, TestSize.of(20, 60)}};
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        if (server != null) {
            server.close();
        }
    }

    private synchronized Login login(Dialect dialect) {
        if (dialect == Dialect.POSTGRESQL) {
            server = server == null ? DatabaseServer.start() : server;
            return new Login(server.url(), Optional.of(DatabaseServer.USER), Optional.of(DatabaseServer.PASSWORD));
        }
        return Login.to(dialect == Dialect.DUCKDB ? "jdbc:duckdb:" : "jdbc:h2:mem:");
    }

    private Database with(Dialect dialect, Settings settings, Table... tables) {
        return Database.open(login(dialect), dialect, Stream.of(tables).map(DatabaseTable::of).toList(), settings, true);
    }

    @Test(dataProvider = "databases")
    public void chartsAreThoseOfTablesAtHand(Dialect dialect, int plans) {
        int compared = 0;
        int refused = 0;
        for (long seed = 100_000; compared < plans; seed++) {
            RandomPlan random = RandomPlan.of(seed, Within.SHEET);
            Optional<PlainChart> here = over(random);
            try (Database database = Database.open(login(dialect), dialect, random.tables().values().stream().map(DatabaseTable::of).toList(), random.settings(), true)) {
                PlainChart there = random.plan().over(database);
                assertThat(here).as("%s: what can't be drawn here", random.plan().name()).isPresent();
                SameCharts.check(random.plan().name(), here.get(), there);
                compared++;
            } catch (BadInput unsaid) {
                boolean said = !unsaid.getMessage().contains("isn't supported by the dialect " + dialect);
                assertThat(said && here.isPresent()).as("%s: %s", random.plan().name(), unsaid.getMessage()).isFalse();
                refused += said ? 0 : 1;
            }
        }
        assertThat(refused).isLessThan(compared / 2);
    }

    private static Optional<PlainChart> over(RandomPlan random) {
        try {
            return Optional.of(random.plan().over(random.executor()));
        } catch (BadInput noChart) {
            return Optional.empty();
        }
    }

    /** Steps over a table, and what is said of them. */
    @DataProvider
    public Object[][] mistakes() {
        return Stream.of(Dialect.DUCKDB, Dialect.H2, Dialect.POSTGRESQL).flatMap(dialect -> Stream.of(
                new Object[] {new Slice("station", "Fern Pol"), "column 'station': no row holds 'Fern Pol'. Did you mean 'Fern Pool'?"},
                new Object[] {new Slice("station", new Cut.OneOf(List.of(Formulas.text("Fern Pool"), Formulas.text("Mil Race")))), "no row holds 'Mil Race'. Did you mean 'Mill Race'?"},
                new Object[] {Join.by("capacity", "station"), "'Mill Race' stands on 2 rows of 'capacity', so the join would double this row"},
                new Object[] {new Pivot(List.of("month"), "station", "mwh", List.of("Fern Pool")), null},
                new Object[] {new Pivot(List.of("river"), "station", "mwh", List.of("Fern Pool")), "'Wend' has 'Fern Pool' on 2 rows; total the rows first"},
                new Object[] {PeriodOf.of("station", CalendarUnit.MONTH, "when"), "'Fern Pool' doesn't identify one month"})
                .map(each -> new Object[] {dialect, each[0], each[1]})).toArray(Object[][]::new);
    }

    @Test(dataProvider = "mistakes")
    public void whatStopsTheEvaluatorStopsADatabase(Dialect dialect, Step step, String said) {
        try (Database database = with(dialect, Settings.NONE, GENERATION, CAPACITY)) {
            Pipeline steps = Pipeline.of("generation").then(step).then(Total.distinct("month"));
            Pipeline taken = step instanceof Pivot pivot && pivot.by().contains("river") ? Pipeline.of("generation").then(step) : steps;
            if (said == null) {
                assertThat(database.run(taken).rowCount()).isEqualTo(2);
            } else {
                assertThatThrownBy(() -> database.run(taken)).isInstanceOf(BadInput.class).hasMessageContaining(said);
                assertThat(database.run(Pipeline.of("generation")).rowCount()).as("it goes on").isEqualTo(5);
            }
        }
    }

    @Test(dataProvider = "databases")
    public void notesCountWhatIsLeftOutAndPassedOver(Dialect dialect, int plans) {
        Pipeline steps = Pipeline.of("generation").then(new Keep(Formulas.column("month").atLeast(Formulas.date(LocalDate.of(2031, 1, 1))).and(Formulas.column("mwh").above(Formulas.number(50)))))
                .then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh")))).then(Join.by("capacity total", "station").way(Join.Way.INNER));
        Pipeline all = Pipeline.of("generation").then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.MEAN, "mean"), new Total.Figure("mwh", Total.Fold.SUM, "mwh"))))
                .then(new Rank(Formulas.column("mwh"), Rank.Way.DESCENDING, OptionalInt.of(1), Optional.of(new Rest("station", "Others", Map.of("mwh", Rest.Way.SUM, "mean", Rest.Way.MEAN), Map.of())), Optional.of("station"), Optional.empty()));
        Table capacity = Table.named("capacity total").column("station", Kind.TEXT).column("kw", Kind.NUMBER).row("Fern Pool", 400).row("Alder Gate", 100).build();
        Executor here = Executor.of(Map.of("generation", GENERATION, "capacity total", capacity), Settings.NONE);
        try (Database database = with(dialect, Settings.NONE, GENERATION, capacity)) {
            for (Pipeline pipeline : List.of(steps, all)) {
                assertThat(database.run(pipeline).notes().stream().map(Note::toString).sorted().toList()).isEqualTo(here.run(pipeline).notes().stream().map(Note::toString).sorted().toList());
            }
            Table ranked = database.run(all);
            assertThat(ranked.column("station").written(1)).isEqualTo("Others");
            assertThat(ranked.column("mean").number(1)).as("of the two cells below, as Mill Race has one").isEqualTo(60);
        }
    }

    @Test(dataProvider = "databases")
    public void linesAndFiguresAreOfAllRowsThatStayThere(Dialect dialect, int plans) {
        Words line = Words.of("Of ").and(new Window.Aggregate(Window.Fold.SUM, Formulas.column("mwh")), "#,##0").and(" MWh");
        try (Database database = with(dialect, Settings.NONE, GENERATION)) {
            assertThat(Words.lines("board", line, Words.NONE, Pipeline.of("generation"), database, Locale.ROOT).title()).isEqualTo("Of 340 MWh");
            PlainChart figure = Figure.of("mwh").total(Figure.Total.SUM).over(Pipeline.of("generation"), database);
            assertThat(figure.data().column("figure").number(0)).isEqualTo(340);
            assertThat(figure.data().rowCount()).isEqualTo(1);
            assertThat(figure.notes()).extracting(Note::toString).containsExactly("the sum of 'mwh' passes over 1 missing cell: Mill Race");
        }
    }

    @Test(dataProvider = "databases")
    public void tablesOfTheDatabaseAreFoundByName(Dialect dialect, int plans) throws SQLException {
        Login login = dialect == Dialect.H2 ? Login.to("jdbc:h2:mem:plant;DB_CLOSE_DELAY=-1") : dialect == Dialect.DUCKDB ? null : login(dialect);
        if (login == null) {
            return; // one in memory is gone between two connections; a file is in another test
        }
        try (Connection made = DriverManager.getConnection(login.url(), login.user().orElse(""), login.password().orElse("")); Statement use = made.createStatement()) {
            use.execute("DROP SCHEMA IF EXISTS plant CASCADE");
            use.execute("CREATE SCHEMA plant");
            use.execute("CREATE TABLE plant.output (station VARCHAR(40), mwh INTEGER, line INTEGER)");
            use.execute("INSERT INTO plant.output VALUES ('Fern Pool', 3, 2), ('Mill Race', 4, 1)");
        }
        String station = dialect == Dialect.H2 ? "STATION" : "station";
        String mwh = dialect == Dialect.H2 ? "MWH" : "mwh";
        for (DatabaseTable table : List.of(DatabaseTable.named("o", "plant.output"), DatabaseTable.named("o", "output"), DatabaseTable.asked("o", "SELECT * FROM plant.\"" + (dialect == Dialect.H2 ? "OUTPUT" : "output") + "\" WHERE mwh > 0;"))) {
            try (Database database = Database.open(login, dialect, List.of(table.rowsBy(dialect == Dialect.H2 ? "LINE" : "line")), Settings.NONE, false)) {
                PlainChart chart = Chart.of(station, Columns.of(Formulas.column(mwh))).plan(Pipeline.of("o"), database.known()).over(database);
                assertThat(chart.data().category().written(0)).isEqualTo("Mill Race");
                assertThat(chart.data().series().get(0).number(1)).isEqualTo(3);
                assertThat(database.known().sources().get("o").field(mwh).kind()).isEqualTo(Kind.NUMBER);
            }
        }
        assertThatThrownBy(() -> Database.open(login, dialect, List.of(DatabaseTable.named("o", "plant.outptu")), Settings.NONE, false)).isInstanceOf(BadInput.class)
                .hasMessageContaining("table 'o': the database has no table 'plant.outptu'. Did you mean").hasMessageMatching("(?is).*plant.output.*|.*'output'.*");
        assertThatThrownBy(() -> Database.open(login, dialect, List.of(DatabaseTable.named("o", "output").rowsBy("lin")), Settings.NONE, false)).isInstanceOf(BadInput.class).hasMessageContaining("there is no column 'lin'");
    }

    @Test(dataProvider = "databases")
    public void statementsGiveTheTextsOfLabelsBesideTheSeries(Dialect dialect, int plans) throws SQLException {
        Login login = login(dialect);
        DatabaseTable table = DatabaseTable.asked("o", "SELECT * FROM (VALUES ('Fern Pool', 1234.56, 1), ('Mill Race', -0.5, 2), ('Otter Bend', NULL, 3), ('Low Lock', 40, 4)) AS t (\"station\", \"mwh\", \"line\")").rowsBy("line");
        try (Database database = Database.open(login, dialect, List.of(table), Settings.NONE, false)) {
            Chart bare = Chart.of("station", Diverging.of("mwh"));
            assertThat(texts(bare.labels(Labels.VALUE.format("#,##0.0;(#,##0.0)")), database, login)).contains("1,234.6", "(0.5)", "");
            assertThat(texts(bare, database, login)).contains("1,234.56", "-0.50", "40.00");
            assertThat(texts(Chart.of("station", new Diverging(Formulas.column("mwh").over(Formulas.number(1e6)))), database, login)).contains("1.23E-3", "-5E-7", "4E-5");
            assertThat(texts(bare.labels(Labels.VALUE.format("0.0E00")), database, login)).contains("1.2E03", "-5.0E-01", "4.0E01");
            assertThat(texts(bare.labels(Labels.of(Formulas.concat(Formulas.written(Formulas.column("mwh")), Formulas.text(" MWh")))), database, login)).contains("1234.56 MWh", "-0.5 MWh", "40 MWh");
            Plan grouped = bare.labels(Labels.VALUE.format("##0.0E0")).plan(Pipeline.of("o"), database.known());
            assertThat(database.withoutLabels(grouped)).containsExactlyInAnyOrderElementsOf(grouped.series());
            assertThat(database.statement(grouped)).doesNotContain("text of");
        }
    }

    /** What a statement gives as the texts of labels, which is what the chart writes. */
    private static List<String> texts(Chart chart, Database database, Login login) throws SQLException {
        Plan plan = chart.plan(Pipeline.of("o"), database.known());
        PlainChart drawn = plan.over(database);
        List<String> wanted = new ArrayList<>();
        List<String> found = new ArrayList<>();
        IntStream.range(0, drawn.data().rowCount()).forEach(row -> drawn.series().forEach(series -> wanted.add(drawn.labelText(series, row))));
        try (Connection asked = DriverManager.getConnection(login.url(), login.user().orElse(""), login.password().orElse("")); Statement use = asked.createStatement(); ResultSet rows = use.executeQuery(database.statement(plan))) {
            while (rows.next()) {
                for (String series : plan.series()) {
                    found.add(Optional.ofNullable(rows.getString("text of " + series)).orElse(""));
                }
            }
        }
        assertThat(database.withoutLabels(plan)).isEmpty();
        assertThat(found).isEqualTo(wanted);
        return found;
    }

    @Test
    public void aTableWithoutAnOrderIsRefusedWhereOneIsRead() throws SQLException {
        try (Connection kept = DriverManager.getConnection("jdbc:h2:mem:unordered"); Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"output\" (\"station\" VARCHAR(40), \"mwh\" INTEGER)");
            use.execute("INSERT INTO \"output\" VALUES ('Mill Race', 3), ('Fern Pool', 4), ('Fern Pool', 2)");
            try (Database database = Database.open(Login.to("jdbc:h2:mem:unordered"), Dialect.H2, List.of(DatabaseTable.named("output", "output")), Settings.NONE, false)) {
                assertThatThrownBy(() -> database.run(Pipeline.of("output").then(new Top(1)))).isInstanceOf(BadInput.class).hasMessageContaining("reads rows in their order");
                Table totals = database.run(Pipeline.of("output").then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh")))));
                assertThat(Arrays.asList(totals.column("station").written(0), totals.column("station").written(1))).as("in the order of the keys").containsExactly("Fern Pool", "Mill Race");
            }
        }
    }

    @Test
    public void queriesReachNothingButTables() {
        for (String query : List.of("SELECT * FROM read_csv('/etc/passwd')", "SELECT * FROM '/etc/passwd'", "SELECT pg_read_file('/etc/passwd')", "DROP TABLE x", "SELECT 1; DROP TABLE x", "SELECT * FROM \"read_text\"('/etc/passwd')",
                "CALL system('x')", "SELECT FILE_READ('/etc/passwd')")) {
            assertThatThrownBy(() -> Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, List.of(DatabaseTable.asked("x", query)), Settings.NONE, false)).as(query).isInstanceOf(BadInput.class).hasMessageContaining("table 'x'");
        }
    }

    @Test
    public void embeddedEngineOpensNoFileThatAQueryNames() throws IOException {
        try (Folder folder = new Folder()) {
            Path secret = folder.file("secret.csv", "a,b\n1,2\n");
            assertThatThrownBy(() -> Database.open(Login.to("jdbc:duckdb:"), Dialect.DUCKDB, List.of(DatabaseTable.asked("x", "SELECT * FROM \"" + secret + "\"")), Settings.NONE, false)).isInstanceOf(BadInput.class)
                    .hasMessageContaining("table 'x': the database says: ");
        }
    }

    @Test
    public void serverThatGoesAwayIsOneSentence() {
        try (DatabaseServer own = DatabaseServer.start()) {
            Login login = new Login(own.url(), Optional.of(DatabaseServer.USER), Optional.of(DatabaseServer.PASSWORD));
            try (Database database = Database.open(login, Dialect.POSTGRESQL, List.of(DatabaseTable.of(GENERATION)), Settings.NONE, false)) {
                assertThat(database.run(Pipeline.of("generation")).rowCount()).isEqualTo(5);
                own.kill();
                assertThatThrownBy(() -> database.run(Pipeline.of("generation"))).isInstanceOf(BadInput.class).hasMessageContaining("the connection to '" + own.url() + "' failed: ").hasMessageNotContaining(DatabaseServer.PASSWORD);
            }
        }
    }

    /** How long after its start: before it is prepared, on its way, and at work. */
    @DataProvider
    public Object[][] moments() {
        return new Object[][]{{0}, {2}, {10}, {300}};
    }

    @Test(dataProvider = "moments", timeOut = 120_000)
    public void statementIsCancelledOnTheServer(int milliseconds) throws InterruptedException {
        String busy = "SELECT COUNT(*) AS n FROM generate_series(1, 30000) a, generate_series(1, 30000) b";
        try (Database database = Database.open(login(Dialect.POSTGRESQL), Dialect.POSTGRESQL, List.of(DatabaseTable.asked("x", busy), DatabaseTable.asked("y", "SELECT 1 AS n")), Settings.NONE, false)) {
            Thread canceller = new Thread(() -> {
                while (database.runs().filter(time -> time.toMillis() >= milliseconds).isEmpty()) {
                    LockSupport.parkNanos(100_000);
                }
                database.cancel();
            });
            canceller.start();
            assertThatThrownBy(() -> database.run(Pipeline.of("x"))).isInstanceOf(BadInput.class).hasMessageContaining("the statement was cancelled; the database says: ");
            canceller.join();
            assertThat(database.run(Pipeline.of("y")).rowCount()).isEqualTo(1);
        }
    }

    @Test
    public void columnThatIsGoneMeanwhileIsOneSentence() throws SQLException {
        try (Connection kept = DriverManager.getConnection("jdbc:h2:mem:changed"); Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"output\" (\"station\" VARCHAR(40), \"mwh\" INTEGER)");
            try (Database database = Database.open(Login.to("jdbc:h2:mem:changed"), Dialect.H2, List.of(DatabaseTable.named("output", "output")), Settings.NONE, false)) {
                use.execute("ALTER TABLE \"output\" DROP COLUMN \"mwh\"");
                assertThatThrownBy(() -> database.run(Pipeline.of("output"))).isInstanceOf(BadInput.class).hasMessageContaining("table 'output': the database says: Column \"mwh\" not found");
            }
        }
    }

    @Test
    public void dataSourceIsAskedAndLeft() throws SQLException {
        JdbcDataSource source = new JdbcDataSource();
        source.setURL("jdbc:h2:mem:plant of a source");
        try (Connection kept = source.getConnection(); Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"output\" AS SELECT 'Fern Pool' AS \"station\", CAST(3 AS DOUBLE PRECISION) AS \"mwh\"");
            try (Database database = Database.open(source, Dialect.H2, List.of(DatabaseTable.named("o", "output")), Settings.NONE)) {
                PlainChart chart = Chart.of("station", Columns.of("mwh")).plan(Pipeline.of("o"), database.known()).over(database);
                assertThat(chart.data().series().get(0).number(0)).isEqualTo(3);
            }
        }
    }

    /** A driver in between counts what comes over. */
    @Test
    public void chartsRowsAloneComeOver() throws SQLException {
        Counting counting = new Counting();
        DriverManager.registerDriver(counting);
        try (Connection kept = DriverManager.getConnection("jdbc:h2:mem:many"); Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"output\" AS SELECT CONCAT('station ', MOD(X, 7)) AS \"station\", CAST(X AS DOUBLE PRECISION) AS \"mwh\" FROM SYSTEM_RANGE(1, 10000)");
            try (Database database = Database.open(Login.to(Counting.PREFIX + "jdbc:h2:mem:many"), Dialect.H2, List.of(DatabaseTable.named("output", "output")), Settings.NONE, false)) {
                counting.rows.set(0);
                Pipeline steps = Pipeline.of("output").then(new Keep(Formulas.column("mwh").above(Formulas.number(10)))).then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))));
                PlainChart chart = Chart.of("station", Columns.of("mwh")).plan(steps, database.known()).over(database);
                assertThat(chart.data().rowCount()).isEqualTo(7);
                assertThat(counting.rows).hasValue(7);
            }
        } finally {
            DriverManager.deregisterDriver(counting);
        }
    }

    private static final class Counting implements Driver {
        private static final String PREFIX = "counted:";
        private final AtomicInteger rows = new AtomicInteger();

        @Override
        public Connection connect(String url, Properties info) throws SQLException {
            return !url.startsWith(PREFIX) ? null : (Connection) between(Connection.class, DriverManager.getConnection(url.substring(PREFIX.length()), info));
        }

        /** The same, and what it gives. */
        private Object between(Class<?> type, Object real) {
            return Proxy.newProxyInstance(getClass().getClassLoader(), new Class<?>[] {type}, (proxy, method, given) -> {
                Object answer;
                try {
                    answer = method.invoke(real, given);
                } catch (InvocationTargetException e) {
                    throw e.getCause();
                }
                if (real instanceof ResultSet && method.getName().equals("next") && Boolean.TRUE.equals(answer)) {
                    rows.incrementAndGet();
                }
                return answer instanceof ResultSet ? between(ResultSet.class, answer) : answer instanceof PreparedStatement ? between(PreparedStatement.class, answer) : answer;
            });
        }

        @Override
        public boolean acceptsURL(String url) {
            return url.startsWith(PREFIX);
        }

        @Override
        public DriverPropertyInfo[] getPropertyInfo(String url, Properties info) {
            return new DriverPropertyInfo[0];
        }

        @Override
        public int getMajorVersion() {
            return 1;
        }

        @Override
        public int getMinorVersion() {
            return 0;
        }

        @Override
        public boolean jdbcCompliant() {
            return false;
        }

        @Override
        public Logger getParentLogger() {
            return Logger.getGlobal();
        }
    }
}
