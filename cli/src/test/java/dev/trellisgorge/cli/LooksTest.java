package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a chart looks like, as a brief says it. */
public class LooksTest extends AtDesk {
    private static final String DATA = "station,mwh,target\nWeir,520,450\nLeat,150,200\nPool,-40,100\n";

    @BeforeMethod
    void prepare() {
        desk.with("power.csv", DATA);
    }

    private void brief(String root, String chart) {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\nsettings: {goal: 400}\n" + root + "charts:\n  c:\n    pattern: columns\n    category: station\n    value: mwh\n" + chart);
    }

    private String drawn(String ending) {
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/o." + ending);
        assertThat(answer.err()).isEmpty();
        try {
            return Files.readString(desk.path("o." + ending));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static final String SPLIT = "    classify: {split: {at: ':goal'}}\n";

    @Test
    public void coloursAreNamesOfCssRolesOrHex() {
        brief("", SPLIT + "    colors: {below: tomato, above: good}\n");
        assertThat(drawn("json")).contains("\"fill\" : \"#ff6347\"", "\"fill\" : \"#3c8d6e\"");
        brief("theme: {colors: {good: seagreen}}\n", SPLIT + "    colors: {above: good}\n");
        assertThat(drawn("json")).contains("\"fill\" : \"#2e8b57\"");
    }

    @Test
    public void lessIsGoodWhereATargetIsALimit() {
        brief("", "");
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\ncharts:\n  c: {pattern: to-target, category: station, value: mwh, target: target, good: down}\n");
        assertThat(drawn("json")).contains("\"role\" : \"bad\"").doesNotContain("\"role\" : \"good\"");
    }

    @Test
    public void legendStandsWhereItIsAskedForOrNotAtAll() {
        brief("", SPLIT + "    legend: none\n    reference: none\n");
        assertThat(drawn("txt")).startsWith("Weir ").doesNotContain("below");
        brief("", SPLIT + "    legend: bottom\n    reference: none\n");
        assertThat(drawn("txt")).endsWith("▒ below   █ above\n");
        brief("", "    legend: right\n");
        assertThat(drawn("svg")).contains(">value<");
    }

    @Test
    public void referenceLinesAreNamedByWordsColouredOrLeftOut() {
        brief("", SPLIT + "    reference: {goal: {name: 'Goal for {COUNT(*)}', color: bad}}\n");
        assertThat(drawn("svg")).contains(">Goal for 3 400<", "stroke:rgb(158,43,75)");
        assertThat(drawn("txt")).contains("┆ Goal for 3 400");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
        brief("", SPLIT + "    reference: none\n");
        assertThat(drawn("svg")).doesNotContain("400<");
    }

    @Test
    public void axisHasFiguresATitleAndAFormat() {
        brief("locale: de-DE\n", "    axis: {figures: shown, title: Strom, format: '#,##0.0'}\n");
        assertThat(drawn("svg")).contains(">Strom<", ">200,0<", ">500,0<");
        assertThat(drawn("txt")).contains("Strom, -40,0 to 520,0");
        assertThat(drawn("json")).contains("\"title\" : \"Strom\"", "\"format\" : \"#,##0.0\"");
    }

    @Test
    public void scaleCutsOffAndSaysSo() {
        brief("", "    scale: [0, 300]\n");
        assertThat(drawn("txt")).startsWith("cut off beyond the axis, 0 to 300\n").contains("» 520");
        brief("", "    scale: [100, 600]\n    title: t\n    subtitle: s\n");
        assertThat(drawn("txt")).startsWith("t\ns – axis from 100 to 600, not from zero\n");
        brief("", "    scale: [-100, 600]\n");
        assertThat(drawn("txt")).startsWith("Weir ");
    }

    @Test
    public void sizesAndWeightsAreThoseThatAreAskedFor() {
        brief("theme: {text: {title: 40, labels: 11, bold: labels}}\n", "    title: Large\n    text: {labels: 13}\n");
        assertThat(drawn("svg")).containsPattern("font-size: 40px;'[^>]*>Large<").containsPattern("font-weight: 600; font-size: 13px;'[^>]*>520<");
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"    scale: [5]\n", "b.yaml:9:12: 'scale': takes the two figures that the axis goes from and to: [0, 600]"},
            {"    scale: [5, 1]\n", "b.yaml:9:12: 'scale': a scale goes from a figure to a larger one, not from 5 to 1"}, {"    legend: up\n", "b.yaml:9:13: 'legend' can't be 'up'. Known here: 'none', 'top'"},
            {"    gap: -1\n", "b.yaml:9:10: 'gap': is the room between bars as a share of their width, from 0 to 10"}, {"    text: {title: 2}\n", "b.yaml:9:19: 'title': is a size in pixels, from 6 to 400"},
            {"    text: {titel: 20}\n", "b.yaml:9:12: unknown key 'titel'. Did you mean 'title'?"}, {"    axis: {dates: MMM}\n", "chart 'c': its base: 'MMM'"},
            {"    marker: {size: 2}\n", "chart 'c': 'marker' has no effect here: no points are drawn"}, {"    reference: none\n", "chart 'c': 'reference' has no effect here: no reference line is drawn"},
            {SPLIT + "    reference: {gaol: {name: x}}\n", "chart 'c': 'reference' has no effect here: there is no line 'gaol'. Did you mean 'goal'?"},
            {"    good: down\n", "chart 'c': 'good' has no effect here: nothing here is coloured by whether it is good"},
            {"    labels: {show: category, format: '0'}\n", "chart 'c': a label of a text can't take the format '0'"},
            {"    labels: {show: none, format: '0'}\n", "b.yaml:9:34: 'format': says nothing where no label is shown"},
            {"    colors: {value: tomatoe}\n", "b.yaml:9:21: 'tomatoe' is no colour; write #rrggbb, such as #1f5a7a, a name of CSS such as teal, or a role. Did you mean 'tomato'?"}};
    }

    @Test(dataProvider = "mistakes")
    public void whatHasNoUseOrCantBeIsToldAtItsPlace(String chart, String message) {
        brief("", chart);
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg");
        if (message.contains("its base")) {
            assertThat(answer.code()).as("station names are no dates, and stay as they are").isZero();
            return;
        }
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err().replace("DESK/", "")).startsWith("gorge: " + message);
    }

    @Test
    public void themeIsPassedOverByWhatHasNoUseForIt() {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\ntheme: {gap: 1, marker: {size: 2}, good: down, reference: none, axis: shown}\ncharts:\n"
                + "  r: {pattern: ring, value: mwh, target: target, slice: {station: Leat}}\n  t: {pattern: text-bar, category: station, value: mwh}\n");
        for (String ending : List.of("svg", "xlsx", "pdf", "txt", "json")) {
            assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o." + ending).code()).as(ending).isZero();
        }
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg", "--chart", "r").err()).isEmpty();
    }

    @Test
    public void ringAndTextsRefuseWhatTheyHaveNoAxisFor() {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\ncharts:\n  r: {pattern: ring, value: mwh, target: target, slice: {station: Leat}, axis: shown, gap: 1}\n");
        assertThat(desk.type("draw", "DESK/b.yaml").err()).isEqualTo("gorge: chart 'r': 'axis' has no effect here: a chart of the pattern 'ring' has no axis of figures\n"
                + "gorge: chart 'r': 'gap' has no effect here: a chart of the pattern 'ring' has no axis of figures\n");
    }

    @Test
    public void boardHasTilesOfSeveralSizesAndLinesRoundThem() throws IOException {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n  d: {pattern: columns, category: station, value: target}\n"
                + "board:\n  title: All\n  subtitle: '{COUNT(*)} stations'\n  source: Own meters\n  columns: 3\n  tiles:\n    - {figure: mwh, total: sum, span: 3}\n    - {chart: c, span: [2, 2]}\n    - d\n"
                + "    - {figure: target, total: sum}\n");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).startsWith("All\n3 stations\n\n").endsWith("\nOwn meters\n");
        String json = drawn("json").replaceAll("\\s+", "");
        assertThat(json).contains("\"column\":0,\"row\":0,\"columns\":3,\"rows\":1", "\"column\":0,\"row\":1,\"columns\":2,\"rows\":2", "\"column\":2,\"row\":1,\"columns\":1,\"rows\":1",
                "\"column\":2,\"row\":2,\"columns\":1,\"rows\":1", "\"subtitle\":\"3stations\"", "\"source\":\"Ownmeters\"");
        assertThat(drawn("svg")).contains(">Own meters<", ">3 stations<");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
        String brief = Files.readString(desk.path("b.yaml"));
        desk.with("b.yaml", brief.replace("span: 3}", "span: 4}"));
        assertThat(desk.type("draw", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:12:39: 'span': is wider than the 3 columns of the board\n");
        desk.with("b.yaml", brief.replace("span: 3}", "span: 1.5}"));
        assertThat(desk.type("draw", "DESK/b.yaml").err()).startsWith("gorge: DESK/b.yaml:12:39: 'span': is how many places of the grid it takes");
    }

    @Test
    public void themeReachesTheLinesOfABoardAndOfItsFigures() throws IOException {
        String board = "brief: 1\ndata: {power: power.csv}\ntheme: {text: {title: 31, subtitle: 17}, title-at: centre}\ncharts:\n  c: {pattern: columns, category: station, value: mwh}\n"
                + "board: {title: The board, subtitle: Second line, tiles: [c, {figure: mwh, total: sum, title: Sum, text: of all}]}\n";
        desk.with("b.yaml", board);
        assertThat(drawn("svg")).containsPattern("font-size: 31px[^>]*>The board<").containsPattern("font-size: 31px[^>]*>Sum<").containsPattern("font-size: 17px[^>]*>Second line<").containsPattern("font-size: 17px[^>]*>of all<");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.txt").err()).isEqualTo("gorge: DESK/o.txt: text can't follow 'text', 'title-at'; pictures do\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
        desk.with("b.yaml", board.replace("title-at: centre", "reference: {name: Goal}"));
        assertThat(desk.type("draw", "DESK/b.yaml").err()).contains("a theme says how lines look; 'name' is a key of a chart's 'reference'");
        desk.with("b.yaml", board.replace("title-at: centre", "axis: {dates: HH:mm}"));
        assertThat(desk.type("draw", "DESK/b.yaml").err()).contains("'HH:mm' is no date pattern; write one such as d MMM yyyy");
    }

    @Test
    public void chartMayUndoTheThemesWayOfGood() throws IOException {
        String brief = "brief: 1\ndata: {power: power.csv}\ntheme: {good: down}\ncharts:\n  c: {pattern: variance, category: station, value: mwh, against: target%s}\n";
        desk.with("b.yaml", brief.formatted(""));
        String down = drawn("json");
        desk.with("b.yaml", brief.formatted(", good: down"));
        assertThat(drawn("json")).isEqualTo(down);
        desk.with("b.yaml", brief.formatted(", good: up"));
        assertThat(drawn("json")).isNotEqualTo(down);
    }
}
