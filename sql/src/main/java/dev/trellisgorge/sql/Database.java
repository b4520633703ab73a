package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.StepNotes;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Login;
import java.sql.SQLException;
import java.time.Duration;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;
import java.util.ServiceLoader;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.sql.DataSource;

/**
 * Runs pipelines where the raw tables are: the steps and the series are one statement, and the charts' rows alone come over. A plan is run by
 * {@code plan.over(database)}. Cells are those of the evaluator; sums may differ in their last digits. What the dialect can't say of the columns is
 * computed here, over the rows that came. The connection only reads, once tables at hand are copied.
 *
 * <p>Thread-safe: one statement at a time. Close it when all charts are computed.
 */
public final class Database implements Executor, AutoCloseable {
    private final Session session;
    private final Dialect dialect;
    private final Settings settings;
    private final Map<String, TableSource> sources;
    private final boolean tellsAll;
    private final DatabaseNotes notes = new DatabaseNotes(this);
    private final DatabaseChecks checks = new DatabaseChecks(this);
    private volatile OptionalLong since = OptionalLong.empty();

    private Database(Session session, Map<String, TableSource> sources, Settings settings, boolean tellsAll) {
        this.session = session;
        this.dialect = session.dialect();
        this.sources = sources;
        this.settings = settings;
        this.tellsAll = tellsAll;
    }

    /**
     * Over some tables. Those at hand are copied.
     *
     * @param source   a connection is taken from it, and closed with the database; its session keeps the time zone that it has, whose days those of moments are
     * @param settings that formulas name
     * @throws BadInput where the database does not answer, a table or column is not there, or is of no kind that is known
     */
    public static Database open(DataSource source, Dialect dialect, List<DatabaseTable> tables, Settings settings) {
        Login shown = new Login("the data source", Optional.empty(), Optional.empty(), Optional.empty());
        try {
            Connection connection = source.getConnection();
            Connections.begin(connection, dialect, shown);
            return open(new JdbcSession(connection, shown, dialect), tables, settings, true);
        } catch (SQLException e) {
            throw shown.failed(e, Place.of(""));
        }
    }

    /** The same by a login. @param tellsAll whether notes that nobody needs are counted too, such as rows that steps leave out; it takes statements of their own */
    public static Database open(Login login, Dialect dialect, List<DatabaseTable> tables, Settings settings, boolean tellsAll) {
        boolean copies = dialect.copiesByWriting() && tables.stream().anyMatch(table -> table.rows() instanceof DatabaseTable.AtHand); // a file that is only read takes no temporary rows there
        return open(login, dialect, tables, settings, tellsAll, copies);
    }

    /** The same by a login, where {@link #writeViews} is to be called: the file of an embedded database may be written. */
    public static Database openForViews(Login login, Dialect dialect, List<DatabaseTable> tables, Settings settings) {
        return open(login, dialect, tables, settings, false, true);
    }

    private static Database open(Login login, Dialect dialect, List<DatabaseTable> tables, Settings settings, boolean tellsAll, boolean fileWrites) {
        Optional<SessionProvider> provider = ServiceLoader.load(SessionProvider.class).stream().map(ServiceLoader.Provider::get).filter(each -> each.takes(login.url())).findFirst();
        if (provider.isEmpty() && login.url().startsWith("spark:")) {
            throw new BadInput(Place.of(""), ProblemKind.CONNECTION, "nothing on the class path takes '" + login + "'; the module of clusters, and its libraries, are to be on it");
        }
        return open(provider.map(each -> each.open(login)).orElseGet(() -> new JdbcSession(Connections.open(login, dialect, fileWrites, Place.of("")), login, dialect)), tables, settings, tellsAll);
    }

    /** The same in a session that is open; it is closed with the database, and where a table is not found. */
    public static Database open(Session session, List<DatabaseTable> tables, Settings settings, boolean tellsAll) {
        Objects.requireNonNull(settings, "settings");
        try {
            return new Database(session, session.sources(tables), settings, tellsAll);
        } catch (RuntimeException e) {
            session.close();
            throw e;
        }
    }

    @Override
    public Settings settings() {
        return settings;
    }

    @Override
    public Database with(Settings other) {
        return new Database(session, sources, other, tellsAll);
    }

    @Override
    public Catalog known() {
        Map<String, Schema> schemas = new LinkedHashMap<>();
        sources.forEach((name, source) -> schemas.put(name, source.schema()));
        return new Catalog(schemas, settings);
    }

    /** Of copies alone, the tables that they are copies of. */
    @Override
    public Optional<Executor> atHand() {
        Map<String, Table> tables = new LinkedHashMap<>();
        sources.forEach((name, source) -> source.copied().ifPresent(table -> tables.put(name, table)));
        return tables.size() == sources.size() ? Optional.of(Executor.of(tables, settings)) : Optional.empty();
    }

    @Override
    public boolean isHere() {
        return false;
    }

    @Override
    public Table run(Pipeline pipeline) {
        return run(pipeline, new Wanted(Map.of(), Set.of(), false)).rows();
    }

    @Override
    public synchronized Outcome run(Pipeline pipeline, Wanted wanted) {
        Set<String> said = said(pipeline, wanted);
        Query query = query(pipeline, wanted.formulas(), said);
        query.refuseUnordered();
        checks.beforehand(pipeline);
        return outcome(query, wanted, said);
    }

    private Outcome outcome(Query query, Wanted wanted, Set<String> said) {
        Pipeline pipeline = query.pipeline();
        Schema schema = pipeline.schema(known());
        Typing typing = new Typing(schema, settings);
        List<Field> fields = new ArrayList<>(schema.fields());
        wanted.formulas().forEach((name, formula) -> typing.computed(name, typing.kind(formula).orElse(Kind.NUMBER)));
        said.forEach(name -> fields.add(Field.of(free(name, fields), typing.computed().get(name))));
        Query.Telling statement = query.telling(wanted.firstRowAlone() ? "\n" + dialect.firstRow() : "");
        statement.facts().forEach(fact -> fields.add(Field.of(free("counted", fields), Kind.NUMBER)));
        List<Column> columns = asked(pipeline, statement.statement(), fields);
        Table rows = Table.of(schema.name(), Source.MEMORY, named(columns, schema));
        Map<String, Column> computed = new LinkedHashMap<>();
        said.forEach(name -> computed.put(name, columns.get(schema.fields().size() + computed.size()).named(name)));
        List<Column> counts = columns.subList(schema.fields().size() + said.size(), columns.size());
        if (rows.rowCount() <= pipeline.addedRows()) {
            checks.emptied(pipeline);
        }
        Map<Pipeline, List<Note>> counted = new HashMap<>();
        for (int i = 0; i < counts.size() && rows.rowCount() > 0; i++) {
            Fact fact = statement.facts().get(i);
            checks.counted(fact, counts.get(i).number(0)).ifPresent(note -> counted.computeIfAbsent(fact.before(), before -> new ArrayList<>()).add(note));
        }
        return new Outcome(rows.withNotes(told(pipeline, counted)), computed);
    }

    /** In the order of the steps, as of rows at hand. @param counted by what stands before a step */
    private List<Note> told(Pipeline pipeline, Map<Pipeline, List<Note>> counted) {
        List<Note> told = new ArrayList<>(sources.get(pipeline.source()).notes());
        for (int i = 0; i < pipeline.parts().size(); i++) {
            Pipeline before = pipeline.upTo(i);
            Step step = pipeline.steps().get(i);
            step.traits().tables().forEach(other -> told(other, counted).stream().filter(note -> !told.contains(note)).forEach(told::add));
            told.addAll(step.notes(before.schema(known())));
            told.addAll(counted.getOrDefault(before, List.of()));
            if (tellsAll) {
                told.addAll(notes.of(before, step));
            }
        }
        return told;
    }

    /** What steps give, of which nothing is reported and nothing checked. */
    synchronized Table fetched(Pipeline pipeline) {
        Schema schema = pipeline.schema(known());
        Query query = query(pipeline, Map.of(), Set.of());
        return Table.of(schema.name(), Source.MEMORY, named(asked(pipeline, query.parametrised(), schema.fields()), schema));
    }

    DatabaseNotes notes() {
        return notes;
    }

    /** The wanted columns that the dialect can say; those of all rows that are looked at in one row alone must be among them. */
    private Set<String> said(Pipeline pipeline, Wanted wanted) {
        try {
            query(pipeline, wanted.formulas(), wanted.names()).parametrised();
            return wanted.names();
        } catch (Unsaid some) {
            return saidOneByOne(pipeline, wanted);
        }
    }

    private Set<String> saidOneByOne(Pipeline pipeline, Wanted wanted) {
        Set<String> said = new LinkedHashSet<>();
        Unsaid first = null;
        for (String name : wanted.names()) {
            try {
                query(pipeline, wanted.formulas(), Set.of(name)).parametrised();
                said.add(name);
            } catch (Unsaid unsaid) {
                first = first == null ? unsaid : first;
            }
        }
        if (first != null && wanted.firstRowAlone()) {
            throw first;
        }
        return said;
    }

    /** The statement of a plan's series and, as far as the dialect says them, the texts of its labels; with the settings' values in it. Errors as {@link Sql#in}; also where a table is copied here, and is gone with the connection. */
    public String statement(Plan plan) {
        copies(plan).stream().findFirst().ifPresent(name -> {
            throw new BadInput(Place.of("table '" + name + "'"), ProblemKind.MISSING, "is a file, which the database has no table of");
        });
        return LabelTexts.beside(plan, (texts, wanted) -> query(plan, texts, wanted)).withValues();
    }

    /** The tables that a plan reads and that this connection alone has, so that no statement and no view can name them. */
    public List<String> copies(Plan plan) {
        return sources.entrySet().stream().filter(source -> (source.getValue().passing() || source.getValue().copied().isPresent()) && reads(plan.pipeline(), source.getKey())).map(Map.Entry::getKey).toList();
    }

    /** The series of a plan that have a label whose text the dialect can't say. */
    public Set<String> withoutLabels(Plan plan) {
        return LabelTexts.of(plan, (texts, wanted) -> query(plan, texts, wanted)).without();
    }

    private Query query(Plan plan, Map<String, Formula> texts, Set<String> wanted) {
        Query query = Query.of(plan, texts, wanted, known(), sources, dialect);
        query.refuseUnordered();
        return query;
    }

    /**
     * Makes views of the plans' series, or makes them anew; all or none of them, where the database can take back what it has made. Other connections see them.
     *
     * @param views the plans by the names of their views, each with its schema before a point where it is to be in one
     * @throws BadInput where a plan can't be said, something else has the name, or the user may not make views
     */
    public synchronized void writeViews(Map<String, Plan> views) {
        session.make(viewStatements(views));
    }

    /** What {@link #writeViews} says to the database. */
    public List<String> viewStatements(Map<String, Plan> views) {
        List<String> statements = new ArrayList<>();
        views.forEach((name, plan) -> {
            String quoted = Stream.of(name.split("\\.", 2)).map(dialect::quoted).collect(Collectors.joining("."));
            statements.add("DROP VIEW IF EXISTS " + quoted);
            statements.add("CREATE VIEW " + quoted + " AS\n" + statement(plan));
        });
        return statements;
    }

    private static boolean reads(Pipeline pipeline, String table) {
        return pipeline.source().equals(table) || pipeline.steps().stream().flatMap(step -> step.traits().tables().stream()).anyMatch(other -> reads(other, table));
    }

    private Query query(Pipeline pipeline, Map<String, Formula> formulas, Set<String> wanted) {
        return new Query(pipeline, formulas, wanted, pipeline.schema(known()).columnNames(), known(), sources, dialect);
    }

    /** The first columns by the names that they have in a table. */
    private static List<Column> named(List<Column> columns, Schema schema) {
        return IntStream.range(0, schema.fields().size()).mapToObj(i -> columns.get(i).named(schema.fields().get(i).name())).toList();
    }

    /** A name that no column has yet. */
    private static String free(String name, List<Field> taken) {
        return Schema.of("", Place.of(""), taken).free(name);
    }

    /** The rows that a statement gives. */
    private List<Column> asked(Pipeline pipeline, Sql.Parametrised statement, List<Field> fields) {
        since = OptionalLong.of(System.nanoTime());
        try {
            boolean few = pipeline.steps().stream().anyMatch(step -> step.traits().folds() || step instanceof Top);
            return session.rows(pipeline.name(), statement, fields, few);
        } finally {
            since = OptionalLong.empty();
        }
    }

    @Override
    public Optional<Note> passedOver(Pipeline pipeline, String figure, Formula of) {
        Schema schema = pipeline.schema(known());
        String cell = schema.free("cell");
        Pipeline missing = pipeline.then(new AddColumn(cell, Formulas.choose(Formulas.present(of), Formulas.absent(), Formulas.number(1))));
        long count = (long) notes.sum(missing, cell);
        return count == 0 ? Optional.empty() : Optional.of(StepNotes.passedOver(figure, count, notes.names(pipeline, Formulas.not(Formulas.present(of)))));
    }

    /** What it speaks. */
    public Dialect dialect() {
        return dialect;
    }

    /** For how long a statement has run; empty where none does. */
    public Optional<Duration> runs() {
        OptionalLong from = since;
        return from.isPresent() ? Optional.of(Duration.ofNanos(System.nanoTime() - from.getAsLong())) : Optional.empty();
    }

    /** How far that statement is, from 0 to 1; empty where the engine does not tell. */
    public OptionalDouble share() {
        return session.share();
    }

    /** Stops the statement that runs, if one does; whoever waits for it is told that it was cancelled. */
    public void cancel() {
        session.cancel();
    }

    /** Closes the connection; temporary tables are gone with it. */
    @Override
    public void close() {
        session.close();
    }

    /** Where it is and what it reads, without a password. */
    @Override
    public String toString() {
        return session + " " + sources.keySet().stream().collect(Collectors.joining(", "));
    }
}
