package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.tables.PlanWriter;
import java.io.IOException;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge plan}: what a brief's charts will compute. */
final class PlanCommand implements Command {

    /** The forms of the output. */
    enum Form {
        text, json
    }

    private final BriefSource source;
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.text)
            .description("text (for people) or json; text where it is not given.").build();
    private final Streams streams;

    PlanCommand(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("plan",
                "Says what will be computed, in order: the steps, each helper column with its formula, and what must hold. Computes nothing.");
        source.addTo(spec);
        return spec.addOption(form);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Brief brief = source.read();
        List<Plan> plans = brief.plans(source.charts(brief));
        if (form.<Form>getValue() == Form.json) {
            PlanWriter.json(plans, streams.out());
            return Gorge.DONE;
        }
        for (int i = 0; i < plans.size(); i++) {
            streams.out().print(i == 0 ? "" : System.lineSeparator());
            new PlanText(streams.out()).print(plans.get(i));
        }
        return Gorge.DONE;
    }
}
