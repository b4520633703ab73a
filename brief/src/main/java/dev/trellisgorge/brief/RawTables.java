package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.JdbcQuery;
import dev.trellisgorge.sql.ParquetFile;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileHead;
import dev.trellisgorge.tables.FileKind;
import dev.trellisgorge.tables.Layout;
import dev.trellisgorge.tables.Login;
import dev.trellisgorge.tables.Progress;
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

/** Reads the raw tables that a brief names, or says where they are in the database in which it is computed. */
final class RawTables {
    /** From so many bytes on, files are read by an engine that is asked for. */
    private static final long WORTH_IT = 1 << 20;

    private final Path file;
    private final Mapping root;
    private final Overrides overrides;
    private final AccessPolicy trust;
    private final Progress progress;
    private final List<Path> inputs;
    private final Problems problems;
    private final RunOnReader runOn;
    private final Map<String, Schema> described = new LinkedHashMap<>();
    private final Map<String, Supplier<Table>> readers = new LinkedHashMap<>();
    private final Optional<RunOn> on;
    private final boolean unasked;
    private boolean mayHoldMoments;

    /**
     * @param inputs  takes the files that are read
     * @param on      where the brief is computed; empty where that is here
     * @param unasked whether that is an engine that nobody asked for
     */
    RawTables(Path file, Mapping root, Overrides overrides, AccessPolicy trust, Progress progress, List<Path> inputs, Problems problems, Optional<RunOn> on, boolean unasked) {
        this.file = file;
        this.root = root;
        this.overrides = overrides;
        this.trust = trust;
        this.progress = progress;
        this.inputs = inputs;
        this.problems = problems;
        this.runOn = new RunOnReader(root, overrides, trust, problems);
        this.on = on;
        this.unasked = unasked;
    }

    /** What the brief says that the columns of the database's tables hold. */
    Map<String, Schema> described() {
        return described;
    }

    /** Tables that an engine would read, read here. */
    Map<String, Table> here(List<DatabaseTable> tables) {
        Map<String, Table> here = new LinkedHashMap<>();
        tables.forEach(table -> here.put(table.name(), table.rows() instanceof DatabaseTable.AtHand there ? there.table() : readers.containsKey(table.name()) ? readers.get(table.name()).get() : parquet(table)));
        return here;
    }

    private Table parquet(DatabaseTable table) {
        return ParquetFile.read(table.name(), (DatabaseTable.InParquet) table.rows(), table.kinds(), trust.limits(), runOn.zone());
    }

    /** The tables in their order; none at all where one can't be read, which is reported. */
    List<DatabaseTable> read(Mapping data) {
        List<DatabaseTable> tables = new ArrayList<>();
        boolean all = true;
        for (String name : data.keys()) {
            Optional<DatabaseTable> table = overrides.there().tables().containsKey(name) ? Optional.of(found(name, DatabaseTable.named(name, overrides.there().tables().get(name)), Optional.empty()))
                    : overrides.data().containsKey(name) ? given(name, data) : source(name, data);
            table.ifPresent(tables::add);
            all &= table.isPresent();
        }
        if (!data.keys().iterator().hasNext()) {
            problems.add(data.place(), ProblemKind.MISSING, "'data' names no table");
        }
        if (!mayHoldMoments && tables.stream().allMatch(table -> table.rows() instanceof DatabaseTable.AtHand || table.rows() instanceof DatabaseTable.InFile) && all) {
            runOn.refuseZone("a time zone is for moments in a database, and all tables are files");
        }
        refuseOthers(InputNames.Input.DATA, overrides.data(), data);
        refuseOthers(InputNames.Input.TABLES, overrides.there().tables(), data);
        if (on.isEmpty() && !overrides.there().tables().isEmpty()) {
            problems.add(overrides.place(InputNames.Input.TABLES), ProblemKind.MISSING, "is about a database; say which with " + overrides.names().of(InputNames.Input.DATABASE));
            return List.of();
        }
        boolean ofDatabase = tables.stream().anyMatch(table -> table.rows() instanceof DatabaseTable.Named || table.rows() instanceof DatabaseTable.Asked);
        if (on.isPresent() && all && overrides.there().rowsBy().isPresent() && !ofDatabase) {
            problems.add(overrides.place(InputNames.Input.ROWS_BY), ProblemKind.CONFLICT, "is about tables of the database, and all are files, which keep their order");
            return List.of();
        }
        return all ? tables : List.of();
    }

    private void refuseOthers(InputNames.Input input, Map<String, ?> given, Mapping data) {
        given.keySet().stream().filter(name -> !data.has(name)).forEach(name -> problems.add(overrides.place(input), ProblemKind.UNKNOWN_NAME, "there is no table '" + name + "' in 'data'. " + Nearest.hint(name, data.keyList())));
    }

    private DatabaseTable found(String name, DatabaseTable table, Optional<Text> rowsBy) {
        return rowsBy.map(Text::value).or(() -> overrides.there().rowsBy()).map(table::rowsBy).orElse(table);
    }

    /** A table of the database in which the brief is computed, or a query there. */
    private Optional<DatabaseTable> there(String name, Mapping keys) {
        keys.allowing(SourceSchema.THERE);
        if (keys.has("table") && keys.has("query")) {
            keys.refuse("query", ProblemKind.CONFLICT, "has no effect here, as 'table' says where the rows are");
            return Optional.empty();
        }
        Map<String, Kind> kinds = new LayoutReader(keys, problems).kinds();
        if (on.isEmpty() && kinds.isEmpty()) {
            if (root.has("run-on")) {
                return Optional.empty(); // what is wrong with that is told
            }
            problems.add(keys.place(), ProblemKind.MISSING, "the table '" + name + "' is in a database; say which with " + overrides.names().of(InputNames.Input.DATABASE) + " or 'run-on', or what its columns hold with 'kinds', which is enough for statements alone");
            return Optional.empty();
        }
        described.put(name, Schema.of(name, Place.of("table '" + name + "'"), kinds.entrySet().stream().map(column -> Field.of(column.getKey(), column.getValue())).toList()));
        Optional<DatabaseTable> table = keys.has("table") ? keys.text("table").map(text -> DatabaseTable.named(name, text.value())) : keys.text("query").map(text -> DatabaseTable.asked(name, text.value(), trust.queries(overrides.names())));
        return table.map(each -> found(name, each.kinds(kinds), keys.text("rows-by")));
    }

    /** A file that stands in for the one in the brief and is laid out like it; named from where the user stands, not from the brief. */
    private Optional<DatabaseTable> given(String table, Mapping data) {
        Optional<Mapping> laidOut = data.isMapping(table) ? data.mapping(table).filter(keys -> keys.has("file")) : Optional.empty();
        return read(table, overrides.data().get(table), laidOut.map(keys -> new LayoutReader(keys, problems).read()).orElse(Layout.FOUND));
    }

    /** A file alone, or with how it is laid out; what a query of another database gives; or a table of the one in which the brief is computed. */
    private Optional<DatabaseTable> source(String table, Mapping data) {
        if (!data.isMapping(table)) {
            return data.text(table).flatMap(text -> table(table, text, Layout.FOUND));
        }
        Mapping keys = data.mapping(table).orElseThrow();
        if (keys.has("jdbc")) {
            return query(table, keys).map(DatabaseTable::of);
        } else if (keys.has("table") || keys.has("query")) {
            return there(table, keys);
        }
        Layout layout = new LayoutReader(keys, problems).read();
        return keys.text("file").flatMap(text -> table(table, text, layout));
    }

    private Optional<Table> query(String table, Mapping keys) {
        mayHoldMoments = true;
        keys.allowing(SourceSchema.QUERY);
        Optional<Text> url = keys.text("jdbc");
        Optional<Text> query = keys.text("query");
        Optional<String> untrusted = url.map(Text::value).flatMap(named -> trust.refusal(named, overrides.names()));
        untrusted.ifPresent(why -> keys.refuse("jdbc", ProblemKind.NOT_ALLOWED, why));
        Optional<String> password = keys.text("password-variable").map(Text::value).flatMap(variable -> runOn.variable(variable, keys));
        if (untrusted.isPresent() || url.isEmpty() || query.isEmpty() || keys.has("password-variable") && password.isEmpty()) {
            return Optional.empty();
        }
        Login login = new Login(url.get().value(), keys.text("user").map(Text::value), password).in(runOn.zone());
        try {
            return Optional.of(JdbcQuery.read(table, login, RunOn.dialect(login.url()), new DatabaseTable.Asked(query.get().value(), trust.queries(overrides.names())), new LayoutReader(keys, problems).kinds()));
        } catch (BadInput e) {
            problems.addAll(e.at(query.get().place()));
            return Optional.empty();
        }
    }

    private Optional<DatabaseTable> table(String table, Text text, Layout layout) {
        if (text.value().equals(FileKind.STANDARD_INPUT)) {
            Optional<String> untrusted = trust.refusalOfInput(overrides.names());
            untrusted.ifPresent(why -> problems.add(text.place(), ProblemKind.NOT_ALLOWED, why));
            return untrusted.isPresent() ? Optional.empty() : read(table, Path.of(FileKind.STANDARD_INPUT), layout);
        }
        Path source = file.resolveSibling(text.value());
        Optional<String> untrusted = trust.refusal(file, source, overrides.names());
        if (untrusted.isPresent()) {
            problems.add(text.place(), ProblemKind.NOT_ALLOWED, untrusted.get());
            return Optional.empty();
        }
        if (!Files.exists(source)) {
            inputs.add(source);
            problems.add(text.place(), ProblemKind.UNKNOWN_NAME, "there is no file '" + shown(source) + "' for the table '" + table + "'");
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
            mayHoldMoments = true;
            DatabaseTable file = new DatabaseTable(table, new DatabaseTable.InParquet(source, shown(source)), Optional.empty()).kinds(layout.kinds());
            return there ? Optional.of(file) : problems.attempt(() -> DatabaseTable.of(parquet(file)));
        }
        if (there && size(source) >= WORTH_IT) {
            Optional<FileHead> head = FileHead.of(source, layout);
            if (head.isPresent()) {
                readers.put(table, () -> here(table, source, layout));
                return Optional.of(new DatabaseTable(table, new DatabaseTable.InFile(source, shown(source), head.get(), unasked ? Optional.empty() : Optional.of(readers.get(table))), Optional.empty()));
            }
        }
        return problems.attempt(() -> DatabaseTable.of(here(table, source, layout)));
    }

    /** What messages call a file. */
    private String shown(Path source) {
        return overrides.names().file(source, Brief.folder(file));
    }

    static long size(Path file) {
        try {
            return Files.size(file);
        } catch (IOException e) {
            return 0; // what is wrong with it is reported where it is read
        }
    }

    private Table here(String table, Path source, Layout layout) {
        try {
            return TableFile.read(table, source, shown(source), layout, progress);
        } catch (OutOfMemoryError e) {
            throw Memory.ended(Place.inFile(shown(source)), "the table", "give it fewer rows or columns");
        }
    }
}
