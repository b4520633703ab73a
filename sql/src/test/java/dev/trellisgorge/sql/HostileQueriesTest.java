package dev.trellisgorge.sql;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.sql.query.QueryRights;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.test.DatabaseServer;
import dev.trellisgorge.test.Folder;
import dev.trellisgorge.test.TestSize;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Queries that mean harm, sent by a user who may do everything: what is in the databases and on the disk afterwards. */
@Test(groups = TestSize.SLOW)
public class HostileQueriesTest {
    private static final int COUNT = Integer.getInteger("queries.count", TestSize.of(120, 4_000));
    private static final long SEED = Long.getLong("queries.seed", 29);
    private static final String TOKEN = "otters sleep at noon";

    private Folder folder;
    private Path mark;
    private Path secret;
    private DatabaseServer server;

    @BeforeClass
    void make() throws IOException, SQLException {
        folder = new Folder();
        Files.setPosixFilePermissions(folder.path(), PosixFilePermissions.fromString("rwxr-xr-x"));
        mark = Files.createDirectory(folder.path("mark"));
        Files.setPosixFilePermissions(mark, PosixFilePermissions.fromString("rwxrwxrwx"));
        secret = folder.file("secret.csv", "a,b\n" + TOKEN + ",1\n");
        Files.setPosixFilePermissions(secret, PosixFilePermissions.fromString("rw-r--r--"));
        server = DatabaseServer.start();
        for (Dialect dialect : List.of(Dialect.H2, Dialect.POSTGRESQL, Dialect.DUCKDB)) {
            try (Connection open = connection(dialect); Statement use = open.createStatement()) {
                for (String statement : List.of("CREATE TABLE t (a INT, b VARCHAR(20))", "INSERT INTO t VALUES (1, 'x'), (2, 'y')", "CREATE SEQUENCE s")) {
                    use.execute(statement);
                }
            }
        }
    }

    @AfterClass
    void leave() {
        server.close();
        folder.close();
    }

    private Login login(Dialect dialect) {
        return switch (dialect) {
            case H2 -> new Login("jdbc:h2:" + folder.path("h2"), Optional.of("sa"), Optional.of(""));
            case POSTGRESQL -> new Login(server.url(), Optional.of(DatabaseServer.USER), Optional.of(DatabaseServer.PASSWORD));
            default -> Login.to("jdbc:duckdb:" + folder.path("plant.duckdb"));
        };
    }

    private Connection connection(Dialect dialect) throws SQLException {
        Login login = login(dialect);
        return DriverManager.getConnection(login.url(), login.user().orElse(null), login.password().orElse(null));
    }

    /** All that a query could have changed. */
    private String state(Dialect dialect) throws SQLException, IOException {
        Map<String, String> state = new LinkedHashMap<>();
        List<String> asked = new ArrayList<>(List.of("SELECT CAST(COUNT(*) AS VARCHAR(20)) || ' ' || CAST(SUM(a) AS VARCHAR(20)) || MIN(b) FROM t", switch (dialect) {
            case H2 -> "SELECT LISTAGG(TABLE_NAME, ',') WITHIN GROUP (ORDER BY TABLE_NAME) FROM INFORMATION_SCHEMA.TABLES WHERE TABLE_SCHEMA = 'PUBLIC'";
            case POSTGRESQL -> "SELECT STRING_AGG(relname, ',' ORDER BY relname) FROM pg_class WHERE relnamespace = 'public'::regnamespace";
            default -> "SELECT STRING_AGG(table_name, ',' ORDER BY table_name) FROM duckdb_tables()";
        }, switch (dialect) {
            case H2 -> "SELECT (SELECT COUNT(*) FROM INFORMATION_SCHEMA.ROUTINES) + (SELECT COUNT(*) FROM INFORMATION_SCHEMA.USERS) + (SELECT BASE_VALUE FROM INFORMATION_SCHEMA.SEQUENCES)";
            case POSTGRESQL -> "SELECT (SELECT COUNT(*) FROM pg_proc) || ' ' || (SELECT COUNT(*) FROM pg_roles) || ' ' || (SELECT COUNT(*) FROM pg_largeobject_metadata) || ' ' || (SELECT last_value || '' || is_called FROM s)";
            default -> "SELECT COUNT(*) FROM duckdb_views() WHERE NOT internal";
        }));
        try (Connection open = connection(dialect); Statement use = open.createStatement()) {
            for (String question : asked) {
                try (ResultSet rows = use.executeQuery(question)) {
                    rows.next();
                    state.put(question, rows.getString(1));
                }
            }
        }
        try (Stream<Path> files = Files.walk(mark)) {
            state.put("mark", files.map(Path::toString).toList().toString());
        }
        try (Stream<Path> files = Files.list(folder.path())) {
            state.put("folder", new TreeSet<>(files.map(file -> file.getFileName().toString()).filter(name -> !name.equals("said")).toList()).toString());
        }
        return state.toString();
    }

    @DataProvider
    Object[][] databases() {
        return new Object[][] {{Dialect.H2}, {Dialect.POSTGRESQL}, {Dialect.DUCKDB}};
    }

    @Test(dataProvider = "databases")
    public void nothingIsWrittenAndNoFileIsRead(Dialect dialect) throws SQLException, IOException {
        HostileQueries queries = new HostileQueries(dialect, mark.toString(), secret.toString(), SEED + dialect.ordinal());
        assertThat(send(dialect, "SELECT a, b FROM t ORDER BY a", true).rowCount() + send(dialect, "SELECT a, b FROM t", false).rowCount()).as("what does no harm is read").isEqualTo(4);
        String before = state(dialect);
        List<String> sent = new ArrayList<>();
        for (int i = 0; i < COUNT; i++) {
            String query = queries.next();
            sent.add(query);
            send(dialect, query, i % 2 == 0);
            if (i % 25 == 24 || i == COUNT - 1) {
                assertThat(state(dialect)).as(String.join("\n---\n", sent)).isEqualTo(before);
                sent.clear();
            }
        }
        if (dialect == Dialect.POSTGRESQL) {
            try (Connection open = connection(dialect); Statement use = open.createStatement(); ResultSet rows = use.executeQuery("SELECT COUNT(*) FROM pg_stat_activity WHERE backend_type = 'client backend' AND pid <> pg_backend_pid() AND state <> 'idle'")) {
                rows.next();
                assertThat(rows.getInt(1)).isZero();
            }
        }
    }

    /** What it gave, or nothing where it was refused; an error that isn't a sentence, and a text of the file, fail the test. */
    private Table send(Dialect dialect, String query, boolean alone) {
        try {
            Table table = alone ? JdbcQuery.read("q", login(dialect), dialect, new DatabaseTable.Asked(query, QueryRights.NONE)) : computed(dialect, query, QueryRights.NONE);
            for (Column column : table.columns()) {
                for (int row = 0; row < table.rowCount(); row++) {
                    assertThat(String.valueOf(column.written(row))).as(query).doesNotContain(TOKEN);
                }
            }
            return table;
        } catch (BadInput refused) {
            assertThat(refused.getMessage()).as(query).startsWith("table 'q': ").doesNotContain(TOKEN);
            return Table.of("q", Source.MEMORY, List.of());
        } catch (RuntimeException | Error e) {
            throw new AssertionError(query, e);
        }
    }

    private Table computed(Dialect dialect, String query, QueryRights rights) {
        try (Database database = Database.open(login(dialect), dialect, List.of(DatabaseTable.asked("q", query, rights).rowsBy(dialect == Dialect.H2 ? "A" : "a")), Settings.NONE, false)) {
            return database.run(Pipeline.of("q"));
        }
    }

    /** The second line of defence: the session itself only reads, whatever is sent. */
    @Test(dataProvider = "databases")
    public void queryThatIsSentUncheckedWritesNothingEither(Dialect dialect) throws SQLException, IOException {
        String before = state(dialect);
        QueryRights all = new QueryRights(Set.of("nextval"), true);
        for (String query : List.of("SELECT 1 AS a) AS asked; DELETE FROM t; SELECT * FROM (SELECT 1 AS a", "SELECT 1 AS a) AS asked; COMMIT; DELETE FROM t; SELECT * FROM (SELECT 1 AS a", "SELECT nextval('s') AS a",
                "SELECT 1 AS a) AS asked; COMMIT; CREATE TABLE u (a INT); SELECT * FROM (SELECT 1 AS a")) {
            try {
                computed(dialect, query, all);
            } catch (BadInput refused) {
                assertThat(refused.getMessage()).as(query).startsWith("table 'q': ");
            }
            assertThat(state(dialect)).as(query).isEqualTo(before);
        }
    }
}
