package dev.trellisgorge.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.test.Folder;
import java.util.List;
import java.util.stream.Collectors;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BriefTest {
    private static final String HEAD = "brief: 1\ndata: {march: march.csv}\nsettings: {goal: 400}\ncharts:\n";

    private Folder folder;

    @BeforeMethod
    void makeFolder() {
        folder = new Folder();
        folder.file("march.csv", "station,mwh,own goal,400\nWeir,520,500,1\nLeat,,100,2\nPool,0,,3\n");
    }

    @AfterMethod
    void leave() {
        folder.close();
    }

    private Brief read(String yaml) {
        return Brief.read(folder.file("march.yaml", yaml));
    }

    private static String columns(PlainChart chart) {
        return chart.plan().series().stream().map(chart.plan()::column).map(column -> column.name() + "=" + column.formula()).collect(Collectors.joining("; "));
    }

    @DataProvider
    Object[][] limits() {
        return new Object[][] {
            {"400", "\"400\""}, {"\":goal\"", ":goal"}, {"own goal", "\"own goal\""}, {"'\"400\"'", "\"400\""}, {"-1.5e2", "-150"}};
    }

    @Test(dataProvider = "limits")
    public void limitIsANumberASettingOrAColumn(String written, String formula) {
        Brief brief = read(HEAD + "  c: {pattern: columns, category: station, value: mwh, classify: {split: {at: " + written + "}}}\n");
        assertThat(columns(brief.compute(brief.charts()).get(0)))
                .startsWith("below=CASE WHEN mwh < " + formula + " THEN mwh END; above=CASE WHEN mwh >= " + formula + " THEN mwh END");
    }

    @Test
    public void textThatIsAColumnsNameIsThatColumnEvenWhereItLooksLikeANumber() {
        Brief brief = read(HEAD + "  c: {pattern: columns, category: station, value: '400'}\n");
        assertThat(brief.compute(brief.charts()).get(0).data().column("value").number(2)).isEqualTo(3);
    }

    @Test
    public void everyKeyReachesTheChart() {
        Brief brief = read(HEAD + """
                  c:
                    pattern: columns
                    title: A title
                    subtitle: A subtitle
                    category: station
                    value: mwh
                    slice: {mwh: 520.0}
                    classify: {split: {at: 0, ties: below}}
                    labels: {format: "0.0", at: inside}
                    names: {above: Wet}
                    colors: {below: "#abc"}
                    orientation: horizontal
                """);
        PlainChart chart = brief.compute(brief.charts()).get(0);
        assertThat(chart).returns("A title", PlainChart::title).returns("A subtitle", PlainChart::subtitle)
                .returns(Orientation.HORIZONTAL, PlainChart::orientation).returns("c", PlainChart::name);
        assertThat(chart.data().rowCount()).isEqualTo(1);
        assertThat(chart.series().get(0).fill().orElseThrow()).hasToString("#aabbcc");
        assertThat(chart.series().get(1).name()).isEqualTo("Wet");
        assertThat(chart.labelText(chart.series().get(1), 0)).isEqualTo("520.0");
    }

    @Test
    public void briefMayBeJson() {
        Brief brief = read("{\"brief\": 1, \"data\": {\"march\": \"march.csv\"}, \"charts\": {\"c\": "
                + "{\"pattern\": \"columns\", \"category\": \"station\", \"value\": \"mwh\"}}}");
        assertThat(brief.charts()).hasSize(1);
        assertThat(brief.inputs()).containsExactly(folder.path("march.yaml"), folder.path("march.csv"));
    }

    /** The mistake stands where the § is. */
    @DataProvider
    Object[][] mistakes() {
        String chart = "  c: {pattern: columns, category: station, value: mwh";
        return new Object[][] {
            {HEAD + chart + ", §titel: x}", "unknown key 'titel'. Did you mean 'title'?"},
            {HEAD + "  c: {pattern: §column, category: station, value: mwh}", "there is no pattern 'column'. Did you mean 'columns'?"},
            {HEAD + "  c: {pattern: columns, category: §sation, value: mwh}", "table 'march' has no column 'sation'. Did you mean 'station'?"},
            {HEAD + "  c: {pattern: columns, category: station, value: §goal}", "'goal' is no column; the setting is written \":goal\""},
            {HEAD + chart + ", classify: {split: {at: §':gaol'}}}", "there is no setting ':gaol'. Did you mean 'goal'?"},
            {HEAD + chart + ", classify: {split: §{}}}", "the key 'at' is missing"},
            {HEAD + chart + ", classify: {split: {at: 1, ties: §over}}}", "'ties' can't be 'over'. Known here: 'above', 'below'."},
            {HEAD + chart + ", orientation: §sideways}", "'orientation' can't be 'sideways'. Known here: 'vertical', 'horizontal'."},
            {HEAD + chart + ", labels: {format: §'#.#.#'}}", "'#.#.#' is no number pattern; write one such as #,##0.0"},
            {HEAD + chart + ", colors: {value: §gren}}", "'gren' is no colour; write #rrggbb, such as #1f5a7a, a name of CSS such as teal, or a role. Did you mean 'green'?"},
            {HEAD + chart + ", names: {§below: x}}", "unknown key 'below'. Known here: 'value'."},
            {HEAD + chart + ", slice: {mwh: [1, §[2]]}}", "'mwh' must be a list of single values, and has a list"},
            {HEAD + chart + ", title: §[a]}", "'title' must be one value, not a list"},
            {HEAD + "  c: §columns", "'c' must be a mapping of keys to values, not 'columns'"},
            {HEAD + "  §c/d: {pattern: columns, category: station, value: mwh}", "'c/d' can't name a chart"},
            {"brief: §2\ndata: {march: march.csv}\ncharts:\n" + chart + "}", "this program reads briefs of version 1, not '2'"},
            {"brief: 1\ndata: {march: §april.csv}\ncharts:\n" + chart + "}", "there is no file 'april.csv' for the table 'march'"},
            {"brief: 1\ndata: {march: march.csv}\nsettings: {goal: §1e999}\ncharts:\n" + chart + "}", "'goal' is larger than a number can be"},
            {"§brief: 1\ndata: {march: march.csv}\n", "the key 'charts' is missing"},
            {"brief: 1\ndata: {march: march.csv}\n§data: {march: march.csv}\ncharts:\n" + chart + "}", "the key 'data' stands here a second time"},
            {"brief: 1\ndata: [march\n§", "is no YAML: "},
            {"§- brief", "is no brief; a brief is a mapping of keys to values that starts with 'brief: 1'"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsNamedWithLineAndColumn(String marked, String message) {
        String before = marked.substring(0, marked.indexOf('§'));
        long line = 1 + before.chars().filter(c -> c == '\n').count();
        int column = before.length() - before.lastIndexOf('\n');
        assertThatThrownBy(() -> read(marked.replace("§", ""))).isInstanceOf(BadInput.class).hasMessageContaining(
                "march.yaml:" + line + ":" + column + ": " + message);
    }

    @Test
    public void emptyBriefIsNamed() {
        assertThatThrownBy(() -> read("")).isInstanceOf(BadInput.class)
                .hasMessage("march.yaml: is empty; a brief starts with 'brief: 1'");
    }

    @Test
    public void allMistakesAreToldAtOnce() {
        assertThatThrownBy(() -> read("brif: 1\ndata: {march: march.csv}\ncharts:\n  c: {pattern: columns, categry: station, value: mhw}\n"))
                .isInstanceOfSatisfying(BadInput.class, bad -> assertThat(bad.problems()).extracting(problem -> problem.message())
                        .containsExactlyInAnyOrder("unknown key 'brif'. Did you mean 'brief'?", "the key 'brief' is missing",
                                "unknown key 'categry'. Did you mean 'category'?", "the key 'category' is missing",
                                "table 'march' has no column 'mhw'. Did you mean 'mwh'?"));
    }

    @Test
    public void aliasesThatGrowWithoutEndAreRefused() {
        String bomb = "a: &a [x,x]\n" + "b: &b [*a,*a]\n".repeat(1) + HEAD + "  c: &c {pattern: *c}\n";
        assertThatThrownBy(() -> read(bomb)).isInstanceOf(BadInput.class);
    }

    private static final String CHART = HEAD + "  c: {pattern: columns, category: station, value: mwh}\n  d: {pattern: columns, category: station, value: mwh}\n";

    @Test
    public void boardIsAPageOfItsTilesAndTheOtherChartsHaveTheirOwn() {
        Brief brief = read(CHART + "board:\n  title: All\n  columns: 3\n  tiles: [c, {figure: mwh, total: sum, title: Sum, text: MWh}]\n");
        List<Page> pages = brief.pages(brief.compute(brief.charts()));
        assertThat(pages).extracting(Page::name).containsExactly("board", "d");
        assertThat(pages.get(0).title()).isEqualTo("All");
        assertThat(pages.get(0).columns()).isEqualTo(3);
        assertThat(pages.get(0).charts()).extracting(PlainChart::name).containsExactly("c");
        assertThat(((Tile.OfFigure) pages.get(0).tiles().get(1)).written()).isEqualTo("520");
    }

    @Test
    public void figureHasStepsOfItsOwn() {
        Brief brief = read(CHART + "board: {tiles: [{figure: mwh, shape: [{order: {by: mwh, order: descending}}, {top: 1}]}]}\n");
        assertThat(((Tile.OfFigure) brief.pages(List.of()).get(0).tiles().get(0)).written()).isEqualTo("520");
    }

    @DataProvider
    Object[][] wrongBoards() {
        return new Object[][] {
            {"board: {tiles: [e]}", "there is no chart 'e'. Did you mean 'c'?"},
            {"board: {columns: 0, tiles: [c]}", "'columns': must be a whole number from 1 to 12"},
            {"board: {columns: 2}", "the key 'tiles' is missing"}, {"board: {tiles: []}", "'tiles': names no chart and no figure"},
            {"board: {tiles: [{figure: mhw}]}", "has no column 'mhw'. Did you mean 'mwh'?"},
            {"board: {tiles: [{figure: mwh, total: som}]}", "'total' can't be 'som'. Did you mean 'sum'?"},
            {"board: {tiles: [{figure: mwh, format: '#,#;0;0;0'}]}", "is no number pattern"},
            {"board: {tiles: [{figure: mwh, tilte: x}]}", "unknown key 'tilte'. Did you mean 'title'?"},
            {"board: {tiles: [{figure: mwh, slice: {staton: x}}]}", "has no column 'staton'. Did you mean 'station'?"},
            {"board: {tiles: [[c]]}", "'tiles' must be a mapping of keys to values, not a list"}};
    }

    @Test(dataProvider = "wrongBoards")
    public void mistakeOnABoardIsToldWithItsPlace(String board, String message) {
        assertThatThrownBy(() -> read(CHART + board + "\n")).isInstanceOf(BadInput.class).hasMessageContaining("march.yaml:").hasMessageContaining(message);
    }

    @Test
    public void figureOfSeveralRowsSaysWhatIsMadeOfThem() {
        Brief brief = read(CHART + "board: {tiles: [{figure: mwh}]}\n");
        assertThatThrownBy(() -> brief.pages(List.of())).isInstanceOf(BadInput.class).hasMessageContaining("'total' (sum, mean, count, least, greatest)");
    }
}
