package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.pattern.Chart;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** The brief, and which of its charts are meant: what every command that reads a brief takes. */
final class BriefSource {
    private final PositionalParamSpec file = PositionalParamSpec.builder().paramLabel("BRIEF").type(Path.class).index("0")
            .arity("1").required(true).description("The brief: a YAML or JSON file that says what to make.").build();
    private final OptionSpec charts = Command.option(List.class, "NAME", "--chart").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Only this chart; may be given more than once.").build();

    void addTo(CommandSpec spec) {
        spec.addPositional(file).addOption(charts);
    }

    Brief read() {
        return Brief.read(file.getValue());
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
