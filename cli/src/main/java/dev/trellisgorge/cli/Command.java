package dev.trellisgorge.cli;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import picocli.CommandLine.IFactory;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/**
 * One command of {@code gorge}. Its options are stated in code, and not by annotations, because a short command feels
 * the time that reading those takes.
 */
interface Command {
    /** Makes the lists of options that may be given more than once. The parser's default factory first searches every library for one that isn't there. */
    IFactory FACTORY = new IFactory() {
        @Override
        public <K> K create(Class<K> type) throws Exception {
            return type == List.class ? type.cast(new ArrayList<>()) : type.getDeclaredConstructor().newInstance();
        }
    };

    /** What the command is called and takes. Asked once. */
    CommandSpec spec();

    /**
     * Does it.
     *
     * @param given what was typed, already found to fit {@link #spec()}
     * @return the exit code
     * @throws dev.trellisgorge.problem.BadInput where what was given can't be used
     */
    int run(ParseResult given) throws Exception;

    /** A command with the options that every command has. */
    static CommandSpec named(String name, String description) {
        CommandSpec spec = CommandSpec.wrapWithoutInspection(null, FACTORY).name(name).versionProvider(new Version());
        spec.usageMessage().description(description);
        spec.addOption(OptionSpec.builder("-h", "--help").usageHelp(true).description("Show this help and exit.").build());
        spec.addOption(OptionSpec.builder("-V", "--version").versionHelp(true).description("Show the version and exit.").build());
        return spec;
    }

    /** An option that takes one value; absent by default, unless it has a default. */
    static OptionSpec.Builder option(Class<?> type, String paramLabel, String... names) {
        return OptionSpec.builder(names[0], Arrays.copyOfRange(names, 1, names.length)).type(type).paramLabel(paramLabel);
    }
}
