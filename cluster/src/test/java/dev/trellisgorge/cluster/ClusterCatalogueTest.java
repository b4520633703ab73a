package dev.trellisgorge.cluster;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.test.Folder;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** A cluster whose catalogue lasts: its tables, statements as they are printed, and views for others. */
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
}
