package dev.trellisgorge.sql;

import java.sql.Connection;
import java.sql.SQLException;
import org.postgresql.core.BaseConnection;

/** Asks a server again to cancel, which the driver's statements do once only. A class of its own, as its driver is there only where it is used. */
final class ServerCancel {
    private ServerCancel() {
    }

    /** Does nothing over a connection that hides the driver's own. */
    static void ask(Connection connection) throws SQLException {
        if (connection.isWrapperFor(BaseConnection.class)) {
            connection.unwrap(BaseConnection.class).cancelQuery();
        }
    }
}
