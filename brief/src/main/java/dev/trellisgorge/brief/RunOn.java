package dev.trellisgorge.brief;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.tables.Login;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * The database in which a brief is computed. Immutable and thread-safe.
 *
 * @param login   where it is
 * @param dialect what it speaks
 */
public record RunOn(Login login, Dialect dialect) {
    private static final String HERE = "here";
    private static final String SHORT = "duckdb:";
    private static final String FILE = "jdbc:duckdb:";
    private static final String CLUSTER = "spark:";
    private static final Map<String, Dialect> SPOKEN = Map.of("jdbc:duckdb:", Dialect.DUCKDB, "jdbc:postgresql:", Dialect.POSTGRESQL, "jdbc:h2:", Dialect.H2, CLUSTER, Dialect.SPARK);
    /** The embedded engine, in memory. */
    static final RunOn EMBEDDED = of("duckdb:", Optional.empty(), Optional.empty(), Optional.empty());

    /** No database, whatever the files are. */
    static final RunOn READ_HERE = of(HERE, Optional.empty(), Optional.empty(), Optional.empty());

    public RunOn {
        Objects.requireNonNull(login, "login");
        Objects.requireNonNull(dialect, "dialect");
    }

    /**
     * By a URL: {@code jdbc:…}, {@code spark://HOST:PORT}, or {@code duckdb:} and the file of an embedded database, in memory where none is named; {@code here} is no database at all.
     *
     * @param dialect what it speaks; found from the URL where it is empty, and the standard for others
     * @throws BadInput where there is no such file, or a cluster is to speak something else
     */
    public static RunOn of(String url, Optional<String> user, Optional<String> password, Optional<Dialect> dialect) {
        String jdbc = jdbc(url);
        String file = jdbc.startsWith(FILE) ? jdbc.substring(FILE.length()) : "";
        if (!file.isEmpty() && !file.startsWith(":") && !Files.exists(Path.of(file.replaceFirst("[?;].*", "")))) {
            throw new BadInput(Place.of(""), ProblemKind.UNREADABLE, "there is no database file '" + file + "'");
        }
        if (isCluster(url) && dialect.filter(other -> other != Dialect.SPARK).isPresent()) {
            throw new BadInput(Place.of(""), ProblemKind.UNSUPPORTED, "a cluster speaks '" + Dialect.SPARK + "', not '" + dialect.get() + "'");
        }
        return new RunOn(new Login(jdbc, user, password), dialect.orElseGet(() -> dialect(jdbc)));
    }

    /** The same, with the days of another time zone than UTC. */
    RunOn in(ZoneId zone) {
        return new RunOn(login.in(zone), dialect);
    }

    static boolean isCluster(String url) {
        return url.startsWith(CLUSTER);
    }

    /** The URL as drivers take it. */
    static String jdbc(String url) {
        return url.startsWith(SHORT) ? "jdbc:" + url : url;
    }

    /** What a database speaks, by its URL; the standard where that does not tell. */
    static Dialect dialect(String jdbc) {
        return SPOKEN.entrySet().stream().filter(each -> jdbc.startsWith(each.getKey())).map(Map.Entry::getValue).findFirst().orElse(Dialect.STANDARD);
    }

    /** Whether no database is asked, of large files neither. */
    boolean isHere() {
        return login.url().equals(HERE);
    }

    /** Whether nothing but the brief's own files can be in it. */
    static boolean isEmptyAtFirst(String url) {
        return url.equals(HERE) || jdbc(url).equals("jdbc:duckdb:");
    }
}
