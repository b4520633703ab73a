package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.sql.Connection;
import java.sql.Date;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** A database that holds tables, and answers in the words of {@link Column#written}. */
final class Database implements AutoCloseable {
    private final Connection connection;

    private Database(Connection connection) {
        this.connection = connection;
    }

    /** One in memory that goes when it is closed. */
    static Database embedded() {
        return open("jdbc:h2:mem:;DATABASE_TO_UPPER=FALSE;CASE_INSENSITIVE_IDENTIFIERS=FALSE", "", "");
    }

    static Database open(String url, String user, String password) {
        try {
            return new Database(DriverManager.getConnection(url, user, password));
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }

    void run(String statement) {
        try (var made = connection.createStatement()) {
            made.execute(statement);
        } catch (SQLException e) {
            throw new AssertionError(statement, e);
        }
    }

    /** Instead of a table of that name, where there is one; a column {@code row} has the rows' places. */
    void hold(Table table) {
        List<String> columns = new ArrayList<>(List.of("\"row\" INT"));
        table.columns().forEach(column -> columns.add('"' + column.name() + "\" " + type(column.kind())));
        try (var statement = connection.createStatement()) {
            statement.execute("DROP TABLE IF EXISTS \"" + table.name() + '"');
            statement.execute("CREATE TABLE \"" + table.name() + "\" (" + String.join(", ", columns) + ")");
            try (PreparedStatement insert = connection.prepareStatement("INSERT INTO \"" + table.name() + "\" VALUES (?" + ", ?".repeat(table.columns().size()) + ")")) {
                for (int row = 0; row < table.rowCount(); row++) {
                    insert.setInt(1, row);
                    for (int i = 0; i < table.columns().size(); i++) {
                        set(insert, i + 2, table.columns().get(i), row);
                    }
                    insert.execute();
                }
            }
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }

    private static String type(Kind kind) {
        return switch (kind) {
            case NUMBER -> "DOUBLE PRECISION";
            case TEXT -> "VARCHAR(200)";
            case DATE -> "DATE";
            case TRUTH -> "BOOLEAN";
        };
    }

    private static void set(PreparedStatement insert, int at, Column column, int row) throws SQLException {
        if (!column.isPresent(row)) {
            insert.setNull(at, Types.NULL);
        } else if (column.kind() == Kind.NUMBER) {
            insert.setDouble(at, column.number(row));
        } else if (column.kind() == Kind.DATE) {
            insert.setDate(at, Date.valueOf(column.date(row).orElseThrow()));
        } else if (column.kind() == Kind.TRUTH) {
            insert.setBoolean(at, column.number(row) == 1);
        } else {
            insert.setString(at, column.written(row));
        }
    }

    /** The rows that a query gives; a missing cell is null, a number a double, all else its text. */
    List<List<Object>> ask(String query) {
        try (var statement = connection.createStatement(); ResultSet rows = statement.executeQuery(query)) {
            List<List<Object>> all = new ArrayList<>();
            while (rows.next()) {
                List<Object> cells = new ArrayList<>();
                for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                    Object cell = rows.getObject(i);
                    cells.add(cell == null ? null : cell instanceof Number number ? (Object) (number.doubleValue() + 0.0) : cell.toString());
                }
                all.add(cells);
            }
            return all;
        } catch (SQLException e) {
            throw new AssertionError(query, e);
        }
    }

    /** A table as {@link #ask} gives one. */
    static List<List<Object>> rows(Table table) {
        List<List<Object>> all = new ArrayList<>();
        for (int row = 0; row < table.rowCount(); row++) {
            List<Object> cells = new ArrayList<>();
            for (Column column : table.columns()) {
                cells.add(!column.isPresent(row) ? null : column.kind() == Kind.NUMBER ? (Object) column.number(row) : column.written(row));
            }
            all.add(cells);
        }
        return all;
    }

    /** Numbers may differ in their last places, as a sum is added in another order. */
    static void assertSame(String what, List<List<Object>> ours, List<List<Object>> theirs) {
        assertThat(ours).as(what).usingRecursiveComparison()
                .withComparatorForType(Comparator.nullsFirst((a, b) -> Math.abs(a - b) < 1e-9 ? 0 : Double.compare(a, b)), Double.class).isEqualTo(theirs);
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }
}
