package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.brief.Overrides;
import dev.trellisgorge.brief.RunOn;
import dev.trellisgorge.brief.AccessPolicy;
import dev.trellisgorge.brief.UserSettings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.Dialect;
import java.io.Console;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** The brief, and which of its charts are meant: what every command that reads a brief takes. */
final class BriefSource {
    private final PositionalParamSpec file = PositionalParamSpec.builder().paramLabel("BRIEF").type(Path.class).index("0")
            .arity("1").required(true).description("The brief: a YAML or JSON file that says what to make.").build();
    private final OptionSpec charts = Command.option(List.class, "NAME", "--chart").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Only this chart; may be given more than once.").build();
    private final OptionSpec settings = Command.option(List.class, "NAME=VALUE", "--set").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Another value for a setting; may be given more than once.").build();
    private final OptionSpec data = Command.option(List.class, "NAME=FILE", "--data").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Another file for a table; may be given more than once.").build();

    private final OptionSpec where = Command.option(String.class, "EXPRESSION", "--where")
            .description("Only the rows of the charted raw tables on which this is true, before all steps: \"station = 'Fern Pool'\".").build();

    private final OptionSpec locale = Command.option(String.class, "TAG", "--locale")
            .description("In whose language figures, months and dates are written, such as de-DE; what the brief says by default.").build();

    private final OptionSpec allowed = Command.option(List.class, "KIND=PLACE", "--allow").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Let the brief read more than the files in its own folder: folder=DIRECTORY, database=jdbc:URL, parameter=NAME of a"
                    + " database's URL, environment=NAME for a password, or input; function=NAME lets its queries call a function that may do more than compute, and query lets through queries that can't be checked. May be given more than once.").build();

    private final OptionSpec on = Command.option(String.class, "URL", "--on")
            .description("Compute in this database, so that the charts' rows alone come over: jdbc:…, spark://HOST:PORT, or duckdb: and the file of an embedded one, in memory where none is named. Files are copied into it."
                    + " GORGE_USER and GORGE_PASSWORD say who logs in.").build();
    private final OptionSpec tables = Command.option(List.class, "NAME=TABLE", "--table").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("A table of the database for a table of the brief; may be given more than once.").build();
    private final OptionSpec rowsBy = Command.option(String.class, "COLUMN", "--rows-by")
            .description("The column of each of the database's tables that numbers its rows. Without it they are in no order: totals are in that of their keys, and what reads the order of rows is an error.").build();
    private final OptionSpec zone = Command.option(String.class, "NAME", "--zone")
            .description("The time zone whose days those of moments in a database are, such as Europe/Berlin; what the brief says by default, and UTC where it says nothing.").build();
    private final OptionSpec dialect = Command.option(String.class, "NAME", "--dialect")
            .description("What the database speaks: " + String.join(", ", Dialect.names()) + "; found from the URL by default, and " + Dialect.STANDARD + " where that does not tell.").build();

    private final Streams streams;
    private final boolean tellsAll;
    private final boolean asksNobody;

    BriefSource(Streams streams) {
        this(streams, false, false);
    }

    private BriefSource(Streams streams, boolean tellsAll, boolean asksNobody) {
        this.streams = streams;
        this.tellsAll = tellsAll;
        this.asksNobody = asksNobody;
    }

    /** Of a command that prints all notes. */
    static BriefSource tellingAll(Streams streams) {
        return new BriefSource(streams, true, false);
    }

    /** Of a command that is about a database, and need not ask it. */
    static BriefSource ofStatements(Streams streams) {
        return new BriefSource(streams, false, true);
    }

    void addTo(CommandSpec spec) {
        spec.addPositional(file).addOption(charts).addOption(settings).addOption(data).addOption(where).addOption(locale).addOption(allowed).addOption(on).addOption(tables).addOption(rowsBy).addOption(zone).addOption(dialect);
    }

    Brief read() {
        return read(false);
    }

    /** @param writes whether views are to be written where it is computed */
    Brief read(boolean writes) {
        try (ProgressBar bar = streams.progressBar()) {
            Brief brief = Brief.read(file.getValue(), overrides(writes), trust(), bar);
            if (!asksNobody && !(brief.executor() instanceof Database)) {
                Stream.of(rowsBy, dialect).filter(option -> option.getValue() != null).findFirst().ifPresent(option -> {
                    throw new BadInput(Place.of(option.longestName()), ProblemKind.CONFLICT, "is about a database; say which with --on URL");
                });
            }
            if (dialect.getValue() != null && on.getValue() == null && brief.executor() instanceof Database) {
                throw new BadInput(Place.of("--dialect"), ProblemKind.CONFLICT, "is of the database that --on names; what the brief's 'run-on' names has a 'dialect' of its own");
            }
            streams.leave();
            streams.open().add(brief::close);
            brief.database().ifPresent(database -> streams.open().add(Waiting.on(database, streams.err(), streams.terminal().watched())));
            brief.notes().forEach(note -> streams.err().println("gorge: note: " + note));
            return brief;
        }
    }

    /** The column that numbers the rows of the database's tables, where it is given. */
    Optional<String> rowsBy() {
        return Optional.ofNullable(rowsBy.getValue());
    }

    /** The settings that are given another value. */
    Set<String> given() {
        return pairs(settings).keySet();
    }

    /** What the database speaks, where it is given. */
    Optional<Dialect> dialect() {
        try {
            return Optional.<String>ofNullable(dialect.getValue()).map(Dialect::named);
        } catch (BadInput wrong) {
            throw wrong.at(Place.of("--dialect"));
        }
    }

    private Overrides.There there(boolean writes) {
        Optional<RunOn> named = Optional.<String>ofNullable(on.getValue()).map(this::named);
        return new Overrides.There(named, pairs(tables), rowsBy(), Optional.ofNullable(zone.getValue()), tellsAll, writes);
    }

    private RunOn named(String url) {
        Optional<Dialect> spoken = dialect();
        try {
            return RunOn.of(url, variable("GORGE_USER"), variable("GORGE_PASSWORD").or(this::prompted), spoken);
        } catch (BadInput wrong) {
            throw wrong.at(Place.of("--on"));
        }
    }

    private Optional<String> variable(String name) {
        return Optional.ofNullable(streams.terminal().environment().get(name));
    }

    /** The password, from whoever sits there; of a user that is named, as others need none. */
    private Optional<String> prompted() {
        Console console = System.console();
        return variable("GORGE_USER").isEmpty() || console == null || !streams.terminal().watched() ? Optional.empty() : Optional.ofNullable(console.readPassword("Password of %s: ", variable("GORGE_USER").get())).map(String::new);
    }

    /** Says what a reader must know who does not ask for all notes. */
    void warn(Collection<PlainChart> charts) {
        charts.stream().flatMap(chart -> chart.notes().stream()).filter(Note::urgent).distinct().forEach(note -> streams.err().println("gorge: note: " + note));
    }

    /** The files that {@link #read} looks at, also where it fails. */
    List<Path> inputs() {
        return Brief.inputsOf(file.getValue(), overrides(false), trust());
    }

    private Overrides overrides(boolean writes) {
        Map<String, Path> files = new LinkedHashMap<>();
        pairs(data).forEach((name, value) -> files.put(name, Path.of(value)));
        return new Overrides(pairs(settings), files, Optional.ofNullable(where.getValue()), Optional.ofNullable(locale.getValue()), there(writes), OptionNames.OPTIONS);
    }

    /** What the person who runs this allows, here and in the settings file. */
    private AccessPolicy trust() {
        AccessPolicy trust = UserSettings.file(streams.terminal().environment()).map(UserSettings::read).orElse(AccessPolicy.OWN_FOLDER);
        for (String each : allowed.<List<String>>getValue()) {
            trust = trust.allowing(each, Path.of(""), Place.of("--allow"));
        }
        return trust;
    }

    private static Map<String, String> pairs(OptionSpec option) {
        Map<String, String> pairs = new LinkedHashMap<>();
        for (String pair : option.<List<String>>getValue()) {
            int at = pair.indexOf('=');
            if (at < 1) {
                throw new BadInput(Place.of(option.longestName()), ProblemKind.INVALID, "'" + pair + "' is no " + option.paramLabel());
            }
            pairs.put(pair.substring(0, at), pair.substring(at + 1));
        }
        return pairs;
    }

    /** What the charts that are meant will compute; the board's figures too, where no chart is named. */
    List<Plan> plans(Brief brief) {
        List<Plan> plans = new ArrayList<>(brief.plans(charts(brief)));
        plans.addAll(isWhole() ? brief.figurePlans() : List.of());
        return plans;
    }

    /** The charts that are meant, computed; the board's figures too, where no chart is named. */
    List<PlainChart> computed(Brief brief) {
        List<PlainChart> computed = new ArrayList<>(brief.compute(charts(brief)));
        computed.addAll(isWhole() ? brief.figures() : List.of());
        return computed;
    }

    /** Whether no chart is asked for by name. */
    boolean isWhole() {
        return charts.<List<String>>getValue().isEmpty();
    }

    /** The charts that are meant, in the order of the brief; all of them where none is named. */
    List<Chart> charts(Brief brief) {
        List<String> names = charts.getValue();
        names.forEach(brief::chart);
        return brief.charts().stream().filter(chart -> names.isEmpty() || names.contains(chart.name())).toList();
    }
}
