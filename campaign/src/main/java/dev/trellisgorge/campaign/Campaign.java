package dev.trellisgorge.campaign;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Runs the command on made-up inputs, as many as are asked for, and keeps those that it fails on:
 * {@code Campaign [--cases N] [--seconds N] [--seed N] [--threads N] [--makers NAME,…] [--keep FOLDER]}.
 */
public final class Campaign {
    private static final long STUCK = 60_000_000_000L;
    private static final int KEPT_OF_A_KIND = 3;

    private final Options options;
    private final PrintStream told;
    private final AtomicLong next = new AtomicLong();
    private final AtomicLong done = new AtomicLong();
    private final Map<String, AtomicLong> faults = new ConcurrentSkipListMap<>();
    private final Map<Thread, Running> running = new ConcurrentHashMap<>();

    private record Running(String maker, long seed, long since) {
    }

    /** What is asked for. */
    record Options(long cases, long seconds, long seed, int threads, List<String> makers, Optional<Path> keep) {

        static Options parse(String... typed) {
            long cases = Long.MAX_VALUE;
            long seconds = 60;
            long seed = 1;
            int threads = Runtime.getRuntime().availableProcessors();
            List<String> makers = Makers.MIXED;
            Optional<Path> keep = Optional.empty();
            for (int i = 0; i + 1 < typed.length; i += 2) {
                String value = typed[i + 1];
                switch (typed[i]) {
                    case "--cases" -> cases = Long.parseLong(value);
                    case "--seconds" -> seconds = Long.parseLong(value);
                    case "--seed" -> seed = Long.parseLong(value);
                    case "--threads" -> threads = Integer.parseInt(value);
                    case "--makers" -> makers = List.of(value.split(","));
                    case "--keep" -> keep = Optional.of(Path.of(value));
                    default -> throw new IllegalArgumentException("no option is called " + typed[i]);
                }
            }
            if (!Makers.ALL.keySet().containsAll(makers)) {
                throw new IllegalArgumentException("the makers are " + Makers.ALL.keySet());
            }
            return new Options(cases, seconds, seed, threads, makers, keep);
        }
    }

    Campaign(Options options, PrintStream told) {
        this.options = options;
        this.told = told;
    }

    public static void main(String[] typed) throws IOException, InterruptedException {
        System.setIn(InputStream.nullInputStream());
        Campaign campaign = new Campaign(Options.parse(typed), System.out);
        campaign.run();
        System.exit(campaign.faults.isEmpty() ? 0 : 1);
    }

    /** Runs all; the faults by kind, each with how many trials had it. */
    Map<String, AtomicLong> run() throws IOException, InterruptedException {
        long end = System.nanoTime() + options.seconds * 1_000_000_000L;
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < options.threads; i++) {
            Path folder = Files.createTempDirectory("gorge-campaign");
            Thread thread = new Thread(() -> work(new Judge(folder), end), "campaign-" + i);
            thread.setDaemon(true);
            threads.add(thread);
            thread.start();
        }
        long lastTold = System.nanoTime();
        while (threads.stream().anyMatch(Thread::isAlive)) {
            Thread.sleep(100);
            running.forEach(this::refuseStuck);
            if (System.nanoTime() - lastTold > 30_000_000_000L) {
                lastTold = System.nanoTime();
                told.println(done.get() + " cases, " + faults);
            }
        }
        told.println(done.get() + " cases, faults: " + faults);
        return faults;
    }

    private void refuseStuck(Thread thread, Running what) {
        if (System.nanoTime() - what.since > STUCK && running.remove(thread, what)) {
            StringBuilder stack = new StringBuilder();
            for (StackTraceElement each : thread.getStackTrace()) {
                stack.append("\n  ").append(each);
            }
            told.println("stuck: " + what.maker + " with the seed " + what.seed + stack);
            faults.computeIfAbsent("stuck " + what.maker, kind -> new AtomicLong()).incrementAndGet();
            keep("stuck", trial(what.maker, what.seed), what.seed);
            thread.interrupt();
            Runtime.getRuntime().halt(3);
        }
    }

    private static Trial trial(String maker, long seed) {
        return Makers.ALL.get(maker).make(Choices.seeded(seed));
    }

    private void work(Judge judge, long end) {
        for (long at = next.getAndIncrement(); at < options.cases && System.nanoTime() < end; at = next.getAndIncrement()) {
            long seed = options.seed * 1_000_000_007L + at;
            String maker = options.makers.get(Math.floorMod(seed, options.makers.size()));
            Trial trial = trial(maker, seed);
            if (!trial.arguments().isEmpty()) {
                running.put(Thread.currentThread(), new Running(maker, seed, System.nanoTime()));
                try {
                    fault(judge, trial).ifPresent(fault -> tell(judge, trial, fault, seed));
                } catch (RuntimeException | Error e) {
                    tell(judge, trial, "broke: " + e, seed);
                }
                running.remove(Thread.currentThread());
            }
            done.incrementAndGet();
        }
    }

    /** What is slow once may have met a pause of the machine, or code that was run for the first time. */
    private static Optional<String> fault(Judge judge, Trial trial) {
        Optional<String> fault = judge.fault(trial);
        return fault.filter(what -> what.startsWith(Judge.SLOW)).isPresent() ? judge.fault(trial) : fault;
    }

    /** Faults are one kind where the first lines of the error are alike. */
    private void tell(Judge judge, Trial trial, String fault, long seed) {
        String[] lines = fault.split("\n");
        String where = lines.length < 4 ? lines[0] : lines[0] + " " + lines[2].strip() + " " + lines[3].strip();
        String kind = (trial.maker() + " " + where).replaceAll("[0-9]+", "0");
        if (faults.computeIfAbsent(kind.length() > 220 ? kind.substring(0, 220) : kind, k -> new AtomicLong()).incrementAndGet() <= KEPT_OF_A_KIND) {
            told.println(trial.maker() + " with the seed " + seed + ": " + fault);
            String word = lines[0].split(":")[0];
            keep(word, options.keep.isEmpty() || word.equals("slow") || word.equals("broke") ? trial : judge.smallest(trial, word), seed);
        }
    }

    private void keep(String kind, Trial trial, long seed) {
        options.keep.ifPresent(folder -> {
            try {
                trial.keep(folder.resolve(kind.replace(' ', '-') + "-" + trial.maker() + "-" + Long.toHexString(seed)));
            } catch (IOException e) {
                told.println("can't keep it: " + e);
            }
        });
    }
}
