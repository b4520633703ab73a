package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.Unsaid;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.FileKind;
import dev.trellisgorge.tables.Progress;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/** Finds what a brief is computed by: over tables that are read here, in the database that it or its user names, or in an engine where files are large. */
final class SourceReader {
    /** From so many bytes on, files are read by the embedded engine unasked, quicker or in less memory; below that a workbook has room for their rows, and is live from them on. */
    private static final Map<FileKind, Long> LARGE = Map.of(FileKind.PARQUET, 0L, FileKind.TEXT, 96L << 20, FileKind.JSON, 64L << 20);

    private final Path file;
    private final Mapping root;
    private final Overrides overrides;
    private final AccessPolicy trust;
    private final Progress progress;
    private final List<Path> inputs;
    private final Problems problems;

    /** @param inputs takes the files that are read */
    SourceReader(Path file, Mapping root, Overrides overrides, AccessPolicy trust, Progress progress, List<Path> inputs, Problems problems) {
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
        RunOnReader reader = new RunOnReader(root, overrides, trust, problems);
        Optional<RunOn> asked = overrides.there().on().or(reader::read);
        boolean unasked = asked.isEmpty() && holdsLargeFiles();
        Optional<RunOn> on = unasked ? Optional.of(RunOn.EMBEDDED) : asked.filter(each -> !each.isHere()).map(each -> each.in(reader.zone()));
        if (on.filter(each -> !each.dialect().setsZone()).isPresent()) {
            reader.refuseZone("a session's time zone can't be set in the dialect '" + on.get().dialect() + "'; set it in the database");
        }
        RawTables raw = new RawTables(file, root, overrides, trust, progress, inputs, problems, on, unasked);
        List<DatabaseTable> tables = root.mapping("data").map(raw::read).orElse(List.of());
        if (unasked && !tables.isEmpty()) {
            return embedded(raw, tables, settings);
        }
        Map<String, Table> here = new LinkedHashMap<>();
        tables.stream().filter(table -> table.rows() instanceof DatabaseTable.AtHand).forEach(table -> here.put(table.name(), ((DatabaseTable.AtHand) table.rows()).table()));
        if (on.isPresent() && !tables.isEmpty()) {
            return problems.attempt(() -> (Executor) open(on.get(), tables, settings)).orElseGet(() -> Executor.of(Map.of(), settings));
        }
        List<DatabaseTable> absent = tables.stream().filter(table -> !here.containsKey(table.name())).toList();
        return absent.isEmpty() ? Executor.of(here, settings) : new Described(schemas(raw, tables, here), settings, absent, overrides.names().of(InputNames.Input.DATABASE));
    }

    /** What the engine can't read, or not say, is read here. */
    private Executor embedded(RawTables raw, List<DatabaseTable> tables, Settings settings) {
        Supplier<Executor> here = () -> Executor.of(raw.here(tables), settings);
        try {
            return new Embedded(open(RunOn.EMBEDDED, tables, settings), here, Place.inFile(overrides.names().file(file, Brief.folder(file))));
        } catch (Unsaid unsaid) {
            return problems.attempt(here).orElseGet(() -> Executor.of(Map.of(), settings));
        } catch (BadInput wrong) {
            problems.attempt(() -> {
                throw wrong;
            });
            return Executor.of(Map.of(), settings);
        }
    }

    /** Whether a file is one that the embedded engine is to read. */
    private boolean holdsLargeFiles() {
        List<Path> files = new BriefReader(file, overrides, trust, Progress.NONE).files();
        return files.stream().skip(1).anyMatch(each -> RawTables.size(each) >= LARGE.getOrDefault(FileKind.of(each.toString()), Long.MAX_VALUE));
    }

    private Map<String, Schema> schemas(RawTables raw, List<DatabaseTable> tables, Map<String, Table> here) {
        Map<String, Schema> schemas = new LinkedHashMap<>();
        tables.forEach(table -> schemas.put(table.name(), here.containsKey(table.name()) ? here.get(table.name()).schema() : raw.described().get(table.name())));
        return schemas;
    }

    private Database open(RunOn on, List<DatabaseTable> tables, Settings settings) {
        Mapping data = root.mapping("data").orElseThrow();
        try {
            return overrides.there().writes() ? Database.openForViews(on.login(), on.dialect(), tables, settings)
                    : Database.open(on.login(), on.dialect(), tables, settings, overrides.there().tellsAll());
        } catch (Unsaid unsaid) {
            throw unsaid;
        } catch (BadInput wrong) {
            throw new BadInput(wrong.problems().stream().map(problem -> tables.stream().filter(table -> problem.place().toString().equals("table '" + table.name() + "'") && data.has(table.name())).findFirst()
                    .map(table -> problem.at(data.keyPlace(table.name()))).orElse(problem)).toList(), wrong);
        }
    }
}
