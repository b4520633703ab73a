package dev.trellisgorge.examples;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.Test;

public class ExamplesTest {
    private static final Path SOURCES = Path.of("src/main/java/dev/trellisgorge/examples");

    @Test
    public void goalColumnsDrawsWhatItIsAskedFor() throws IOException {
        Path folder = Files.createTempDirectory("gorge");
        Path picture = folder.resolve("march.svg");
        Path workbook = folder.resolve("march.xlsx");
        try {
            GoalColumns.main(new String[] {"../demo/generation.csv", picture.toString(), workbook.toString()});
            assertThat(Files.readString(picture)).contains("Heron Weir 400 (above)", "Mill Race 150 (below)");
            assertThat(workbook).isNotEmptyFile();
        } finally {
            Files.deleteIfExists(picture);
            Files.deleteIfExists(workbook);
            Files.delete(folder);
        }
    }

    @Test
    public void goalColumnsTakesFewerThan25Lines() throws IOException {
        assertThat(Files.readAllLines(SOURCES.resolve("GoalColumns.java")).stream()
                .filter(line -> !line.isBlank() && !line.startsWith("import ") && !line.startsWith("package ")).count()).isLessThan(25);
    }
}
