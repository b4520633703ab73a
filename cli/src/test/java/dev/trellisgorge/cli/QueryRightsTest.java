package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What the queries of a brief may do, and what whoever runs it lets them. */
public class QueryRightsTest {
    private Desk desk;

    @BeforeMethod
    public void make() {
        desk = new Desk();
    }

    @AfterMethod
    public void clean() {
        desk.close();
    }

    /** Rows in the database in which it is computed, and rows that come over. */
    private Desk.Answer series(String query, boolean there, String... more) {
        String source = there ? "{query: \"" + query + "\", rows-by: v}" : "{jdbc: \"jdbc:duckdb:\", query: \"" + query + "\"}";
        desk.with("b.yaml", "brief: 1\ndata: {t: " + source + "}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n");
        String[] typed = new String[more.length + 4];
        System.arraycopy(new String[] {"series", "DESK/b.yaml", there ? "--on" : "--allow", there ? "duckdb:" : "database"}, 0, typed, 0, 4);
        System.arraycopy(more, 0, typed, 4, more.length);
        return desk.type(typed);
    }

    @DataProvider
    Object[][] ways() {
        return new Object[][] {{true}, {false}};
    }

    @Test(dataProvider = "ways")
    public void queryReadsAndDoesNothingElse(boolean there) {
        assertThat(series("SELECT 'Weir' AS n, 5 AS v UNION ALL SELECT 'Leat', 7 ORDER BY v", there).out()).contains("Weir      5").contains("Leat      7");
        assertThat(series("SELECT 'n' AS n, 2 AS \\\"'\\\", 1 AS v; CREATE TABLE x (a INT); --'", there)).extracting(Desk.Answer::code, Desk.Answer::out).containsExactly(2, "");
        assertThat(series("SELECT content AS n, 1 AS v FROM read_text('DESK/b.yaml')", there).err())
                .endsWith("the query calls read_text, which may do more than compute; if you trust the brief, add --allow function=read_text\n");
        assertThat(series("SELECT content AS n, 1 AS v FROM read_text('/etc/hostname')", there, "--allow", "function=READ_TEXT").err()).as("the engine itself opens no file").contains("the database says: ");
        assertThat(series("SELECT 'Weir' AS n, 5 AS v FROM (SELECT 1) AS r TABLESAMPLE 100%", there).err()).contains("can't tell what the query does: ").endsWith("add --allow query\n");
        assertThat(series("SELECT 'Weir' AS n, 5 AS v FROM (SELECT 1) AS r TABLESAMPLE 100%", there, "--allow", "query").out()).contains("Weir");
    }

    @Test
    public void statementThatIsPrintedHoldsACheckedQueryToo() {
        desk.with("b.yaml", "brief: 1\ndata: {t: {query: \"SELECT n, v FROM x /* ' */ WHERE pg_sleep(9) IS NULL\", kinds: {n: text, v: number}, rows-by: v}}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n");
        assertThat(desk.type("sql", "DESK/b.yaml", "--dialect", "postgresql").err()).contains("the query calls pg_sleep");
        assertThat(desk.type("sql", "DESK/b.yaml", "--dialect", "postgresql", "--allow", "function=pg_sleep").out()).contains("SELECT n, v FROM x WHERE pg_sleep(9) IS NULL");
    }

    @Test
    public void rightsAreWrittenAsTheyAre() {
        assertThat(desk.type("check", "DESK/b.yaml", "--allow", "query=all").err()).isEqualTo("gorge: --allow: 'query' takes no value\n");
        assertThat(desk.type("check", "DESK/b.yaml", "--allow", "function").err()).isEqualTo("gorge: --allow: say which function is allowed, as in function=NAME\n");
    }

    @DataProvider
    Object[][] others() {
        return new Object[][] {{"s3cr3t word\n"}, {"password: s3cr3t\nuser: me\n"}, {"- s3cr3t\n"}, {"root:x:0:0:s3cr3t:/root\n"}};
    }

    @Test(dataProvider = "others")
    public void fileThatIsNoBriefIsNotQuoted(String text) {
        assertThat(desk.with("other.txt", text).type("draw", "DESK/other.txt").err()).isEqualTo("gorge: DESK/other.txt:1:1: is no brief; a brief is a mapping of keys to values that starts with 'brief: 1'\n");
    }

    @Test(dataProvider = "ways")
    public void daysOfMomentsAreOfTheZoneThatIsAskedForOrOfUtc(boolean there) {
        String query = "SELECT CAST('2031-03-30 23:30:00+00' AS TIMESTAMPTZ) AS n, 5 AS v";
        assertThat(series(query, there).out()).contains("2031-03-30");
        assertThat(desk.type("check", "DESK/b.yaml", there ? "--on" : "--allow", there ? "duckdb:" : "database").out()).contains("'n' holds moments, whose days are those of the time zone UTC");
        assertThat(series(query, there, "--zone", "Europe/Berlin").out()).contains("2031-03-31");
        desk.with("z.yaml", "brief: 1\nzone: Asia/Tokyo\ndata: {t: {" + (there ? "rows-by: v" : "jdbc: \"jdbc:duckdb:\"") + ", query: \"" + query + "\"}}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n");
        assertThat(desk.type("series", "DESK/z.yaml", there ? "--on" : "--allow", there ? "duckdb:" : "database").out()).contains("2031-03-31");
        assertThat(series(query, there, "--zone", "Europe/Berlim").err()).isEqualTo("gorge: --zone: there is no time zone 'Europe/Berlim', such as UTC or Europe/Berlin. Did you mean 'Europe/Berlin'?\n");
    }

    @Test
    public void zoneOfFilesIsAnError() {
        desk.with("f.csv", "n,v\nWeir,5\n").with("b.yaml", "brief: 1\nzone: UTC\ndata: {t: f.csv}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:2:1: a time zone is for moments in a database, and all tables are files\n");
    }

    @Test
    public void zoneThatTheDialectCannotSetIsAnError() {
        desk.with("b.yaml", "brief: 1\ndata: {t: {query: SELECT 1 AS n}}\ncharts:\n  c: {pattern: columns, category: n, value: n}\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--on", "jdbc:duckdb:", "--dialect", "standard", "--zone", "UTC").err())
                .contains("gorge: --zone: a session's time zone can't be set in the dialect 'standard'; set it in the database\n");
    }

    /** It says all but the kinds of its columns by itself. */
    @Test
    public void parquetTakesKindsAndNothingElseOfALayout() {
        desk.with("t.csv", "n,v\n1,5\n2,7\n").with("w.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n");
        assertThat(desk.type("series", "DESK/w.yaml", "-o", "DESK/t.parquet").code()).isZero();
        String brief = "brief: 1\ndata: {t: {file: t.parquet, LAYOUT}}\ncharts:\n  c: {pattern: columns, category: value, value: value}\n";
        for (String on : List.of("here", "duckdb:")) {
            desk.with("p.yaml", brief.replace("LAYOUT", "times-of-day: {n: hour}, decimal: ','"));
            assertThat(desk.type("series", "DESK/p.yaml", "--on", on).err()).contains("'times-of-day' says nothing of Parquet. Known here: 'kinds'.", "'decimal' says nothing of Parquet.");
            desk.with("p.yaml", brief.replace("LAYOUT", "kinds: {value: text}"));
            assertThat(desk.type("series", "DESK/p.yaml", "--on", on).err()).contains("'kinds': 'value' is a number in the database, not a text; convert it in a query");
        }
    }
}
