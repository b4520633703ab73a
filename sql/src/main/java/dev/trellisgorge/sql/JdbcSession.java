package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.QueryTable;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.TimeUnit;

/** A database that is reached by JDBC, over a connection that reads only but while tables are copied and views made. */
final class JdbcSession implements Session {
    private static final int ROWS_AT_ONCE = 10_000;
    /** A statement of so many characters says expressions and not only totals. */
    private static final int LONG = 5000;

    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(30);
    /** Milliseconds. */
    private static final long PAUSE = 50;

    private final Connection connection;
    private final Login shown;
    private final Dialect dialect;
    private final DatabaseTables found;
    private volatile Optional<Call> running = Optional.empty();

    /**
     * @param connection that reads only, see {@link Connections}
     * @param shown      how it is called in messages
     */
    JdbcSession(Connection connection, Login shown, Dialect dialect) {
        this.connection = connection;
        this.shown = shown;
        this.dialect = dialect;
        this.found = new DatabaseTables(connection, shown, dialect);
    }

    @Override
    public Dialect dialect() {
        return dialect;
    }

    @Override
    public Map<String, TableSource> sources(List<DatabaseTable> tables) {
        try {
            Map<String, TableSource> sources = found.sources(tables);
            connection.setAutoCommit(false);
            return sources;
        } catch (SQLException e) {
            throw shown.failed(e, Place.of(""));
        }
    }

    @Override
    public List<Column> rows(String name, Sql.Parametrised statement, List<Field> fields, boolean few) {
        Call call = new Call(connection, dialect);
        running = Optional.of(call);
        try (PreparedStatement query = prepared(statement.text())) {
            query.setFetchSize(few ? 0 : ROWS_AT_ONCE); // where they come in parts, some servers work with one processor alone
            for (int i = 0; i < statement.parameters().size(); i++) {
                DatabaseTables.set(query, i + 1, statement.parameters().get(i), 0, dialect);
            }
            call.sends(query);
            try (ResultSet rows = query.executeQuery()) {
                List<Column> columns = QueryTable.of(name, rows, fields).columns();
                found.checkFeeds();
                return columns;
            }
        } catch (SQLException e) {
            rolledBack();
            found.checkFeeds();
            throw shown.failed(e, Place.of("table '" + name + "'"));
        } finally {
            running = Optional.empty();
        }
    }

    /** Compiling long expressions takes a server longer than working them out; so it is told not to, for this transaction. */
    private PreparedStatement prepared(String text) throws SQLException {
        Optional<String> before = dialect.beforeLongStatement().filter(statement -> text.length() > LONG);
        if (before.isPresent()) {
            try (Statement set = connection.createStatement()) {
                set.execute(before.get());
            }
        }
        return connection.prepareStatement(text);
    }

    @Override
    public void make(List<String> statements) {
        try {
            connection.rollback();
            Connections.readOnly(connection, dialect, false);
            try (Statement make = connection.createStatement()) {
                for (String statement : statements) {
                    make.execute(statement);
                }
            }
            connection.commit();
        } catch (SQLException e) {
            rolledBack();
            throw shown.failed(e, Place.of("the views"));
        } finally {
            onlyReads();
        }
    }

    private void onlyReads() {
        try {
            Connections.readOnly(connection, dialect, true);
        } catch (SQLException e) {
            // The connection is gone, which the next statement says.
        }
    }

    /** After an error a transaction takes no more statements. */
    private void rolledBack() {
        try {
            connection.rollback();
        } catch (SQLException e) {
            // The connection is gone, which the error says.
        }
    }

    @Override
    public OptionalDouble share() {
        Optional<Statement> now = running.flatMap(Call::sent);
        if (now.isEmpty() || !dialect.isEmbedded()) {
            return OptionalDouble.empty();
        }
        OptionalDouble given = found.share();
        return given.isPresent() ? given : EmbeddedProgress.share(now.get());
    }

    /** Asks again until the statement has ended: a server passes over what reaches it before the statement does. */
    @Override
    public void cancel() {
        Optional<Call> asked = running;
        long until = System.nanoTime() + PATIENCE;
        try {
            while (asked.isPresent() && running.equals(asked) && System.nanoTime() < until) {
                asked.get().cancel();
                Thread.sleep(PAUSE);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        found.close();
        Connections.closed(connection);
    }

    @Override
    public String toString() {
        return shown.toString();
    }

    /** One statement, from before it is prepared to its last row. Its methods may be called from any thread. */
    private static final class Call {
        private final Connection connection;
        private final Dialect dialect;
        private Optional<Statement> sent = Optional.empty();
        private boolean cancelled;

        Call(Connection connection, Dialect dialect) {
            this.connection = connection;
            this.dialect = dialect;
        }

        /** @throws SQLException where it was cancelled before */
        synchronized void sends(Statement statement) throws SQLException {
            if (cancelled) {
                throw new SQLException("it was cancelled before it was sent", Login.CANCELLED);
            }
            sent = Optional.of(statement);
        }

        synchronized Optional<Statement> sent() {
            return sent;
        }

        /** Without an outcome of its own: whether the statement ends is seen there. */
        void cancel() {
            Optional<Statement> statement;
            boolean again;
            synchronized (this) {
                again = cancelled && sent.isPresent();
                cancelled = true;
                statement = sent;
            }
            try {
                if (again && dialect.losesCancels()) {
                    ServerCancel.ask(connection);
                } else if (statement.isPresent()) {
                    statement.get().cancel();
                }
            } catch (SQLException e) {
                // It has ended by itself, or the server takes no further connection at the moment.
            }
        }
    }
}
