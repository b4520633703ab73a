package dev.trellisgorge.sql;

import dev.trellisgorge.tables.ColumnTypes;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;

/** What is asked of a database before a table is used. */
final class Questions {
    private Questions() {
    }

    /** The columns of a table or a query. @param from what stands behind FROM */
    static ColumnTypes types(Connection connection, String from) throws SQLException {
        try (PreparedStatement query = connection.prepareStatement("SELECT * FROM " + from + " WHERE 1 = 0"); ResultSet rows = query.executeQuery()) {
            return ColumnTypes.of(rows.getMetaData());
        }
    }

    static DatabaseColumns.Asking<SQLException> of(Connection connection) {
        return (text, more) -> {
            try (PreparedStatement query = connection.prepareStatement(text); ResultSet rows = query.executeQuery()) {
                boolean wanted = true;
                while (wanted && rows.next()) {
                    List<String> cells = new ArrayList<>();
                    for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                        cells.add(rows.getString(i));
                    }
                    wanted = more.test(cells);
                }
            }
        };
    }
}
