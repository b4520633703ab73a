package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.OptionalInt;
import org.testng.annotations.Test;

public class ProgressBarTest {
    private static final long MILLISECOND = 1_000_000;

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private long now;

    private String told(boolean watched, String file, double... shares) {
        bytes.reset();
        now = 0;
        try (ProgressBar bar = new ProgressBar(new PrintStream(bytes, true, StandardCharsets.UTF_8), watched, () -> now)) {
            for (double share : shares) {
                now += 400 * MILLISECOND;
                bar.read(file, share);
            }
        }
        return bytes.toString(StandardCharsets.UTF_8).replace('\r', '\n');
    }

    @Test
    public void longReadingIsFollowedAndLeavesNothingBehind() {
        String line = "reading t.csv  [###############               ] 50 %";
        assertThat(told(true, "t.csv", 0.25, 0.5, 1)).isEqualTo("\n" + line + "\n" + "reading t.csv  [##############################] 100 %\n"
                + " ".repeat(line.length() + 1) + "\n");
    }

    @Test
    public void shortReadingShowsNothingAndNorDoesOneThatNobodyWatches() {
        assertThat(told(true, "t.csv", 1)).isEmpty();
        assertThat(told(false, "t.csv", 0.25, 0.5, 1)).isEmpty();
    }

    @Test
    public void longNameShowsItsEndAndShorterLinesCoverLongerOnes() {
        assertThat(told(true, "a/" + "folder/".repeat(9) + "t.csv", 0.5, 0.99)).contains("\nreading …").contains("older/t.csv  [");
        try (ProgressBar bar = new ProgressBar(new PrintStream(bytes, true, StandardCharsets.UTF_8), true, () -> now += 800 * MILLISECOND)) {
            bar.read("long.csv", 1);
            bytes.reset();
            bar.read("t.csv", 0.04);
            assertThat(bytes.toString(StandardCharsets.UTF_8)).isEqualTo("\rreading t.csv  [#                             ] 4 %     ");
        }
    }

    @Test
    public void commandLeavesStandardErrorCleanForShortFiles() {
        try (Desk desk = new Desk().withDemo()) {
            assertThat(desk.typeOn(new Terminal(OptionalInt.empty(), true, Map.of()), "series", "DESK/demo/generation.yaml").err()).isEmpty();
        }
    }
}
