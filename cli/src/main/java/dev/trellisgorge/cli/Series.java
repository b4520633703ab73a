package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.file.AtomicFiles;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.sql.ParquetFile;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge series}: the helper series of a brief's charts, on standard output. */
final class Series implements Command {

    /** The forms of the output. */
    enum Form {
        table, csv, json
    }

    private static final String PARQUET = ".parquet";

    private final BriefSource source;
    private final OptionSpec output = Command.option(Path.class, "FILE", "-o", "--output")
            .description("Write one chart's series into this file instead: .csv, .json or .parquet.").build();
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.table)
            .description("table (for people), csv (RFC 4180, one chart) or json (absent is null); table by default.")
            .build();
    private final OptionSpec withoutFormulas = OptionSpec.builder("--no-formulas").type(boolean.class).initialValue(false)
            .description("With csv: put ' before a text that begins with =, +, -, @, a tab or a line end, for readers of the file that would run it; else such texts stand as they are.").build();
    private final Streams streams;

    Series(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("series",
                "Prints the helper series: the category, then each helper column in drawing order; absent is empty.");
        source.addTo(spec);
        return spec.addOption(output).addOption(form).addOption(withoutFormulas);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Path file = output.getValue();
        if (file != null && given.hasMatchedOption("--as")) {
            throw new BadInput(Place.of("--as"), ProblemKind.CONFLICT, "has no effect here: the file's ending says its form");
        }
        Form wanted = file == null ? form.getValue() : form(file);
        if (withoutFormulas.<Boolean>getValue() && wanted != Form.csv) {
            throw new BadInput(Place.of("--no-formulas"), ProblemKind.CONFLICT, "is about csv; give --as csv too");
        }
        Brief brief = source.read();
        List<PlainChart> charts = brief.compute(source.charts(brief));
        source.warn(charts);
        Map<String, Table> tables = new LinkedHashMap<>();
        charts.forEach(chart -> tables.put(chart.name(), chart.printed()));
        if (file != null) {
            AtomicFiles.to(file, out -> write(wanted, tables, brief, out));
            streams.out().println(file);
            return Gorge.DONE;
        }
        switch (wanted) {
            case csv, json -> write(wanted, tables, brief, streams.out());
            default -> charts.forEach(chart -> new SeriesText(streams.out()).print(chart, charts.size() > 1));
        }
        return Gorge.DONE;
    }

    /** What a file's ending asks for; a table for people where it is Parquet, which none of the forms is. */
    private static Form form(Path file) {
        String name = file.toString().toLowerCase(Locale.ROOT);
        if (!name.endsWith(".csv") && !name.endsWith(".json") && !name.endsWith(PARQUET)) {
            throw new BadInput(Place.of("-o"), ProblemKind.UNSUPPORTED, "'" + file + "' has no ending that series are written in; known are .csv, .json and .parquet");
        }
        return name.endsWith(".csv") ? Form.csv : name.endsWith(".json") ? Form.json : Form.table;
    }

    private void write(Form wanted, Map<String, Table> tables, Brief brief, OutputStream out) throws IOException {
        if (wanted == Form.json) {
            TableWriter.json(tables, out);
        } else if (wanted == Form.table) {
            ParquetFile.write(only(tables, brief), out);
        } else if (withoutFormulas.<Boolean>getValue()) {
            TableWriter.csvWithoutFormulas(only(tables, brief), out);
        } else {
            TableWriter.csv(only(tables, brief), out);
        }
    }

    private Table only(Map<String, Table> tables, Brief brief) {
        if (tables.size() > 1) {
            throw new BadInput(Place.inFile(brief.file().toString()), ProblemKind.UNSUPPORTED, (output.getValue() != null && output.getValue().toString().endsWith(PARQUET) ? "Parquet" : "csv") + " holds one chart and the brief has "
                    + tables.size() + "; choose one with --chart "
                    + tables.keySet().stream().map(n -> n.contains(" ") ? "'" + n + "'" : n).collect(Collectors.joining(" or --chart ")));
        }
        return tables.values().iterator().next();
    }
}
