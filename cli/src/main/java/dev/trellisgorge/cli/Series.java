package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableWriter;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
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

    private final BriefSource source;
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.table)
            .description("table (for people), csv (RFC 4180, one chart) or json (absent is null); table where it is not given.")
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
        return spec.addOption(form).addOption(withoutFormulas);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        if (withoutFormulas.<Boolean>getValue() && form.<Form>getValue() != Form.csv) {
            throw new BadInput(Place.of("--no-formulas"), "is about csv; give --as csv too");
        }
        Brief brief = source.read();
        List<PlainChart> charts = brief.compute(source.charts(brief));
        source.warn(charts);
        Map<String, Table> tables = new LinkedHashMap<>();
        charts.forEach(chart -> tables.put(chart.name(), chart.printed()));
        switch (form.<Form>getValue()) {
            case csv -> csv(only(tables, brief));
            case json -> TableWriter.json(tables, streams.out());
            case table -> charts.forEach(chart -> new SeriesText(streams.out()).print(chart, charts.size() > 1));
        }
        return Gorge.DONE;
    }

    private void csv(Table table) throws IOException {
        if (withoutFormulas.<Boolean>getValue()) {
            TableWriter.csvWithoutFormulas(table, streams.out());
        } else {
            TableWriter.csv(table, streams.out());
        }
    }

    private static Table only(Map<String, Table> tables, Brief brief) {
        if (tables.size() > 1) {
            throw new BadInput(Place.inFile(brief.file().toString()), "csv holds one chart and the brief has "
                    + tables.size() + "; choose one with --chart "
                    + tables.keySet().stream().map(n -> n.contains(" ") ? "'" + n + "'" : n).collect(Collectors.joining(" or --chart ")));
        }
        return tables.values().iterator().next();
    }
}
