package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Titles that say what the rows are, and the language of the output. */
public class WordsTest extends AtDesk {
    private static final String DATA = """
            month,station,mwh
            2031-02-01,Weir,1000.5
            2031-02-01,Leat,20
            2031-03-01,Weir,30
            2031-03-01,Leat,2040
            2031-03-01,Pool,
            """;

    @BeforeMethod
    void prepare() {
        desk.with("power.csv", DATA);
    }

    private void brief(String root, String title, String chart) {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\nsettings: {goal: 400.5, month: 2031-03-01, who: Leat}\n" + root + "charts:\n  c:\n    pattern: columns\n"
                + "    title: " + title + "\n    category: station\n    value: mwh\n" + chart);
    }

    private String title(String... more) {
        List<String> typed = new ArrayList<>(List.of("draw", "DESK/b.yaml"));
        typed.addAll(List.of(more));
        Desk.Answer answer = desk.type(typed.toArray(String[]::new));
        assertThat(answer.code()).as(answer.err()).isZero();
        return answer.out().lines().findFirst().orElseThrow().replace('\u00A0', ' ').replace('\u202F', ' ');
    }

    @DataProvider
    Object[][] titles() {
        return new Object[][] {
            {"'{SUM(mwh)} MWh'", "2,070 MWh", "2.070 MWh"}, {"'{SUM(mwh) | #,##0.0} MWh'", "2,070.0 MWh", "2.070,0 MWh"}, {"'{AVG(mwh)}, {MIN(mwh)} to {MAX(mwh)}'", "1,035, 30 to 2,040", "1.035, 30 to 2.040"},
            {"'{COUNT(mwh)} of {COUNT(*)} stations'", "2 of 3 stations", "2 of 3 stations"}, {"'{FIRST_VALUE(station) OVER (ORDER BY mwh DESC)} made most'", "Leat made most", "Leat made most"},
            {"'{FIRST_VALUE(station) OVER (ORDER BY mwh)} made least'", "Weir made least", "Weir made least"}, {"'In {month}'", "In 2031-03-01", "In 01.03.2031"},
            {"'In {month | MMMM yyyy}'", "In March 2031", "In März 2031"}, {"'Goal {:goal}, {:who}'", "Goal 400.5, Leat", "Goal 400,5, Leat"}, {"'{:month | QQQQ yyyy}'", "1st quarter 2031", "1. Quartal 2031"},
            {"'{{as it stands}}'", "{as it stands}", "{as it stands}"}, {"'{MAX(mwh) / SUM(mwh) | 0.0%}'", "98.6%", "98,6 %"}, {"'{SUM(CASE WHEN station = ''none'' THEN mwh END)} MWh'", "– MWh", "– MWh"},
            {"'{SUM(mwh) | ¤#,##0.00}'", "£2,070.00", "2.070,00 €"}, {"'{\"station\" || ''!''}'", null, null}};
    }

    @Test(dataProvider = "titles")
    public void titleSaysWhatTheRowsAre(String title, String english, String german) {
        brief("locale: en-GB\n", title, "    slice: {month: 2031-03-01}\n");
        if (english == null) {
            assertThat(desk.type("draw", "DESK/b.yaml").err()).contains("its title says 'station', and the rows have several: Weir, Leat, Pool");
            return;
        }
        assertThat(title("--locale", "de-DE")).isEqualTo(german);
        assertThat(title()).isEqualTo(english.equals("In 2031-03-01") ? "In 1 Mar 2031" : english);
    }

    @Test
    public void withoutALocaleFiguresHavePointsAndDatesAreIso() {
        brief("", "'{SUM(mwh) | #,##0.0} in {month}'", "    slice: {month: ':month'}\n");
        assertThat(title()).isEqualTo("2,070.0 in 2031-03-01");
        assertThat(title("--set", "month=2031-02-01")).isEqualTo("1,020.5 in 2031-02-01");
    }

    @Test
    public void titleFollowsEachAndASliceThatTheTableNoLongerHas() {
        brief("shape:\n  - total: {by: station, sum: mwh}\n", "'{month | MMMM}: {SUM(mwh)}'", "");
        assertThat(desk.type("draw", "DESK/b.yaml", "--each", "month").out()).contains("== 2031-02-01\nFebruary: 1,020.5\n", "== 2031-03-01\nMarch: 2,070\n");
        assertThat(desk.type("draw", "DESK/b.yaml").err()).startsWith("gorge: chart 'c': its title: the charted table has no column 'month', and no slice keeps cells of one.");
        brief("shape:\n  - total: {by: station, sum: mwh}\n", "'{month | MMM}'", "    slice: {on-raw: true, month: {from: 2031-02-01, to: 2031-03}}\n");
        assertThat(title()).isEqualTo("Feb – Mar");
    }

    @Test
    public void periodsAreWrittenByTheirFirstDay() {
        brief("shape:\n  - period: {of: month, unit: month, as: when}\n", "'{when | MMMM yyyy}'", "    slice: {when: 2031-03}\n");
        assertThat(title()).isEqualTo("March 2031");
    }

    @DataProvider
    Object[][] mistakes() {
        return new Object[][] {
            {"'{a'", "b.yaml:7:12: '{a' has a '{' at character 1 that is never closed; '{{' stands for one that is meant"},
            {"'a}'", "b.yaml:7:12: 'a}' has a '}' at character 2 that no '{' opens; '}}' stands for one that is meant"},
            {"'{ }'", "b.yaml:7:12: '{ }' says nothing; write a column, a setting or an aggregate such as SUM(mwh)"}, {"'{statoin}'", "b.yaml:7:12: table 'power' has no column 'statoin'. Did you mean 'station'?"},
            {"'{SUM(mhw)}'", "b.yaml:7:12: table 'power' has no column 'mhw'. Did you mean 'mwh'?"}, {"'{:gaol}'", "b.yaml:7:12: there is no setting ':gaol'. Did you mean 'goal'?"},
            {"'{SUM(station)}'", "chart 'c': its title: 'station' is a text, not a number"}, {"'{SUM(mwh) | 0.0.0}'", "chart 'c': its title: '0.0.0' is no number pattern"},
            {"'{MAX(month) | foo}'", "chart 'c': its title: 'foo' is no date pattern"}, {"'{SUM(mwh, 1)}'", "b.yaml:7:12: SUM takes one value, as in SUM(mwh)"},
            {"'{LAST_VALUE(station) OVER (ORDER BY mwh)}'", "b.yaml:7:12: 'LAST_VALUE(\"station\") OVER (ORDER BY \"mwh\")' is not taken here; over all rows there are"}};
    }

    @Test(dataProvider = "mistakes")
    public void mistakeInBracesIsToldAtItsPlace(String title, String message) {
        brief("", title, "");
        Desk.Answer answer = desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg", "--where", "month > DATE '2031-02-01'");
        assertThat(answer.code()).isEqualTo(2);
        assertThat(answer.err().replace("DESK/", "")).startsWith("gorge: " + message);
        assertThat(desk.files()).containsExactly("b.yaml", "power.csv");
    }

    @Test
    public void boardSaysItsTitleAndFiguresInWords() {
        desk.with("b.yaml", "brief: 1\ndata: {power: power.csv}\nlocale: de-DE\nsettings: {goal: 1040.5}\nshape:\n  - period: {of: month, unit: quarter, as: q}\n  - total: {by: q, sum: mwh}\ncharts:\n"
                + "  c: {pattern: columns, category: q, value: mwh, classify: {split: {at: ':goal'}}, labels: {format: '#,##0.00 ¤'}}\nboard:\n  title: '{SUM(mwh) | #,##0.0} MWh'\n"
                + "  tiles: [c, {figure: mwh, total: sum, title: 'Im {q | QQQ yyyy}', text: 'von {COUNT(*)} Quartal', format: '#,##0.0'}]\n");
        String drawn = desk.type("draw", "DESK/b.yaml").out().replace('\u00A0', ' ');
        assertThat(drawn).startsWith("3.090,5 MWh\n").contains("goal 1.040,50 €", "Q1 2031 │", " 3.090,50 €\n", "Im Q1 2031\n3.090,5  von 1 Quartal\n");
    }

    @Test
    public void localeThatIsNoneIsToldWithTheNearest() {
        brief("locale: de_DE\n", "x", "");
        assertThat(desk.type("draw", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/b.yaml:4:9: there is no locale 'de_DE'. Write 'de-DE'.\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "--locale", "german").err())
                .isEqualTo("gorge: --locale: there is no locale 'german'. Write a language and a country, such as de-DE or en-GB.\n");
    }

    @DataProvider
    Object[][] claims() {
        return new Object[][] {
            {"Weir and Leat in March 2031", "month: 2031-03-01", ""}, {"Pool made nothing in March", "month: 2031-02-01", "the title names what is no row of the chart: Pool\n  note   the title names a month that no row is of: March"},
            {"In April 2031", "month: 2031-03-01", "the title names a month that no row is of: April 2031"}, {"In March 2030", "month: 2031-03-01", "the title names a month that no row is of: March 2030"},
            {"Leat made 2,040 of 2,070 MWh", "month: 2031-03-01", ""}, {"Leat made 2,140 MWh", "month: 2031-03-01", "the title says a figure that is no cell, sum, mean or setting of the chart: 2,140"},
            {"The goal of 400.5 in 2031", "month: 2031-03-01", ""}, {"Weirs may do better", "month: 2031-03-01", ""}, {"{SUM(mwh)} MWh", "month: 2031-03-01", ""}};
    }

    @Test(dataProvider = "claims")
    public void titleThatTheRowsContradictIsTold(String title, String slice, String notes) {
        brief("", "\"" + title + "\"", "    slice: {" + slice + "}\n");
        String told = desk.type("check", "DESK/b.yaml").out().lines().filter(line -> line.contains("the title")).map(line -> line.replace("  note   ", "")).collect(java.util.stream.Collectors.joining("\n  note   "));
        assertThat(told).isEqualTo(notes);
    }
}
