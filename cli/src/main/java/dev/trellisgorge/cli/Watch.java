package dev.trellisgorge.cli;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BooleanSupplier;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParseResult;

/** {@code gorge watch}: draws, and draws again when the brief or its data change. */
final class Watch implements Command {
    private static final int MILLISECONDS = 250;

    private final Draw draw;
    private final Streams streams;
    private final BooleanSupplier goesOn;

    Watch(Streams streams) {
        this(streams, () -> pause());
    }

    /** @param goesOn asked between two looks at the files, which it may delay */
    Watch(Streams streams, BooleanSupplier goesOn) {
        this.streams = streams;
        this.draw = new Draw(streams);
        this.goesOn = goesOn;
    }

    private static boolean pause() {
        try {
            Thread.sleep(MILLISECONDS);
            return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    @Override
    public CommandSpec spec() {
        CommandSpec spec = Command.named("watch", "Draws a brief, and draws it again whenever it or its data change, until it is interrupted.");
        spec.usageMessage().footer("", "An error is reported, and the last good files stay. Takes what 'gorge draw' takes; FILE must be given.");
        // spec::add would keep the class of the specification out of the class archive, and each start would read it from its library.
        draw.spec().args().stream().filter(arg -> !(arg instanceof OptionSpec option && (option.usageHelp() || option.versionHelp()))).forEach(arg -> spec.add(arg));
        return spec;
    }

    @Override
    public int run(ParseResult given) throws IOException {
        if (!draw.writesFiles()) {
            throw new BadInput(Place.of("--output"), ProblemKind.CONFLICT, "'gorge watch' draws to a file; name one with -o");
        }
        Map<Path, String> seen = Map.of();
        do {
            Map<Path, String> now = states();
            if (!now.equals(seen)) {
                draw(given);
                states().forEach((file, state) -> now.computeIfPresent(file, (same, before) -> draw.drawsInto(file) ? state : before)); // its own changes are no news
                seen = now;
            }
        } while (goesOn.getAsBoolean());
        return Gorge.DONE;
    }

    /** Draws, and says what went wrong. */
    private void draw(ParseResult given) {
        try {
            draw.run(given);
        } catch (Exception | Error wrong) { // the next change may mend it
            Gorge.told(wrong, streams.err());
            streams.err().println("gorge: the last files stay as they are");
        }
        streams.out().flush();
    }

    /** What a change would change: when a file was written, and how long it is. */
    private Map<Path, String> states() {
        Map<Path, String> states = new LinkedHashMap<>();
        for (Path file : draw.inputs()) {
            try {
                states.put(file, Files.getLastModifiedTime(file) + " " + Files.size(file));
            } catch (IOException e) {
                states.put(file, "not there");
            }
        }
        return states;
    }
}
