package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import picocli.CommandLine;

public class WatchTest extends AtDesk {
    @BeforeMethod
    void prepare() {
        desk.with("march.csv", "station,mwh\nWeir,520\nLeat,400\n")
                .with("b.yaml", "brief: 1\ndata: {march: march.csv}\ncharts:\n  march: {pattern: columns, category: station, value: mwh}\n");
    }

    private String picture() {
        try {
            return Files.readString(desk.path("a.svg"));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** Does one thing after another between two looks at the files, and then ends. */
    private String watched(Runnable... between) throws IOException {
        return watched(List.of("-o", desk.path("a.svg").toString()), between);
    }

    private String watched(List<String> options, Runnable... between) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PrintStream all = new PrintStream(out, true, StandardCharsets.UTF_8);
        Iterator<Runnable> next = List.of(between).iterator();
        Watch watch = new Watch(new Streams(all, all, Terminal.NONE), () -> {
            if (!next.hasNext()) {
                return false;
            }
            next.next().run();
            return true;
        });
        watch.run(new CommandLine(watch.spec()).parseArgs(Stream.concat(Stream.of(desk.path("b.yaml").toString()), options.stream()).toArray(String[]::new)));
        return out.toString(StandardCharsets.UTF_8).replace(desk.path("").toString(), "DESK");
    }

    @Test
    public void drawsAgainWhenTheBriefOrItsDataChangeAndNotOtherwise() throws IOException {
        List<String> seen = new ArrayList<>();
        String told = watched(() -> seen.add(picture()), () -> desk.with("march.csv", "station,mwh\nWeir,521\nLeat,400\nPool,1\n"), () -> seen.add(picture()));
        assertThat(told.lines()).hasSize(2).allMatch(line -> line.endsWith("a.svg"));
        assertThat(seen.get(0)).contains(">520<").doesNotContain(">521<");
        assertThat(seen.get(1)).contains(">521<", ">Pool<");
    }

    @Test
    public void errorIsToldAndTheLastGoodFileStays() throws IOException {
        String told = watched(() -> desk.with("march.csv", "station,mwh\nWeir\n"), () -> assertThat(picture()).contains(">520<"),
                () -> desk.with("march.csv", "station,mwh\nWeir,77\n"), () -> assertThat(picture()).contains(">77<"));
        assertThat(told).contains("march.csv:2: the row has 1 cell, the header has 2\ngorge: the last files stay as they are\n");
        assertThat(told.lines()).hasSize(4);
    }

    /** What is drawn into a workbook changes it, which is no reason to draw again; a change of somebody else is. */
    @Test
    public void workbookThatIsReadAndDrawnIntoIsNoChangeByItself() throws IOException {
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/report.xlsx").code()).isZero();
        desk.with("b.yaml", "brief: 1\ndata: {t: {file: report.xlsx, sheet: march 2}}\ncharts: {again: {pattern: columns, category: station, value: mwh}}\n");
        Path report = desk.path("report.xlsx");
        String told = watched(List.of("--into", report.toString()), () -> { }, () -> { }, () -> {
            try {
                Files.setLastModifiedTime(report, FileTime.fromMillis(0));
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }, () -> { });
        assertThat(told.lines()).hasSize(2).allMatch(line -> line.endsWith("report.xlsx"));
    }

    @Test
    public void fileMustBeNamed() {
        assertThat(desk.type("watch", "DESK/b.yaml")).isEqualTo(new Desk.Answer(2, "", "gorge: --output: 'gorge watch' draws to a file; name one with -o\n"));
        assertThat(desk.type("watch", "--help").out()).contains("whenever it or its data change", "--set", "-o, --output=FILE");
    }
}
