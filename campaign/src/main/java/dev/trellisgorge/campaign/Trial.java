package dev.trellisgorge.campaign;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * One run of the command: the files that are there before, and what is typed. In an argument, {@code HERE} is their folder. The
 * command may write {@code out.*} alone.
 *
 * @param maker     what made it
 * @param files     by name
 * @param arguments as they are typed
 */
record Trial(String maker, Map<String, byte[]> files, List<String> arguments) {
    static final String COMMAND = "command";

    Trial {
        files = new LinkedHashMap<>(files);
        arguments = List.copyOf(arguments);
    }

    static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** Writes it as a folder, to be read again. */
    void keep(Path folder) throws IOException {
        Files.createDirectories(folder);
        for (Map.Entry<String, byte[]> file : files.entrySet()) {
            Files.write(folder.resolve(file.getKey()), file.getValue());
        }
        Files.write(folder.resolve(COMMAND), arguments);
    }

    static Trial read(Path folder) throws IOException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        try (Stream<Path> all = Files.list(folder)) {
            for (Path file : all.sorted().toList()) {
                if (!file.getFileName().toString().equals(COMMAND)) {
                    files.put(file.getFileName().toString(), Files.readAllBytes(file));
                }
            }
        }
        return new Trial(folder.getFileName().toString(), files, Files.readAllLines(folder.resolve(COMMAND)));
    }
}
