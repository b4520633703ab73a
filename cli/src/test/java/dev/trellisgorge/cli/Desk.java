package dev.trellisgorge.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A folder of its own in which a test types {@code gorge} commands and reads what comes back. */
final class Desk implements AutoCloseable {
    private final Path folder;

    /** What came back: line ends are {@code \n}, and the desk's folder is written {@code DESK}. */
    record Answer(int code, String out, String err) {
    }

    Desk() {
        try {
            folder = Files.createTempDirectory("desk");
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    Path path(String name) {
        return folder.resolve(name);
    }

    Desk with(String name, String text) {
        try {
            Files.writeString(path(name), text);
            return this;
        } catch (IOException e) {
            throw new AssertionError(e);
        }
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
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** Types a command; {@code DESK} in an argument is the folder. */
    Answer type(String... arguments) {
        return typeOn(Terminal.NONE, arguments);
    }

    /** The same, at a terminal. */
    Answer typeOn(Terminal terminal, String... arguments) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        String[] typed = Stream.of(arguments).map(a -> a.replace("DESK", folder.toString())).toArray(String[]::new);
        int code = Gorge.run(new Streams(new PrintStream(out, true, StandardCharsets.UTF_8), new PrintStream(err, true, StandardCharsets.UTF_8), terminal), typed);
        return new Answer(code, clean(out), clean(err));
    }

    private String clean(ByteArrayOutputStream bytes) {
        return bytes.toString(StandardCharsets.UTF_8).replace("\r\n", "\n").replace(folder.toString(), "DESK");
    }

    @Override
    public void close() {
        try (Stream<Path> files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }
}
