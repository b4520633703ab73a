package dev.trellisgorge.sql;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.OptionalDouble;
import org.duckdb.DuckDBPreparedStatement;

/** How far the embedded engine is with a statement, which JDBC has no words for. A class of its own, as its driver is there only where it is used. */
final class EmbeddedProgress {
    private EmbeddedProgress() {
    }

    /** From now on it knows. */
    static void ask(Connection connection) throws SQLException {
        try (Statement set = connection.createStatement()) {
            set.execute("SET enable_progress_bar = true");
            set.execute("SET enable_progress_bar_print = false");
        }
    }

    static OptionalDouble share(Statement running) {
        try {
            double percentage = ((DuckDBPreparedStatement) running).getQueryProgress().getPercentage();
            return percentage < 0 ? OptionalDouble.empty() : OptionalDouble.of(Math.min(1, percentage / 100));
        } catch (SQLException e) {
            return OptionalDouble.empty(); // it has ended
        }
    }
}
