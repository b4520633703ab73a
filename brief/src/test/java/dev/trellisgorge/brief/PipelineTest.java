package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableWriter;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The shapes of briefs over random files, and the same written as SQL: an embedded database and a server give the same rows in the same order. */
public class PipelineTest {
    private static final int ROUNDS = 12;
    private static final String[] STATIONS = {"North Sluice", "Mill Race", "Fern Pool", "Heron Weir", "it's, \"so\""};
    private static final String MONTH = "CAST(EXTRACT(YEAR FROM f.\"day\") AS VARCHAR(4)) || '-' || LPAD(CAST(EXTRACT(MONTH FROM f.\"day\") AS VARCHAR(2)), 2, '0')";
    private static final String[][] PIPELINES = {
        {"- keep: flow > 1 AND NOT station = 'Mill Race'\n- choose: [station, flow]",
            "SELECT \"station\", \"flow\" FROM \"flows\" WHERE \"flow\" > 1 AND NOT \"station\" = 'Mill Race' ORDER BY \"row\""},
        {"- keep: station IS NULL OR flow IN (1, 2) OR (flow < 0) IS NOT FALSE\n- choose: [flow, station]",
            "SELECT \"flow\", \"station\" FROM \"flows\" WHERE \"station\" IS NULL OR \"flow\" IN (1, 2) OR (\"flow\" < 0) IS NOT FALSE ORDER BY \"row\""},
        {"- order: {by: flow, order: descending}", "SELECT \"station\", \"day\", \"flow\", \"rain\" FROM \"flows\" ORDER BY \"flow\" DESC NULLS LAST, \"row\""},
        {"- order: {by: station}\n- top: 7", "SELECT \"station\", \"day\", \"flow\", \"rain\" FROM \"flows\" ORDER BY \"station\" NULLS LAST, \"row\" FETCH FIRST 7 ROWS ONLY"},
        {"- order: {by: \"COALESCE(flow, 0) - COALESCE(rain, 0)\"}\n- order: {by: day, order: descending}\n- choose: [flow, rain]",
            "SELECT \"flow\", \"rain\" FROM \"flows\" ORDER BY \"day\" DESC NULLS LAST, COALESCE(\"flow\", 0) - COALESCE(\"rain\", 0), \"row\""},
        {"- join: {table: stations, on: station}\n- choose: [station, region, capacity]",
            "SELECT f.\"station\", s.\"region\", s.\"capacity\" FROM \"flows\" f LEFT JOIN \"stations\" s ON f.\"station\" = s.\"station\" ORDER BY f.\"row\", s.\"row\""},
        {"- join: {table: gauges, on: {station: place, rain: height}, way: inner, many: true}\n- choose: [station, flow, gauge]",
            "SELECT f.\"station\", f.\"flow\", g.\"gauge\" FROM \"flows\" f JOIN \"gauges\" g ON f.\"station\" = g.\"place\" AND f.\"rain\" = g.\"height\""
                + " ORDER BY f.\"row\", g.\"row\""},
        {"- total: {by: [station], sum: [flow], mean: [rain], count: [day]}",
            "SELECT \"station\", SUM(\"flow\"), AVG(\"rain\"), COUNT(\"day\") FROM \"flows\" GROUP BY \"station\" ORDER BY MIN(\"row\")"},
        {"- total: {by: [station, rain], least: [day], greatest: [flow]}",
            "SELECT \"station\", \"rain\", MIN(\"day\"), MAX(\"flow\") FROM \"flows\" GROUP BY \"station\", \"rain\" ORDER BY MIN(\"row\")"},
        {"- keep: flow > 1000\n- total: {by: [], sum: [flow], count: [day]}", "SELECT SUM(\"flow\"), COUNT(\"day\") FROM \"flows\" WHERE \"flow\" > 1000"},
        {"- total: {by: [station], first: [flow], last: [day]}",
            "SELECT g.\"station\", (SELECT f.\"flow\" FROM \"flows\" f WHERE f.\"station\" IS NOT DISTINCT FROM g.\"station\" AND f.\"flow\" IS NOT NULL ORDER BY f.\"row\""
                + " FETCH FIRST ROW ONLY), (SELECT f.\"day\" FROM \"flows\" f WHERE f.\"station\" IS NOT DISTINCT FROM g.\"station\" AND f.\"day\" IS NOT NULL"
                + " ORDER BY f.\"row\" DESC FETCH FIRST ROW ONLY) FROM (SELECT \"station\", MIN(\"row\") AS \"first\" FROM \"flows\" GROUP BY \"station\") g ORDER BY g.\"first\""},
        {"- join: {table: stations, on: station}\n- total: {by: [region], sum: [flow, capacity]}\n- add: {load: \"flow / NULLIF(capacity, 0)\"}\n- order: {by: load, order: descending}",
            "SELECT \"region\", \"f\", \"c\", \"f\" / NULLIF(\"c\", 0) FROM (SELECT s.\"region\", SUM(f.\"flow\") AS \"f\", SUM(s.\"capacity\") AS \"c\", MIN(f.\"row\") AS \"first\""
                + " FROM \"flows\" f LEFT JOIN \"stations\" s ON f.\"station\" = s.\"station\" GROUP BY s.\"region\") t ORDER BY \"f\" / NULLIF(\"c\", 0) DESC NULLS LAST, \"first\""},
        {"- period: {of: day, unit: month}\n- total: {by: [month], sum: [flow]}",
            "SELECT \"m\", SUM(\"flow\") FROM (SELECT " + MONTH + " AS \"m\", \"flow\", \"row\" FROM \"flows\" f) t GROUP BY \"m\" ORDER BY MIN(\"row\")"},
        {"- keep: day IS NOT NULL\n- period: {of: day, unit: month}\n- total: {by: [month], sum: [flow], first: [day]}\n- rename: {day: start}\n"
            + "- period: {of: month, unit: month, as: each, fill: true}\n- choose: [each, flow]",
            "SELECT m.\"month\", t.\"s\" FROM \"months\" m LEFT JOIN (SELECT " + MONTH + " AS \"m\", SUM(\"flow\") AS \"s\" FROM \"flows\" f WHERE \"day\" IS NOT NULL GROUP BY " + MONTH
                + ") t ON t.\"m\" = m.\"month\" WHERE m.\"row\" + 24361 BETWEEN (SELECT MIN(EXTRACT(YEAR FROM \"day\") * 12 + EXTRACT(MONTH FROM \"day\")) FROM \"flows\")"
                + " AND (SELECT MAX(EXTRACT(YEAR FROM \"day\") * 12 + EXTRACT(MONTH FROM \"day\")) FROM \"flows\") ORDER BY m.\"row\""},
        {"- previous: {of: flow, as: before, by: [station]}\n- choose: [station, flow, before]",
            "SELECT \"station\", \"flow\", LAG(\"flow\") OVER (PARTITION BY \"station\" ORDER BY \"row\") FROM \"flows\" ORDER BY \"row\""},
        {"- keep: day IS NOT NULL\n- period: {of: day, unit: month}\n- total: {by: [station, month], sum: [flow]}\n"
            + "- previous: {of: flow, as: before, period: month, by: [station]}\n- add: {change: flow - before}",
            "WITH \"t\" AS (SELECT \"station\", EXTRACT(YEAR FROM \"day\") * 12 + EXTRACT(MONTH FROM \"day\") AS \"n\", " + MONTH
                + " AS \"m\", SUM(\"flow\") AS \"s\", MIN(\"row\") AS \"first\" FROM \"flows\" f WHERE \"day\" IS NOT NULL GROUP BY \"station\", EXTRACT(YEAR FROM \"day\") * 12"
                + " + EXTRACT(MONTH FROM \"day\"), " + MONTH + ") SELECT a.\"station\", a.\"m\", a.\"s\", b.\"s\", a.\"s\" - b.\"s\" FROM \"t\" a LEFT JOIN \"t\" b"
                + " ON a.\"station\" IS NOT DISTINCT FROM b.\"station\" AND b.\"n\" = a.\"n\" - 1 ORDER BY a.\"first\""},
        {"- keep: station IS NOT NULL AND station <> 'Fern Pool'\n- total: {by: [rain, station], sum: [flow]}\n- pivot: {by: [rain], names: station, values: flow}\n"
            + "- choose: [rain, Mill Race, North Sluice]",
            "SELECT \"rain\", SUM(CASE WHEN \"station\" = 'Mill Race' THEN \"flow\" END), SUM(CASE WHEN \"station\" = 'North Sluice' THEN \"flow\" END) FROM \"flows\""
                + " WHERE \"station\" IS NOT NULL AND \"station\" <> 'Fern Pool' GROUP BY \"rain\" ORDER BY MIN(\"row\")"},
        {"- unpivot: {columns: [rain, flow], names: what, values: much}\n- keep: much > 0\n- choose: [station, what, much]",
            "SELECT \"station\", \"what\", \"much\" FROM (SELECT \"row\", 1 AS \"i\", \"station\", 'rain' AS \"what\", \"rain\" AS \"much\" FROM \"flows\" UNION ALL"
                + " SELECT \"row\", 2, \"station\", 'flow', \"flow\" FROM \"flows\") t WHERE \"much\" > 0 ORDER BY \"row\", \"i\""},
        {"- rename: {flow: rain, rain: flow}\n- add: {kind: \"CASE WHEN flow > rain THEN 'wet' WHEN flow IS NULL THEN 'none' ELSE 'dry' END\"}",
            "SELECT \"station\", \"day\", \"flow\", \"rain\", CASE WHEN \"rain\" > \"flow\" THEN 'wet' WHEN \"rain\" IS NULL THEN 'none' ELSE 'dry' END FROM \"flows\" ORDER BY \"row\""}};

    private DatabaseServer server;
    private Folder folder;

    @BeforeClass
    void startServer() {
        server = DatabaseServer.isInstalled() ? DatabaseServer.start() : null;
    }

    @AfterClass
    void stopServer() {
        if (server != null) {
            server.close();
        }
    }

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    @DataProvider
    Object[][] pipelines() {
        return Stream.of("embedded", "server").flatMap(where -> Arrays.stream(PIPELINES).map(pair -> new Object[] {where, pair[0], pair[1]})).toArray(Object[][]::new);
    }

    private Database database(String where) {
        return where.equals("embedded") ? Database.embedded() : Database.open(server().url(), DatabaseServer.USER, DatabaseServer.PASSWORD);
    }

    private DatabaseServer server() {
        return server == null ? DatabaseServer.start() : server; // says why there is none
    }

    @Test(dataProvider = "pipelines")
    public void databaseMakesTheSameRows(String where, String steps, String query) throws IOException {
        try (Database database = database(where)) {
            for (int round = 0; round < ROUNDS; round++) {
                for (Table table : tables(new Random(round * 31L + query.hashCode()))) {
                    database.hold(table);
                    if (!table.name().equals("months")) {
                        try (OutputStream out = Files.newOutputStream(folder.path(table.name() + ".csv"))) {
                            TableWriter.csv(table, out);
                        }
                    }
                }
                Path brief = folder.file("b.yaml", "brief: 1\ndata: {flows: flows.csv, stations: stations.csv, gauges: gauges.csv}\nshape:\n" + steps
                        + "\n- add: {one: \"'1'\"}\ncharts: {c: {pattern: text-bar, category: one, value: 1}}\n");
                List<List<Object>> expected = database.ask(query);
                if (expected.isEmpty()) {
                    assertThatThrownBy(() -> Brief.read(brief)).isInstanceOf(BadInput.class).hasMessageContaining("no row is left of the ");
                    continue;
                }
                Table shaped = Brief.read(brief).table();
                List<Column> columns = shaped.columns();
                Database.assertSame("round " + round, Database.rows(shaped.withColumns(columns.subList(0, columns.size() - 1))), expected);
            }
        }
    }

    /** Flows with missing cells, ties and stations that nothing is known of; the first row has all its cells, so that every column's kind shows. */
    private static List<Table> tables(Random random) {
        int rows = 1 + random.nextInt(70);
        Table flows = Table.of("flows",
                Column.texts("station", IntStream.range(0, rows).mapToObj(row -> row > 0 && random.nextInt(6) == 0 ? null : STATIONS[random.nextInt(5)]).toArray(String[]::new)),
                Column.dates("day", IntStream.range(0, rows).mapToObj(row -> row > 0 && random.nextInt(9) == 0 ? null
                        : LocalDate.of(2030, 11, 20).plusDays(random.nextInt(200))).toArray(LocalDate[]::new)),
                numbers("flow", random, rows), numbers("rain", random, rows));
        Table stations = Table.of("stations", Column.texts("station", STATIONS[0], STATIONS[2], STATIONS[4], "Alder Gate"),
                Column.texts("region", "North", null, "South", "South"), numbers("capacity", random, 4));
        Table gauges = Table.of("gauges", Column.texts("place", IntStream.range(0, 9).mapToObj(row -> row == 5 ? null : STATIONS[random.nextInt(3)]).toArray(String[]::new)),
                numbers("height", random, 9), Column.numbers("gauge", IntStream.range(0, 9).asDoubleStream().toArray()));
        Table months = Table.of("months", Column.texts("month", IntStream.range(0, 36).mapToObj(i -> YearMonth.of(2030, 1).plusMonths(i).toString()).toArray(String[]::new)));
        return List.of(flows, stations, gauges, months);
    }

    private static Column numbers(String name, Random random, int rows) {
        return Column.numbers(name, IntStream.range(0, rows).mapToDouble(row -> row > 0 && random.nextInt(5) == 0 ? Double.NaN : random.nextInt(9) - 2.5).toArray());
    }
}
