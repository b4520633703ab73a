package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.TestSize;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Briefs that are computed in databases, typed as a person does. */
@Test(groups = TestSize.SLOW)
public class OnTest extends AtDesk {
    private static final List<String> DEMO = List.of("accounts", "board", "energy", "fish", "flow", "generation", "levels", "looks", "monthly", "readings", "storage", "targets");
    private static final Pattern FIGURE = Pattern.compile("-?\\d+\\.\\d+");
    private DatabaseServer server;

    @BeforeMethod
    void prepare() {
        desk.withDemo();
    }

    @AfterClass(alwaysRun = true)
    void stop() {
        if (server != null) {
            server.close();
        }
    }

    private synchronized String url(String database) {
        if (!database.equals("postgresql")) {
            return database;
        }
        server = server == null ? DatabaseServer.start() : server;
        return server.url() + "?user=" + DatabaseServer.USER + "&password=" + DatabaseServer.PASSWORD;
    }

    @DataProvider
    public Object[][] demos() {
        return Stream.of("duckdb:", "jdbc:h2:mem:", "postgresql").flatMap(database -> DEMO.stream().map(brief -> new Object[] {database, brief})).toArray(Object[][]::new);
    }

    @Test(dataProvider = "demos")
    public void demoBriefsSayTheSameInADatabase(String database, String brief) {
        String file = "DESK/demo/" + brief + ".yaml";
        for (String command : List.of("series", "check")) {
            Desk.Answer here = desk.type(command, file);
            Desk.Answer there = desk.type(command, file, "--on", url(database));
            assertThat(rounded(there)).as(command).isEqualTo(rounded(here));
            assertThat(there.code()).isEqualTo(here.code());
        }
    }

    /** Without the last digits, in which sums may differ, and without what is said of sums and of a figure's rows, which stay there. */
    private static List<String> rounded(Desk.Answer answer) {
        return (answer.out() + answer.err()).lines().filter(line -> !line.contains("each running sum, and each sum of all rows")).map(line -> FIGURE.matcher(line).replaceAll(figure -> String.format(Locale.ROOT, "%.9g", Double.parseDouble(figure.group())))
                .replaceAll("^figure (\\d+) .*", "figure $1").replaceAll(" +", " ").strip()).toList();
    }

    @Test
    public void tableOfTheDatabaseStandsInForAFileAndViewsAreMade() throws SQLException {
        String url = url("postgresql");
        try (Connection made = DriverManager.getConnection(url); Statement use = made.createStatement()) {
            use.execute("DROP SCHEMA IF EXISTS plant CASCADE");
            use.execute("CREATE SCHEMA plant");
            use.execute("CREATE TABLE plant.fish (line INTEGER, ladder TEXT, species TEXT, seen DOUBLE PRECISION)");
            use.execute("CREATE TABLE plant.v_other (a INTEGER)");
            use.execute("CREATE TABLE plant.generation (line INTEGER, month DATE, station TEXT, generated_mwh DOUBLE PRECISION, licensed_mwh DOUBLE PRECISION)");
            use.execute("INSERT INTO plant.generation VALUES (1, '2031-03-01', 'North Sluice', 520, 400), (2, '2031-03-01', 'Mill Race', 150, 380), (3, '2031-04-01', 'Mill Race', NULL, 380), (4, '2031-04-01', 'Fern Pool', 90, 380)");
        }
        List<String> typed = List.of("DESK/demo/generation.yaml", "--on", url, "--table", "generation=plant.generation", "--rows-by", "line");
        assertThat(type("series", typed, "--chart", "march").out()).isEqualTo("station       below  above\nNorth Sluice           520\nMill Race       150\n");
        assertThat(type("sql", typed, "--write-view", "plant.v_", "--dry-run").out()).contains("DROP VIEW IF EXISTS \"plant\".\"v_march\";", "CREATE VIEW \"plant\".\"v_march\" AS\nWITH");
        assertThat(type("sql", typed, "--write-view", "plant.v_").err()).isEqualTo("gorge: wrote the view plant.v_march\ngorge: wrote the view plant.v_licence\n");
        assertThat(type("sql", typed, "--write-view", "plant.v_").code()).as("again").isZero();
        try (Connection asked = DriverManager.getConnection(url); Statement use = asked.createStatement(); ResultSet rows = use.executeQuery("SELECT * FROM plant.v_march")) {
            rows.next();
            assertThat(rows.getString("station") + " " + rows.getDouble("above")).isEqualTo("North Sluice 520.0");
        }
        try (Connection made = DriverManager.getConnection(url); Statement use = made.createStatement()) {
            use.execute("CREATE TABLE plant.w_licence (a INTEGER)");
        }
        assertThat(type("sql", typed, "--write-view", "plant.w_")).satisfies(answer -> {
            assertThat(answer.code()).isEqualTo(2);
            assertThat(answer.err()).contains("the views: the database says: ", "\"w_licence\" is not a view");
        });
        try (Connection asked = DriverManager.getConnection(url); Statement use = asked.createStatement(); ResultSet rows = use.executeQuery("SELECT COUNT(*) FROM information_schema.views WHERE table_name = 'w_march'")) {
            rows.next();
            assertThat(rows.getInt(1)).as("all views or none").isZero();
        }
    }

    private Desk.Answer type(String command, List<String> typed, String... more) {
        List<String> all = new ArrayList<>(List.of(command));
        all.addAll(typed);
        all.addAll(List.of(more));
        return desk.type(all.toArray(String[]::new));
    }

    @Test
    public void userWhoMayNotReadIsToldSo() throws SQLException {
        String url = url("postgresql");
        try (Connection made = DriverManager.getConnection(url); Statement use = made.createStatement()) {
            use.execute("DROP TABLE IF EXISTS secret; CREATE TABLE secret (month DATE, station TEXT, generated_mwh DOUBLE PRECISION, licensed_mwh DOUBLE PRECISION)");
            use.execute("DROP ROLE IF EXISTS guest; CREATE ROLE guest LOGIN PASSWORD 'weir-guest'");
        }
        String guest = server.url() + "?user=guest&password=weir-guest";
        Desk.Answer answer = desk.type("series", "DESK/demo/generation.yaml", "--on", guest, "--table", "generation=secret");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains("DESK/demo/generation.yaml:4:3: table 'generation': the database says: ERROR: permission denied for table secret").doesNotContain("weir-guest");
        assertThat(desk.type("series", "DESK/demo/generation.yaml", "--on", server.url() + "?user=guest&password=wrong").err()).contains("password authentication failed").doesNotContain("password=wrong");
    }

    /** What is in the cells of a large file, and whether the engine reads it. */
    @DataProvider
    public Object[][] cells() {
        return Stream.of("12.5", "007", "1,5", "-", "n/a", "", "1e3", "inf", "NaN", "1_000", " 7", "+3", "€ 12", "\"1,200\"", "25%", "(70)", "true", "x", "2031-02-30").map(cell -> new Object[] {cell}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "cells")
    public void largeFilesHaveTheSameCellsWhoeverReadsThem(String cell) throws IOException {
        Path file = desk.path("big.csv");
        StringBuilder text = new StringBuilder("station,day,mwh\n");
        for (int i = 0; i < 60_000; i++) {
            text.append(List.of("Fern Pool", "Mill Race", "Otter Bend").get(i % 3)).append(",2031-0").append(1 + i % 9).append("-10,").append(i % 977).append(i % 2 == 0 ? ".5" : "").append('\n');
        }
        text.append("Low Lock,2031-01-01,").append(cell).append("\nFern Pool,2031-01-02,4\n");
        Files.writeString(file, text);
        desk.with("b.yaml", "brief: 1\ndata: {big: big.csv}\nshape:\n- {total: {by: station, sum: mwh, count: day}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh, labels: {format: '#,##0.0'}}\n");
        Desk.Answer here = desk.type("check", "DESK/b.yaml", "--on", "here");
        Desk.Answer there = desk.type("check", "DESK/b.yaml", "--on", "duckdb:");
        assertThat(rounded(there)).isEqualTo(rounded(here));
        assertThat(rounded(desk.type("series", "DESK/b.yaml", "--on", "duckdb:"))).isEqualTo(rounded(desk.type("series", "DESK/b.yaml", "--on", "here")));
    }

    /** The last cell of a file that the engine reads unasked: with an odd one the column is of texts, and can't be summed. */
    @DataProvider
    public Object[][] lastCells() {
        String line = "%s;%s;%s\n";
        String object = "{\"station\": \"%s\", \"day\": \"%s\", \"mwh\": %s}\n";
        Object[][] all = {{"huge.csv", "station;day;mwh\n", line, 400, "12.5", 0}, {"huge.ndjson", "", object, 130, "12.5", 0}, {"huge.ndjson", "", object, 130, "\"1,5\"", 2}, {"huge.csv", "station;day;mwh\n", line, 400, "1,5", 2}};
        return Arrays.copyOf(all, TestSize.of(2, all.length));
    }

    @Test(dataProvider = "lastCells")
    public void hugeFilesAreReadByTheEngineUnaskedAndHereWhereACellIsOdd(String file, String header, String row, int times, String cell, int code) throws IOException {
        try (BufferedWriter out = Files.newBufferedWriter(desk.path(file))) {
            out.write(header);
            String rows = IntStream.range(0, 10_000).mapToObj(i -> String.format(row, List.of("Fern Pool", "Mill Race", "Otter Bend").get(i % 3), "2031-0" + (1 + i % 9) + "-10", i % 977 + (i % 2 == 0 ? ".5" : ""))).collect(Collectors.joining());
            for (int i = 0; i < times; i++) {
                out.write(rows);
            }
            out.write(String.format(row, "Low Lock", "2031-01-01", cell));
        }
        desk.with("b.yaml", "brief: 1\ndata: {huge: " + file + "}\nshape:\n- {total: {by: station, sum: mwh}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        Desk.Answer unasked = desk.type("series", "DESK/b.yaml");
        assertThat(rounded(unasked)).isEqualTo(rounded(desk.type("series", "DESK/b.yaml", "--on", "here")));
        assertThat(unasked.code()).isEqualTo(code);
    }

    @Test
    public void seriesGoIntoParquetAndComeBack() {
        assertThat(desk.type("series", "DESK/demo/generation.yaml", "--chart", "march", "-o", "DESK/march.parquet")).isEqualTo(new Desk.Answer(0, "DESK/march.parquet\n", ""));
        desk.with("b.yaml", "brief: 1\ndata: {march: march.parquet}\ncharts:\n  c: {pattern: columns, category: station, value: 'COALESCE(above, below)'}\n");
        String here = desk.type("series", "DESK/demo/generation.yaml", "--chart", "march", "--as", "csv").out();
        String back = desk.type("series", "DESK/b.yaml", "--as", "csv").out();
        assertThat(back.lines().skip(1).map(line -> line.replace(",", "")).toList()).as("in the same order").isEqualTo(here.lines().skip(1).map(line -> line.replace(",", "")).toList());
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv", "--on", "jdbc:h2:mem:").out()).isEqualTo(back);
        assertThat(desk.type("start", "columns", "DESK/march.parquet").out()).contains("march.parquet", "category: station", "value: below");
        assertThat(desk.type("start", "DESK/none.parquet").err()).isEqualTo("gorge: DESK/none.parquet: there is no such file\n");
        assertThat(desk.type("series", "DESK/b.yaml", "-o", "DESK/c.txt").err()).isEqualTo("gorge: -o: 'DESK/c.txt' has no ending that series are written in; known are .csv, .json and .parquet\n");
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][] {{"generation --on duckdb:DESK/none.db", "--on: there is no database file 'DESK/none.db'"}, {"generation --on jdbc:nothing:x", "no driver on the class path takes 'jdbc:nothing:x'"},
            {"generation --rows-by line", "--rows-by: is about a database; say which with --on URL"}, {"generation --dialect duckdb", "--dialect: is about a database; say which with --on URL"},
            {"generation --table generation=x", "--table: is about a database; say which with --on URL"}, {"generation --on duckdb: --table generation=x", "generation.yaml:4:3: table 'generation': the database has no table 'x'. Known here: none."},
            {"generation --on duckdb: --table generaton=x", "--table: there is no table 'generaton' in 'data'. Did you mean 'generation'?"}, {"generation --on duckdb: --dialect duckbd", "--dialect: there is no dialect 'duckbd'. Did you mean 'duckdb'?"},
            {"generation --on spark://127.0.0.1:9 --dialect duckdb", "--on: a cluster speaks 'spark', not 'duckdb'"}, {"generation --on spark://127.0.0.1:9", "nothing on the class path takes 'spark://127.0.0.1:9'"},
            {"generation --on duckdb: --rows-by line", "--rows-by: is about tables of the database, and all are files, which keep their order"},
            {"generation --on duckdb: --set month=2033-01-01", "column 'month': no row holds '2033-01-01', which is what :month is. Did you mean '2031-01-01'?"}};
    }

    @Test(dataProvider = "wrong")
    public void mistakesAreOneSentence(String typed, String said) {
        String[] words = typed.split(" ");
        List<String> all = new ArrayList<>(List.of("series", "DESK/demo/" + words[0] + ".yaml"));
        all.addAll(List.of(words).subList(1, words.length));
        assertThat(desk.type(all.toArray(String[]::new))).satisfies(answer -> {
            assertThat(answer.code()).isEqualTo(2);
            assertThat(answer.out()).isEmpty();
            assertThat(answer.err()).contains(said).hasLineCount(1);
        });
    }

    @Test
    public void briefNamesADatabaseOnlyWhereThatIsAllowed() {
        desk.with("b.yaml", "brief: 1\nrun-on: jdbc:h2:mem:x\ndata: {g: {table: generation}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:2:9: the brief names a database; if you trust the brief, add --allow database=jdbc:h2:mem:x\n");
        desk.with("b.yaml", "brief: 1\nrun-on: {url: 'jdbc:h2:mem:x;INIT=RUNSCRIPT FROM DESK'}\ndata: {g: {table: generation}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--allow", "database").err()).contains("the parameter 'INIT' of the database's URL may run code or read files");
    }

    @Test
    public void statementNeedsNoDatabaseWhereTheBriefSaysWhatColumnsHold() {
        desk.with("b.yaml", "brief: 1\ndata: {g: {table: plant.generation, rows-by: line, kinds: {station: text, mwh: number, line: number}}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
        assertThat(desk.type("sql", "DESK/b.yaml").out()).contains("FROM \"plant\".\"generation\"", "\"line\" AS \"row\"");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: table 'g': its rows are in a database; say which with --on URL\n");
    }

    @Test
    public void kindsThatTheDatabaseDoesNotHaveAreRefused() throws SQLException {
        try (Connection kept = DriverManager.getConnection("jdbc:h2:mem:kinds"); Statement use = kept.createStatement()) {
            use.execute("CREATE TABLE \"g\" (\"station\" VARCHAR(40), \"mwh\" VARCHAR(40))");
            desk.with("b.yaml", "brief: 1\ndata: {g: {table: g, kinds: {station: text, mwh: number, kw: number}}}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
            assertThat(desk.type("check", "DESK/b.yaml", "--on", "jdbc:h2:mem:kinds").err()).isEqualTo("gorge: DESK/b.yaml:2:8: table 'g': 'kinds': 'mwh' is a text in the database, not a number; convert it in a query\ngorge: DESK/b.yaml:2:8: table 'g': 'kinds': there is no column 'kw'. Known here: 'station', 'mwh'.\n");
        }
    }

    @Test
    public void daysOfADatabaseHaveADayBefore() {
        String query = "SELECT * FROM (VALUES (DATE '2031-03-01', 1), (DATE '2031-03-02', 3), (DATE '2031-03-04', 7)) AS r (day, v)";
        String brief = "brief: 1\ndata: {t: {query: \"" + query + "\", rows-by: day}}\nshape: [{previous: {of: v, period: day, as: before%s}}]\ncharts:\n  c: {pattern: columns, category: day, value: before}\n";
        desk.with("b.yaml", brief.formatted(", unit: day"));
        assertThat(desk.type("series", "DESK/b.yaml", "--on", "duckdb:").out()).contains("2031-03-02      1\n", "2031-03-04\n");
        desk.with("b.yaml", brief.formatted(""));
        assertThat(desk.type("series", "DESK/b.yaml", "--on", "duckdb:").err()).contains("how long the periods of 'day' are is not known; say it with 'unit'");
        desk.with("b.yaml", brief.formatted("").replace("period: day", "unit: day"));
        assertThat(desk.type("series", "DESK/b.yaml", "--on", "duckdb:").err()).contains("'unit': says how long the periods of 'period' are, and the row before is looked at");
    }
}
