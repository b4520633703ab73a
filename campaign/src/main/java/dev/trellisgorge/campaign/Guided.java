package dev.trellisgorge.campaign;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;

/** The same trials, with their choices made by a fuzzer that is guided by what the code does: it calls {@link #fuzzerTestOneInput}. */
public final class Guided {
    private static final List<String> MAKERS = List.copyOf(Makers.ALL.keySet());
    private static final Judge JUDGE = judge();

    private Guided() {
    }

    private static Judge judge() {
        System.setIn(InputStream.nullInputStream());
        try {
            return new Judge(Files.createTempDirectory("gorge-guided"));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** @throws AssertionError where the trial that the bytes choose has a fault */
    public static void fuzzerTestOneInput(byte[] data) {
        Choices choices = Choices.of(data);
        Trial trial = Makers.ALL.get(choices.of(MAKERS)).make(choices);
        Optional<String> fault = trial.arguments().isEmpty() ? Optional.empty() : JUDGE.fault(trial).filter(what -> !what.startsWith(Judge.SLOW));
        fault.ifPresent(what -> {
            throw new AssertionError(what + "\n" + trial.arguments());
        });
    }
}
