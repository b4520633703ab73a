package dev.trellisgorge.cluster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** A cluster whose catalogue lasts: its tables, statements as they are printed, and views for others. */
@Test(groups = TestSize.SLOW)
public class ClusterCatalogueTest {
    private static final String LASTS = "&spark.sql.catalogImplementation=hive";

    private final Folder folder = new Folder();
    private Map<String, String> catalogue;
    private ClusterOfTwo machines;
    /** Commands share it. */
    private Cluster shared;

    /** The catalogue is one in a folder, without a server of its own. */
    @BeforeClass
    void start() {
        machines = ClusterOfTwo.start();
        catalogue = Map.of("spark.hadoop.javax.jdo.option.ConnectionURL", "jdbc:derby:;databaseName=" + folder.path("catalogue") + ";create=true", "spark.hadoop.datanucleus.schema.autoCreateAll", "true",
                "spark.hadoop.hive.metastore.schema.verification", "false", "spark.sql.warehouse.dir", folder.path("warehouse").toString(), "derby.stream.error.file", folder.path("catalogue.log").toString());
        catalogue.forEach(System::setProperty);
        shared = Cluster.open(machines.url() + LASTS);
        said("CREATE DATABASE plant");
        said("CREATE TABLE plant.generation USING parquet AS SELECT * FROM VALUES ('Fern Pool', 1200.5D), ('Mill Race', -80.0D), ('Otter Bend', CAST(NULL AS DOUBLE)) AS t(station, mwh)");
        said("CREATE TABLE plant.meters USING parquet AS SELECT n, 9007199254740992L + n % 2 AS meter, 9223372036854775807L - n AS most, 0.1BD AS mwh, TIMESTAMP '2031-03-30 23:30:00+00:00' AS at FROM (SELECT EXPLODE(SEQUENCE(1, 10)) AS n)");
        said("CREATE TABLE plant.g_taken USING parquet AS SELECT 1 AS n");
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        if (shared != null) {
            shared.close();
        }
        if (catalogue != null) {
            catalogue.keySet().forEach(System::clearProperty);
        }
        if (machines != null) {
            machines.close();
        }
        folder.close();
    }

    private static List<String> said(String statement) {
        return SparkSession.active().sql(statement).collectAsList().stream().map(ClusterCatalogueTest::written).toList();
    }

    private static String written(Row row) {
        return IntStream.range(0, row.size()).mapToObj(i -> String.valueOf(row.get(i))).collect(Collectors.joining(" | "));
    }

    private String brief(String chart) {
        return folder.file(chart + ".yaml", "brief: 1\ndata:\n  generation: {table: plant.generation}\ncharts:\n  " + chart + ":\n    pattern: columns\n    category: station\n    value: mwh\n    labels: {format: '#,##0.0'}\n").toString();
    }

    @Test
    public void aStatementRunsAsItIsPrinted() {
        try (Cluster cluster = Cluster.open(machines.url() + LASTS); Database database = Database.open(cluster.session(), List.of(DatabaseTable.named("generation", "plant.generation")), Settings.of("goal", 100), true)) {
            Plan plan = Chart.of("station", Columns.of("mwh")).plan(Pipeline.of("generation"), database.known());
            PlainChart chart = plan.over(database);
            List<String> expected = IntStream.range(0, 3).mapToObj(row -> chart.data().category().written(row) + " | " + (chart.data().column("value").isPresent(row) ? chart.data().column("value").number(row) : "null")).toList();
            assertThat(said(database.statement(plan))).extracting(row -> row.replaceFirst(" [|] [^|]*$", "")).isEqualTo(expected);
            assertThat(said(database.statement(plan))).extracting(row -> row.replaceFirst(".* [|] ", "")).containsExactly("1,200.5", "-80.0", "null");
        }
    }

    @Test
    public void viewsStayForOthersAndAreMadeAnew() {
        String url = machines.url() + LASTS;
        assertThat(Typed.type("series", brief("all"), "--on", url).said()).contains("Fern Pool 1200.50000", "Mill Race -80");
        assertThat(Typed.type("sql", brief("all"), "--on", url, "--write-view", "plant.g_")).isEqualTo(new Typed.Answer(0, "gorge: wrote the view plant.g_all"));
        assertThat(Typed.type("sql", brief("all"), "--on", url, "--write-view", "plant.g_").code()).isZero();
        assertThat(Typed.type("sql", brief("taken"), "--on", url, "--write-view", "plant.g_")).satisfies(refused -> {
            assertThat(refused.code()).isEqualTo(2);
            assertThat(refused.said()).startsWith("gorge: the views: the cluster says: ");
        });
        shared.close();
        shared = Cluster.open(url);
        assertThat(said("SELECT * FROM plant.g_all")).containsExactly("Fern Pool | 1200.5 | 1,200.5", "Mill Race | -80.0 | -80.0", "Otter Bend | null | null");
        assertThat(said("SELECT * FROM plant.g_taken")).containsExactly("1");
    }

    private static String cells(Table table) {
        return IntStream.range(0, table.rowCount()).mapToObj(row -> table.columns().stream().map(column -> column.written(row)).collect(Collectors.joining(" "))).collect(Collectors.joining(", "));
    }

    private static Pipeline sums(String by) {
        return Pipeline.of("meters").then(new Total(List.of(by), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"), new Total.Figure("n", Total.Fold.COUNT, "rows"))));
    }

    /** In a table of the catalogue, in its files and in a query: keys that no double tells apart are two, and ten times 0.1 is 1. */
    @Test
    public void wholeNumbersAndDecimalsAreExact() throws IOException {
        Path part;
        try (Stream<Path> parts = Files.walk(folder.path("warehouse"))) {
            part = parts.filter(file -> file.toString().contains("meters") && file.toString().endsWith(".parquet")).findFirst().orElseThrow();
        }
        DatabaseTable table = DatabaseTable.named("meters", "plant.meters").rowsBy("n");
        String codes = "'meter' is read as codes, as it holds whole numbers of more digits than a figure keeps; kinds: {meter: number} has them as figures all the same";
        String days = "'at' holds moments, whose days are those of the time zone UTC";
        for (DatabaseTable each : List.of(table, new DatabaseTable("meters", new DatabaseTable.InParquet(part), Optional.empty()))) {
            try (Cluster cluster = Cluster.open(machines.url() + LASTS); Database there = Database.open(cluster.session(), List.of(each), Settings.NONE, true)) {
                assertThat(there.known().sources().get("meters").field("meter").kind()).isEqualTo(Kind.TEXT);
                Table rows = there.run(sums("meter"));
                assertThat(cells(rows)).isIn("9007199254740993 0.5 5, 9007199254740992 0.5 5", "9007199254740992 0.5 5, 9007199254740993 0.5 5");
                assertThat(rows.notes()).extracting(Note::sentence).contains(codes, days);
                assertThat(cells(there.run(Pipeline.of("meters").then(new Total(List.of(), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh"))))))).isEqualTo("1");
            }
        }
        DatabaseTable query = DatabaseTable.asked("meters", "SELECT n, meter, most, mwh FROM plant.meters").rowsBy("n");
        try (Cluster cluster = Cluster.open(machines.url() + LASTS); Database there = Database.open(cluster.session(), List.of(query), Settings.NONE, true)) {
            assertThatThrownBy(() -> there.run(sums("meter"))).isInstanceOf(BadInput.class).hasMessageContaining("column 'meter': the database holds a whole number of more digits than a figure keeps: 9007199254740993");
            assertThat(cells(there.run(sums("meter").then(new Total(List.of(), List.of(new Total.Figure("rows", Total.Fold.COUNT, "meters"))))))).isEqualTo("2");
            assertThat(cells(there.run(Pipeline.of("meters").then(new Total(List.of(), List.of(new Total.Figure("most", Total.Fold.SUM, "most")))))))
                    .isEqualTo("92233720368547760000");
        }
        try (Cluster cluster = Cluster.open(machines.url() + LASTS); Database there = Database.open(cluster.session(), List.of(query.kinds(Map.of("meter", Kind.TEXT))), Settings.NONE, true)) {
            assertThat(cells(there.run(sums("meter")))).contains("9007199254740993 0.5 5", "9007199254740992 0.5 5");
        }
    }

    /** The cluster's threads bring rows in an order that is another each time. */
    @Test
    public void sumsOfDoublesAreTheEvaluators() {
        double[] figures = new Random(7).doubles(20_000, -1e6, 1e6).map(figure -> Math.rint(figure * 1000) / 1000).toArray();
        String[] keys = IntStream.range(0, figures.length).mapToObj(row -> "k" + row % 37).toArray(String[]::new);
        Table meters = Table.of("meters", Source.MEMORY, List.of(Column.texts("k", keys), Column.numbers("mwh", figures), Column.numbers("n", IntStream.range(0, figures.length).asDoubleStream().toArray())));
        String here = cells(Executor.over(meters, Settings.NONE).run(sums("k")));
        try (Cluster cluster = Cluster.open(machines.url() + LASTS); Database there = Database.open(cluster.session(), List.of(DatabaseTable.of(meters)), Settings.NONE, true)) {
            assertThat(cells(there.run(sums("k")))).isEqualTo(here);
        }
    }
}
