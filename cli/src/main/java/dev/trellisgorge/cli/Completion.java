package dev.trellisgorge.cli;

import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge completion}: a script that completes commands and options in a shell. */
final class Completion implements Command {
    private final Streams streams;

    Completion(Streams streams) {
        this.streams = streams;
    }

    @Override
    public CommandSpec spec() {
        return Command.named("completion",
                "Prints a completion script for bash and zsh. Use it with: source <(gorge completion)");
    }

    @Override
    public int run(ParseResult given) {
        CommandLine root = given.commandSpec().root().commandLine();
        streams.out().print(AutoComplete.bash(root.getCommandName(), root));
        return Gorge.DONE;
    }
}
