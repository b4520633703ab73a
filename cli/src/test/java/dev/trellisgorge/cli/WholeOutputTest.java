package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.SkipException;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is written is whole or an error, well-formed, and all that is left. */
public class WholeOutputTest extends AtDesk {
    private static final String DEAD = "999999999";
    private static final int KILLS = 8;

    @BeforeMethod
    public void brief() {
        desk.with("t.csv", "station,mwh\nA,1\nA-b,2\nC,-3\n").with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n");
    }

    /** The command in a process of its own. */
    private ProcessBuilder process(List<String> options, String... arguments) {
        List<String> command = new ArrayList<>(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:TieredStopAtLevel=1", "-Djava.awt.headless=true"));
        command.addAll(options);
        command.addAll(List.of("-cp", System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")), Gorge.class.getName()));
        command.addAll(Arrays.stream(arguments).map(argument -> argument.replace("DESK", desk.path("").toString())).toList());
        return new ProcessBuilder(command);
    }

    @DataProvider
    public Object[][] commands() {
        return Stream.of("series DESK/b.yaml", "series DESK/b.yaml --as csv", "check DESK/b.yaml", "plan DESK/b.yaml --as json", "draw DESK/b.yaml", "draw DESK/b.yaml -o DESK/o.svg",
                "explain DESK/b.yaml --row A", "patterns", "start columns DESK/t.csv", "completion", "--help", "--version").map(command -> new Object[] {command}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "commands")
    public void standardOutputThatCantTakeAllIsOneSentence(String command) throws Exception {
        File full = new File("/dev/full");
        if (!full.exists()) {
            throw new SkipException("this system has no device that is always full");
        }
        Process process = process(List.of(), command.split(" ")).redirectOutput(full).start();
        String told = new String(process.getErrorStream().readAllBytes());
        assertThat(process.waitFor()).as(told).isEqualTo(2);
        assertThat(told.lines()).containsExactly("gorge: can't write to standard output: No space left on device");
    }

    @Test
    public void linkStaysALinkAndAReplacedFileKeepsItsPermissions() throws Exception {
        Files.createDirectory(desk.path("there"));
        Path target = Files.writeString(desk.path("there/o.svg"), "old");
        Files.setPosixFilePermissions(target, PosixFilePermissions.fromString("rw-r-----"));
        Files.createSymbolicLink(desk.path("link.svg"), Path.of("there", "o.svg"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/link.svg").code()).isZero();
        assertThat(Files.isSymbolicLink(desk.path("link.svg"))).isTrue();
        assertThat(Files.readString(target)).contains("<svg");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(target))).isEqualTo("rw-r-----");
        assertThat(Files.list(desk.path("there")).map(file -> file.getFileName().toString())).containsExactly("o.svg");
    }

    @Test
    public void linksInACircleAndDevicesAreRefused() throws Exception {
        Files.createSymbolicLink(desk.path("x.svg"), Path.of("y.svg"));
        Files.createSymbolicLink(desk.path("y.svg"), Path.of("x.svg"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/x.svg").err()).contains("its symbolic links go round in a circle");
        Files.createSymbolicLink(desk.path("z.svg"), Path.of("/dev/null"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/z.svg").err()).contains("it is a device or a pipe; name a file");
    }

    @Test
    public void severalFilesAreWrittenAllOrNone() throws Exception {
        Files.createDirectory(desk.path("o-C.svg"));
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "--each", "station", "-o", "DESK/o.svg");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains("o-C.svg: can't write: it is a folder; name a file");
        assertThat(desk.files()).containsExactly("b.yaml", "o-C.svg", "t.csv");
    }

    @Test
    public void twoResultsOfOneNameAreRefusedBeforeAnyIsWritten() {
        desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n  b-c: {pattern: columns, category: station, value: mwh}\n");
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "--each", "station", "-o", "DESK/o.svg");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains("o-A-b-c.svg: two results would go to this file");
        assertThat(desk.files()).containsExactly("b.yaml", "t.csv");
    }

    @Test
    public void nameNearTheLimitOfTheSystemIsWritten() {
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/" + "x".repeat(251) + ".svg").code()).isZero();
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/" + "x".repeat(252) + ".svg").err()).endsWith("can't write: File name too long\n");
    }

    @Test
    public void whatAKilledRunHasLeftGoesWithTheNextOne() throws Exception {
        Files.writeString(desk.path(".gorge-" + DEAD + "-0123456789abcdef"), "half");
        Files.writeString(desk.path(".gorge-" + ProcessHandle.current().pid() + "-0123456789abcdef"), "of a process that lives");
        Files.writeString(desk.path(".gorge-notes"), "a user's own");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg").code()).isZero();
        assertThat(desk.files()).containsExactly(".gorge-" + ProcessHandle.current().pid() + "-0123456789abcdef", ".gorge-notes", "b.yaml", "o.svg", "t.csv");
    }

    @Test
    public void killedRunsLeaveAWholeFileAndNothingElseAfterTheNext() throws Exception {
        for (int i = 0; i < KILLS; i++) {
            Process process = process(List.of(), "draw", "DESK/b.yaml", "-o", "DESK/o.svg").start();
            process.waitFor(300 + 90L * i, TimeUnit.MILLISECONDS);
            process.destroyForcibly().waitFor();
            if (Files.exists(desk.path("o.svg"))) {
                wellFormed(desk.path("o.svg"));
            }
        }
        assertThat(process(List.of(), "draw", "DESK/b.yaml", "-o", "DESK/o.svg").start().waitFor()).isZero();
        assertThat(desk.files()).containsExactly("b.yaml", "o.svg", "t.csv");
    }

    @Test
    public void drawingLeavesNoTemporaryFile() throws Exception {
        Path temporary = Files.createDirectory(desk.path("temporary"));
        for (String kind : List.of("png", "svg", "pdf", "xlsx", "txt", "json")) {
            Process process = process(List.of("-Djava.io.tmpdir=" + temporary, "-XX:-UsePerfData"), "draw", "DESK/b.yaml", "-o", "DESK/o." + kind).start();
            assertThat(process.waitFor()).as(new String(process.getErrorStream().readAllBytes())).isZero();
            assertThat(Files.list(temporary)).as(kind).isEmpty();
        }
    }

    @Test
    public void temporaryFolderThatCantBeWrittenIsToldInASentence() throws Exception {
        Process process = process(List.of("-Djava.io.tmpdir=" + desk.path("nowhere"), "-XX:-UsePerfData"), "draw", "DESK/b.yaml", "-o", "DESK/o.png").start();
        assertThat(new String(process.getErrorStream().readAllBytes())).endsWith("the folder for temporary files (java.io.tmpdir): can't hold the typefaces: there is no such file\n");
        assertThat(process.waitFor()).isEqualTo(2);
        assertThat(desk.files()).containsExactly("b.yaml", "t.csv");
    }

    @Test
    public void manyThreadsDrawToOneFileAndToTheirOwn() throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(16);
        List<Future<Integer>> codes = new ArrayList<>();
        for (int i = 0; i < 160; i++) {
            String target = i % 2 == 0 ? "DESK/shared.svg" : "DESK/own" + i + ".svg";
            codes.add(threads.submit(() -> desk.type("draw", "DESK/b.yaml", "-o", target).code()));
        }
        for (Future<Integer> code : codes) {
            assertThat(code.get()).isZero();
        }
        threads.shutdown();
        byte[] shared = Files.readAllBytes(desk.path("shared.svg"));
        for (int i = 1; i < 160; i += 2) {
            assertThat(Files.readAllBytes(desk.path("own" + i + ".svg"))).isEqualTo(shared);
        }
        assertThat(desk.files()).hasSize(2 + 1 + 80);
    }

    @Test
    public void charactersThatNoFileCanHoldAreReplacedAndTold() throws Exception {
        desk.with("t.csv", "sta\u0001tion,mwh\nbell \u0007,1\nred \u001B[31m,2\nhalf \uFFFE,3\nC1 \u009B,4\n")
                .with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: sta\uFFFDtion, value: mwh}\n");
        assertThat(desk.type("check", "DESK/b.yaml").out()).contains("note   5 texts hold characters that can't be shown; \uFFFD stands for each: the name 'sta\uFFFDtion', DESK/t.csv:2, column");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).contains("bell \uFFFD", "red \uFFFD[31m").doesNotContain("\u001B").doesNotContain("\u009B").doesNotContain("\u0007");
        for (String kind : List.of("svg", "json", "xlsx", "pdf", "png")) {
            assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o." + kind).code()).as(kind).isZero();
        }
        wellFormed(desk.path("o.svg"));
        new ObjectMapper().readTree(desk.path("o.json").toFile());
        try (ZipFile book = new ZipFile(desk.path("o.xlsx").toFile())) {
            for (ZipEntry part : Collections.list(book.entries())) {
                if (part.getName().endsWith(".xml") || part.getName().endsWith(".rels")) {
                    DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(book.getInputStream(part));
                }
            }
        }
        assertThat(desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh, title: \"bell \\u0007\"}\n")
                .type("check", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:4:63: this text holds a character that can't be shown (U+0007); leave it out\n");
        assertThat(desk.type("series", "DESK/no\u001Bthing.yaml").err()).isEqualTo("gorge: DESK/no\uFFFDthing.yaml: there is no such file\n");
    }

    private static void wellFormed(Path svg) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
        factory.newDocumentBuilder().parse(svg.toFile());
    }

    @Test
    public void whatDoesNotFitIntoMemoryIsNamed() throws Exception {
        desk.with("t.csv", java.util.stream.IntStream.range(0, 1_000_000).mapToObj(row -> "name of row " + row + "," + row).collect(java.util.stream.Collectors.joining("\n", "n,v\n", "\n")));
        Process process = process(List.of("-Xmx32m"), "check", "DESK/b.yaml", "--on", "here").start();
        String told = new String(process.getErrorStream().readAllBytes());
        assertThat(process.waitFor()).as(told).isEqualTo(2);
        assertThat(told).contains("/t.csv: the table does not fit into the ", " MB of memory that Java takes here; let it take more, as with JAVA_TOOL_OPTIONS=-Xmx8g, or give it fewer rows or columns").hasLineCount(1);
    }

    @Test
    public void overflowIsAnErrorAtItsRow() {
        desk.with("t.csv", "station,mwh\nA,1\nB,1e308\n").with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh * 10}\n");
        Desk.Answer answer = desk.type("series", "DESK/b.yaml");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).isEqualTo("gorge: DESK/t.csv:3: 'B': 'value' overflows (infinite)\n");
    }

    @DataProvider
    public Object[][] edges() {
        return new Object[][] {{"1e308"}, {"-1e308"}, {"1e-306"}, {"5e-324"}};
    }

    @Test(dataProvider = "edges", timeOut = 60_000)
    public void figuresAtTheEdgeOfNumbersAreNoPictureAndAreText(String figure) {
        desk.with("t.csv", "station,mwh\nA," + figure + "\n");
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.png");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains("a picture shows figures from 1e-290 to 1e300, and the largest one here is " + figure.replace("-1e308", "1e308"));
        assertThat(desk.type("draw", "DESK/b.yaml").code()).isZero();
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
    }

    @Test
    public void whatASheetOrAPictureCantTakeIsRefusedWithItsLimit() throws IOException {
        String brief = "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: station, value: \"%s\", title: \"%s\"}\n";
        String many = "mwh" + " + CASE WHEN mwh = 1 THEN 2 END".repeat(1) + " + LEAST(mwh" + IntStream.range(1, 1500).mapToObj(figure -> ", mwh + " + figure).collect(Collectors.joining()) + ")";
        assertThat(desk.with("b.yaml", brief.formatted(many, "Title")).type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").err())
                .contains("7: the formula would have ", "characters, and a sheet takes 8192; take the expression apart with 'add'");
        assertThat(desk.with("b.yaml", brief.formatted("mwh", "x".repeat(33_000))).type("draw", "DESK/b.yaml", "-o", "DESK/o.png").err())
                .contains("its title has 33000 characters, and at most 1000 are drawn");
        desk.with("t.csv", "station,mwh\n" + "y".repeat(33_000) + ",1\n").with("b.yaml", brief.formatted("mwh", "Title"));
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").err()).contains("a cell of a sheet takes 32767 characters, and a title or a text in the tables has more");
        assertThat(desk.files()).doesNotContain("o.xlsx", "o.png");
    }
}
