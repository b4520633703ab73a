package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Explanation;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.PlainChart;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge explain}: why a row looks as it does. */
final class Explain implements Command {
    private final BriefSource source;
    private final OptionSpec row = Command.option(String.class, "NAME", "--row").required(true)
            .description("The row: a category's name; 'row 1' in a chart of one figure.").build();
    private final OptionSpec formulas = OptionSpec.builder("--formulas").type(boolean.class).initialValue(false)
            .description("The formula of each series too, also of those that have nothing on the row.").build();
    private final Streams streams;

    Explain(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("explain", "Says in plain words, with its figures, why a row looks as it does in each chart that has it.");
        source.addTo(spec);
        return spec.addOption(row).addOption(formulas);
    }

    @Override
    public int run(ParseResult given) {
        Brief brief = source.read();
        List<PlainChart> charts = brief.compute(source.charts(brief));
        String name = row.getValue();
        List<PlainChart> having = charts.stream().filter(chart -> Explanation.has(chart, name)).toList();
        List<Explanation> told = (having.isEmpty() ? charts.subList(0, 1) : having).stream().map(chart -> Explanation.of(chart, name, formulas.getValue())).toList();
        for (int i = 0; i < told.size(); i++) {
            streams.out().print(i == 0 ? "" : System.lineSeparator());
            told.get(i).lines().forEach(streams.out()::println);
        }
        return Gorge.DONE;
    }
}
