package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** {@code --each}: titles speak of the rows that are drawn, and no row is lost without a word. */
public class EachValueTest {
    private Desk desk;

    @BeforeMethod
    public void make() {
        desk = new Desk().with("t.csv", "region,site,mwh\nNorth,A,1\nNorth,B,2\nEast,A,10\nEast,B,20\n,C,5\n");
    }

    @AfterMethod
    public void clean() {
        desk.close();
    }

    private Desk.Answer drawn(String slice, String settings, String... more) {
        desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\nsettings: {" + settings + "}\ncharts:\n  c: {pattern: columns, category: site, value: mwh, title: \"{:region} made {SUM(mwh)}\"" + slice + "}\n");
        String[] typed = new String[more.length + 2];
        typed[0] = "draw";
        typed[1] = "DESK/b.yaml";
        System.arraycopy(more, 0, typed, 2, more.length);
        return desk.type(typed);
    }

    @DataProvider
    Object[][] places() {
        return new Object[][] {{"here"}, {"duckdb:"}};
    }

    @Test(dataProvider = "places")
    public void settingByWhichAChartIsSlicedTakesEachValue(String where) {
        Desk.Answer answer = drawn(", slice: {region: \":region\"}", "region: North", "--each", "region", "--on", where);
        assertThat(answer.out()).contains("== North\nNorth made 3\n", "== East\nEast made 30\n");
        assertThat(answer.err()).isEqualTo("gorge: note: --each: 1 row has no value in 'region', so no picture holds it\n");
    }

    @Test
    public void sliceThatContradictsIsRefused() {
        assertThat(drawn(", slice: {region: North}", "region: North", "--each", "region").err()).isEqualTo(
                "gorge: --each: the chart 'c' is sliced where 'region' is North, which contradicts drawing it for each value; take the slice out, or have it name a setting\n");
        assertThat(drawn(", slice: {region: \":region\", site: \":region\"}", "region: North", "--each", "region", "--each", "site").err())
                .isEqualTo("gorge: --each: the setting ':region' can't be the value of two columns, and slices of both name it\n");
        assertThat(drawn(", slice: {region: \":region\"}", "region: North", "--each", "region", "--set", "region=East").err())
                .isEqualTo("gorge: --each: the setting ':region' has been given a value, and takes each value of 'region' too; give it none, or leave out --each\n");
        assertThat(drawn(", slice: {region: \":region\"}", "region: 5", "--each", "region").err()).contains("'North' can't be the value of the setting ':region', by which charts are sliced; it is of another kind");
    }

    @Test
    public void columnsThatAreTurnedToRowsTakeTheNextYearToo() {
        desk.with("w.csv", "line,2030,2031,2032\nA,1,2,3\n");
        for (String columns : new String[] {"columns: \"20*\"", "all-but: line", "all-but: [line]"}) {
            desk.with("w.yaml", "brief: 1\ndata: {t: w.csv}\nshape: [{unpivot: {" + columns + ", names: year, values: v}}]\ncharts:\n  c: {pattern: columns, category: year, value: v}\n");
            assertThat(desk.type("series", "DESK/w.yaml").out()).as(columns).contains("2030", "2031", "2032");
        }
        desk.with("w.yaml", "brief: 1\ndata: {t: w.csv}\nshape: [{unpivot: {columns: [\"2030\", \"2031\"], names: year, values: v}}]\ncharts:\n  c: {pattern: columns, category: year, value: v}\n");
        for (String where : new String[] {"here", "duckdb:"}) {
            assertThat(desk.type("series", "DESK/w.yaml", "--on", where).err()).isEqualTo("gorge: note: columns that are named like those that are turned to rows are not turned, and are on each of their rows: 2032\n");
        }
        desk.with("w.yaml", "brief: 1\ndata: {t: w.csv}\nshape: [{unpivot: {columns: \"19*\"}}]\ncharts:\n  c: {pattern: columns, category: name, value: value}\n");
        assertThat(desk.type("series", "DESK/w.yaml").err()).contains("'columns': leaves no column to turn; there are line, 2030, 2031, 2032");
    }

    /** A total that a pattern adds stands in no chart alone. */
    @Test(dataProvider = "places")
    public void sliceOfWhatIsNotThereIsOneSentenceWhateverIsAdded(String where) {
        for (String chart : new String[] {"pattern: breakdown, category: site, value: mwh", "pattern: columns, category: site, value: mwh", "pattern: waterfall, category: site, value: mwh, closing: End"}) {
            desk.with("b.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {" + chart + ", slice: {region: Eats}}\n");
            assertThat(desk.type("series", "DESK/b.yaml", "--on", where).err()).as(chart).endsWith("column 'region': no row holds 'Eats'. Did you mean 'East'?\n");
        }
    }

    @DataProvider
    Object[][] firsts() {
        return new Object[][] {{"station,baseline,reading", "reading", "baseline"}, {"station,allowed,emitted", "emitted", "allowed"}, {"Station,Vorjahr,Aktuell", "Aktuell", "Vorjahr"}, {"station,target,actual", "actual", "target"}};
    }

    @Test(dataProvider = "firsts")
    public void firstBriefTakesWhatIsReadForTheFigureAndWhatIsAllowedForTheTarget(String header, String value, String target) {
        desk.with("f.csv", header + "\nA,5,4\nB,6,7\nC,7,9\n");
        assertThat(desk.type("start", "to-target", "DESK/f.csv").out()).contains("value: " + value + "\n", "target: " + target + "\n");
    }

    @Test
    public void firstBriefAddsUpNoHoursAndNoSumsBesideTheirParts() {
        desk.with("h.csv", "station,hour,mwh\nA,1,4\nA,2,7\nB,1,9\n").with("m.csv", "line,Jan,Feb,Mar,Sum\nA,1,2,3,6\nB,4,5,6,15\n");
        assertThat(desk.type("start", "columns", "DESK/h.csv").out()).contains("sum: [mwh]", "value: mwh\n").doesNotContain("value: hour");
        assertThat(desk.type("start", "columns", "DESK/m.csv").out()).contains("value: value\n");
    }

    @Test
    public void patternOfDatesWithOtherLettersSaysWhatItMeans() {
        desk.with("d.yaml", "brief: 1\ndata: {t: {file: t.csv, dates: DD/MM/YYYY}}\ncharts:\n  c: {pattern: columns, category: site, value: mwh}\n");
        assertThat(desk.type("series", "DESK/d.yaml").err()).isEqualTo("gorge: DESK/d.yaml:2:32: 'DD/MM/YYYY' is no pattern of dates, as D is the day of the year, and Y is the year that a week counts to; write dd/MM/yyyy\n");
    }
}
