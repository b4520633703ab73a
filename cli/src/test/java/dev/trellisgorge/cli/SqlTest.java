package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Statements that are typed for, read as a person does, and run where the tables are. */
public class SqlTest extends AtDesk {
    private static final double CLOSE = 1e-9;
    private static final String NUMBERED = "line";
    private static final Pattern TEXT = Pattern.compile("text of (.*?)( \\d+)?");

    @BeforeMethod
    void prepare() {
        desk.withDemo();
    }

    @Test
    public void statementSaysWhatItDoesLineByLine() {
        desk.with("b.yaml", "brief: 1\ndata: {generation: demo/generation.csv}\ncharts:\n  licence:\n    pattern: columns\n    category: station\n    value: generated_mwh\n    slice: {month: 2031-04-01}\n    classify: {split: {at: licensed_mwh, ties: below}}\n    labels: {show: none}\n");
        assertThat(desk.type("sql", "DESK/b.yaml", "--rows-by", "line", "--view")).isEqualTo(new Desk.Answer(0, """
                -- the chart licence
                CREATE VIEW "licence" AS
                WITH
                -- the table generation
                "rows of generation" AS (
                  SELECT CAST("month" AS DATE) AS "month",
                    CAST("station" AS VARCHAR(10000)) AS "station",
                    CAST("generated_mwh" AS DOUBLE PRECISION) AS "generated_mwh",
                    CAST("licensed_mwh" AS DOUBLE PRECISION) AS "licensed_mwh",
                    "line" AS "row"
                  FROM "generation"
                ),
                -- keep the rows whose month is 2031-04-01
                "rows" AS (
                  SELECT "here"."month" AS "month",
                    "here"."station" AS "station",
                    "here"."generated_mwh" AS "generated_mwh",
                    "here"."licensed_mwh" AS "licensed_mwh",
                    "here"."row" AS "row"
                  FROM "rows of generation" AS "here"
                  WHERE ("here"."month" = DATE '2031-04-01')
                ),
                -- compute: below, above, unjudged
                "columns" AS (
                  SELECT "here".*,
                    CASE WHEN ("generated_mwh" <= "licensed_mwh") THEN "generated_mwh" END AS "below",
                    CASE WHEN ("generated_mwh" > "licensed_mwh") THEN "generated_mwh" END AS "above",
                    CASE WHEN (("generated_mwh" IS NOT NULL) AND (NOT ("licensed_mwh" IS NOT NULL))) THEN "generated_mwh" END AS "unjudged"
                  FROM "rows" AS "here"
                )
                SELECT "here"."station" AS "station",
                  "here"."below" AS "below",
                  "here"."above" AS "above",
                  "here"."unjudged" AS "unjudged"
                FROM "columns" AS "here"
                ORDER BY "here"."row";
                """, ""));
    }

    @Test
    public void viewsHaveTheTextsOfLabels() {
        String typed = "DESK/demo/generation.yaml";
        assertThat(desk.type("sql", typed, "--chart", "licence", "--rows-by", "line", "--view", "--dialect", "duckdb")).satisfies(answer -> {
            assertThat(answer.err()).isEmpty();
            assertThat(answer.out()).contains("\"here\".\"unjudged\" AS \"unjudged\",\n  \"here\".\"text of below\" AS \"text of below\"");
        });
        assertThat(desk.type("sql", "DESK/demo/energy.yaml", "--rows-by", "line", "--view", "--dialect", "duckdb")).satisfies(answer -> {
            assertThat(answer.err()).isEmpty();
            assertThat(answer.out()).contains("\"text of part\"");
        });
        desk.with("b.yaml", "brief: 1\ndata: {t: demo/fish.csv}\ncharts:\n  c: {pattern: columns, category: day, value: fish, labels: {format: \"##0.0E0\"}}\n");
        assertThat(desk.type("sql", "DESK/b.yaml", "--rows-by", "line", "--view", "--dialect", "duckdb")).satisfies(answer -> {
            assertThat(answer.out()).doesNotContain("text of");
            assertThat(answer.err()).isEqualTo("gorge: note: chart 'c': no dialect says how the labels of value are written, so their texts are no columns of the view; give them a plainer format\n");
        });
    }

    @Test
    public void viewsAreQuotedAsTheDialectQuotes() {
        assertThat(desk.type("sql", "DESK/demo/generation.yaml", "--chart", "licence", "--rows-by", "line", "--view", "--dialect", "spark").out()).startsWith("-- the chart licence\nCREATE VIEW `licence` AS\nWITH").doesNotContain("\"");
        assertThat(desk.type("sql", "DESK/demo/generation.yaml", "--chart", "licence", "--rows-by", "line", "--view", "--dialect", "postgresql").out()).startsWith("-- the chart licence\nCREATE VIEW \"licence\" AS\nWITH").doesNotContain("`");
    }

    @Test
    public void rowsNeedNoNumberWhereNothingReadsTheirOrder() {
        assertThat(desk.type("sql", "DESK/demo/generation.yaml", "--chart", "march", "--dialect", "h2")).satisfies(answer -> {
            assertThat(answer.code()).isZero();
            assertThat(answer.out()).doesNotContain("ROW_NUMBER").contains("ORDER BY \"here\".\"month\" NULLS LAST, CAST(\"here\".\"station\" AS VARBINARY) NULLS LAST, ", "SELECT DATE '2031-03-01' AS \"month\", CAST(400 AS DOUBLE PRECISION) AS \"goal\"");
        });
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][] {{"generation --dialect duckbd", "--dialect: there is no dialect 'duckbd'. Did you mean 'duckdb'?"},
            {"storage", "chart 'balance': column 'level': reads rows in their order, which a table of a database does not have; name the column that numbers them, or put them in order first"},
            {"fish --rows-by line --dialect duckdb --write-view v", "--write-view: writes into a database; say which with --on URL"}, {"fish --view --write-view v", "--view: prints views, and --write-view makes them; give one of the two, or --dry-run with the latter"}, {"fish --dry-run", "--dry-run: is about views that are written; give --write-view PREFIX too"},
            {"generation --on duckdb:", "table 'generation': is a file, which the database has no table of; say which with --table generation=TABLE"}};
    }

    @Test(dataProvider = "wrong")
    public void whatCannotBeSaidIsRefusedWithItsPlace(String typed, String said) {
        String[] words = typed.split(" ");
        List<String> all = new ArrayList<>(List.of("sql", "DESK/demo/" + words[0] + ".yaml"));
        all.addAll(List.of(words).subList(1, words.length));
        assertThat(desk.type(all.toArray(String[]::new))).satisfies(answer -> {
            assertThat(answer.code()).isEqualTo(2);
            assertThat(answer.out()).isEmpty();
            assertThat(answer.err()).contains(said);
        });
    }

    /** A demo brief, and the tables that it reads. */
    @DataProvider
    public Object[][] demos() {
        return new Object[][] {{"accounts", List.of("accounts")}, {"board", List.of("generation", "fish")}, {"energy", List.of("energy")}, {"fish", List.of("fish")}, {"flow", List.of("flow", "flow-before")}, {"generation", List.of("generation")},
            {"levels", List.of("levels")}, {"looks", List.of("generation", "monthly")}, {"monthly", List.of("monthly")}, {"storage", List.of("storage")}, {"targets", List.of("generation")}};
    }

    @Test(dataProvider = "demos")
    public void seriesOfADemoBriefAreTheSameInADatabase(String brief, List<String> tables) throws Exception {
        try (Connection database = DriverManager.getConnection("jdbc:duckdb:"); Statement use = database.createStatement()) {
            for (String table : tables) {
                String file = desk.path("demo/" + table + ".csv").toString();
                String name = table.replace("flow-before", "before");
                use.execute("CREATE TABLE \"" + name + "\" AS SELECT *, ROW_NUMBER() OVER () AS \"" + NUMBERED + "\" FROM read_csv('" + file + "', header = true, nullstr = ['', '-', 'n/a'])");
            }
            String statements = desk.type("sql", "DESK/demo/" + brief + ".yaml", "--dialect", "duckdb", "--rows-by", NUMBERED).out();
            int compared = 0;
            for (String statement : statements.split("(?m)^-- the chart ")) {
                if (!statement.isEmpty()) {
                    compared += compare(use, brief, statement.substring(0, statement.indexOf('\n')), statement.substring(statement.indexOf('\n')));
                }
            }
            assertThat(compared).as(brief).isPositive();
        }
    }

    private int compare(Statement use, String brief, String chart, String statement) throws SQLException {
        Desk.Answer printed = desk.type("series", "DESK/demo/" + brief + ".yaml", "--chart", chart, "--as", "csv");
        if (printed.code() != 0 || printed.out().startsWith("slice,")) {
            return 0; // a figure of a board, or a ring, whose slices stand below each other
        }
        List<List<String>> lines = DemoWorkbooksTest.csv(printed.out());
        Map<String, Integer> at = new LinkedHashMap<>();
        for (int i = 0; i < lines.get(0).size(); i++) {
            at.put(lines.get(0).get(i), i);
        }
        int compared = 0;
        try (ResultSet rows = use.executeQuery(statement)) {
            int row = 1;
            while (rows.next()) {
                for (int i = 2; i <= rows.getMetaData().getColumnCount(); i++) {
                    String name = rows.getMetaData().getColumnLabel(i);
                    Object cell = rows.getObject(i);
                    Matcher text = TEXT.matcher(name);
                    if (text.matches()) { // its words are held to the oracle by the tests of statements
                        boolean ofSigns = brief.equals("levels"); // a bar of no signs is there, and is empty
                        assertThat(cell == null || ofSigns || !lines.get(row).get(at.get(text.group(1))).isEmpty()).as("%s, %s, row %d: %s", chart, name, row, cell).isTrue();
                        continue;
                    }
                    String wanted = lines.get(row).get(at.get(name));
                    boolean same = cell == null ? wanted.isEmpty() : cell instanceof Double figure ? !wanted.isEmpty() && Math.abs(figure - Double.parseDouble(wanted)) <= CLOSE * Math.max(1, Math.abs(figure)) : cell.equals(wanted);
                    assertThat(same).as("%s, %s, row %d: %s for %s%n%s", chart, name, row, cell, wanted, statement).isTrue();
                    compared++;
                }
                row++;
            }
            assertThat(row).as(chart).isEqualTo(lines.size());
        }
        return compared;
    }
}
