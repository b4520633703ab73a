package dev.trellisgorge.campaign;

import dev.trellisgorge.cli.Gorge;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Runs trials in a folder of its own, and says what is wrong with what came of one. For one thread. */
final class Judge {
    /** In milliseconds; more on a machine that does other things meanwhile. */
    static final String HANG_PROPERTY = "campaign.hang";
    private static final long HANG = Long.getLong(HANG_PROPERTY, 2_000) * 1_000_000;
    private static final int MOST_CODE = 2;

    /** How the fault of a trial that took too long starts. */
    static final String SLOW = "slow: ";

    private final Path folder;

    /** @param folder an empty one */
    Judge(Path folder) {
        this.folder = folder;
    }

    /** What is at fault: the kind of fault, and the particulars; empty where all is well. */
    Optional<String> fault(Trial trial) {
        try {
            for (Map.Entry<String, byte[]> file : trial.files().entrySet()) {
                Files.write(folder.resolve(file.getKey()), file.getValue());
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ByteArrayOutputStream err = new ByteArrayOutputStream();
            String[] typed = trial.arguments().stream().map(word -> word.replace("HERE", folder.toString())).toArray(String[]::new);
            long start = System.nanoTime();
            int code = Gorge.run(new PrintStream(out, true, StandardCharsets.UTF_8), new PrintStream(err, true, StandardCharsets.UTF_8), typed);
            long took = System.nanoTime() - start;
            Optional<String> fault = fault(trial, code, out.toByteArray(), err.toString(StandardCharsets.UTF_8));
            return fault.isPresent() ? fault : took > HANG ? Optional.of(SLOW + took / 1_000_000 + " ms") : Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            clear();
        }
    }

    private Optional<String> fault(Trial trial, int code, byte[] out, String err) throws IOException {
        if (code < 0 || code > MOST_CODE || err.contains("a fault of the program's own")) {
            return Optional.of("exit " + code + ": " + err.lines().limit(12).reduce("", (a, b) -> a + "\n" + b));
        }
        if (err.contains("do not fit into the")) {
            return Optional.of("memory: " + err.lines().findFirst().orElse(""));
        }
        if (code == MOST_CODE && err.isBlank()) {
            return Optional.of("silent: exit 2 without a word");
        }
        Optional<String> signs = WellFormed.signs(err).or(() -> trial.arguments().contains("json") ? Optional.empty() : WellFormed.signs(new String(out, StandardCharsets.UTF_8)));
        if (signs.isPresent() && !trial.arguments().contains("csv")) {
            return Optional.of("signs: " + signs.get() + " is printed");
        }
        if (code == 0 && !trial.maker().equals("arguments") && trial.arguments().get(0).equals("series") && trial.arguments().contains("json")) {
            WellFormed.json(out);
        }
        return files(trial, code);
    }

    private Optional<String> files(Trial trial, int code) throws IOException {
        Map<String, byte[]> there = new TreeMap<>();
        try (Stream<Path> all = Files.list(folder)) {
            for (Path file : all.toList()) {
                if (Files.isRegularFile(file)) {
                    there.put(file.getFileName().toString(), Files.readAllBytes(file));
                }
            }
        }
        for (Map.Entry<String, byte[]> file : trial.files().entrySet()) {
            if (!Arrays.equals(there.remove(file.getKey()), file.getValue())) {
                return Optional.of("touched: " + file.getKey() + " is not as it was");
            }
        }
        for (Map.Entry<String, byte[]> made : there.entrySet()) {
            if (!made.getKey().startsWith("out") && !made.getKey().equals("brief.schema.json")) {
                return Optional.of("astray: " + made.getKey() + " was written");
            }
            if (code == MOST_CODE) {
                return Optional.of("half: " + made.getKey() + " was written though the command failed");
            }
            Optional<String> fault = WellFormed.fault(made.getKey(), made.getValue());
            if (fault.isPresent()) {
                return Optional.of("malformed: " + made.getKey() + ": " + fault.get());
            }
        }
        return Optional.empty();
    }

    private void clear() {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path file : all.sorted(Comparator.reverseOrder()).toList()) {
                if (!file.equals(folder)) {
                    Files.deleteIfExists(file);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The trial with as little as still gives a fault of that kind: fewer files' bytes. */
    Trial smallest(Trial trial, String kind) {
        Trial small = trial;
        for (String name : List.copyOf(trial.files().keySet())) {
            byte[] bytes = small.files().get(name);
            for (int piece = Math.max(1, bytes.length / 2); piece >= 1; piece = piece == 1 ? 0 : piece / 2) {
                for (int from = 0; from < bytes.length && bytes.length < 20_000; from += piece) {
                    byte[] less = without(bytes, from, Math.min(bytes.length, from + piece));
                    Map<String, byte[]> files = new LinkedHashMap<>(small.files());
                    files.put(name, less);
                    Trial candidate = new Trial(trial.maker(), files, trial.arguments());
                    if (fault(candidate).filter(fault -> fault.startsWith(kind)).isPresent()) {
                        small = candidate;
                        bytes = less;
                        from -= piece;
                    }
                }
            }
        }
        return small;
    }

    private static byte[] without(byte[] bytes, int from, int to) {
        byte[] less = new byte[bytes.length - (to - from)];
        System.arraycopy(bytes, 0, less, 0, from);
        System.arraycopy(bytes, to, less, from, bytes.length - to);
        return less;
    }
}
