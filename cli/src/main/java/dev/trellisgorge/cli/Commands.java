package dev.trellisgorge.cli;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;

/** The commands, in the order of the help. */
final class Commands {
    private static final Map<String, Function<Streams, Command>> ALL = new LinkedHashMap<>();

    static {
        ALL.put("draw", Draw::new);
        ALL.put("watch", Watch::new);
        ALL.put("series", Series::new);
        ALL.put("check", Check::new);
        ALL.put("explain", Explain::new);
        ALL.put("plan", PlanCommand::new);
        ALL.put("sql", SqlCommand::new);
        ALL.put("patterns", PatternsCommand::new);
        ALL.put("start", Start::new);
        ALL.put("demo", Demo::new);
        ALL.put("completion", Completion::new);
    }

    private final Map<String, Command> made = new LinkedHashMap<>();

    /** Makes the command that is asked for, so that no time goes into the others; all where it is not plain which. */
    Commands(Streams streams, String[] arguments) {
        String first = arguments.length == 0 ? "" : arguments[0];
        ALL.forEach((name, command) -> {
            if (!ALL.containsKey(first) || first.equals("completion") || first.equals(name)) {
                made.put(name, command.apply(streams));
            }
        });
    }

    CommandSpec spec() {
        CommandSpec spec = Command.named("gorge",
                "Turns tables into helper series and plain charts, and proves that the pieces add back.");
        spec.usageMessage().synopsisSubcommandLabel("COMMAND").footer("", "Start with: gorge demo");
        made.forEach((name, command) -> spec.addSubcommand(name, new CommandLine(command.spec(), Command.FACTORY)));
        return spec;
    }

    Command named(String name) {
        return made.get(name);
    }
}
