package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.ParquetFile;
import dev.trellisgorge.sql.Dialect;
import dev.trellisgorge.sql.Unsaid;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.FileKind;
import dev.trellisgorge.tables.Layout;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.Progress;
import dev.trellisgorge.tables.QueryTable;
import dev.trellisgorge.tables.TableFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** Reads the raw tables that a brief names, or finds them in the database in which it is computed. */
final class SourceReader {
    /** From so many bytes on, files are read by the embedded engine unasked, in less memory; below that it is not quicker than the reader here. */
    private static final Map<FileKind, Long> LARGE = Map.of(FileKind.PARQUET, 0L, FileKind.TEXT, 96L << 20, FileKind.JSON, 16L << 20);
    /** The same where it is asked for. */
    private static final long WORTH_IT = 1 << 20;
    private static final List<String> THERE = List.of("table", "query", "rows-by", "kinds", "shape");

    private final Path file;
    private final Mapping root;
    private final Overrides overrides;
    private final Trust trust;
    private final Progress progress;
    private final List<Path> inputs;
    private final Problems problems;
    private final Map<String, Schema> described = new LinkedHashMap<>();
    private final Map<String, Supplier<Table>> readers = new LinkedHashMap<>();
    private Optional<RunOn> on = Optional.empty();
    private boolean unasked;

    /** @param inputs takes the files that are read */
    SourceReader(Path file, Mapping root, Overrides overrides, Trust trust, Progress progress, List<Path> inputs, Problems problems) {
        this.file = file;
        this.root = root;
        this.overrides = overrides;
        this.trust = trust;
        this.progress = progress;
        this.inputs = inputs;
        this.problems = problems;
    }

    /** What runs steps over them; over none at all where one can't be read, which is reported. */
    Executor read(Settings settings) {
        on = overrides.there().on().or(this::runOn);
        unasked = on.isEmpty() && holdsLargeFiles();
        on = unasked ? Optional.of(RunOn.EMBEDDED) : on.filter(each -> !each.isHere());
        List<DatabaseTable> tables = root.mapping("data").map(data -> tables(data, on.isPresent())).orElse(List.of());
        if (unasked && !tables.isEmpty()) {
            return embedded(tables, settings);
        }
        Map<String, Table> here = new LinkedHashMap<>();
        tables.stream().filter(table -> table.rows() instanceof DatabaseTable.AtHand).forEach(table -> here.put(table.name(), ((DatabaseTable.AtHand) table.rows()).table()));
        if (on.isPresent() && !tables.isEmpty()) {
            return problems.attempt(() -> (Executor) open(on.get(), tables, settings)).orElseGet(() -> Executor.of(Map.of(), settings));
        }
        List<DatabaseTable> absent = tables.stream().filter(table -> !here.containsKey(table.name())).toList();
        return absent.isEmpty() ? Executor.of(here, settings) : new Described(schemas(tables, here), settings, absent);
    }

    /** What the engine can't read, or not say, is read here. */
    private Executor embedded(List<DatabaseTable> tables, Settings settings) {
        Supplier<Executor> here = () -> Executor.of(here(tables), settings);
        try {
            return new Embedded(open(RunOn.EMBEDDED, tables, settings), here, file);
        } catch (Unsaid unsaid) {
            return problems.attempt(here).orElseGet(() -> Executor.of(Map.of(), settings));
        } catch (BadInput wrong) {
            problems.attempt(() -> {
                throw wrong;
            });
            return Executor.of(Map.of(), settings);
        }
    }

    private Map<String, Table> here(List<DatabaseTable> tables) {
        Map<String, Table> here = new LinkedHashMap<>();
        tables.forEach(table -> here.put(table.name(), table.rows() instanceof DatabaseTable.AtHand there ? there.table() : readers.containsKey(table.name()) ? readers.get(table.name()).get() : parquet(table)));
        return here;
    }

    private Table parquet(DatabaseTable table) {
        return ParquetFile.read(table.name(), ((DatabaseTable.InParquet) table.rows()).file(), trust.limits());
    }

    /** Whether a file is one that the embedded engine is to read. */
    private boolean holdsLargeFiles() {
        List<Path> files = new BriefReader(file, overrides, trust, Progress.NONE).files();
        return files.stream().skip(1).anyMatch(each -> size(each) >= LARGE.getOrDefault(FileKind.of(each.toString()), Long.MAX_VALUE));
    }

    private static long size(Path file) {
        try {
            return Files.size(file);
        } catch (IOException e) {
            return 0; // what is wrong with it is told where it is read
        }
    }

    private Map<String, Schema> schemas(List<DatabaseTable> tables, Map<String, Table> here) {
        Map<String, Schema> schemas = new LinkedHashMap<>();
        tables.forEach(table -> schemas.put(table.name(), here.containsKey(table.name()) ? here.get(table.name()).schema() : described.get(table.name())));
        return schemas;
    }

    private Database open(RunOn on, List<DatabaseTable> tables, Settings settings) {
        Mapping data = root.mapping("data").orElseThrow();
        try {
            Database database = Database.open(on.login(), on.dialect(), tables, settings, overrides.there().tellsAll());
            described.forEach((name, schema) -> schema.fields().forEach(stated -> refuseOther(stated, database.known().sources().get(name), data.mapping(name).orElseThrow())));
            return database;
        } catch (Unsaid unsaid) {
            throw unsaid;
        } catch (BadInput wrong) {
            throw new BadInput(wrong.problems().stream().map(problem -> tables.stream().filter(table -> problem.place().toString().equals("table '" + table.name() + "'") && data.has(table.name())).findFirst()
                    .map(table -> new Problem(data.keyPlace(table.name()), problem.toString())).orElse(problem)).toList(), wrong);
        }
    }

    /** What the brief says of a column must be so. */
    private void refuseOther(Field stated, Schema there, Mapping keys) {
        Optional<Field> found = there.find(stated.name());
        if (found.isEmpty()) {
            keys.refuse("kinds", there.unknownColumn(stated.name()));
        } else if (found.get().kind() != stated.kind()) {
            keys.refuse("kinds", "'" + stated.name() + "' is " + found.get().kind().phrase() + " in the database, not " + stated.kind().phrase());
        }
    }

    /** The database that the brief names, where whoever runs it allows that. */
    private Optional<RunOn> runOn() {
        if (!root.has("run-on")) {
            return Optional.empty();
        }
        Optional<Mapping> more = root.isMapping("run-on") ? root.mapping("run-on").map(keys -> keys.allowing(List.of("url"), List.of("url", "user", "password-variable", "dialect"))) : Optional.empty();
        Optional<Text> url = more.isPresent() ? more.flatMap(keys -> keys.text("url")) : root.text("run-on");
        Optional<String> untrusted = url.map(Text::value).filter(each -> !RunOn.isEmptyAtFirst(each)).map(RunOn::jdbc).flatMap(trust::refusal);
        untrusted.ifPresent(why -> problems.add(url.orElseThrow().place(), why));
        Optional<String> password = more.flatMap(keys -> keys.text("password-variable").map(Text::value).flatMap(variable -> variable(variable, keys)));
        Optional<Dialect> dialect = more.flatMap(keys -> keys.choice("dialect", Dialect.class));
        url.filter(each -> RunOn.isCluster(each.value())).flatMap(cluster -> more).ifPresent(keys -> List.of("user", "password-variable").stream().filter(keys::has).forEach(key -> keys.refuse(key, "has no use here: a cluster asks for none")));
        boolean wrong = untrusted.isPresent() || more.isPresent() && more.get().has("password-variable") && password.isEmpty();
        return wrong ? Optional.empty() : url.flatMap(each -> named(each, more.flatMap(keys -> keys.text("user")).map(Text::value), password, dialect));
    }

    private Optional<RunOn> named(Text url, Optional<String> user, Optional<String> password, Optional<Dialect> dialect) {
        try {
            return Optional.of(RunOn.of(url.value(), user, password, dialect));
        } catch (BadInput wrong) {
            problems.add(url.place(), wrong.getMessage());
            return Optional.empty();
        }
    }

    /** The tables in their order; none at all where one can't be read, which is reported. */
    private List<DatabaseTable> tables(Mapping data, boolean there) {
        List<DatabaseTable> tables = new ArrayList<>();
        boolean all = true;
        for (String name : data.keys()) {
            Optional<DatabaseTable> table = overrides.there().tables().containsKey(name) ? Optional.of(found(name, DatabaseTable.named(name, overrides.there().tables().get(name)), Optional.empty()))
                    : overrides.data().containsKey(name) ? given(name, data) : source(name, data, there);
            table.ifPresent(tables::add);
            all &= table.isPresent();
        }
        if (!data.keys().iterator().hasNext()) {
            problems.add(data.place(), "'data' names no table");
        }
        refuseOthers("--data", overrides.data(), data);
        refuseOthers("--table", overrides.there().tables(), data);
        if (!there && !overrides.there().tables().isEmpty()) {
            problems.add(Place.of("--table"), "is about a database; say which with --on URL");
            return List.of();
        }
        boolean ofDatabase = tables.stream().anyMatch(table -> table.rows() instanceof DatabaseTable.Named || table.rows() instanceof DatabaseTable.Asked);
        if (there && all && overrides.there().rowsBy().isPresent() && !ofDatabase) {
            problems.add(Place.of("--rows-by"), "is about tables of the database, and all are files, which keep their order");
            return List.of();
        }
        return all ? tables : List.of();
    }

    private void refuseOthers(String option, Map<String, ?> given, Mapping data) {
        given.keySet().stream().filter(name -> !data.has(name)).forEach(name -> problems.add(Place.of(option), "there is no table '" + name + "' in 'data'. " + Nearest.hint(name, data.keyList())));
    }

    private DatabaseTable found(String name, DatabaseTable table, Optional<Text> rowsBy) {
        return rowsBy.map(Text::value).or(() -> overrides.there().rowsBy()).map(table::rowsBy).orElse(table);
    }

    /** A table of the database in which the brief is computed, or a query there. */
    private Optional<DatabaseTable> there(String name, Mapping keys, boolean there) {
        keys.allowing(List.of(), THERE);
        if (keys.has("table") && keys.has("query")) {
            keys.refuse("query", "has no use here, as 'table' says where the rows are");
            return Optional.empty();
        }
        Map<String, Kind> kinds = new LayoutReader(keys, problems).kinds();
        if (!there && kinds.isEmpty()) {
            if (root.has("run-on")) {
                return Optional.empty(); // what is wrong with that is told
            }
            problems.add(keys.place(), "the table '" + name + "' is in a database; say which with --on URL or 'run-on', or what its columns hold with 'kinds', which is enough for 'gorge sql'");
            return Optional.empty();
        }
        described.put(name, Schema.of(name, Place.of("table '" + name + "'"), kinds.entrySet().stream().map(column -> Field.of(column.getKey(), column.getValue())).toList()));
        Optional<DatabaseTable> table = keys.has("table") ? keys.text("table").map(text -> DatabaseTable.named(name, text.value())) : keys.text("query").map(text -> DatabaseTable.asked(name, text.value()));
        return table.map(each -> found(name, each, keys.text("rows-by")));
    }

    /** A file that stands in for the one in the brief and is laid out like it; named from where the user stands, not from the brief. */
    private Optional<DatabaseTable> given(String table, Mapping data) {
        Optional<Mapping> laidOut = data.isMapping(table) ? data.mapping(table).filter(keys -> keys.has("file")) : Optional.empty();
        return read(table, overrides.data().get(table), laidOut.map(keys -> new LayoutReader(keys, problems).read()).orElse(Layout.FOUND));
    }

    /** A file alone, or with how it is laid out; what a query of another database gives; or a table of the one in which the brief is computed. */
    private Optional<DatabaseTable> source(String table, Mapping data, boolean there) {
        if (!data.isMapping(table)) {
            return data.text(table).flatMap(text -> table(table, text, Layout.FOUND));
        }
        Mapping keys = data.mapping(table).orElseThrow();
        if (keys.has("jdbc")) {
            return query(table, keys).map(DatabaseTable::of);
        } else if (keys.has("table") || keys.has("query")) {
            return there(table, keys, there);
        }
        Layout layout = new LayoutReader(keys, problems).read();
        return keys.text("file").flatMap(text -> table(table, text, layout));
    }

    private Optional<Table> query(String table, Mapping keys) {
        keys.allowing(List.of("jdbc", "query"), List.of("jdbc", "query", "user", "password-variable", "shape"));
        Optional<Text> url = keys.text("jdbc");
        Optional<Text> query = keys.text("query");
        Optional<String> untrusted = url.map(Text::value).flatMap(trust::refusal);
        untrusted.ifPresent(why -> keys.refuse("jdbc", why));
        Optional<String> password = keys.text("password-variable").map(Text::value).flatMap(variable -> variable(variable, keys));
        if (untrusted.isPresent() || url.isEmpty() || query.isEmpty() || keys.has("password-variable") && password.isEmpty()) {
            return Optional.empty();
        }
        Login login = new Login(url.get().value(), keys.text("user").map(Text::value), password);
        try {
            return Optional.of(QueryTable.read(table, login, query.get().value()));
        } catch (BadInput e) {
            e.problems().forEach(problem -> problems.add(query.get().place(), problem.toString()));
            return Optional.empty();
        }
    }

    private Optional<String> variable(String variable, Mapping keys) {
        Optional<String> untrusted = trust.refusalOfVariable(variable);
        Optional<String> value = untrusted.isPresent() ? Optional.empty() : Optional.ofNullable(System.getenv(variable));
        if (value.isEmpty()) {
            keys.refuse("password-variable", untrusted.orElse("there is no environment variable '" + variable + "'"));
        }
        return value;
    }

    private Optional<DatabaseTable> table(String table, Text text, Layout layout) {
        if (text.value().equals(FileKind.STANDARD_INPUT)) {
            Optional<String> untrusted = trust.refusalOfInput();
            untrusted.ifPresent(why -> problems.add(text.place(), why));
            return untrusted.isPresent() ? Optional.empty() : read(table, Path.of(FileKind.STANDARD_INPUT), layout);
        }
        Path source = file.resolveSibling(text.value());
        Optional<String> untrusted = trust.refusal(file, source);
        if (untrusted.isPresent()) {
            problems.add(text.place(), untrusted.get());
            return Optional.empty();
        }
        if (!Files.exists(source)) {
            inputs.add(source);
            problems.add(text.place(), "there is no file '" + source + "' for the table '" + table + "'");
            return Optional.empty();
        }
        return read(table, source, layout);
    }

    private Optional<DatabaseTable> read(String table, Path source, Layout given) {
        Layout layout = given.within(trust.limits());
        if (source.toString().equals(FileKind.STANDARD_INPUT)) {
            return problems.attempt(() -> DatabaseTable.of(TableFile.read(table, System.in, layout, progress)));
        }
        inputs.add(source);
        boolean there = on.filter(each -> each.dialect().readsFiles()).isPresent();
        if (FileKind.of(source.toString()) == FileKind.PARQUET) {
            DatabaseTable file = new DatabaseTable(table, new DatabaseTable.InParquet(source), Optional.empty());
            return there ? Optional.of(file) : problems.attempt(() -> DatabaseTable.of(parquet(file)));
        }
        if (there && size(source) >= WORTH_IT) {
            Optional<FileHead> head = FileHead.of(source, layout);
            if (head.isPresent()) {
                readers.put(table, () -> here(table, source, layout));
                return Optional.of(new DatabaseTable(table, new DatabaseTable.InFile(source, head.get(), unasked ? Optional.empty() : Optional.of(readers.get(table))), Optional.empty()));
            }
        }
        return problems.attempt(() -> DatabaseTable.of(here(table, source, layout)));
    }

    private Table here(String table, Path source, Layout layout) {
        try {
            return TableFile.read(table, source, layout, progress);
        } catch (OutOfMemoryError e) {
            throw Memory.ended(Place.inFile(source.toString()), "the table", "give it fewer rows or columns");
        }
    }
}
