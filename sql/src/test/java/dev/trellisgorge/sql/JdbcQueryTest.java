package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.sql.query.QueryRights;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Optional;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class JdbcQueryTest {
    private static final String URL = "jdbc:h2:mem:stations;USER=trust;PASSWORD=weir";
    private static final String PLAIN = "jdbc:h2:mem:stations";

    private Connection open;

    @BeforeClass
    void fill() throws SQLException {
        open = DriverManager.getConnection(URL);
        open.createStatement().execute("CREATE TABLE stations (station VARCHAR(40), mwh DECIMAL(10, 2), big BIGINT, since DATE, seen TIMESTAMP, open BOOLEAN)");
        open.createStatement().execute("INSERT INTO stations VALUES ('Weir', 520.50, 12, DATE '2001-02-28', TIMESTAMP '2031-03-01 23:59:00', TRUE),"
                + " (NULL, NULL, NULL, NULL, NULL, NULL), ('Leat', -0.0, 3, DATE '1999-12-31', NULL, FALSE)");
    }

    @AfterClass
    void leave() throws SQLException {
        open.close();
    }

    private static Table read(String query) {
        return JdbcQuery.read("t", new Login(PLAIN, Optional.of("trust"), Optional.of("weir")), Dialect.H2, asked(query));
    }

    @Test
    public void rowsComeInTheOrderOfTheQueryWithTheirKindsAndWhatIsMissing() {
        Table table = read("SELECT station AS \"station\", mwh, big, since, seen, open FROM stations ORDER BY big DESC NULLS LAST");
        assertThat(table.columns()).extracting(Column::kind).containsExactly(Kind.TEXT, Kind.NUMBER, Kind.NUMBER, Kind.DATE, Kind.DATE, Kind.TRUTH);
        assertThat(table.columnNames()).startsWith("station", "MWH");
        assertThat(table.columns().stream().map(column -> column.written(0))).containsExactly("Weir", "520.5", "12", "2001-02-28", "2031-03-01", "true");
        assertThat(table.columns()).noneMatch(column -> column.isPresent(2));
        assertThat(table.column("MWH").written(1)).isEqualTo("0");
        assertThat(read("SELECT station FROM stations WHERE 1 = 0").rowCount()).isZero();
    }

    private static DatabaseTable.Asked asked(String query) {
        return new DatabaseTable.Asked(query, QueryRights.NONE);
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {{PLAIN, "weir", "SELECT nothing FROM stations", "table 't': the database says: Column \"NOTHING\" not found"},
            {PLAIN, "leat", "SELECT 1", "the database says: Wrong user name or password"}, {"jdbc:nosuch:x", "", "SELECT 1", "no driver on the class path takes 'jdbc:nosuch:x'"},
            {PLAIN, "weir", "SELECT 1 AS a, 2 AS a", "two columns are named 'A'"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsToldWithoutThePassword(String url, String password, String query, String message) {
        Login login = new Login(url, Optional.of("trust"), Optional.of(password));
        assertThat(login.toString()).isEqualTo(url);
        assertThatThrownBy(() -> JdbcQuery.read("t", login, Dialect.H2, asked(query))).isInstanceOf(BadInput.class).hasMessageContaining(message);
    }
}
