package dev.trellisgorge.cli;

import dev.trellisgorge.brief.FirstBrief;
import dev.trellisgorge.chart.Writing;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge start}: a first brief for a data file. */
final class Start implements Command {
    private final PositionalParamSpec pattern = PositionalParamSpec.builder().paramLabel("PATTERN").type(String.class).index("0").required(true)
            .arity("1").description("One of the names that 'gorge patterns' lists.").build();
    private final PositionalParamSpec data = PositionalParamSpec.builder().paramLabel("DATA").type(Path.class).index("1").required(true)
            .arity("1").description("The data file.").build();
    private final OptionSpec output = Command.option(Path.class, "FILE", "-o", "--output")
            .description("The brief to write; standard output where it is not given. A file that is there is not written over.").build();
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
    public int run(ParseResult given) {
        PatternType type = PatternsCommand.named(pattern.getValue());
        Path file = data.getValue();
        Optional<Path> target = Optional.ofNullable(output.getValue());
        Table table = TableFile.read(tableName(file), file);
        String brief = FirstBrief.of(type, table, target.map(t -> from(t, file)).orElse(file).toString().replace('\\', '/'));
        if (target.isEmpty()) {
            streams.out().print(brief);
        } else if (Files.exists(target.get())) {
            throw new BadInput(Place.inFile(target.get().toString()), "is there already and is not written over; name another file");
        } else {
            streams.out().println(Writing.to(target.get(), out -> out.write(brief.getBytes(StandardCharsets.UTF_8))));
        }
        return Gorge.DONE;
    }

    private static String tableName(Path file) {
        String name = file.getFileName() == null ? "table" : file.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) : name;
    }

    /** The data file as it is named from the brief's folder. */
    private static Path from(Path brief, Path data) {
        Path folder = brief.toAbsolutePath().normalize().getParent();
        return folder == null || data.isAbsolute() ? data : folder.relativize(data.toAbsolutePath().normalize());
    }
}
