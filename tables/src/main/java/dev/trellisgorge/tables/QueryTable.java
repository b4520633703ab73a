package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.sql.Connection;
import java.sql.Date;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;

/** Reads what a query gives, by any JDBC driver on the class path. The connection only reads. */
public final class QueryTable {
    private static final int ROWS_AT_ONCE = 10_000;

    private final Kind[] kinds;
    private final List<Figures> figures = new ArrayList<>();
    private final List<Texts> texts = new ArrayList<>();

    private QueryTable(Kind[] kinds) {
        this.kinds = kinds;
        for (int i = 0; i < kinds.length; i++) {
            figures.add(new Figures());
            texts.add(new Texts());
        }
    }

    /**
     * Numbers of any SQL type become numbers, dates and timestamps dates, booleans truths, all else texts; NULL is missing.
     *
     * @param name what the table is to be called
     * @throws BadInput where no driver takes the URL, the database does not answer, the query is wrong or names two columns alike
     */
    public static Table read(String name, Login login, String query) {
        Properties properties = new Properties();
        login.user().ifPresent(user -> properties.setProperty("user", user));
        login.password().ifPresent(password -> properties.setProperty("password", password));
        try (Connection connection = DriverManager.getConnection(login.url(), properties)) {
            connection.setReadOnly(true);
            connection.setAutoCommit(false); // drivers then hand out the rows bit by bit
            try (Statement statement = connection.createStatement()) {
                statement.setFetchSize(ROWS_AT_ONCE);
                try (ResultSet rows = statement.executeQuery(query)) {
                    return table(name, rows);
                }
            }
        } catch (SQLException e) {
            boolean none = "08001".equals(e.getSQLState()) && String.valueOf(e.getMessage()).startsWith("No suitable driver");
            throw new BadInput(Place.of("table '" + name + "'"), none ? "no driver on the class path takes '" + login + "'"
                    : "the database says: " + String.valueOf(e.getMessage()).lines().findFirst().orElse(""));
        }
    }

    private static Table table(String name, ResultSet rows) throws SQLException {
        ResultSetMetaData columns = rows.getMetaData();
        Kind[] kinds = new Kind[columns.getColumnCount()];
        for (int i = 0; i < kinds.length; i++) {
            kinds[i] = kind(columns.getColumnType(i + 1));
        }
        QueryTable read = new QueryTable(kinds);
        while (rows.next()) {
            for (int i = 0; i < kinds.length; i++) {
                read.add(rows, i);
            }
        }
        List<Column> made = new ArrayList<>();
        for (int i = 0; i < kinds.length; i++) {
            made.add(read.column(i, columns.getColumnLabel(i + 1)));
        }
        return Replaced.told(Table.of(name, Source.MEMORY, made));
    }

    private static Kind kind(int type) {
        return switch (type) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT, Types.REAL, Types.FLOAT, Types.DOUBLE, Types.DECIMAL, Types.NUMERIC -> Kind.NUMBER;
            case Types.DATE, Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE -> Kind.DATE;
            case Types.BOOLEAN, Types.BIT -> Kind.TRUTH;
            default -> Kind.TEXT;
        };
    }

    private void add(ResultSet rows, int at) throws SQLException {
        if (kinds[at] == Kind.TEXT) {
            texts.get(at).add(rows.getString(at + 1));
            return;
        }
        double figure;
        if (kinds[at] == Kind.DATE) {
            Date day = rows.getDate(at + 1);
            figure = day == null ? Double.NaN : day.toLocalDate().toEpochDay();
        } else if (kinds[at] == Kind.TRUTH) {
            figure = rows.getBoolean(at + 1) ? 1 : 0;
        } else {
            figure = rows.getDouble(at + 1) + 0.0;
        }
        figures.get(at).add(rows.wasNull() ? Double.NaN : figure);
    }

    private Column column(int at, String name) {
        return kinds[at] == Kind.TEXT ? Column.texts(name, texts.get(at).all()) : Column.owning(name, kinds[at], figures.get(at).all());
    }
}
