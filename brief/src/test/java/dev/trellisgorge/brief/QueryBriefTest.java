package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Briefs whose tables are queries, on an embedded database and on a server. */
public class QueryBriefTest {
    private static final String EMBEDDED = "jdbc:h2:mem:network";
    private static final String CHARTS = "charts: {c: {pattern: columns, category: station, value: mwh, title: March}}\n";

    private Folder folder;
    private Database embedded;
    private DatabaseServer server;

    @BeforeClass
    void fill() {
        folder = new Folder();
        embedded = Database.open(EMBEDDED, DatabaseServer.USER, DatabaseServer.PASSWORD);
        fill(embedded);
        if (DatabaseServer.isInstalled()) {
            server = DatabaseServer.start();
            try (Database open = Database.open(server.url(), DatabaseServer.USER, DatabaseServer.PASSWORD)) {
                fill(open);
                open.run("CREATE TABLE odd (id UUID, at TIMESTAMP WITH TIME ZONE, price NUMERIC(12, 4), small REAL, ways INT[], doc JSON, open BIT(1))");
                open.run("INSERT INTO odd VALUES ('00000000-0000-0000-0000-000000000001', '2031-03-01 12:00+00', 1234.5678, 0.1, '{1,2}', '{\"a\": 1}', B'1'),"
                        + " (NULL, NULL, NULL, NULL, NULL, NULL, NULL)");
            }
        }
    }

    private static void fill(Database database) {
        database.run("CREATE TABLE generation (station VARCHAR(40), mwh DECIMAL(10, 2), big BIGINT, since DATE, seen TIMESTAMP, open BOOLEAN)");
        database.run("INSERT INTO generation VALUES ('Weir', 520.50, 12, DATE '2001-02-28', TIMESTAMP '2031-03-01 23:59:00', TRUE),"
                + " (NULL, NULL, NULL, NULL, NULL, NULL), ('Leat', -0.0, 3, DATE '1999-12-31', NULL, FALSE)");
    }

    @AfterClass
    void leave() {
        embedded.close();
        if (server != null) {
            server.close();
        }
        folder.close();
    }

    @DataProvider
    Object[][] places() {
        return new Object[][] {{"embedded"}, {"server"}};
    }

    private String url(String where) {
        return where.equals("embedded") ? EMBEDDED : server().url();
    }

    private DatabaseServer server() {
        return server == null ? DatabaseServer.start() : server; // says why there is none
    }

    private Brief brief(String url, String query, String variable) {
        return Brief.read(folder.file("b.yaml", "brief: 1\ndata:\n  march:\n    jdbc: " + url + "\n    user: gorge\n    password-variable: " + variable + "\n    query: "
                + query + "\n" + CHARTS), Overrides.NONE, AccessPolicy.OWN_FOLDER.allowing(AccessPolicy.Kind.DATABASE, "jdbc:").allowing(AccessPolicy.Kind.ENVIRONMENT, variable), Progress.NONE);
    }

    @Test(dataProvider = "places")
    public void rowsComeInTheOrderOfTheQueryWithTheirKindsAndWhatIsMissing(String where) {
        Table table = brief(url(where), "SELECT station AS \"station\", mwh AS \"mwh\", big, since, seen, open FROM generation ORDER BY big DESC NULLS LAST",
                "GORGE_TEST_PASSWORD").table();
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.TEXT, Kind.NUMBER, Kind.NUMBER, Kind.DATE, Kind.DATE, Kind.TRUTH);
        assertThat(Database.rows(table)).isEqualTo(List.of(List.of("Weir", 520.5, 12.0, "2001-02-28", "2031-03-01", "true"),
                Arrays.asList("Leat", 0.0, 3.0, "1999-12-31", null, "false"), Arrays.asList(null, null, null, null, null, null)));
    }

    @Test(dataProvider = "places")
    public void queryIsWhatTheFormerTablesWereAndOnlyReads(String where) {
        assertThat(brief(url(where), "SELECT station AS \"station\", mwh AS \"mwh\" FROM generation WHERE mwh IS NOT NULL", "GORGE_TEST_PASSWORD")
                .compute(brief(url(where), "SELECT 1 AS \"mwh\", 'a' AS \"station\"", "GORGE_TEST_PASSWORD").charts()).get(0).printed().rowCount()).isEqualTo(2);
        assertThatThrownBy(() -> brief(url(where), "DELETE FROM generation", "GORGE_TEST_PASSWORD")).isInstanceOf(BadInput.class);
        assertThat(brief(url(where), "SELECT COUNT(*) AS \"mwh\", 'all' AS \"station\" FROM generation", "GORGE_TEST_PASSWORD").table().column("mwh").number(0)).isEqualTo(3);
    }

    @Test(dataProvider = "places")
    public void mistakesAreToldWithTheirPlaceAndWithoutThePassword(String where) {
        assertThatThrownBy(() -> brief(url(where), "SELECT nothing FROM generation", "GORGE_TEST_PASSWORD")).isInstanceOf(BadInput.class)
                .hasMessageStartingWith("b.yaml:7:12: table 'march': the database says: ").hasMessageContaining("olumn \"").hasMessageNotContaining("weir");
        assertThatThrownBy(() -> brief(url(where), "SELECT 1", "PATH")).isInstanceOf(BadInput.class).hasMessageContaining("the database says: ")
                .hasMessageNotContaining(System.getenv("PATH"));
        assertThatThrownBy(() -> brief(url(where), "SELECT 1", "GORGE_NO_SUCH")).isInstanceOf(BadInput.class)
                .hasMessage("b.yaml:6:24: 'password-variable': there is no environment variable 'GORGE_NO_SUCH'");
    }

    @Test
    public void kindsThatOnlyAServerHasAreTextsWhereTheyAreNoFigures() {
        Table table = brief(server().url(), "SELECT 'a' AS station, 1 AS mwh, odd.* FROM odd ORDER BY id NULLS LAST", "GORGE_TEST_PASSWORD").table();
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.TEXT, Kind.NUMBER, Kind.TEXT, Kind.DATE, Kind.NUMBER, Kind.NUMBER, Kind.TEXT, Kind.TEXT, Kind.TRUTH);
        assertThat(table.column("price").number(0)).isEqualTo(1234.5678);
        assertThat(table.column("small").number(0)).isEqualTo(0.1);
        assertThat(table.column("ways").written(0)).isEqualTo("{1,2}");
        assertThat(table.columns().subList(2, 9)).noneMatch(column -> column.isPresent(1));
    }

    @Test
    public void serverThatIsNotThereIsNamed() {
        assertThatThrownBy(() -> brief("jdbc:postgresql://127.0.0.1:9/none", "SELECT 1", "GORGE_TEST_PASSWORD")).isInstanceOf(BadInput.class)
                .hasMessageContaining("b.yaml:7:12: table 'march': the connection to 'jdbc:postgresql://127.0.0.1:9/none' failed: ");
    }
}
