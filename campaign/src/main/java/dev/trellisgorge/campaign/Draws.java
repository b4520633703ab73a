package dev.trellisgorge.campaign;

import dev.trellisgorge.engine.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;

/** Draws in one process from many threads, onto targets that they share and targets of their own: {@code Draws [DRAWS] [THREADS]}. */
public final class Draws {
    private static final int MOST_BYTES_MORE = 24 << 20;
    private static final int MOST_OPEN_MORE = 3;

    private Draws() {
    }

    public static void main(String[] typed) throws IOException, InterruptedException {
        List<String> faults = drawn(typed.length > 0 ? Integer.parseInt(typed[0]) : 10_000, typed.length > 1 ? Integer.parseInt(typed[1]) : 16);
        System.out.println("faults: " + faults);
        System.exit(faults.isEmpty() ? 0 : 1);
    }

    /** What went wrong: a draw that failed or gave other bytes, a file left over, and what grew. */
    static List<String> drawn(int draws, int threads) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("gorge-draws");
        List<Page> pages = Kinds.pages(folder);
        Map<String, byte[]> first = new LinkedHashMap<>();
        for (String ending : Kinds.ENDINGS) {
            Kinds.draw(pages, folder.resolve("first." + ending));
            first.put(ending, Files.readAllBytes(folder.resolve("first." + ending)));
        }
        ConcurrentLinkedQueue<String> faults = new ConcurrentLinkedQueue<>();
        run(draws / 10, threads, folder, pages, first, faults); // until what is made once is made
        long before = used();
        int openBefore = open();
        run(draws, threads, folder, pages, first, faults);
        long more = used() - before;
        if (more > MOST_BYTES_MORE) {
            faults.add("memory grew by " + more + " bytes");
        }
        if (open() > openBefore + MOST_OPEN_MORE) {
            faults.add("open files grew from " + openBefore + " to " + open());
        }
        try (Stream<Path> left = Files.list(folder)) {
            left.map(file -> file.getFileName().toString()).filter(name -> !name.matches("(t\\.csv|b\\.yaml|(first|shared|own-[0-9]+)\\.[a-z]+)")).forEach(name -> faults.add("left over: " + name));
        }
        return List.copyOf(faults);
    }

    private static void run(int draws, int threads, Path folder, List<Page> pages, Map<String, byte[]> first, ConcurrentLinkedQueue<String> faults) throws InterruptedException {
        AtomicInteger next = new AtomicInteger();
        List<Thread> all = new ArrayList<>();
        for (int t = 0; t < threads; t++) {
            int own = t;
            Thread thread = new Thread(() -> {
                for (int at = next.getAndIncrement(); at < draws; at = next.getAndIncrement()) {
                    String ending = Kinds.ENDINGS.get(at % Kinds.ENDINGS.size());
                    Path target = folder.resolve((at / Kinds.ENDINGS.size() % 2 == 0 ? "shared." : "own-" + own + ".") + ending);
                    try {
                        Kinds.draw(pages, target);
                        if (!Arrays.equals(Files.readAllBytes(target), first.get(ending))) {
                            faults.add(target.getFileName() + " has other bytes");
                        }
                    } catch (RuntimeException | IOException e) {
                        faults.add(target.getFileName() + ": " + e);
                    }
                }
            });
            all.add(thread);
            thread.start();
        }
        for (Thread thread : all) {
            thread.join();
        }
    }

    /** What is in use after several collections, as one may be put off. */
    private static long used() throws InterruptedException {
        long least = Long.MAX_VALUE;
        for (int i = 0; i < 6; i++) {
            System.gc();
            Thread.sleep(50);
            least = Math.min(least, Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory());
        }
        return least;
    }

    /** How many files the process holds open; 0 where the system does not tell. */
    private static int open() {
        String[] open = Path.of("/proc/self/fd").toFile().list();
        return open == null ? 0 : open.length;
    }
}
