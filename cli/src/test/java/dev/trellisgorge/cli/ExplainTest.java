package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class ExplainTest extends AtDesk {
    @BeforeMethod
    void prepare() {
        desk.withDemo();
    }

    private String explained(String brief, String chart, String row) {
        return desk.type("explain", "DESK/demo/" + brief, "--chart", chart, "--row", row).out();
    }

    @Test
    public void rowOnTheLimitIsExplainedWithItsFigures() {
        assertThat(explained("generation.yaml", "march", "Heron Weir")).isEqualTo("""
                'Heron Weir' is row 2 of 8 in the chart 'march'.
                It reads generated_mwh: 400; the setting goal: 400.
                Its figure, 400, is the 3rd largest of 7.
                'below' is absent, because generated_mwh (400) is not below the setting goal (400).
                'above' is 400, because generated_mwh (400) is at least the setting goal (400).
                The bar of 'Goal reached' runs from 0 to 400.
                Its label says 400.
                Note: equal to the limit, counted as above.
                """);
    }

    @Test
    public void absentRowSaysWhatIsMissing() {
        assertThat(explained("generation.yaml", "march", "Stone Leat")).contains("generated_mwh: missing", "'below' is absent, because generated_mwh is missing.",
                "It has no label.");
    }

    @Test
    public void floatingBarSaysWhereItStartsAndEndsAndItsLabelInTheBriefsFormat() {
        assertThat(explained("storage.yaml", "balance", "Turbine release")).contains("'fall under' is -20",
                "The bar of 'fall' runs from 0 to 50.", "The bar of 'fall under' runs from 0 to -20.", "Its label says (70).", "Note: a level that crosses zero.");
    }

    @Test
    public void everyRowOfEveryDemoChartCanBeExplained() {
        for (String[] row : new String[][] {{"targets.yaml", "Mill Race"}, {"targets.yaml", "row 1"}, {"monthly.yaml", "2031-05"}, {"energy.yaml", "All uses"},
            {"flow.yaml", "All others"}, {"levels.yaml", "Alder Gate"}, {"fish.yaml", "Fri"}, {"fish.yaml", "Sat"}}) {
            Desk.Answer answer = desk.type("explain", "DESK/demo/" + row[0], "--row", row[1]);
            assertThat(answer.code()).isZero();
            assertThat(answer.out()).startsWith("'" + row[1] + "' is row ").doesNotContain("null", "NaN");
        }
    }

    @Test
    public void unknownRowNamesTheNearest() {
        assertThat(desk.type("explain", "DESK/demo/generation.yaml", "--row", "Heron Wier")).isEqualTo(new Desk.Answer(2, "",
                "gorge: chart 'march': there is no row 'Heron Wier'. Did you mean 'Heron Weir'?\n"));
    }
}
