package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class GorgeTest {
    private Desk desk;

    @BeforeMethod
    void sit() {
        desk = new Desk();
    }

    @AfterMethod
    void leave() {
        desk.close();
    }

    @Test
    public void demoWritesEveryFileThatItNames() throws IOException {
        Desk.Answer answer = desk.type("demo", "DESK/demo");
        assertThat(answer.code()).isZero();
        assertThat(answer.err()).isEmpty();
        assertThat(answer.out().lines().toList()).contains("DESK/demo/generation.csv", "DESK/demo/generation-march.png",
                "DESK/demo/generation-licence.svg", "DESK/demo/generation.xlsx");
        for (String line : answer.out().lines().toList()) {
            assertThat(Files.size(desk.path(line.substring("DESK/".length())))).as(line).isGreaterThan(90);
        }
    }

    @Test
    public void demoKeepsABriefThatWasChanged() throws IOException {
        desk.type("demo", "DESK/demo");
        String changed = Files.readString(desk.path("demo/generation.yaml")).replace("goal: 400", "goal: 500");
        desk.with("demo/generation.yaml", changed);
        assertThat(desk.type("demo", "DESK/demo").err()).isEqualTo("gorge: kept DESK/demo/generation.yaml, which differs from the shipped one\n");
        assertThat(Files.readString(desk.path("demo/generation.yaml"))).isEqualTo(changed);
        assertThat(Files.readString(desk.path("demo/generation-march.svg"))).contains("goal 500");
    }

    @Test
    public void checkPrintsEachIdentityAndEachNote() {
        desk.type("demo", "DESK/demo");
        assertThat(desk.type("check", "DESK/demo/generation.yaml", "--chart", "march")).isEqualTo(new Desk.Answer(0, """
                march (8 rows)
                  holds  on 8 of 8 rows: each generated_mwh is in exactly one class
                  holds  on 8 of 8 rows: below + above = generated_mwh
                  note   equal to the limit, counted as above: Heron Weir (400)
                """, ""));
    }

    @Test
    public void severalChartsBecomeOneWorkbookAndAPictureEach() {
        desk.type("demo", "DESK/demo");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/a.xlsx").out()).isEqualTo("DESK/a.xlsx\n");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/a.png").out()).isEqualTo("DESK/a-march.png\nDESK/a-licence.png\n");
        assertThat(desk.type("draw", "DESK/demo/generation.yaml", "-o", "DESK/b.PNG", "--chart", "licence", "--size", "640x400").out()).isEqualTo("DESK/b.PNG\n");
        assertThat(desk.files()).containsExactly("a-licence.png", "a-march.png", "a.xlsx", "b.PNG", "demo");
    }

    @Test
    public void chartThatAnEngineCantDrawIsRefusedWithItsReasonAndNothingIsWritten() {
        desk.type("demo", "DESK/demo");
        assertThat(desk.type("draw", "DESK/demo/targets.yaml", "--chart", "otter-ring", "-o", "DESK/a.png")).isEqualTo(new Desk.Answer(2, "",
                "gorge: chart 'otter-ring': its pattern has helper series and no drawing yet\n"));
        assertThat(desk.type("draw", "DESK/demo/energy.yaml", "-o", "DESK/a.xlsx").err())
                .startsWith("gorge: chart 'uses': a workbook can't hold the series 'total' as a live formula yet: sum([given])");
        assertThat(desk.type("draw", "DESK/demo/targets.yaml", "--chart", "licence-met", "-o", "DESK/a.xlsx").err())
                .isEqualTo("gorge: chart 'licence-met': a workbook can't label the series 'met' with other figures than its lengths yet\n");
        assertThat(desk.files()).containsExactly("demo");
    }

    @Test
    public void helpAndVersionAndCompletionAreResults() {
        assertThat(desk.type("--help")).matches(answer -> answer.code() == 0 && answer.err().isEmpty() && answer.out().contains("Usage: gorge"));
        assertThat(desk.type("draw", "--help").out()).contains("-o, --output=FILE", "--size=WxH", "--even-if-wrong");
        assertThat(desk.type("--version").out()).startsWith("gorge ");
        assertThat(desk.type("completion").out()).contains("_complete_gorge", "series", "--as");
    }
}
