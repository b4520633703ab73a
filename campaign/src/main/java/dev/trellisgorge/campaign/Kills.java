package dev.trellisgorge.campaign;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import dev.trellisgorge.engine.Page;

/**
 * Kills a process while it writes a file again and again, and looks at what is there: {@code Kills [KILLS] [SEED] [ENDING,…]}, so many for
 * each kind of file, or for these alone.
 */
public final class Kills {
    private static final int LONGEST_WAIT = 60;

    private Kills() {
    }

    public static void main(String[] typed) throws IOException, InterruptedException {
        if (typed.length == 2 && Files.isDirectory(Path.of(typed[0]))) {
            write(Path.of(typed[0]), typed[1]);
            return;
        }
        int kills = typed.length > 0 ? Integer.parseInt(typed[0]) : 10;
        List<String> faults = new ArrayList<>();
        for (String ending : typed.length > 2 ? List.of(typed[2].split(",")) : Kinds.ENDINGS) {
            faults.addAll(killed(ending, kills, typed.length > 1 ? Long.parseLong(typed[1]) : 1));
            System.out.println("." + ending + ": " + kills + " kills, faults so far: " + faults);
        }
        System.exit(faults.isEmpty() ? 0 : 1);
    }

    /** The process that is killed: writes for ever, and says when it has begun. */
    private static void write(Path folder, String ending) throws IOException {
        List<Page> pages = Kinds.pages(folder);
        for (int i = 0;; i++) {
            Kinds.draw(pages, folder.resolve("out." + ending));
            if (i == 0) {
                System.out.println("writing");
            }
        }
    }

    /** What was wrong after one of the kills, or after the next run: a file that is not whole, or one that is left over. */
    static List<String> killed(String ending, int kills, long seed) throws IOException, InterruptedException {
        List<String> faults = new ArrayList<>();
        Random random = new Random(seed);
        Path folder = Files.createTempDirectory("gorge-kills");
        for (int i = 0; i < kills; i++) {
            Process process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:TieredStopAtLevel=1", "-Xshare:auto", "-cp", System.getProperty("java.class.path"), Kills.class.getName(),
                    folder.toString(), ending).redirectErrorStream(true).start();
            BufferedReader said = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
            String line = said.readLine();
            if (!"writing".equals(line)) {
                faults.add("the process said: " + line);
            }
            Thread.sleep(random.nextInt(LONGEST_WAIT), random.nextInt(1_000_000));
            process.destroyForcibly().waitFor();
            Optional<String> fault = WellFormed.fault("out." + ending, Files.readAllBytes(folder.resolve("out." + ending)));
            fault.ifPresent(what -> faults.add("." + ending + " was torn: " + what));
        }
        Kinds.draw(Kinds.pages(folder), folder.resolve("out." + ending)); // the next run clears what is left
        try (Stream<Path> left = Files.list(folder)) {
            left.map(file -> file.getFileName().toString()).filter(name -> !List.of("t.csv", "b.yaml", "out." + ending).contains(name)).forEach(name -> faults.add("left over: " + name));
        }
        return faults;
    }
}
