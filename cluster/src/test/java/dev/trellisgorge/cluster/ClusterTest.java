package dev.trellisgorge.cluster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.conformance.HardNames;
import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.conformance.SameCharts;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Plans on a cluster of a master and two workers, held to the oracle. */
@Test(groups = TestSize.SLOW)
public class ClusterTest {
    private static final int PLANS = TestSize.of(1, 100);
    private static final int NAMES_AT_ONCE = 50;
    /** Compiling a plan's many expressions, and planning anew while it runs, take longer than working it out for so few rows; the other tests have both. */
    private static final Map<String, String> UNCOMPILED = Map.of("spark.sql.codegen.wholeStage", "false", "spark.sql.codegen.factoryMode", "NO_CODEGEN", "spark.sql.adaptive.enabled", "false");
    private static final int AT_ONCE = Math.min(4, PLANS);
    /** Of so many plans one has all its notes counted, which takes many statements. */
    private static final int TOLD = 25;

    /** The last one takes as long as all the others; it runs at night. */
    private static final List<String> DEMO = List.of("accounts", "board", "energy", "fish", "flow", "generation", "levels", "looks", "monthly", "storage", "targets", "readings");
    private static final List<String> CHECKED = List.of("generation", "monthly");
    private static final Table GENERATION = Table.named("generation").column("station", Kind.TEXT).column("mwh", Kind.NUMBER).row("Fern Pool", 120).row("Mill Race", 80).build();

    private final List<Throwable> failed = new CopyOnWriteArrayList<>();
    private final Folder folder = new Folder();
    private ClusterOfTwo machines;
    private Cluster shared;
    private boolean isCompiled;

    @BeforeClass
    void start() {
        machines = ClusterOfTwo.start();
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        folder.close();
        leave();
        if (machines != null) {
            machines.close();
        }
    }

    @Test
    public void chartsAreThoseOfTablesAtHand() throws InterruptedException {
        AtomicLong seed = new AtomicLong(300_000);
        AtomicInteger compared = new AtomicInteger();
        share(false);
        try (Cluster cluster = Cluster.open(machines.url())) {
            List<Thread> threads = IntStream.range(0, AT_ONCE).mapToObj(i -> new Thread(() -> {
                while (compared.get() < PLANS && failed.isEmpty()) {
                    compare(cluster, seed.getAndIncrement(), compared);
                }
            })).toList();
            threads.forEach(thread -> thread.setUncaughtExceptionHandler((any, wrong) -> failed.add(wrong)));
            threads.forEach(Thread::start);
            for (Thread thread : threads) {
                thread.join();
            }
        }
        assertThat(failed).isEmpty();
    }

    private static void compare(Cluster cluster, long seed, AtomicInteger compared) {
        boolean told = seed % TOLD == 0;
        RandomPlan random = RandomPlan.of(seed, Within.SHEET);
        Optional<PlainChart> here = over(random);
        try (Database database = Database.open(cluster.session(), random.tables().values().stream().map(DatabaseTable::of).toList(), random.settings(), told)) {
            PlainChart there = random.plan().over(database);
            assertThat(here).as("%s: what can't be drawn here", random.plan().name()).isPresent();
            if (told) {
                SameCharts.check(random.plan().name(), here.get(), there);
            } else {
                SameCharts.checkCells(random.plan().name(), here.get(), there);
            }
            compared.incrementAndGet();
        } catch (BadInput refused) {
            assertThat(here).as("%s: %s", random.plan().name(), refused.getMessage()).isEmpty();
        }
    }

    /** A column of each name, a row and a setting of each text: the figure where all three are the same is asked for. */
    @Test
    public void namesAndTextsComeThroughAsThemselves() {
        share(true);
        List<String> all = HardNames.all();
        assertThat(all).hasSizeGreaterThanOrEqualTo(200);
        try (Cluster cluster = Cluster.open(machines.url())) {
            for (int from = 0; from < all.size(); from += NAMES_AT_ONCE) {
                List<String> hard = all.subList(from, Math.min(from + NAMES_AT_ONCE, all.size()));
                String category = hard.get(0) + " of";
                List<Column> columns = new ArrayList<>(List.of(Column.texts(category, hard.toArray(String[]::new))));
                Settings settings = Settings.NONE;
                Formula there = Formulas.number(-1);
                for (int i = 0; i < hard.size(); i++) {
                    columns.add(Column.numbers(hard.get(i), IntStream.range(0, hard.size()).mapToDouble(row -> row).toArray()));
                    settings = settings.with(hard.get(i), hard.get(i));
                    Formula same = Formulas.column(category).equalTo(Formulas.text(hard.get(i))).and(Formulas.column(category).equalTo(Formulas.setting(hard.get(i))));
                    there = Formulas.choose(same, Formulas.column(hard.get(i)), there);
                }
                Table table = Table.of("rows", columns.toArray(Column[]::new));
                try (Database database = Database.open(cluster.session(), List.of(DatabaseTable.of(table)), settings, false)) {
                    PlainChart chart = Chart.of(category, Columns.of(there)).named("chart of " + hard.get(0)).plan(Pipeline.of("rows"), database.known()).over(database);
                    assertThat(IntStream.range(0, hard.size()).mapToObj(row -> chart.data().category().written(row) + " " + (int) chart.data().column("value").number(row)))
                            .containsExactlyElementsOf(IntStream.range(0, hard.size()).mapToObj(row -> hard.get(row) + " " + row).toList());
                }
            }
        }
    }

    @Test
    public void figuresOfAllSizesAreTexts() {
        share(true);
        Table figures = Table.of("figures", Column.numbers("figure", 0, -0.25, 0.1 + 0.2, 123456789012345680.0, 999999999999999900000.0, 1e21, 9.9999999e22, 1e23, -1e300, 1e-7, 9.9999e-8, 5.684341886080802e-14, 4.9e-324, 1.7976931348623157e308, Double.NaN));
        Formula figure = Formulas.column("figure");
        Pipeline written = Pipeline.of("figures").then(new AddColumn("shortest", Formulas.written(figure))).then(new AddColumn("exponent", Formulas.formatted(figure, "0.##E00")));
        try (Cluster cluster = Cluster.open(machines.url()); Database database = Database.open(cluster.session(), List.of(DatabaseTable.of(figures)), Settings.NONE, false)) {
            assertThat(texts(database.run(written))).isEqualTo(texts(Executor.over(figures, Settings.NONE).run(written)));
        }
    }

    private static List<String> texts(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> List.of("figure", "shortest", "exponent").stream().map(name -> table.column(name).isPresent(row) ? table.column(name).written(row) : "none").collect(Collectors.joining(" | "))).toList();
    }

    private static Optional<PlainChart> over(RandomPlan random) {
        try {
            return Optional.of(random.plan().over(random.executor()));
        } catch (BadInput noChart) {
            return Optional.empty();
        }
    }

    /** One for all tests that are compiled or not, as each start of it takes seconds: commands and what a test opens share it. */
    private void share(boolean compiled) {
        if (shared == null || compiled != isCompiled) {
            leave();
            if (!compiled) {
                UNCOMPILED.forEach(System::setProperty);
            }
            shared = Cluster.open(machines.url());
            isCompiled = compiled;
        }
    }

    private void leave() {
        UNCOMPILED.keySet().forEach(System::clearProperty);
        if (shared != null) {
            shared.close();
            shared = null;
        }
    }

    private Typed.Answer there(String... arguments) {
        return Typed.type(Stream.concat(Stream.of(arguments), Stream.of("--on", machines.url())).toArray(String[]::new));
    }

    private static String demo(String brief) {
        return Path.of("..", "demo", brief + ".yaml").toString();
    }

    @DataProvider
    Object[][] demos() {
        return Stream.concat(DEMO.stream().limit(TestSize.of(DEMO.size() - 1, DEMO.size())).map(brief -> new Object[] {"series", brief}), CHECKED.stream().map(brief -> new Object[] {"check", brief})).toArray(Object[][]::new);
    }

    @Test(dataProvider = "demos")
    public void demoBriefsSayTheSameOnACluster(String command, String brief) {
        share(false);
        assertThat(there(command, demo(brief))).isEqualTo(Typed.type(command, demo(brief)));
    }

    /** A brief over a file that the workers read by themselves; cells that are not plain are read here. */
    @DataProvider
    Object[][] files() {
        String plain = "station,day,mwh\n" + IntStream.range(0, 60_000).mapToObj(row -> List.of("Weir", "\"The \"\"Otter\"\" Bend\"", "Überlauf, Süd").get(row % 3).replaceFirst("^([^\"].*,.*)$", "\"$1\"") + ",2031-01-0" + (1 + row % 9) + "," + row % 977 + ".25\n")
                .collect(Collectors.joining());
        String lines = IntStream.range(0, 30_000).mapToObj(row -> "{\"station\":" + List.of("\"Weir\"", "\"\"", "\"\\u00dcberlauf \\\"Süd\\\"\"").get(row % 3) + ",\"day\":\"2031-01-0" + (1 + row % 9) + "\",\"mwh\":" + row % 977 + ".25}\n").collect(Collectors.joining());
        return new Object[][] {{"plain.csv", plain}, {"odd.csv", plain + "Weir,2031-01-01,\"1,200\"\n"}, {"lines.ndjson", lines}, {"array.json", "[" + lines.strip().replace("\n", ",\n") + "]"}};
    }

    @Test(dataProvider = "files")
    public void largeFilesGiveTheSameRowsInTheirOrder(String name, String text) {
        share(true);
        folder.file(name, text);
        String brief = folder.file("brief.yaml", "brief: 1\ndata:\n  generation:\n    file: " + name + "\n    shape:\n      - keep: station IS NOT NULL\n      - total: {by: station, sum: mwh, first: day}\ncharts:\n  all:\n    pattern: columns\n    category: station\n    value: mwh\n").toString();
        Typed.Answer here = Typed.type("series", brief, "--on", "here");
        assertThat(there("series", brief)).isEqualTo(here);
    }

    @Test
    public void parquetIsReadByTheWorkersInItsOrder() {
        share(true);
        String file = folder.path("march.parquet").toString();
        assertThat(Typed.type("series", demo("generation"), "--chart", "march", "-o", file).code()).isZero();
        String brief = folder.file("parquet.yaml", "brief: 1\ndata:\n  march: march.parquet\ncharts:\n  all:\n    pattern: columns\n    category: station\n    value: COALESCE(below, above)\n").toString();
        assertThat(there("series", brief)).isEqualTo(Typed.type("series", brief));
    }

    @Test
    public void mistakesAreToldInASentence() {
        share(true);
        assertThat(Typed.type("series", demo("energy"), "--on", "spark://127.0.0.1:" + ClusterOfTwo.freePort())).satisfies(answer -> {
            assertThat(answer.code()).isEqualTo(2);
            assertThat(answer.said()).startsWith("gorge: ").endsWith("failed: nobody answers there");
        });
        assertThat(Typed.type("series", demo("energy"), "--on", "spark://nowhere").said()).isEqualTo("gorge: 'spark://nowhere' names no cluster; write spark://HOST:PORT");
        assertThat(Typed.type("series", demo("energy"), "--on", machines.url("spark.executor.memry=1g")).said()).contains("the URL of a cluster has no setting 'spark.executor.memry'. Did you mean 'spark.executor.memory'?");
        assertThat(Typed.type("series", demo("energy"), "--on", machines.url("spark.sql.catalogImplementation=hive")).said()).contains("asks for a catalogue that lasts, and does not say where it is; add '&spark.hadoop.hive.metastore.uris=thrift://HOST:PORT'");
        try (Cluster cluster = Cluster.open(machines.url())) {
            for (String table : List.of("nowhere", "csv./etc/hostname", "text.`/etc/hostname`")) {
                assertThatThrownBy(() -> Database.open(cluster.session(), List.of(DatabaseTable.named("t", table)), Settings.NONE, true)).isInstanceOf(BadInput.class).hasMessageStartingWith("table 't': the cluster says: ");
            }
            assertThatThrownBy(() -> Database.open(cluster.session(), List.of(DatabaseTable.asked("t", "SELECT java_method('java.lang.System', 'exit', 1)")), Settings.NONE, true)).hasMessageContaining("the query calls java_method, which may do more than compute");
            try (Database database = Database.open(cluster.session(), List.of(DatabaseTable.of(GENERATION), DatabaseTable.asked("q", "SELECT 1 AS a, 'x' AS b")), Settings.NONE, true)) {
                assertThat(database.known().sources().get("q").fields()).extracting(field -> field.name() + " " + field.kind()).containsExactly("a NUMBER", "b TEXT");
                assertThatThrownBy(() -> database.writeViews(Map.of("v", Chart.of("station", Columns.of("mwh")).plan(Pipeline.of("generation"), database.known())))).hasMessageContaining("is a file, which the database has no table of");
            }
        }
    }

    @Test
    public void programHasOneClusterAtATime() {
        share(true);
        there("series", demo("energy"));
        assertThatThrownBy(() -> Cluster.open(machines.url("spark.executor.memory=256m"))).isInstanceOf(BadInput.class).hasMessageMatching("the cluster 'spark://[0-9.:]+' is open with other settings, and a program has one at a time; close it before");
        Cluster again = Cluster.open(machines.url());
        again.close();
        again.close();
        assertThat(there("series", demo("energy")).code()).as("it is open for others").isZero();
    }

    @Test
    public void viewsThatWouldBeGoneWithTheConnectionAreNotMade() {
        share(true);
        String brief = folder.file("query.yaml", "brief: 1\ndata:\n  q: {query: \"SELECT 'Weir' AS station, 1 AS n\"}\ncharts:\n  c: {pattern: columns, category: station, value: n}\n").toString();
        assertThat(there("sql", brief, "--write-view", "g_").said())
                .contains("the cluster's catalogue is gone with the connection, and they with it; name one that lasts in the URL, '?spark.sql.catalogImplementation=hive&spark.hadoop.hive.metastore.uris=thrift://HOST:PORT'");
    }

    @Test
    public void whatRunsIsCancelled() throws Exception {
        share(true);
        try (Cluster cluster = Cluster.open(machines.url()); Database database = Database.open(cluster.session(), List.of(DatabaseTable.asked("t", "SELECT COUNT(*) AS n FROM RANGE(100000000000) WHERE id % 7 = 3")), Settings.NONE, true)) {
            CompletableFuture<Table> running = CompletableFuture.supplyAsync(() -> database.run(Pipeline.of("t")));
            while (database.runs().filter(time -> time.toSeconds() >= 2).isEmpty()) {
                Thread.sleep(50);
            }
            database.cancel();
            assertThatThrownBy(running::get).hasRootCauseInstanceOf(Exception.class).cause().isInstanceOf(BadInput.class).hasMessage("table 't': the statement was cancelled");
        }
    }

    @Test(dependsOnMethods = {"chartsAreThoseOfTablesAtHand", "demoBriefsSayTheSameOnACluster", "largeFilesGiveTheSameRowsInTheirOrder", "parquetIsReadByTheWorkersInItsOrder", "mistakesAreToldInASentence", "whatRunsIsCancelled", "viewsThatWouldBeGoneWithTheConnectionAreNotMade", "programHasOneClusterAtATime", "figuresOfAllSizesAreTexts", "namesAndTextsComeThroughAsThemselves"})
    public void machinesThatFailAreToldInASentence() {
        share(true);
        try (Cluster cluster = Cluster.open(machines.url()); Database database = Database.open(cluster.session(), List.of(DatabaseTable.of(GENERATION)), Settings.NONE, true)) {
            assertThat(database.run(Pipeline.of("generation")).rowCount()).isEqualTo(2);
            machines.killAll();
            assertThatThrownBy(() -> database.run(Pipeline.of("generation"))).isInstanceOf(BadInput.class).hasMessageMatching("table 'generation': the connection to 'spark://[0-9.:]+' failed: .+");
        }
    }
}
