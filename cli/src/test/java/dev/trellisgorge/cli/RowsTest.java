package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Which rows a chart is made of: its table, its slice, and what the command line keeps. */
public class RowsTest extends AtDesk {
    private static final String DATA = """
            month,station,mwh,level
            2031-01-01,Weir,10,0.5
            2031-01-01,Leat,20,1.5
            2031-02-01,Weir,30,2.5
            2031-02-01,Leat,40,3.5
            2031-03-01,Weir,50,4.5
            2031-03-01,"Pool: a/b",60,5.5
            """;
    private static final String SHAPED = "shape:\n  - total: {by: [station], sum: [mwh]}\n";

    @BeforeMethod
    void prepare() {
        desk.with("power.csv", DATA).with("fish.csv", "day,fish\nMon,4\nTue,6\n");
    }

    private void brief(String more, String chart) {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv, fish: fish.csv}\nsettings: {month: 2031-02-01, who: Leat, least: 2.5}\n" + more
                + "charts:\n  c: {pattern: columns, " + chart + "}\n");
    }

    /** The rows of the chart: {@code Weir 10, Leat 20}. */
    private String rows(String... options) {
        List<String> typed = new ArrayList<>(List.of("series", "DESK/b.yaml", "--as", "csv"));
        typed.addAll(List.of(options));
        Desk.Answer answer = desk.type(typed.toArray(String[]::new));
        assertThat(answer.code()).as(answer.err()).isZero();
        return answer.out().lines().skip(1).map(line -> line.replace(',', ' ')).collect(Collectors.joining(", "));
    }

    @DataProvider
    Object[][] slices() {
        return new Object[][] {
            {"month: 2031-02-01", "Weir 30, Leat 40"}, {"month: ':month'", "Weir 30, Leat 40"}, {"month: 2031-01-01, station: [Weir, ':who']", "Weir 10, Leat 20"},
            {"month: {from: 2031-03}", "Weir 50, Pool: a/b 60"}, {"month: {to: 2031-01}", "Weir 10, Leat 20"}, {"month: {from: 2031-02-01, to: 2031-02}", "Weir 30, Leat 40"},
            {"month: {from: ':month', to: ':month'}", "Weir 30, Leat 40"}, {"level: {from: 1, to: ':least'}", "Leat 20, Weir 30"}, {"level: 2.50", "Weir 30"},
            {"station: {from: M, to: Q}", "Pool: a/b 60"}, {"level: [0.5, 5.5]", "Weir 10, Pool: a/b 60"}};
    }

    @Test(dataProvider = "slices")
    public void sliceKeepsCellsListsRangesAndSettings(String slice, String expected) {
        brief("", "category: station, value: mwh, slice: {" + slice + "}");
        assertThat(rows()).isEqualTo(expected);
    }

    @DataProvider
    Object[][] wrongSlices() {
        return new Object[][] {
            {"month: {from: 2031-04}", "power.csv, column 'month': no row's month is from 2031-04. The cells go from 2031-01-01 to 2031-03-01"},
            {"month: {from: soon}", "power.csv, column 'month': 'soon' is no end for a range of dates; write one such as 2031-03-01 or 2031-03"},
            {"level: {to: low}", "power.csv, column 'level': 'low' is no end for a range of numbers"}, {"month: {}", "b.yaml:5:71: 'month': a range has 'from', 'to' or both"},
            {"month: {form: 2031-01}", "b.yaml:5:72: unknown key 'form'. Did you mean 'from'?"}, {"month: []", "b.yaml:5:71: 'month': the list has no cell"},
            {"month: ':mouth'", "b.yaml:5:71: there is no setting ':mouth'. Did you mean 'month'?"}, {"station: [Weir, Lat]", "power.csv, column 'station': no row holds 'Lat'. Did you mean 'Leat'?"},
            {"mnth: 1", "b.yaml:5:64: table 'power' has no column 'mnth'. Did you mean 'month'?"}, {"on-raw: true", "b.yaml:5:72: 'on-raw': there is no column to slice by"}};
    }

    @Test(dataProvider = "wrongSlices")
    public void wrongSliceIsToldAtItsPlace(String slice, String message) {
        brief("", "category: station, value: mwh, slice: {" + slice + "}");
        Desk.Answer answer = desk.type("series", "DESK/b.yaml");
        assertThat(answer).isEqualTo(new Desk.Answer(2, "", answer.err()));
        assertThat(answer.err().replace("DESK/", "")).startsWith("gorge: " + message);
    }

    @Test
    public void settingOfTheCommandLineIsOfTheKindThatTheBriefStates() {
        brief("", "category: station, value: mwh, slice: {month: ':month'}");
        assertThat(rows("--set", "month=2031-01-01")).isEqualTo("Weir 10, Leat 20");
        assertThat(desk.type("series", "DESK/b.yaml", "--set", "month=January").err()).isEqualTo("gorge: --set: 'January' is no date; write month=2031-03-01\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--set", "month=2031-07-01").err())
                .isEqualTo("gorge: DESK/power.csv, column 'month': no row holds '2031-07-01', which is what :month is. Did you mean '2031-01-01'?\n");
    }

    @Test
    public void textsAndDatesOfSettingsAreReadByExpressions() {
        brief("shape:\n  - keep: \"station = :who OR month > :month\"\n", "category: month, value: mwh, slice: {station: ':who'}");
        assertThat(rows()).isEqualTo("2031-01-01 20, 2031-02-01 40");
        brief("", "category: station, value: mwh, slice: {month: ':month'}, classify: {split: {at: ':who'}}");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/power.csv: :who is a text, and a figure must be a number\n");
    }

    @Test
    public void whatASliceLeavesOutIsTold() {
        brief("", "category: station, value: mwh, slice: {month: ':month'}");
        assertThat(desk.type("check", "DESK/b.yaml").out()).contains(
                "  note   slice: month is 2031-02-01 (:month) left out 4 of 6 rows (mwh 140 of 210, level 12 of 18): Weir, Leat, Pool: a/b\n");
    }

    @Test
    public void sliceOnTheRawTableComesBeforeAllSteps() {
        brief(SHAPED, "category: station, value: mwh, slice: {on-raw: true, month: {from: 2031-02}}");
        assertThat(rows()).isEqualTo("Weir 80, Leat 40, Pool: a/b 60");
        brief(SHAPED, "category: station, value: mwh, slice: {month: {from: 2031-02}}");
        assertThat(desk.type("series", "DESK/b.yaml").err()).contains("table 'power' has no column 'month'");
    }

    @Test
    public void chartAndFigureNameTheirTable() {
        brief(SHAPED, "table: fish, category: day, value: fish}\n  d: {pattern: columns, category: station, value: mwh");
        assertThat(rows("--chart", "c")).isEqualTo("Mon 4, Tue 6");
        assertThat(rows("--chart", "d")).isEqualTo("Weir 90, Leat 60, Pool: a/b 60");
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv, fish: fish.csv}\ncharts:\n  c: {pattern: columns, table: fish, category: day, value: fish}\n"
                + "board: {tiles: [c, {figure: fish, table: fish, total: sum, title: Fish}, {figure: mwh, total: sum, title: Power, slice: {month: {from: 2031-02}}}]}\n");
        assertThat(desk.type("draw", "DESK/b.yaml").out()).contains("Fish\n10").contains("Power\n180");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/b.xlsx").code()).isZero();
    }

    @Test
    public void tableThatIsNotThereGetsTheNearest() {
        brief("", "table: fisch, category: day, value: fish");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:5:32: there is no table 'fisch' in 'data'. Did you mean 'fish'?\n");
    }

    @Test
    public void whereKeepsRawRowsBeforeAllSteps() {
        brief(SHAPED, "category: station, value: mwh");
        assertThat(rows("--where", "month > DATE '2031-01-01'")).isEqualTo("Weir 80, Leat 40, Pool: a/b 60");
        assertThat(desk.type("series", "DESK/b.yaml", "--where", "mnth IS NULL").err())
                .isEqualTo("gorge: --where: table 'power' has no column 'mnth'. Did you mean 'month'? A text stands in single quotes.\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--where", "mwh + 1").err()).startsWith("gorge: --where: ").contains("a condition is needed, and 'mwh + 1' is a number");
        assertThat(desk.type("series", "DESK/b.yaml", "--where", "mwh > 999").err()).contains("gorge: --where: no row is left of the 6 before this step");
        for (String command : List.of("check", "explain", "plan", "draw")) {
            String[] typed = command.equals("explain") ? new String[] {command, "DESK/b.yaml", "--row", "Weir", "--where", "mwh > 15"} : new String[] {command, "DESK/b.yaml", "--where", "mwh > 15"};
            assertThat(desk.type(typed).code()).as(command).isZero();
        }
    }

    @Test
    public void whereThatIsNotForATableIsTold() {
        brief("", "category: station, value: mwh, slice: {month: 2031-01-01}}\n  d: {pattern: columns, table: fish, category: day, value: fish");
        Desk.Answer answer = desk.type("series", "DESK/b.yaml", "--where", "station = 'Weir'");
        assertThat(answer.err()).isEqualTo("gorge: note: --where is not for the table 'fish', which lacks a column of it; its rows all stay\n");
        assertThat(answer.out()).contains("Weir").doesNotContain("Leat").contains("Tue");
    }

    @Test
    public void eachTakesRawColumnsAndSeveral() {
        brief(SHAPED, "category: station, value: mwh");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "month", "-o", "DESK/m.txt").out())
                .isEqualTo("DESK/m-2031-01-01.txt\nDESK/m-2031-02-01.txt\nDESK/m-2031-03-01.txt\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "month", "--each", "station", "-o", "DESK/o.txt").out()).endsWith(
                "DESK/o-2031-03-01-Weir.txt\nDESK/o-2031-03-01-Pool_ a_b.txt\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "month", "--each", "station").out()).contains("== 2031-02-01, Leat\nLeat │");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "moth").err()).isEqualTo("gorge: --each: table 'power' has no column 'moth'. Known here: 'station', 'mwh'.\n");
    }

    @Test
    public void unreadableTableIsTheOneMistakeThatIsTold() {
        desk.with("b.yaml", "brief: 1\ndata: {power: gone.csv}\nshape:\n  - add: {x: \"Sum (EUR) * 2\"}\ncharts:\n"
                + "  c: {pattern: columns, category: statin, value: Order (EUR), classify: {split: {at: \"Max (t) + 1\"}}, slice: {m: 1}}\n");
        assertThat(desk.type("check", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:2:15: there is no file 'DESK/gone.csv' for the table 'power'\n");
    }
}
