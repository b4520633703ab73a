package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
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
                It counts as 'Goal reached', because generated_mwh (400) is at least the setting goal (400).
                Its label says 400.
                Note: equal to the limit, counted as above.
                """);
    }

    @Test
    public void absentRowSaysWhatIsMissing() {
        assertThat(explained("generation.yaml", "march", "Stone Leat")).contains("generated_mwh: missing", "Nothing is drawn for it, because generated_mwh is missing.",
                "It has no label.");
    }

    @Test
    public void formulasFollowOnRequest() {
        assertThat(desk.type("explain", "DESK/demo/storage.yaml", "--row", "Turbine release", "--formulas").out()).contains("'fall under' is -20", "'rise' is absent, because movement (-70) is below 0.",
                "The bar of 'fall' runs from 0 to 50.", "The bar of 'fall under' runs from 0 to -20.", "Its label says (70).", "Note: a level that crosses zero.");
    }

    @DataProvider
    Object[][] sentences() {
        return new Object[][] {
            {"storage.yaml", "Seepage", "Seepage takes the level from -20 to -25: a fall of 5, hanging from the spacer that ends at -20."},
            {"storage.yaml", "Turbine release", "Turbine release takes the level from 50 to -20: a fall of 70, across zero: 50 above it and 20 below."},
            {"storage.yaml", "Rain", "Rain takes the level from 30 to 50: a rise of 20, standing on the spacer that ends at 30."},
            {"targets.yaml", "Mill Race", "Mill Race has met 150 of 380 (39.5%); 230 remain."}, {"targets.yaml", "North Sluice", "North Sluice has met its target of 450 and gone 70 past it (115.6%)."},
            {"targets.yaml", "Heron Weir", "Heron Weir has met its target of 400 exactly."}, {"targets.yaml", "Mill Race", "Mill Race is at 150 of 380: 39.5% of the scale."},
            {"targets.yaml", "North Sluice", "North Sluice is at 520 of 450: 115.6%, so the marker is held at the end of the scale."},
            {"targets.yaml", "Mill Race", "Mill Race has a point at 380 (licensed_mwh)."}, {"monthly.yaml", "2031-02", "2031-02 is 2,346, against 2,595: down by 9.6%."},
            {"energy.yaml", "All uses", "All uses is what the parts come to: "}, {"energy.yaml", "Pumps", "Pumps takes the level from "}, {"flow.yaml", "Weir Pool", " to the left ("},
            {"levels.yaml", "Mill Race", ", drawn "}};
    }

    @Test(dataProvider = "sentences")
    public void rowIsToldInItsOwnFigures(String brief, String row, String sentence) {
        assertThat(desk.type("explain", "DESK/demo/" + brief, "--row", row).out()).contains(sentence).doesNotContain("GREATEST", "CASE", " = ");
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
