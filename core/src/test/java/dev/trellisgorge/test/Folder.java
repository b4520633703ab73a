package dev.trellisgorge.test;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A folder of its own for a test, which goes with all that is in it. */
public final class Folder implements AutoCloseable {
    private final Path path;

    public Folder() {
        try {
            path = Files.createTempDirectory("gorge");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public Path path() {
        return path;
    }

    public Path path(String name) {
        return path.resolve(name);
    }

    /** A file of that name with that text, UTF-8. */
    public Path file(String name, String text) {
        try {
            return Files.writeString(path(name), text);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The names of what stands in it, sorted. */
    public List<String> names() {
        try (Stream<Path> files = Files.list(path)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() {
        try (Stream<Path> files = Files.walk(path)) {
            files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
