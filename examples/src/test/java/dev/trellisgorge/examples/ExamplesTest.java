package dev.trellisgorge.examples;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
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

    private interface Program {
        void run(String[] arguments);
    }

    private static String printed(Program program, String... arguments) {
        PrintStream before = System.out;
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        System.setOut(new PrintStream(out, true, StandardCharsets.UTF_8));
        try {
            program.run(arguments);
        } finally {
            System.setOut(before);
        }
        return out.toString(StandardCharsets.UTF_8);
    }

    @DataProvider
    Object[][] programs() {
        return new Object[][] {
            {(Program) TargetBars::main, "Mill Race 150 (met); Alder Gate 200 (met)", List.of("generation.csv")},
            {(Program) WaterBalance::main, "Turbine release (70) (fall); Seepage (5) (fall)", List.of("storage.csv")},
            {(Program) StemChart::main, "Mon 412; Tue 205; Wed 500; Thu 0; Fri 500; Sat no figure; Sun 37.", List.of("fish.csv")},
            {(Program) FlowTornado::main, "Mill Reach (50) 81 (Upstream), 40 (Downstream); Long Meadow (24) 31 (Upstream)", List.of("flow.csv", "flow-before.csv")}};
    }

    @Test(dataProvider = "programs")
    public void programDrawsItsChart(Program program, String said, List<String> data) throws IOException {
        Path picture = Files.createTempFile("gorge", ".svg");
        try {
            printed(program, Stream.concat(data.stream().map(file -> "../demo/" + file), Stream.of(picture.toString())).toArray(String[]::new));
            assertThat(picture).content().contains(said);
        } finally {
            Files.delete(picture);
        }
    }

    @Test
    public void fishMailPrintsABarADay() {
        assertThat(printed(FishMail::main, "../demo/fish.csv").lines()).hasSize(7).startsWith("Mon ███████████████████▊ 412", "Tue █████████▉ 205")
                .contains("Thu  0", "Sat  ");
    }

    @Test
    public void goalColumnsTakesFewerThan25Lines() throws IOException {
        assertThat(Files.readAllLines(SOURCES.resolve("GoalColumns.java")).stream()
                .filter(line -> !line.isBlank() && !line.startsWith("import ") && !line.startsWith("package ")).count()).isLessThan(25);
    }
}
