package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class SeriesTest extends AtDesk {
    private static final String DATA = "category,value,goal\nNorth Sluice,520,500\nHeron Weir,400,500\nMill Race,150,\nAlder Gate,200,100\n"
            + "Stone Leat,,100\nFern Pool,0,0\nLow Lock,-70,-70\n";

    @BeforeMethod
    void prepare() {
        desk.with("stations.csv", DATA);
    }

    private void brief(String at, String ties) {
        desk.with("b.yaml", "brief: 1\ndata: {stations: stations.csv}\nsettings: {goal_mwh: 400}\ncharts:\n  c: {pattern: columns, category: category,"
                + " value: value, classify: {split: {at: " + at + ", ties: " + ties + "}}}\n");
    }

    @DataProvider
    Object[][] splits() {
        String tiesAbove = "category,below,above\nNorth Sluice,,520\nHeron Weir,,400\nMill Race,150,\nAlder Gate,200,\nStone Leat,,\nFern Pool,0,\nLow Lock,-70,\n";
        String tiesBelow = tiesAbove.replace("Heron Weir,,400", "Heron Weir,400,");
        String ownAbove = "category,below,above,unjudged\nNorth Sluice,,520,\nHeron Weir,400,,\nMill Race,,,150\nAlder Gate,,200,\nStone Leat,,,\nFern Pool,,0,\nLow Lock,,-70,\n";
        String ownBelow = ownAbove.replace("Fern Pool,,0", "Fern Pool,0,").replace("Low Lock,,-70", "Low Lock,-70,");
        return new Object[][] {{"400", "above", tiesAbove}, {"400", "below", tiesBelow}, {"':goal_mwh'", "above", setting(tiesAbove)},
            {"':goal_mwh'", "below", setting(tiesBelow)}, {"goal", "above", ownAbove}, {"goal", "below", ownBelow}};
    }

    /** A setting may be left without a value, so there is a column for what can't be judged then. */
    private static String setting(String stated) {
        return stated.replaceFirst("\n", ",unjudged\n").replaceAll("(?<!unjudged)\n", ",\n");
    }

    @Test(dataProvider = "splits")
    public void splitComesOutCellForCell(String at, String ties, String expected) {
        brief(at, ties);
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv")).isEqualTo(new Desk.Answer(0, expected, ""));
    }

    @Test
    public void tableForPeopleLinesUpAndLeavesAbsentEmpty() {
        brief("400", "above");
        assertThat(desk.type("series", "DESK/b.yaml").out()).isEqualTo("""
                category      below  above
                North Sluice           520
                Heron Weir             400
                Mill Race       150
                Alder Gate      200
                Stone Leat
                Fern Pool         0
                Low Lock        -70
                """);
    }

    @Test
    public void jsonHasAnArrayForEachChartAndNullForAbsent() {
        brief("400", "above");
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "json").out().replaceAll("\\s+", "")).startsWith(
                "{\"c\":[{\"category\":\"NorthSluice\",\"below\":null,\"above\":520},").endsWith("{\"category\":\"LowLock\",\"below\":-70,\"above\":null}]}");
    }

    @Test
    public void tabAndSemicolonAreFoundByThemselves() {
        brief("400", "above");
        String plain = desk.type("series", "DESK/b.yaml", "--as", "csv").out();
        for (String delimiter : new String[] {";", "\t"}) {
            desk.with("stations.csv", "\uFEFF" + DATA.replace(",", delimiter));
            assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv").out()).isEqualTo(plain);
        }
    }

    @Test
    public void csvOfSeveralChartsAsksForOne() {
        desk.with("b.yaml", "brief: 1\ndata: {stations: stations.csv}\ncharts:\n  a: {pattern: columns, category: category, value: value}\n"
                + "  b c: {pattern: columns, category: category, value: value}\n");
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv")).isEqualTo(new Desk.Answer(2, "",
                "gorge: DESK/b.yaml: csv holds one chart and the brief has 2; choose one with --chart a or --chart 'b c'\n"));
        assertThat(desk.type("series", "DESK/b.yaml", "--chart", "b c", "--as", "csv").out()).startsWith("category,value\nNorth Sluice,520\n");
    }

    @Test
    public void textsThatLookLikeFormulasStandAsTheyAreOrMarkedWhereThatIsAskedFor() {
        desk.with("t.csv", "k,mwh\n=1+1,1\n@x,2\n-5 m,-3\nplain,4\n").with("f.yaml", "brief: 1\ndata: {t: t.csv}\ncharts:\n  c: {pattern: columns, category: k, value: mwh}\n");
        assertThat(desk.type("series", "DESK/f.yaml", "--as", "csv").out()).isEqualTo("k,value\n=1+1,1\n@x,2\n-5 m,-3\nplain,4\n");
        assertThat(desk.type("series", "DESK/f.yaml", "--as", "csv", "--no-formulas").out()).isEqualTo("k,value\n'=1+1,1\n'@x,2\n'-5 m,-3\nplain,4\n");
        assertThat(desk.type("series", "DESK/f.yaml", "--no-formulas").err()).isEqualTo("gorge: --no-formulas: is about csv; give --as csv too\n");
    }
}
