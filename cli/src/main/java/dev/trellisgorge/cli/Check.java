package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.tables.AuditWriter;
import java.io.IOException;
import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge check}: proves the identities of a brief's charts. */
final class Check implements Command {

    /** The forms of the output. */
    enum Form {
        text, json
    }

    private final BriefSource source;
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.text)
            .description("text (for people) or json; text where it is not given.").build();
    private final Streams streams;

    Check(Streams streams) {
        this.streams = streams;
        this.source = new BriefSource(streams);
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("check",
                "Proves that the pieces add back to the figures, and says what a reader should know; exit 1 where a proof fails.");
        source.addTo(spec);
        return spec.addOption(form);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        Brief brief = source.read();
        List<Audit> audits = brief.compute(source.charts(brief)).stream().map(Audit::of).toList();
        if (form.<Form>getValue() == Form.json) {
            AuditWriter.json(audits, streams.out());
        } else {
            audits.forEach(new AuditText(streams.out())::print);
        }
        return audits.stream().allMatch(Audit::holds) ? Gorge.DONE : Gorge.CHECK_FAILED;
    }
}
