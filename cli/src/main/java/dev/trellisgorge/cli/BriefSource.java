package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.brief.Overrides;
import dev.trellisgorge.brief.Trust;
import dev.trellisgorge.brief.UserSettings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** The brief, and which of its charts are meant: what every command that reads a brief takes. */
final class BriefSource {
    private final PositionalParamSpec file = PositionalParamSpec.builder().paramLabel("BRIEF").type(Path.class).index("0")
            .arity("1").required(true).description("The brief: a YAML or JSON file that says what to make.").build();
    private final OptionSpec charts = Command.option(List.class, "NAME", "--chart").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Only this chart; may be given more than once.").build();
    private final OptionSpec settings = Command.option(List.class, "NAME=VALUE", "--set").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Another value for a setting; may be given more than once.").build();
    private final OptionSpec data = Command.option(List.class, "NAME=FILE", "--data").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Another file for a table; may be given more than once.").build();

    private final OptionSpec where = Command.option(String.class, "EXPRESSION", "--where")
            .description("Only the rows of the charted raw tables on which this is true, before all steps: \"station = 'Fern Pool'\".").build();

    private final OptionSpec locale = Command.option(String.class, "TAG", "--locale")
            .description("In whose language figures, months and dates are written, such as de-DE; what the brief says where it is not given.").build();

    private final OptionSpec allowed = Command.option(List.class, "KIND=PLACE", "--allow").auxiliaryTypes(String.class)
            .initialValue(List.of()).description("Let the brief read more than the files in its own folder: folder=DIRECTORY, database=jdbc:URL, parameter=NAME of a"
                    + " database's URL, environment=NAME for a password, or input; may be given more than once.").build();

    private final Streams streams;

    BriefSource(Streams streams) {
        this.streams = streams;
    }

    void addTo(CommandSpec spec) {
        spec.addPositional(file).addOption(charts).addOption(settings).addOption(data).addOption(where).addOption(locale).addOption(allowed);
    }

    Brief read() {
        try (ProgressBar bar = streams.progressBar()) {
            Brief brief = Brief.read(file.getValue(), overrides(), trust(), bar);
            brief.notes().forEach(note -> streams.err().println("gorge: note: " + note));
            return brief;
        }
    }

    /** Says what a reader must know who does not ask for all notes. */
    void warn(Collection<PlainChart> charts) {
        charts.stream().flatMap(chart -> chart.notes().stream()).filter(Note::urgent).distinct().forEach(note -> streams.err().println("gorge: note: " + note));
    }

    /** The files that {@link #read} looks at, also where it fails. */
    List<Path> inputs() {
        return Brief.inputsOf(file.getValue(), overrides(), trust());
    }

    private Overrides overrides() {
        Map<String, Path> files = new LinkedHashMap<>();
        pairs(data).forEach((name, value) -> files.put(name, Path.of(value)));
        return new Overrides(pairs(settings), files, Optional.ofNullable(where.getValue()), Optional.ofNullable(locale.getValue()));
    }

    /** What the person who runs this allows, here and in the settings file. */
    private Trust trust() {
        Trust trust = UserSettings.file(streams.terminal().environment()).map(UserSettings::read).orElse(Trust.OWN_FOLDER);
        for (String each : allowed.<List<String>>getValue()) {
            trust = trust.allowing(each, Path.of(""), Place.of("--allow"));
        }
        return trust;
    }

    private static Map<String, String> pairs(OptionSpec option) {
        Map<String, String> pairs = new LinkedHashMap<>();
        for (String pair : option.<List<String>>getValue()) {
            int at = pair.indexOf('=');
            if (at < 1) {
                throw new BadInput(Place.of(option.longestName()), "'" + pair + "' is no " + option.paramLabel());
            }
            pairs.put(pair.substring(0, at), pair.substring(at + 1));
        }
        return pairs;
    }

    /** What the charts that are meant will compute; the board's figures too, where no chart is named. */
    List<Plan> plans(Brief brief) {
        List<Plan> plans = new ArrayList<>(brief.plans(charts(brief)));
        plans.addAll(isWhole() ? brief.figurePlans() : List.of());
        return plans;
    }

    /** The charts that are meant, computed; the board's figures too, where no chart is named. */
    List<PlainChart> computed(Brief brief) {
        List<PlainChart> computed = new ArrayList<>(brief.compute(charts(brief)));
        computed.addAll(isWhole() ? brief.figures() : List.of());
        return computed;
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
