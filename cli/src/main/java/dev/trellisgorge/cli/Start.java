package dev.trellisgorge.cli;

import dev.trellisgorge.brief.BriefSchema;
import dev.trellisgorge.brief.FirstBrief;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.DatabaseTable;
import dev.trellisgorge.sql.ParquetFile;
import dev.trellisgorge.tables.FileKind;
import dev.trellisgorge.tables.Found;
import dev.trellisgorge.tables.Limits;
import dev.trellisgorge.tables.TableFile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge start}: a first brief for a data file. */
final class Start implements Command {
    /** The line by which editors find the schema of a YAML file. */
    private static final String REFERENCE = "# yaml-language-server: $schema=" + BriefSchema.FILE + "\n";

    private final PositionalParamSpec pattern = PositionalParamSpec.builder().paramLabel("[PATTERN]").hideParamSyntax(true).type(String.class).index("0").required(false)
            .arity("0..1").description("One of the names that 'gorge patterns' lists; left out, the patterns that suit the data are listed.").build();
    private final PositionalParamSpec data = PositionalParamSpec.builder().paramLabel("DATA").hideParamSyntax(true).type(Path.class).index("1").required(false)
            .arity("0..1").description("The data file: delimited text, JSON or a workbook, its layout found; - is standard input.").build();
    private final OptionSpec output = Command.option(Path.class, "FILE", "-o", "--output")
            .description("The brief to write, with " + BriefSchema.FILE + " beside it for editors; standard output by default. A file that is there is not "
                    + "written over.").build();
    private final Streams streams;

    Start(Streams streams) {
        this.streams = streams;
    }

    @Override
    public CommandSpec spec() {
        return Command.named("start", "Writes a first brief for a data file, its columns guessed from their kinds.")
                .addPositional(pattern).addPositional(data).addOption(output);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        if (pattern.getValue() == null) {
            throw new BadInput(Place.of("start"), ProblemKind.MISSING, "the data file is missing: gorge start DATA lists the patterns that suit it");
        }
        if (data.getValue() == null) {
            return suiting(pattern.getValue());
        }
        PatternType type = PatternsCommand.named(pattern.getValue());
        Path file = data.getValue();
        Optional<Path> target = Optional.ofNullable(output.getValue());
        Found found = found(file);
        boolean piped = isPiped(file);
        Path named = piped ? file : target.map(t -> from(t, file)).orElse(file);
        String needed = piped ? "# Its data is piped in, so run it with --allow input\n" : isOutside(target, file) ? "# Its data lies in another folder, so run it with --allow folder="
                + file.toAbsolutePath().normalize().getParent() + "\n" : "";
        String brief = FirstBrief.of(type, found, named.toString().replace('\\', '/'));
        if (target.isEmpty()) {
            streams.out().print(needed + "# 'gorge patterns --as schema > " + BriefSchema.FILE + "' writes the schema that the next line names:\n" + REFERENCE + brief);
        } else {
            write(target.get(), needed + REFERENCE + brief);
        }
        return Gorge.DONE;
    }

    /** The patterns that there is a first brief of, a line each. */
    private int suiting(String file) {
        if (output.getValue() != null || Patterns.names().contains(file) && !Files.exists(Path.of(file))) {
            throw new BadInput(Place.of("start"), ProblemKind.MISSING, Patterns.names().contains(file) ? "the data file is missing: gorge start " + file + " DATA" : "which pattern is meant? gorge start PATTERN " + file);
        }
        Map<PatternType, String> suiting = FirstBrief.suiting(found(Path.of(file)));
        if (suiting.isEmpty()) {
            throw new BadInput(Place.inFile(file), ProblemKind.DATA, "suits no pattern: it needs a column of texts or dates, and one of numbers");
        }
        int width = suiting.keySet().stream().mapToInt(type -> type.name().length()).max().orElse(0);
        suiting.forEach((type, why) -> streams.out().println(type.name() + " ".repeat(width - type.name().length() + 3) + why));
        return Gorge.DONE;
    }

    private static boolean isOutside(Optional<Path> brief, Path data) {
        Path folder = brief.map(file -> file.toAbsolutePath().normalize().getParent()).orElse(Path.of("").toAbsolutePath());
        return !data.toAbsolutePath().normalize().startsWith(folder);
    }

    private Found found(Path file) {
        if (FileKind.of(file.toString()) == FileKind.PARQUET) {
            return new Found(ParquetFile.read(tableName(file), new DatabaseTable.InParquet(file), Map.of(), Limits.STANDARD, ZoneOffset.UTC), Map.of(), List.of());
        }
        try (ProgressBar bar = streams.progressBar()) {
            return isPiped(file) ? TableFile.find("input", System.in, bar) : TableFile.find(tableName(file), file, bar);
        }
    }

    private static boolean isPiped(Path file) {
        return file.toString().equals(FileKind.STANDARD_INPUT);
    }

    /** The schema goes beside the brief, unless there is one from an earlier brief. */
    private void write(Path target, String brief) throws IOException {
        if (Files.exists(target)) {
            throw new BadInput(Place.inFile(target.toString()), ProblemKind.NOT_WRITABLE, "is there already and is not written over; name another file");
        }
        streams.out().println(AtomicFiles.to(target, out -> out.write(brief.getBytes(StandardCharsets.UTF_8))));
        Path schema = target.resolveSibling(BriefSchema.FILE);
        if (!Files.exists(schema)) {
            streams.out().println(AtomicFiles.to(schema, BriefSchema::write));
        }
    }

    private static String tableName(Path file) {
        String name = file.getFileName() == null ? "table" : file.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) : name;
    }

    /** The data file as it is named from the brief's folder. */
    private static Path from(Path brief, Path data) {
        Path folder = brief.toAbsolutePath().normalize().getParent();
        Path whole = data.toAbsolutePath().normalize();
        return folder == null || data.isAbsolute() && !whole.startsWith(folder) ? data : folder.relativize(whole);
    }
}
