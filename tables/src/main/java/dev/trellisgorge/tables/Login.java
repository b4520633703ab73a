package dev.trellisgorge.tables;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Properties;

/**
 * How a database is reached.
 *
 * @param url      {@code jdbc:…}
 * @param user     where the database asks for one
 * @param password the same
 * @param zone     whose days those of moments are, such as a timestamp with time zone holds; the session's own where it is empty
 */
public record Login(String url, Optional<String> user, Optional<String> password, Optional<ZoneId> zone) {
    /** Classes and values of SQLSTATE: ISO/IEC 9075-2, and where it has none, what databases use. */
    private static final String CONNECTION = "08";
    private static final String SHUT_DOWN = "57P";
    /** A statement that was cancelled. */
    public static final String CANCELLED = "57014";

    public Login {
        Objects.requireNonNull(url, "url");
        Objects.requireNonNull(user, "user");
        Objects.requireNonNull(password, "password");
        Objects.requireNonNull(zone, "zone");
    }

    /** With the days of UTC, wherever it runs. */
    public Login(String url, Optional<String> user, Optional<String> password) {
        this(url, user, password, Optional.of(ZoneOffset.UTC));
    }

    public static Login to(String url) {
        return new Login(url, Optional.empty(), Optional.empty());
    }

    /** The same, with the days of another time zone. */
    public Login in(ZoneId other) {
        return new Login(url, user, password, Optional.of(other));
    }

    /** What its zone is called in messages. */
    public String zoneName() {
        return zone.map(each -> each.equals(ZoneOffset.UTC) ? "UTC" : each.getId()).orElse("of the session");
    }

    /**
     * A connection to it; close it.
     *
     * @param place    for messages
     * @param settings of the driver or the database, by their names there
     * @throws BadInput where no driver takes the URL, or the database does not answer or lets the user in
     */
    public Connection open(Place place, Map<String, String> settings) {
        Properties properties = new Properties();
        settings.forEach(properties::setProperty);
        user.ifPresent(name -> properties.setProperty("user", name));
        password.ifPresent(word -> properties.setProperty("password", word));
        try {
            return DriverManager.getConnection(url, properties);
        } catch (SQLException e) {
            throw failed(e, place);
        }
    }

    /** What the database says of something that went wrong, in one line and without the password. */
    public BadInput failed(SQLException wrong, Place place) {
        String state = String.valueOf(wrong.getSQLState());
        String said = String.valueOf(wrong.getMessage()).lines().findFirst().orElse("");
        String shown = password.filter(word -> !word.isEmpty()).map(word -> said.replace(word, "…")).orElse(said).replace(url, toString());
        if (said.startsWith("No suitable driver")) {
            return new BadInput(place, ProblemKind.CONNECTION, "no driver on the class path takes '" + this + "'");
        } else if (state.equals(CANCELLED)) {
            return new BadInput(place, ProblemKind.CANCELLED, "the statement was cancelled; the database says: " + shown);
        } else if (state.startsWith(CONNECTION) || state.startsWith(SHUT_DOWN)) {
            return new BadInput(place, ProblemKind.CONNECTION, "the connection to '" + this + "' failed: " + shown);
        }
        return new BadInput(place, ProblemKind.DATABASE, "the database says: " + shown, wrong);
    }

    /** The URL without its parameters and what stands before a host, any of which may hold a password. */
    @Override
    public String toString() {
        return url.replaceFirst("[?;].*", "").replaceFirst("//[^/@]*@", "//");
    }
}
