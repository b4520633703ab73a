package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.json.AuditWriter;
import java.io.IOException;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge check}: proves the identities of a brief's charts. */
final class Check implements Command {

    private final BriefSource source;
    private final TextOrJson form = new TextOrJson();
    private final Streams streams;

    Check(Streams streams) {
        this.streams = streams;
        this.source = BriefSource.tellingAll(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("check",
                "Proves that the pieces add back to the figures, and says what a reader should know; exit 1 where a proof fails.");
        source.addTo(spec);
        return form.addTo(spec);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Brief brief = source.read();
        List<Audit> audits = source.computed(brief).stream().map(Audit::of).toList();
        if (form.isJson()) {
            AuditWriter.json(audits, streams.out());
        } else {
            audits.forEach(new AuditText(streams.out())::print);
        }
        return audits.stream().allMatch(Audit::holds) ? Gorge.DONE : Gorge.CHECK_FAILED;
    }
}
