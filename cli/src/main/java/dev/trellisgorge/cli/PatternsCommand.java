package dev.trellisgorge.cli;

import dev.trellisgorge.brief.BriefReference;
import dev.trellisgorge.brief.BriefSchema;
import dev.trellisgorge.pattern.PatternType;
import dev.trellisgorge.pattern.Patterns;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
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
        text, markdown, schema, reference
    }

    private final PositionalParamSpec name = PositionalParamSpec.builder().paramLabel("NAME").type(String.class).index("0").arity("0..1")
            .description("One pattern, with its keys, its helper columns and a brief to copy.").build();
    private final OptionSpec form = Command.option(Form.class, "FORM", "--as").initialValue(Form.text)
            .description("text, markdown for all patterns, schema for the JSON Schema of briefs, or reference for all of a brief's keys in Markdown; text by default.").build();
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
        Optional<PatternType> wanted = Optional.ofNullable(name.<String>getValue()).map(PatternsCommand::named);
        switch (form.<Form>getValue()) {
            case markdown -> text.markdown();
            case schema -> BriefSchema.write(streams.out());
            case reference -> BriefReference.write(streams.out());
            case text -> wanted.ifPresentOrElse(text::one, text::list);
        }
        return Gorge.DONE;
    }

    static PatternType named(String name) {
        return Patterns.find(name).orElseThrow(() -> new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME,
                "there is no pattern '" + name + "'. " + Nearest.hint(name, Patterns.names())));
    }
}
