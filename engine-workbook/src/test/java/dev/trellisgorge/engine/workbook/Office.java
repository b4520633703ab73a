package dev.trellisgorge.engine.workbook;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.testng.SkipException;

/** A real spreadsheet program that opens, recalculates and saves a workbook. */
public final class Office {
    private Office() {
    }

    /** Skips the test where there is no such program; but a continuous build must have one. */
    public static void require() {
        try {
            new ProcessBuilder("soffice", "--version").start().destroy();
        } catch (IOException e) {
            if (System.getenv("CI") != null) {
                throw new AssertionError("a continuous build must have an office suite on its path (soffice)", e);
            }
            throw new SkipException("needs an office suite on the path (soffice)");
        }
    }

    /** The workbook as the program saves it after recalculating every formula. */
    public static Path recalculated(Path workbook) throws IOException, InterruptedException {
        return recalculated(List.of(workbook)).get(0);
    }

    /** The same of several at once, whose names differ. */
    public static List<Path> recalculated(List<Path> workbooks) throws IOException, InterruptedException {
        Path out = Files.createTempDirectory("recalculated");
        try {
            convert(workbooks, "xlsx", out);
            List<Path> saved = new ArrayList<>();
            for (Path workbook : workbooks) {
                String name = workbook.getFileName().toString();
                saved.add(Files.move(out.resolve(name.substring(0, name.lastIndexOf('.')) + ".xlsx"), Files.createTempFile("recalculated", ".xlsx"), StandardCopyOption.REPLACE_EXISTING));
            }
            return saved;
        } finally {
            delete(out);
        }
    }

    /** The files as pages (PDF), opened as they are, as by somebody who knows nothing of them; without those at which the program ended. */
    public static List<Path> printed(List<Path> files, Path out) throws IOException, InterruptedException {
        Path profile = Files.createTempDirectory("office");
        try {
            convert(files, "pdf", out, profile);
            return files.stream().map(file -> out.resolve(file.getFileName().toString().replaceFirst("\\.[^.]*$", ".pdf"))).filter(file -> file.toFile().length() > 0).toList();
        } finally {
            delete(profile);
        }
    }

    /**
     * Saves files as another kind once every formula is recalculated.
     *
     * @param kind as the program names it
     * @param out  the folder for them
     */
    public static void convert(List<Path> files, String kind, Path out) throws IOException, InterruptedException {
        Path profile = Files.createTempDirectory("office");
        try {
            Files.writeString(Files.createDirectories(profile.resolve("user")).resolve("registrymodifications.xcu"), """
                    <?xml version="1.0" encoding="UTF-8"?>
                    <oor:items xmlns:oor="http://openoffice.org/2001/registry">
                    <item oor:path="/org.openoffice.Office.Calc/Formula/Load">
                    <prop oor:name="OOXMLRecalcMode" oor:op="fuse"><value>0</value></prop>
                    <prop oor:name="ODFRecalcMode" oor:op="fuse"><value>0</value></prop></item>
                    </oor:items>
                    """);
            convert(files, kind, out, profile);
        } finally {
            delete(profile);
        }
    }

    private static void convert(List<Path> files, String kind, Path out, Path profile) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("soffice", "-env:UserInstallation=" + profile.toUri(), "--headless", "--convert-to", kind, "--outdir", out.toString()));
        files.forEach(file -> command.add(file.toString()));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(profile.resolve("log").toFile()).start();
        if (!process.waitFor(240, TimeUnit.SECONDS)) {
            process.destroyForcibly();
            throw new AssertionError("the office suite did not finish");
        }
    }

    static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
        }
    }
}
