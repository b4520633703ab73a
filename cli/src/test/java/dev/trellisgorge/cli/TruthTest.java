package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.Test;

/** What would be wrong without a word: {@code gorge} says it, refuses it, or computes it as readers take it. */
public class TruthTest extends AtDesk {
    private static final String REACHES = "reach,now,before\nA,120,100\nB,90,60\nC,30,20\nD,10,\n";

    private Desk.Answer typed(String table, String brief, String... arguments) {
        desk.with("t.csv", table).with("b.yaml", "brief: 1\ndata: {t: t.csv}\n" + brief);
        return desk.type(arguments);
    }

    private String checked(String table, String brief) {
        return typed(table, brief, "check", "DESK/b.yaml").out();
    }

    private List<String> series(String table, String brief) {
        return typed(table, brief, "series", "DESK/b.yaml", "--as", "csv").out().lines().toList();
    }

    private static final String MOVED = "item,kind,ml\nInflow,,50\nOpening,start,100\nOutflow,,-30\nHalf-year,subtotal,\nSeep,,-5\nClosing,total,115\n";

    @Test
    public void levelOfARankedWaterfallIsTheLevelBeforeItWasRanked() {
        String chart = "charts:\n  c: {pattern: waterfall, category: item, value: ml, kind: kind, rank: {by: ml%s}}\n";
        String inOrder = "item,kind,ml\nOpening,start,100\nSeep,,-5\nOutflow,,-30\nInflow,,50\nClosing,total,115\n";
        assertThat(checked(inOrder, chart.formatted(""))).contains("holds  on 2 of 2 rows: the ranking leaves the level at each start, subtotal and total as it was")
                .doesNotContain("FAILS");
        assertThat(series(inOrder, chart.formatted(""))).containsExactly("item,spacer,rise,fall,start,subtotal,total,rise under,fall under,level", "Opening,,,,100,,,,,100",
                "Inflow,100,50,,,,,,,150", "Seep,145,,5,,,,,,145", "Outflow,115,,30,,,,,,115", "Closing,,,,,,115,,,115");
        assertThat(series(inOrder, chart.formatted(", top: 1, rest: Others"))).contains("Inflow,100,50,,,,,,,150", "Others,115,,35,,,,,,115", "Closing,,,,,,115,,,115");
    }

    @Test
    public void waterfallThatStartsAfterItsMovementsIsWrongAndNotDrawn() {
        String chart = "charts:\n  c: {pattern: waterfall, category: item, value: ml, kind: kind}\n";
        assertThat(checked(MOVED, chart)).contains("FAILS  on 0 of 1 row: no movement and no other start is lost before a start", "Closing: the pieces come to 65, not 115");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg")).satisfies(answer -> assertThat(answer.code()).isEqualTo(1));
        assertThat(desk.files()).doesNotContain("o.svg");
    }

    @Test
    public void ratioOfTheRestIsTheRatioOfItsSums() {
        String brief = "shape:\n  - add: {growth: now / before}\ncharts:\n  c: {pattern: columns, category: reach, value: growth, rank: {by: now, top: 1, rest: Others}}\n";
        assertThat(series(REACHES, brief)).containsExactly("reach,value", "A,1.2", "Others,1.625");
        assertThat(checked(REACHES, brief)).contains("the sum of 'before' in the row 'Others' passes over 1 missing cell: D",
                "holds  on 1 of 1 row: growth = now / before, in the row 'Others'", "3 rows totalled in 'Others', 52% of all now: B, C, D");
    }

    @Test
    public void missingCellInATotalIsToldWithoutBeingAsked() {
        Desk.Answer answer = typed("month,made,hours\n2031-01,10,5\n2031-01,,5\n2031-02,8,4\n", "shape:\n  - total: {by: month, sum: [made, hours]}\n"
                + "  - add: {rate: made / hours}\ncharts:\n  c: {pattern: columns, category: month, value: rate}\n", "series", "DESK/b.yaml");
        assertThat(answer.err()).isEqualTo("gorge: note: the sum of 'made' passes over 1 missing cell: 2031-01\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg").err()).isEqualTo(answer.err());
    }

    @Test
    public void figureOfABoardTellsOfTheMissingCellsThatItsTotalPassesOver() {
        String brief = "charts:\n  c: {pattern: columns, category: reach, value: now}\nboard:\n  tiles:\n    - {figure: before, total: %s, title: Before}\n    - c\n";
        String note = "the sum of 'before' (Before) passes over 1 missing cell: D";
        assertThat(checked(REACHES, brief.formatted("sum"))).contains("figure 1 (4 rows)\n  holds  on 1 of 1 row: each running sum, and each sum of all rows, is the exact one to its last digit\n  note   " + note + "\n");
        assertThat(desk.type("draw", "DESK/b.yaml", "-o", "DESK/o.svg").err()).isEqualTo("gorge: note: " + note + "\n");
        assertThat(desk.type("check", "DESK/b.yaml", "--chart", "c").out()).doesNotContain("figure");
        assertThat(desk.type("plan", "DESK/b.yaml").out()).contains("SUM(before) OVER ()");
        assertThat(checked(REACHES, brief.formatted("greatest"))).contains("figure 1 (4 rows)\n").doesNotContain("passes over");
    }

    @Test
    public void rowsThatStepsLeaveOutAreNamedAndCounted() {
        String told = checked(REACHES, "shape:\n  - keep: now > 20\n  - order: {by: now}\n  - top: 2\ncharts:\n  c: {pattern: columns, category: reach, value: now}\n");
        assertThat(told).contains("keep: now > 20 left out 1 of 4 rows (now 10 of 250, before 0 of 180): D", "top: 2 left out 1 of 3 rows (now 120 of 240, before 100 of 180): A");
    }

    @Test
    public void partBelowZeroOfABreakdownIsDrawnAcrossZeroAndTold() {
        String chart = "charts:\n  c: {pattern: breakdown, category: use, value: mwh, total-name: All}\n";
        String uses = "use,mwh\nA,10\nB,-14\nC,6\n";
        assertThat(series(uses, chart)).containsExactly("use,spacer,part,part under,total", "All,,,,2", "A,0,2,-8,", "B,0,6,-8,", "C,0,6,,");
        assertThat(checked(uses, chart)).contains("a bar that crosses zero: A (10), B (-14)").doesNotContain("FAILS");
    }

    @Test
    public void totalRowThatIsOffByRoundingIsToldWithBothFigures() {
        String chart = "charts:\n  c: {pattern: columns, category: site, value: mwh}\n";
        String table = "site,mwh\nA,10.01\nB,20.02\nTotal,30.02\n";
        assertThat(typed(table, chart, "series", "DESK/b.yaml").err()).isEqualTo("gorge: note: the last row is the sum of the rows above, but for rounding, and would be counted"
                + " twice; drop it with 'total-row: drop', or keep it with 'total-row: keep': 'mwh' is 30.02 there, and the rows above make 30.03: 0.01 less, DESK/t.csv:4\n");
        desk.with("b.yaml", "brief: 1\ndata: {t: {file: t.csv, total-row: drop}}\n" + chart);
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv").out()).isEqualTo("site,value\nA,10.01\nB,20.02\n");
        assertThat(desk.type("check", "DESK/b.yaml").out()).contains("the total row that is dropped is off by rounding: 'mwh' is 30.02 there, and the rows above make 30.03: 0.01 less");
        desk.with("t.csv", "site,mwh\nA,10.01\nB,20.02\nTotal,30.05\n");
        assertThat(desk.type("series", "DESK/b.yaml").err()).isEqualTo("gorge: DESK/t.csv: the last row is to be dropped as a total, and its figures are not the sums of the rows"
                + " above: 'mwh' is 30.05 there, and the rows above make 30.03: 0.02 more\n");
    }

    @Test
    public void totalRowIsNoDayAndItsWordDoesNotMakeTextsOfTheOthers() {
        String chart = "shape:\n  - period: {of: day, unit: month}\n  - total: {by: month, sum: mwh}\ncharts:\n  c: {pattern: columns, category: month, value: mwh}\n";
        desk.with("t.csv", "day,mwh\n2031-01-01,10\n2031-02-02,20\nTotal,30\n").with("b.yaml", "brief: 1\ndata: {t: {file: t.csv, total-row: drop}}\n" + chart);
        assertThat(desk.type("series", "DESK/b.yaml", "--as", "csv")).isEqualTo(new Desk.Answer(0, "month,value\n2031-01,10\n2031-02,20\n", ""));
        Desk.Answer untold = typed("day,mwh\n2031-01-01,10\n2031-02-02,20\nTotal,30\n", "charts:\n  c: {pattern: columns, category: day, value: mwh}\n", "series", "DESK/b.yaml");
        assertThat(untold.code()).isEqualTo(2);
        assertThat(untold.err()).startsWith("gorge: DESK/t.csv:4, column 'day': the category is missing; every row needs one; the last row is the sum of the rows above, and would be"
                + " counted twice");
    }

    @Test
    public void perCentIsShiftedAndNotDivided() {
        assertThat(series("site;share\nA;1,8%\nB;110%\nC;0,07 %\n", "charts:\n  c: {pattern: columns, category: site, value: share}\n"))
                .containsExactly("site,value", "A,0.018", "B,1.1", "C,0.0007");
    }

    @Test
    public void changeWithoutAReferenceIsMissingUnlessTheBriefSaysOtherwise() {
        String chart = "charts:\n  c: {pattern: variance, category: reach, value: now, against: before%s}\n";
        assertThat(series(REACHES, chart.formatted(""))).containsExactly("reach,value,reference,up,down,level", "A,120,100,0.2,,", "B,90,60,0.5,,", "C,30,20,0.5,,", "D,10,,,,");
        assertThat(series(REACHES, chart.formatted(", as: amount, without-reference: zero"))).contains("A,120,100,20,,", "D,10,,,,0");
        assertThat(checked(REACHES, chart.formatted(""))).contains("nothing to compare with, so no change: D (10)");
    }

    @Test
    public void headerOfSeriesIsTheSameWhateverTheCellsAre() {
        String chart = "charts:\n  c: {pattern: columns, category: reach, value: now, classify: {split: {at: before}}}\n";
        assertThat(series("reach,now,before\nA,1,2\n", chart).get(0)).isEqualTo(series(REACHES, chart).get(0)).isEqualTo("reach,below,above,unjudged");
    }
}
