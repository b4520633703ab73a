package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.util.Map;
import java.util.OptionalInt;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class GorgeTest extends AtDesk {
    @Test
    public void demoWritesEveryFileThatItNamesAndAContactSheetThatNeedsNothingFromElsewhere() throws IOException {
        Desk.Answer answer = desk.type("demo", "DESK/demo");
        assertThat(answer.code()).isZero();
        assertThat(answer.err()).isEmpty();
        assertThat(answer.out().lines().toList()).contains("DESK/demo/generation.csv", "DESK/demo/generation-march.png",
                "DESK/demo/generation-licence.svg", "DESK/demo/generation.xlsx", "DESK/demo/board.pdf", "DESK/demo/fish.txt", "DESK/demo/flow.json",
                "DESK/demo/index.html");
        for (String line : answer.out().lines().toList()) {
            assertThat(Files.size(desk.path(line.substring("DESK/".length())))).as(line).isGreaterThan(30);
        }
        String page = read("demo/index.html");
        for (String file : answer.out().lines().filter(line -> line.endsWith(".svg")).toList()) {
            assertThat(page).contains("<img src=\"" + file.substring("DESK/demo/".length()) + "\" alt=\"");
        }
        assertThat(page).doesNotContain("http", "<script", "alt=\"\"").contains("3 of 8 stations reached 400 MWh in March: North Sluice 520 (Goal reached)");
    }

    @Test
    public void demoKeepsABriefThatWasChanged() throws IOException {
        desk.withDemo();
        String changed = Files.readString(desk.path("demo/generation.yaml")).replace("goal: 400", "goal: 500");
        desk.with("demo/generation.yaml", changed);
        assertThat(desk.type("demo", "DESK/demo").err()).isEqualTo("gorge: kept DESK/demo/generation.yaml, which differs from the shipped one\n");
        assertThat(Files.readString(desk.path("demo/generation.yaml"))).isEqualTo(changed);
        assertThat(Files.readString(desk.path("demo/generation-march.svg"))).contains("goal 500");
    }

    @Test
    public void checkPrintsEachIdentityAndEachNote() {
        desk.withDemo();
        assertThat(desk.type("check", "DESK/demo/generation.yaml", "--chart", "march")).isEqualTo(new Desk.Answer(0, """
                march (8 rows)
                  holds  on 8 of 8 rows: each generated_mwh is in exactly one class
                  holds  on 8 of 8 rows: below + above + unjudged = generated_mwh
                  note   slice: month is 2031-03-01 (:month) left out 24 of 32 rows (generated_mwh 7755 of 9842, licensed_mwh 7890 of 10520): \
                North Sluice, Heron Weir, Mill Race, Alder Gate, Stone Leat, Fern Pool, Otter Bend, Low Lock
                  note   equal to the limit, counted as above: Heron Weir (400)
                """, ""));
    }

    @Test
    public void severalChartsBecomeOneWorkbookAndAPictureEach() {
        desk.withDemo();
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/a.xlsx").out()).isEqualTo("DESK/a.xlsx\n");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/a.png").out()).isEqualTo("DESK/a-march.png\nDESK/a-licence.png\n");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/b.PNG", "--chart", "licence", "--size", "640x400").out()).isEqualTo("DESK/b.PNG\n");
        assertThat(desk.files()).containsExactly("a-licence.png", "a-march.png", "a.xlsx", "b.PNG", "demo");
    }

    @Test
    public void chartThatAnEngineCantDrawIsRefusedWithItsReasonAndNothingIsWritten() throws IOException {
        desk.withDemo();
        String lying = Files.readString(desk.path("demo/targets.yaml")).replace("pattern: marker", "pattern: marker\n    orientation: horizontal");
        desk.with("demo/lying.yaml", lying);
        assertThat(desk.type("draw", "DESK/demo/lying.yaml", "-o", "DESK/a.xlsx")).isEqualTo(new Desk.Answer(2, "",
                "gorge: chart 'licence-marks': files of this kind can't show 3 groups of bars over each other, which the chart needs;"
                + " draw it to another kind, such as .svg\n"));
        assertThat(desk.files()).containsExactly("demo");
        assertThat(desk.type("draw", "DESK/demo/lying.yaml", "--chart", "licence-marks", "-o", "DESK/a.svg").code()).isZero();
    }

    @Test
    public void chartsArePrintedAsTextWhereNoFileIsNamed() {
        desk.withDemo();
        Desk.Answer answer = desk.type("draw", "DESK/demo/generation.yaml", "--chart", "march");
        assertThat(answer.code()).isZero();
        assertThat(answer.out().lines().toList()).hasSize(11).contains("3 of 8 stations reached 400 MWh in March").noneMatch(line -> line.contains("\u001B"));
        assertThat(answer.out()).isEqualTo(desk.type("draw", "DESK/demo/generation.yaml", "--chart", "march", "-o", "DESK/a.txt").code() == 0
                ? read("a.txt") : "");
    }

    @Test
    public void terminalIsFilledAndHasColoursUnlessTheyAreRefused() {
        desk.withDemo();
        String colored = desk.typeOn(new Terminal(OptionalInt.of(60), false, Map.of("TERM", "xterm-256color")), "draw", "DESK/demo/generation.yaml").out();
        assertThat(colored).contains("\u001B[38;5;");
        String plain = desk.typeOn(new Terminal(OptionalInt.of(60), false, Map.of("TERM", "xterm-256color", "NO_COLOR", "1")), "draw", "DESK/demo/generation.yaml",
                "--chart", "licence").out();
        assertThat(plain).doesNotContain("\u001B").contains("North Sluice");
        assertThat(plain.lines().skip(3).mapToInt(String::length).max().orElseThrow()).isEqualTo(60);
    }

    @Test
    public void boardIsOnePictureAndChartsByNameComeAlone() {
        desk.withDemo();
        assertThat(desk.type("draw", "DESK/demo/board.yaml", "-o", "DESK/a.svg").out()).isEqualTo("DESK/a.svg\n");
        assertThat(read("a.svg")).contains(">Hollow Gorge in March 2031<", ">2,087<", ">Against the licence<");
        assertThat(desk.type("draw", "DESK/demo/board.yaml", "--chart", "otter", "-o", "DESK/b.svg").out()).isEqualTo("DESK/b.svg\n");
        assertThat(read("b.svg")).contains(">Otter Bend<").doesNotContain("Against");
    }

    @Test
    public void settingsAndDataAreChangedForOneRun() throws IOException {
        desk.withDemo();
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "--chart", "march", "--set", "goal=200").out()).contains("goal 200");
        desk.with("may.csv", Files.readString(desk.path("demo/generation.csv")).replace("2031-03-01,Heron Weir,400", "2031-03-01,Heron Weir,399"));
        assertThat(desk.type("series", "DESK/demo/generation.yaml", "--chart", "march", "--as", "csv").out()).contains("Heron Weir,,400");
        assertThat(desk.type("series", "DESK/demo/generation.yaml", "--chart", "march", "--as", "csv", "--data", "generation=" + desk.path("may.csv")).out())
                .contains("Heron Weir,399,");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/may.csv", "--data", "generation=" + desk.path("may.csv")).code()).isEqualTo(2);
    }

    @Test
    public void fileThatStandsInIsLaidOutLikeTheOneInTheBrief() {
        desk.with("a.csv", "Title\nstation;mwh\nWeir;1,5\n").with("b.csv", "Title\nstation;mwh\nWeir;2,125\n");
        desk.with("b.yaml", "brief: 1\ndata: {t: {file: a.csv, header-row: 2, decimal: ','}}\ncharts: {c: {pattern: columns, category: station, value: mwh}}\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv", "--data", "t=" + desk.path("b.csv")).out()).contains("Weir,2.125");
    }

    @Test
    public void columnWithoutAValueHasNothingToDrawFor() {
        desk.with("a.csv", "station,mwh,region\nWeir,1,\n").with("b.yaml", "brief: 1\ndata: {t: a.csv}\ncharts: {c: {pattern: columns, category: station, value: mwh}}\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "region")).isEqualTo(new Desk.Answer(2, "", "gorge: --each: no row has a value in the column 'region'\n"));
    }

    @Test
    public void oneDrawingIsMadeForEachValueOfAColumn() throws IOException {
        desk.withDemo();
        String months = Files.readString(desk.path("demo/generation.yaml")).replaceAll("(?m)^    (slice|subtitle|title):.*\n", "").replace("category: station", "category: month");
        desk.with("demo/months.yaml", months.replaceAll("(?s)\\n    classify:.*?(?=\\n    (names|labels))", "").replaceAll("(?m)^    (names|colors):.*\n", ""));
        Desk.Answer answer = desk.type("draw", "DESK/demo/months.yaml", "--chart", "march", "-o", "DESK/x.svg", "--each", "station");
        assertThat(answer.err()).isEmpty();
        assertThat(answer.out().lines().toList()).hasSize(8).startsWith("DESK/x-North Sluice.svg");
        assertThat(read("x-Mill Race.svg")).contains(">2031-01-01<", ">150<").doesNotContain(">520<");
        assertThat(desk.type("draw", "DESK/demo/months.yaml", "--chart", "march", "--each", "station").out()).contains("== Mill Race\n");
    }

    @DataProvider
    Object[][] wrongChanges() {
        return new Object[][] {{"--set", "gaol=1", "--set: there is no setting ':gaol'. Did you mean 'goal'?"}, {"--set", "goal", "--set: 'goal' is no NAME=VALUE"},
            {"--set", "goal=high", "--set: 'high' is no number; write goal=380"}, {"--data", "=x.csv", "--data: '=x.csv' is no NAME=FILE"},
            {"--data", "generatoin=x.csv", "--data: there is no table 'generatoin' in 'data'. Did you mean 'generation'?"},
            {"--data", "generation=no.csv", "no.csv: there is no such file"},
            {"--each", "statoin", "--each: table 'generation' has no column 'statoin'. Did you mean 'station'?"}};
    }

    @Test(dataProvider = "wrongChanges")
    public void changeThatCantBeMadeIsToldAndNothingIsDrawn(String option, String value, String message) {
        desk.withDemo();
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/x.png", option, value)).isEqualTo(new Desk.Answer(2, "", "gorge: " + message + "\n"));
        assertThat(desk.files()).containsExactly("demo");
    }

    private String read(String name) {
        try {
            return Files.readString(desk.path(name));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    public void helpAndVersionAndCompletionAreResults() {
        assertThat(desk.type("--help")).matches(answer -> answer.code() == 0 && answer.err().isEmpty() && answer.out().contains("Usage: gorge"));
        assertThat(desk.type("draw", "--help").out()).contains("-o, --output=FILE", "--size=WxH", "--even-if-wrong");
        assertThat(desk.type("--version").out()).startsWith("gorge ");
        assertThat(desk.type("completion").out()).contains("_complete_gorge", "series", "--as");
    }
}
