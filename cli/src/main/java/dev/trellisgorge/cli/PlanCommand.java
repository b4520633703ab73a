package dev.trellisgorge.cli;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.engine.json.PlanWriter;
import java.io.IOException;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge plan}: what a brief's charts will compute. */
final class PlanCommand implements Command {

    private final BriefSource source;
    private final TextOrJson form = new TextOrJson();
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
        return form.addTo(spec);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Brief brief = source.read();
        List<Plan> plans = source.plans(brief);
        if (form.isJson()) {
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
