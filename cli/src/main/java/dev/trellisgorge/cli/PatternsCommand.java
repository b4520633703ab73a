package dev.trellisgorge.cli;

import dev.trellisgorge.brief.BriefSchema;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import java.io.IOException;
import java.util.Optional;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge patterns}: the catalogue. */
final class PatternsCommand implements Command {

    /** The forms of the output. */
    enum Form {
        text, markdown, schema
    }

    private final PositionalParamSpec name = PositionalParamSpec.builder().paramLabel("NAME").type(String.class).index("0").arity("0..1")
            .description("One pattern, with its keys, its helper columns and a brief to copy.").build();
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.text)
            .description("text, markdown for the whole reference, or schema for the JSON Schema of briefs; text where it is not given.").build();
    private final Streams streams;

    PatternsCommand(Streams streams) {
        this.streams = streams;
    }

    @Override
    public CommandSpec spec() {
        return Command.named("patterns", "Lists the patterns, or tells all about one.").addPositional(name).addOption(form);
    }

    @Override
    public int run(ParseResult given) throws IOException {
        PatternText text = new PatternText(streams.out());
        Optional<String> wanted = Optional.ofNullable(name.getValue());
        if (form.<Form>getValue() == Form.markdown) {
            text.markdown();
        } else if (form.<Form>getValue() == Form.schema) {
            BriefSchema.write(streams.out());
        } else if (wanted.isPresent()) {
            text.one(named(wanted.get()));
        } else {
            text.list();
        }
        return Gorge.DONE;
    }

    static PatternType named(String name) {
        return Patterns.find(name).orElseThrow(() -> new BadInput(Place.of(""),
                "there is no pattern '" + name + "'. " + Nearest.hint(name, Patterns.names())));
    }
}
