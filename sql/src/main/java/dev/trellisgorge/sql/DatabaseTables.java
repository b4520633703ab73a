package dev.trellisgorge.sql;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Stream;

/** Finds raw tables in a database, and copies those that are at hand into it. */
final class DatabaseTables implements AutoCloseable {
    private static final int ROWS_AT_ONCE = 5_000;

    private final Connection connection;
    private final Login shown;
    private final Dialect dialect;
    private final Optional<EmbeddedFiles> embedded;
    private final List<RowFeed> feeds = new ArrayList<>();
    private int copies;

    DatabaseTables(Connection connection, Login shown, Dialect dialect) {
        this.connection = connection;
        this.shown = shown;
        this.dialect = dialect;
        this.embedded = dialect.isEmbedded() ? Optional.of(new EmbeddedFiles(connection, dialect, shown)) : Optional.empty();
    }

    /** @throws BadInput where a table or a column is not there, or a query is wrong */
    Map<String, TableSource> sources(List<DatabaseTable> tables) throws SQLException {
        if (embedded.isPresent()) {
            EmbeddedProgress.ask(connection);
            embedded.get().lock(files(tables));
        }
        Map<String, TableSource> sources = new LinkedHashMap<>();
        for (DatabaseTable table : tables) {
            sources.put(table.name(), source(table));
        }
        return sources;
    }

    /** Looks whether the engine was given all that it was to be. @throws ReadOtherwise where a file has a row that is to be read with care @throws BadInput where one could not be read */
    void checkFeeds() {
        feeds.forEach(RowFeed::check);
    }

    /** How much of a file the engine has been given by now, from 0 to 1; empty where it is given none. */
    OptionalDouble share() {
        return feeds.stream().map(RowFeed::share).filter(OptionalDouble::isPresent).findFirst().orElse(OptionalDouble.empty());
    }

    @Override
    public void close() {
        feeds.forEach(RowFeed::close);
    }

    /** What the embedded engine may open, whatever a query names. */
    private static List<Path> files(List<DatabaseTable> tables) {
        return tables.stream().flatMap(table -> table.rows() instanceof DatabaseTable.InParquet parquet ? Stream.of(parquet.file()) : Stream.empty()).toList();
    }

    private TableSource source(DatabaseTable table) throws SQLException {
        if (table.rows() instanceof DatabaseTable.AtHand here) {
            return copied(here.table());
        } else if (table.rows() instanceof DatabaseTable.InParquet file) {
            return embedded.orElseThrow().parquet(table, file);
        } else if (table.rows() instanceof DatabaseTable.InFile file) {
            boolean known = file.other().isPresent();
            return known && !file.head().isOfAll(file.file()) ? copied(file.readHere()) : fed(table.name(), file, known);
        }
        Place place = Place.of("table '" + table.name() + "'");
        String from;
        if (table.rows() instanceof DatabaseTable.Asked asked) {
            from = TableSource.asked(asked, dialect, place);
        } else {
            from = named(((DatabaseTable.Named) table.rows()).table(), place);
        }
        DatabaseColumns columns = columns(table, from, place);
        table.rowsBy().ifPresent(columns.schema()::field);
        return TableSource.of(from, columns, table.rowsBy().map(dialect::quoted));
    }

    private DatabaseColumns columns(DatabaseTable table, String from, Place place) throws SQLException {
        try {
            return DatabaseColumns.of(Questions.types(connection, from), table, from, dialect, Connections.zoneName(dialect, shown), place, Questions.of(connection));
        } catch (SQLException e) {
            if (!connection.getAutoCommit()) {
                connection.rollback();
            }
            throw shown.failed(e, place);
        }
    }

    /** A table as the database calls it; upper and lower case are told apart only where the database has several of a name. */
    private String named(String written, Place place) throws SQLException {
        List<String> parts = TableSource.parts(written);
        String name = parts.get(parts.size() - 1);
        Optional<String> schema = parts.size() > 1 ? Optional.of(parts.get(parts.size() - 2)) : Optional.empty();
        List<List<String>> exact = new ArrayList<>();
        List<List<String>> alike = new ArrayList<>();
        List<String> all = new ArrayList<>();
        try (ResultSet tables = connection.getMetaData().getTables(parts.size() > 2 ? parts.get(parts.size() - 3) : connection.getCatalog(), null, "%", null)) {
            while (tables.next()) {
                String in = tables.getString("TABLE_SCHEM");
                String found = tables.getString("TABLE_NAME");
                List<String> whole = in == null ? List.of(found) : List.of(in, found);
                all.add(schema.isPresent() ? String.join(".", whole) : found);
                if (found.equals(name) && (schema.isEmpty() || schema.get().equals(in))) {
                    exact.add(whole);
                } else if (found.equalsIgnoreCase(name) && (schema.isEmpty() || schema.get().equalsIgnoreCase(in))) {
                    alike.add(whole);
                }
            }
        }
        List<List<String>> fits = exact.isEmpty() ? alike : exact;
        if (fits.isEmpty()) {
            throw new BadInput(place, ProblemKind.UNKNOWN_NAME, "the database has no table '" + written + "'. " + Nearest.hint(written, all));
        }
        Optional<List<String>> own = schema.isPresent() ? Optional.empty() : fits.stream().filter(whole -> whole.size() == 2 && isOwn(whole.get(0))).findFirst();
        if (own.isEmpty() && fits.size() > 1) {
            throw new BadInput(place, ProblemKind.CONFLICT, "the database has several tables '" + written + "': " + String.join(", ", fits.stream().map(whole -> String.join(".", whole)).toList()) + "; say which");
        }
        return TableSource.quoted(own.orElse(fits.get(0)), dialect);
    }

    private boolean isOwn(String schema) {
        try {
            return schema.equals(connection.getSchema());
        } catch (SQLException e) {
            return false;
        }
    }

    private TableSource fed(String name, DatabaseTable.InFile file, boolean known) throws SQLException {
        RowFeed feed = RowFeed.of(file, known);
        feeds.add(feed);
        return embedded.orElseThrow().fed(feed, Schema.of(name, Place.inFile(file.shown()), file.head().fields()), Optional.empty());
    }

    /** The same cells with numbers on their rows: given to the embedded engine, in other databases a temporary table. */
    private TableSource copied(Table table) throws SQLException {
        if (embedded.isPresent()) {
            return embedded.get().fed(RowFeed.of(table), table.schema(), Optional.of(table));
        }
        String name = "copy " + ++copies + " of " + table.name();
        String number = table.schema().free("row");
        String quoted = dialect.quoted(name.length() > 60 ? "copy " + copies : name);
        inserted(table, quoted, number);
        return new TableSource(quoted, table.schema(), Optional.of(dialect.quoted(number)), Optional.of(table));
    }

    private void inserted(Table table, String quoted, String number) throws SQLException {
        List<String> fields = new ArrayList<>(List.of(dialect.quoted(number) + " INTEGER"));
        table.columns().forEach(column -> fields.add(dialect.quoted(column.name()) + " " + dialect.type(column.kind())));
        Connections.readOnly(connection, dialect, false);
        try (Statement make = connection.createStatement()) {
            make.execute("CREATE " + dialect.temporary() + " TABLE " + quoted + " (" + String.join(", ", fields) + ")");
        }
        connection.setAutoCommit(false);
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO " + quoted + " VALUES (?" + ", ?".repeat(table.columns().size()) + ")")) {
            for (int row = 0; row < table.rowCount(); row++) {
                insert.setInt(1, row + 1);
                for (int i = 0; i < table.columns().size(); i++) {
                    set(insert, i + 2, table.columns().get(i), row, dialect);
                }
                insert.addBatch();
                if ((row + 1) % ROWS_AT_ONCE == 0 || row + 1 == table.rowCount()) {
                    insert.executeBatch();
                }
            }
        }
        connection.commit();
        connection.setAutoCommit(true);
        Connections.readOnly(connection, dialect, true);
    }

    /** Sets a parameter to a cell. */
    static void set(PreparedStatement statement, int at, Column column, int row, Dialect dialect) throws SQLException {
        if (!column.isPresent(row)) {
            statement.setNull(at, switch (column.kind()) {
                case NUMBER -> Types.DOUBLE;
                case TEXT -> Types.VARCHAR;
                case DATE -> Types.DATE;
                case TRUTH -> Types.BOOLEAN;
            });
            return;
        }
        switch (column.kind()) {
            case NUMBER -> statement.setDouble(at, column.number(row));
            case TEXT -> statement.setString(at, column.written(row));
            case DATE -> statement.setObject(at, dialect.day(column.date(row).orElseThrow()));
            case TRUTH -> statement.setBoolean(at, column.number(row) == 1);
        }
    }
}
