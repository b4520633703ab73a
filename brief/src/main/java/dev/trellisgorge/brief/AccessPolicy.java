package dev.trellisgorge.brief;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.query.QueryRights;
import dev.trellisgorge.tables.Limits;
import dev.trellisgorge.tables.Login;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * What a brief may read. It is data from somebody else: by itself it reads regular files in its own folder and below, and nothing
 * more. The person who runs it may allow more. Immutable and thread-safe.
 */
public final class AccessPolicy {
    /** The brief's own folder alone. */
    public static final AccessPolicy OWN_FOLDER = new AccessPolicy(Map.of(), Limits.STANDARD);

    /** The parameters of a database's URL that neither run code nor name files; others are to be allowed by name. */
    private static final Set<String> HARMLESS = Set.of("user", "database", "databasename", "servername", "port", "instancename", "schema", "currentschema", "catalog",
            "ssl", "sslmode", "usessl", "encrypt", "applicationname", "logintimeout", "connecttimeout", "connectiontimeout", "sockettimeout", "querytimeout",
            "tcpkeepalive", "readonly", "targetservertype", "loadbalancehosts", "defaultrowfetchsize", "characterencoding", "useunicode", "timezone", "servertimezone",
            "mode", "ifexists", "access_mode", "access_mode_data", "db_close_delay", "db_close_on_exit", "database_to_upper", "database_to_lower",
            "case_insensitive_identifiers", "default_null_ordering", "lock_timeout", "non_keywords", "memory_limit", "threads",
            "spark.executor.memory", "spark.executor.cores", "spark.cores.max", "spark.sql.shuffle.partitions", "spark.sql.files.maxpartitionbytes");
    private static final Pattern PARAMETER = Pattern.compile("[?&;]([^=&;?]*)(?:=[^&;]*)?");
    private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z0-9_.]+");

    /** What may be allowed. */
    public enum Kind {
        /** The files in a folder and below. */
        FOLDER("DIRECTORY", true),
        /** Databases whose URL starts so; any by default. */
        DATABASE("jdbc:URL", false),
        /** A parameter of a database's URL. */
        PARAMETER("NAME", true),
        /** An environment variable, as a password; any by default. */
        ENVIRONMENT("NAME", false),
        /** Standard input as a table. */
        INPUT("", false),
        /** A function that may do more than compute, in a query. */
        FUNCTION("NAME", true),
        /** Queries that can't be checked. */
        QUERY("", false);

        private final String place;
        private final boolean placeNeeded;

        Kind(String place, boolean placeNeeded) {
            this.place = place;
            this.placeNeeded = placeNeeded;
        }

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private final Map<Kind, List<String>> allowed;
    private final Limits limits;

    private AccessPolicy(Map<Kind, List<String>> allowed, Limits limits) {
        this.allowed = allowed;
        this.limits = limits;
    }

    /** This and one thing more: a place of that kind, or all of them where the text is empty and the kind takes none. */
    public AccessPolicy allowing(Kind kind, String place) {
        Objects.requireNonNull(place, "place");
        if (place.isEmpty() && kind.placeNeeded) {
            throw new IllegalArgumentException("say which " + kind + " is allowed");
        }
        Map<Kind, List<String>> more = new EnumMap<>(Kind.class);
        more.putAll(allowed);
        more.merge(kind, List.of(place), (before, one) -> Stream.concat(before.stream(), one.stream()).toList());
        return new AccessPolicy(more, limits);
    }

    /**
     * This and one thing more, as a user writes it: {@code folder=DIRECTORY}, {@code database}, {@code database=jdbc:URL},
     * {@code parameter=NAME}, {@code environment=NAME}, {@code input}, {@code function=NAME}, {@code query}.
     *
     * @param base what a folder is relative to
     * @param said where it is written, for messages
     */
    public AccessPolicy allowing(String written, Path base, Place said) {
        int at = written.indexOf('=');
        String word = at < 0 ? written : written.substring(0, at);
        String place = at < 0 ? "" : written.substring(at + 1);
        Kind kind = Stream.of(Kind.values()).filter(each -> each.toString().equals(word)).findFirst().orElseThrow(() -> new BadInput(said, ProblemKind.UNKNOWN_NAME,
                "there is nothing called '" + word + "' to allow. " + Nearest.hint(word, Stream.of(Kind.values()).map(Kind::toString).toList())));
        if (place.isEmpty() && (kind.placeNeeded || at >= 0)) {
            throw new BadInput(said, ProblemKind.MISSING, "say which " + kind + " is allowed, as in " + kind + "=" + kind.place);
        }
        if ((kind == Kind.INPUT || kind == Kind.QUERY) && at >= 0) {
            throw new BadInput(said, ProblemKind.INVALID, "'" + kind + "' takes no value");
        }
        if (kind != Kind.FOLDER) {
            return allowing(kind, place);
        }
        Path folder = base.resolve(place);
        if (!Files.isDirectory(folder)) {
            throw new BadInput(said, ProblemKind.UNKNOWN_NAME, "there is no folder '" + place + "' to allow");
        }
        return allowing(kind, folder.toAbsolutePath().normalize().toString());
    }

    /** The same with other bounds on tables. */
    public AccessPolicy limits(Limits most) {
        return new AccessPolicy(allowed, Objects.requireNonNull(most, "most"));
    }

    Limits limits() {
        return limits;
    }

    private List<String> places(Kind kind) {
        return allowed.getOrDefault(kind, List.of());
    }

    /**
     * Why a file may not be read; empty where it may. Nothing outside the folders is looked at.
     *
     * @param brief  the brief that names it
     * @param source the file, relative to the working directory
     * @param names  for the message
     */
    Optional<String> refusal(Path brief, Path source, InputNames names) {
        Path absolute = source.toAbsolutePath().normalize();
        Path own = brief.toAbsolutePath().normalize().getParent();
        List<Path> folders = Stream.concat(Stream.of(own), places(Kind.FOLDER).stream().map(Path::of)).toList();
        Optional<Path> holder = folders.stream().filter(absolute::startsWith).findFirst();
        if (holder.isEmpty()) {
            return Optional.of("'" + names.file(source, own) + "' is outside the brief's folder" + trusted(names, Kind.FOLDER, String.valueOf(absolute.getParent())));
        }
        try {
            Path real = absolute.toRealPath();
            List<Path> reals = new ArrayList<>();
            for (Path folder : folders) {
                reals.add(folder.toRealPath());
            }
            return reals.stream().anyMatch(real::startsWith) ? Optional.empty()
                    : Optional.of("'" + names.file(source, own) + "' is a link to a file outside the brief's folder" + trusted(names, Kind.FOLDER, String.valueOf(real.getParent())));
        } catch (IOException e) {
            return Optional.empty(); // there is no such file, which is reported where it is read
        }
    }

    /** Why a database may not be asked; empty where it may. */
    Optional<String> refusal(String url, InputNames names) {
        Login shown = Login.to(url);
        if (places(Kind.DATABASE).stream().noneMatch(url::startsWith)) {
            return Optional.of("the brief names a database" + trusted(names, Kind.DATABASE, shown.toString()));
        }
        if (url.contains("(") || url.contains(")")) {
            return Optional.of("the URL of a database has no parameters in brackets here; write them after '?'");
        }
        Matcher parameter = PARAMETER.matcher(url);
        while (parameter.find()) {
            String name = parameter.group(1).strip();
            boolean known = PLAIN_NAME.matcher(name).matches() && HARMLESS.contains(name.toLowerCase(Locale.ROOT));
            if (!name.isEmpty() && !known && places(Kind.PARAMETER).stream().noneMatch(name::equalsIgnoreCase)) {
                return Optional.of("the parameter '" + name + "' of the database's URL may run code or read files" + trusted(names, Kind.PARAMETER, name));
            }
        }
        return Optional.empty();
    }

    /** What queries may do beyond reading tables. */
    QueryRights queries(InputNames names) {
        return new QueryRights(Set.copyOf(places(Kind.FUNCTION)), allowed.containsKey(Kind.QUERY),
                function -> function.map(name -> trusted(names, Kind.FUNCTION, name)).orElseGet(() -> trusted(names, Kind.QUERY, "")));
    }

    private static String trusted(InputNames names, Kind kind, String what) {
        return "; if you trust the brief, " + names.allowing(kind, what);
    }

    /** Why an environment variable may not be read; empty where it may. */
    Optional<String> refusalOfVariable(String name, InputNames names) {
        return places(Kind.ENVIRONMENT).stream().anyMatch(place -> place.isEmpty() || place.equals(name)) ? Optional.empty()
                : Optional.of("the brief asks for the environment variable '" + name + "'" + trusted(names, Kind.ENVIRONMENT, name));
    }

    /** Why standard input may not be read; empty where it may. */
    Optional<String> refusalOfInput(InputNames names) {
        return allowed.containsKey(Kind.INPUT) ? Optional.empty()
                : Optional.of("the brief reads standard input" + trusted(names, Kind.INPUT, ""));
    }
}
