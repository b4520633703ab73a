package dev.trellisgorge.campaign;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.testng.SkipException;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A minute of made-up inputs, every input that was once a fault, and a few kills, full disks and threads. */
@Test(groups = "slow")
public class CampaignTest {
    static {
        System.setProperty(Judge.HANG_PROPERTY, "15000"); // whatever else the machine builds meanwhile
    }

    private static final boolean NIGHTLY = "nightly".equals(System.getProperty("gorge.size"));
    private static final String SECONDS = System.getProperty("campaign.seconds", NIGHTLY ? "60" : "12");
    private static final long KILLS = NIGHTLY ? System.nanoTime() : 1;
    private static final String SEED = NIGHTLY ? String.valueOf(LocalDate.now().toEpochDay()) : "1";

    @BeforeClass
    public void closeInput() {
        System.setIn(InputStream.nullInputStream());
    }

    @Test
    public void madeUpInputsFindNoFault() throws Exception {
        ByteArrayOutputStream told = new ByteArrayOutputStream();
        Campaign campaign = new Campaign(Campaign.Options.parse("--seconds", SECONDS, "--seed", SEED, "--keep", "target/kept"),
                new PrintStream(told, true, StandardCharsets.UTF_8));
        assertThat(campaign.run()).as(told.toString(StandardCharsets.UTF_8)).isEmpty();
    }

    /** The same makers, guided by which code is reached. */
    @Test
    public void guidedChoicesFindNoFault() throws Exception {
        Path folder = Files.createTempDirectory("gorge-guided");
        Process process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp", System.getProperty("java.class.path"), "com.code_intelligence.jazzer.Jazzer",
                "--target_class=" + Guided.class.getName(), "--instrumentation_includes=dev.trellisgorge.**", "-max_total_time=" + Integer.parseInt(SECONDS) / 3, "-rss_limit_mb=4000")
                .directory(folder.toFile()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (said.contains("UnsatisfiedLinkError") || said.contains("not supported")) {
            throw new SkipException("the guided fuzzer does not run on this system");
        }
        assertThat(process.waitFor()).as(said).isZero();
        assertThat(said).contains("Done ");
    }

    @DataProvider
    Object[][] regressions() throws IOException {
        try (Stream<Path> all = Files.list(Path.of("src/test/resources/regression"))) {
            return all.sorted().map(folder -> new Object[] {folder}).toArray(Object[][]::new);
        }
    }

    @Test(dataProvider = "regressions")
    public void formerFaultIsNone(Path folder) throws IOException {
        Judge judge = new Judge(Files.createTempDirectory("gorge-regression"));
        Trial trial = Trial.read(folder);
        assertThat(judge.fault(trial).filter(fault -> !fault.startsWith(Judge.SLOW) || judge.fault(trial).isPresent())).isEmpty();
    }

    /** A judge that finds nothing would pass everything. */
    @Test
    public void judgeFindsWhatIsWrong() throws IOException {
        assertThat(WellFormed.fault("a.svg", Trial.bytes("<svg><a></svg>"))).isPresent();
        assertThat(WellFormed.fault("a.json", Trial.bytes("{\"a\": Infinity}"))).isPresent();
        assertThat(WellFormed.fault("a.xlsx", Trial.bytes("no"))).isPresent();
        assertThat(WellFormed.fault("a.png", Trial.bytes("no"))).isPresent();
        assertThat(WellFormed.fault("a.pdf", Trial.bytes("%PDF-1.4"))).isPresent();
        assertThat(WellFormed.fault("a.txt", Trial.bytes("a\u001b[0m"))).isPresent();
        Judge judge = new Judge(Files.createTempDirectory("gorge-judge"));
        assertThat(judge.fault(new Trial("t", Map.of("t.csv", Trial.bytes("n,v\na,1\n"), "b.yaml", Trial.bytes("brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: n, value: v}\n")),
                List.of("draw", "HERE/b.yaml", "-o", "HERE/stray.svg")))).hasValueSatisfying(fault -> assertThat(fault).isEqualTo("astray: stray.svg was written"));
    }

    @DataProvider
    Object[][] endings() {
        return Kinds.ENDINGS.stream().map(ending -> new Object[] {ending}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "endings")
    public void killedProcessLeavesAWholeFileAndNothingAfterTheNextRun(String ending) throws Exception {
        assertThat(Kills.killed(ending, NIGHTLY ? 3 : 1, KILLS)).isEmpty();
    }

    /** The system's limit on the size of a file stands in for a disk that is full. */
    @Test(dataProvider = "endings")
    public void fullDiskIsASentenceAndTheFormerFileStays(String ending) throws Exception {
        if (!Files.isExecutable(Path.of("/bin/bash"))) {
            throw new SkipException("there is no bash to set a limit with");
        }
        Path folder = Files.createTempDirectory("gorge-full");
        Kinds.pages(folder);
        Path target = folder.resolve("out." + ending);
        Files.writeString(target, "former");
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        Process process = new ProcessBuilder("/bin/bash", "-c", "ulimit -f 0; exec \"$@\"", "limited", java, "-XX:-UsePerfData", "-XX:+IgnoreUnrecognizedVMOptions", "-cp", System.getProperty("java.class.path"), "dev.trellisgorge.cli.Gorge",
                "draw", folder.resolve("b.yaml").toString(), "-o", target.toString()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isEqualTo(2);
        assertThat(said).startsWith("gorge: ").doesNotContain("Exception").hasLineCount(1);
        assertThat(target).hasContent("former");
        assertThat(Arrays.stream(folder.toFile().list()).sorted()).containsExactly("b.yaml", "out." + ending, "t.csv");
    }

    @Test
    public void manyThreadsDrawTheSameBytesAndNothingGrows() throws Exception {
        assertThat(Draws.drawn(NIGHTLY ? 300 : 80, 16)).isEmpty();
    }
}
