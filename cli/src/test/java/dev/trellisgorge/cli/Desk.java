package dev.trellisgorge.cli;

import dev.trellisgorge.test.Folder;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** A folder of its own in which a test types {@code gorge} commands and reads what comes back. */
final class Desk implements AutoCloseable {
    private final Folder folder = new Folder();

    /** What came back: line ends are {@code \n}, and the desk's folder is written {@code DESK}. */
    record Answer(int code, String out, String err) {
    }

    Path path(String name) {
        return folder.path(name);
    }

    Desk with(String name, String text) {
        folder.file(name, text);
        return this;
    }

    /** With the demo's briefs and data in the folder {@code demo}, as the command copies them, and nothing drawn. */
    Desk withDemo() {
        try (Stream<Path> files = Files.list(Path.of("..", "demo"))) {
            Files.createDirectory(path("demo"));
            for (Path file : files.toList()) {
                Files.copy(file, path("demo").resolve(file.getFileName()));
            }
            return this;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** The names of the files there are. */
    List<String> files() {
        return folder.names();
    }

    /** Types a command; {@code DESK} in an argument is the folder. */
    Answer type(String... arguments) {
        return typeOn(Terminal.NONE, arguments);
    }

    /** The same, at a terminal. */
    Answer typeOn(Terminal terminal, String... arguments) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        String[] typed = Stream.of(arguments).map(a -> a.replace("DESK", folder.path().toString())).toArray(String[]::new);
        Streams streams = new Streams(new PrintStream(out, true, StandardCharsets.UTF_8), new PrintStream(err, true, StandardCharsets.UTF_8), terminal);
        int code = Gorge.run(streams, typed);
        streams.leave();
        return new Answer(code, clean(out), clean(err));
    }

    private String clean(ByteArrayOutputStream bytes) {
        return bytes.toString(StandardCharsets.UTF_8).replace("\r\n", "\n").replace(folder.path().toString(), "DESK");
    }

    @Override
    public void close() {
        folder.close();
    }
}
