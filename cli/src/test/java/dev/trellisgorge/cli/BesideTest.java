package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.zip.ZipFile;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Figures in columns of their own between the names and bars that lie. */
public class BesideTest extends AtDesk {

    @BeforeMethod
    public void table() {
        desk.with("t.csv", "area,revenue,budget,spent,since\nTurbine hall,412000,300000,254000,2031-01-01\nFish passes,12500,90000,97000,\nForecasting,,40000,0,2031-03-01\n");
    }

    private void brief(String chart) {
        desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {category: area, " + chart + "}\n");
    }

    private String drawn(String ending) throws IOException {
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o." + ending)).isEqualTo(new Desk.Answer(0, "DESK/o." + ending + "\n", ""));
        return Files.readString(desk.path("o." + ending));
    }

    @Test
    public void figuresStandInColumnsWithTheirNamesAndFormats() throws IOException {
        brief("pattern: columns, orientation: horizontal, value: spent, beside: [budget, {figure: revenue / 1000, name: Earned, format: '0.0'}, {figure: since, name: Since}]");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).startsWith("              budget Earned      Since\nTurbine hall 300,000  412.0 2031-01-01 \u2502").contains("\nFish passes   90,000   12.5            \u2502",
                "\nForecasting   40,000        2031-03-01 \u2502");
        assertThat(drawn("svg")).contains(">Earned<", ">412.0<", ">12.5<", ">budget<");
        assertThat(drawn("json").replaceAll("\\s+", " ")).contains("\"beside\" : [ { \"name\" : \"budget\", \"column\" : \"beside budget\", \"format\" : \"#,##0\", \"texts\" : [ \"300,000\", \"90,000\", \"40,000\" ] }",
                "\"texts\" : [ \"412.0\", \"12.5\", \"\" ]");
    }

    @Test
    public void figuresAreWrittenInTheLanguageOfTheBrief() throws IOException {
        desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\nlocale: de-DE\ncharts:\n  c: {pattern: diverging, category: area, value: budget - spent, beside: [{figure: budget, format: '#,##0.00'}, since]}\n");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).contains("300.000,00 01.01.2031");
        assertThat(drawn("svg")).contains(">90.000,00<");
    }

    @Test
    public void workbookHasThemAsLiveCellsUnderTheBars() throws IOException {
        brief("pattern: to-target, orientation: horizontal, value: spent, target: budget, beside: [{figure: budget, name: Budget, format: '#,##0'}]");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").code()).isZero();
        try (ZipFile book = new ZipFile(desk.path("o.xlsx").toFile())) {
            String page = new String(book.getInputStream(book.getEntry("xl/worksheets/sheet1.xml")).readAllBytes(), StandardCharsets.UTF_8);
            assertThat(page).contains("<f>IFERROR('c series'!").contains("<v>300000.0</v>");
        }
    }

    @Test
    public void restOfATextBarHasAColourOfItsOwn() throws IOException {
        brief("pattern: text-bar, value: spent, rest: '\u2591', of: budget, width: 10, beside: [budget], colors: {rest: '#445566'}");
        assertThat(drawn("svg")).contains("fill: rgb(68,85,102)", ">\u2591\u2591<");
        assertThat(desk.type("series", "DESK/b.yaml").out()).contains("\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2591\u2591");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.xlsx").err()).isEqualTo("gorge: DESK/o.xlsx: 'c': a cell's text has one colour, so what is left has the colour of its bar\n");
    }

    @Test
    public void smoothBarsAreAsExactOnBothSidesOfZero() {
        desk.with("t.csv", "area,v\na,-35\nb,100\nc,32\nd,-5\n");
        brief("pattern: text-bar, value: v, width: 10, smooth: true");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).isEqualTo("a \u2590\u2588\u2588\u2588            -35\nb      \u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588\u2588 100\nc      \u2588\u2588\u2588         32\nd    \u2590             -5\n");
        assertThat(desk.type("check", "DESK/b.yaml").code()).isZero();
    }

    @Test
    public void columnsThatFindNoRoomAreTold() {
        brief("pattern: columns, orientation: horizontal, value: spent, beside: [budget, revenue, spent, budget - spent, since, revenue - spent]");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.png", "--size", "320x200").err()).startsWith("gorge: DESK/o.png: 'c': found no room beside the names, so left out: ").endsWith("revenue - spent\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.png", "--size", "1600x400").err()).isEmpty();
    }

    @Test
    public void explainTellsThem() {
        brief("pattern: columns, orientation: horizontal, value: spent, beside: [{figure: budget, name: Budget}]");
        assertThat(desk.type("explain", "DESK/b.yaml", "--row", "Fish passes").out()).contains("budget: 90,000");
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {{"pattern: columns, value: spent, beside: [budget]", "chart 'c': 'beside' puts figures between names and bars that lie; add orientation: horizontal"},
            {"pattern: diverging, value: spent, beside: [bugdet]", "table 't' has no column 'bugdet'. Did you mean 'budget'?"}, {"pattern: diverging, value: spent, beside: []", "'beside': the list has no figure"},
            {"pattern: diverging, value: spent, beside: budget", "'beside' must be a list, not 'budget'"}, {"pattern: diverging, value: spent, beside: [{name: Budget}]", "figure"},
            {"pattern: diverging, value: spent, beside: [{figure: since, format: '0.0'}]", "'since' is a date a row, which can't take the format '0.0'"},
            {"pattern: text-bar, value: spent, rest: x, of: budget, labels: {on: rest}", "chart 'c': 'rest' carries no label"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeIsToldWithWhatWouldBeRight(String chart, String expected) {
        brief(chart);
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err()).contains(expected);
    }

    @Test
    public void ringHasNoRoomForThem() {
        desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: ring, value: spent, target: budget, slice: {area: Fish passes}, beside: [budget]}\n");
        assertThat(desk.type("draw", "DESK/b.yaml").err()).isEqualTo("gorge: chart 'c': 'beside' has no effect here: a chart of the pattern 'ring' is of one figure\n");
    }
}
