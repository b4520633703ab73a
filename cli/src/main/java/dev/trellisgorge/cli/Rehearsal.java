package dev.trellisgorge.cli;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/**
 * Runs each command once, in a folder of its own, so that the runtime can archive the classes they load; later starts
 * are then quick. Prints nothing.
 */
final class Rehearsal {
    private Rehearsal() {
    }

    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createTempDirectory("gorge");
        try (PrintStream nowhere = new PrintStream(OutputStream.nullOutputStream())) {
            String brief = folder.resolve("generation.yaml").toString();
            Gorge.run(nowhere, nowhere, "demo", folder.toString());
            Gorge.run(nowhere, nowhere, "series", brief);
            Gorge.run(nowhere, nowhere, "series", brief, "--chart", "march", "--as", "csv");
            Gorge.run(nowhere, nowhere, "series", brief, "--as", "json");
            Gorge.run(nowhere, nowhere, "check", brief);
            Gorge.run(nowhere, nowhere, "draw", brief);
            Gorge.run(nowhere, nowhere, "draw", brief, "-o", folder.resolve("a.unknown").toString());
            Gorge.run(nowhere, nowhere, "--help");
            Gorge.run(nowhere, nowhere, "--wrong");
        } finally {
            try (Stream<Path> files = Files.walk(folder)) {
                files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
            }
        }
    }
}
