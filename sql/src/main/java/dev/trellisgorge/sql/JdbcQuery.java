package dev.trellisgorge.sql;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.QueryTable;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;

/** Reads what a query gives, by any JDBC driver on the class path, as a table at hand. The connection only reads. Thread-safe: it holds no state. */
public final class JdbcQuery {
    private static final int ROWS_AT_ONCE = 10_000;

    private JdbcQuery() {
    }

    /**
     * The rows in the order of the query. Numbers of any SQL type become numbers, dates and timestamps dates, booleans truths, all else texts; NULL is missing.
     *
     * @param name what the table is to be called
     * @throws BadInput where no driver takes the URL, the database does not answer, the query is wrong, may do more than its rights allow, or names two columns alike
     */
    public static Table read(String name, Login login, Dialect dialect, DatabaseTable.Asked query) {
        return read(name, login, dialect, query, Map.of());
    }

    /** The same. @param stated kinds of columns, see {@link QueryTable#told} */
    public static Table read(String name, Login login, Dialect dialect, DatabaseTable.Asked query, Map<String, Kind> stated) {
        Place place = Place.of("table '" + name + "'");
        String text = query.checked(dialect, place);
        try (Connection connection = Connections.open(login, dialect, false, place)) {
            if (dialect.isEmbedded()) {
                new EmbeddedFiles(connection, dialect, login).lock(List.of());
            }
            connection.setAutoCommit(false); // drivers then hand out the rows bit by bit
            try (Statement statement = connection.createStatement()) {
                statement.setFetchSize(ROWS_AT_ONCE);
                try (ResultSet rows = statement.executeQuery(text)) {
                    return QueryTable.told(name, rows, stated, login);
                }
            }
        } catch (SQLException e) {
            throw login.failed(e, place);
        }
    }
}
