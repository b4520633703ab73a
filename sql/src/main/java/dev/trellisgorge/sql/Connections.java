package dev.trellisgorge.sql;

import dev.trellisgorge.problem.Place;
import dev.trellisgorge.tables.Login;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/** Opens connections that read only from their first statement on, as far as each database can be told so. */
final class Connections {
    private static final Pattern EMBEDDED_H2 = Pattern.compile("jdbc:h2:(?!mem:|tcp:|ssl:).*", Pattern.DOTALL);
    private static final String EMBEDDED_DUCKDB = "jdbc:duckdb:";
    private static final Pattern IN_MEMORY = Pattern.compile("jdbc:duckdb:(:memory:.*)?([?;].*)?", Pattern.DOTALL);

    private Connections() {
    }

    /**
     * A connection; close it.
     *
     * @param fileWrites whether the file of an embedded database may be written; one that may not isn't made either
     * @throws dev.trellisgorge.problem.BadInput where no driver takes the URL, or the database does not answer or lets the user in
     */
    static Connection open(Login login, Dialect dialect, boolean fileWrites, Place place) {
        Connection connection = login.open(place, settings(login.url(), dialect, fileWrites));
        try {
            begin(connection, dialect, login);
            return connection;
        } catch (SQLException e) {
            closed(connection);
            throw login.failed(e, place);
        }
    }

    private static Map<String, String> settings(String url, Dialect dialect, boolean fileWrites) {
        Map<String, String> settings = new LinkedHashMap<>(dialect.connectedWith());
        if (EMBEDDED_H2.matcher(url).matches()) {
            settings.put("IFEXISTS", "TRUE");
            if (!fileWrites) {
                settings.put("ACCESS_MODE_DATA", "r");
            }
        } else if (url.startsWith(EMBEDDED_DUCKDB) && !IN_MEMORY.matcher(url).matches() && !fileWrites) {
            settings.put("access_mode", "READ_ONLY");
        }
        return settings;
    }

    /** What comes before any statement of a brief. */
    static void begin(Connection connection, Dialect dialect, Login login) throws SQLException {
        readOnly(connection, dialect, true);
        try (Statement set = connection.createStatement()) {
            for (String statement : dialect.begun(login.zone().map(zone -> login.zoneName()))) {
                set.execute(statement);
            }
        }
    }

    /** Whose days those of moments are, in messages. */
    static String zoneName(Dialect dialect, Login login) {
        return login.zone().isPresent() && dialect.setsZone() ? login.zoneName() : "of the session";
    }

    /** The embedded engine can't be told so once it is open. */
    static void readOnly(Connection connection, Dialect dialect, boolean only) throws SQLException {
        if (!dialect.isEmbedded()) {
            connection.setReadOnly(only);
        }
    }

    static void closed(Connection connection) {
        try {
            connection.close();
        } catch (SQLException e) {
            // What went wrong before is reported; a connection that can't be closed is gone.
        }
    }
}
