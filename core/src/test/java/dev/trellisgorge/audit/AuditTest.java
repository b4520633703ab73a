package dev.trellisgorge.audit;

import static dev.trellisgorge.formula.Formulas.column;
import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.plan.Moved;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class AuditTest {
    private static final double ABSENT = Double.NaN;
    private static final Table TABLE = Table.of("march", Column.texts("station", "Heron Weir", "heron  weir", "Mill Race"),
            Column.numbers("mwh", 400, 0, 150));

    private static PlainChart chart() {
        return Chart.of("station", Columns.of("mwh").classify(Split.at(400))).over(TABLE, Settings.NONE);
    }

    /** The chart with the cells of one helper column put wrong on purpose. */
    private static PlainChart broken(String column, double... cells) {
        return Moved.column(chart(), Column.numbers(column, cells));
    }

    @Test
    public void rightChartHolds() {
        Audit audit = Audit.of(chart());
        assertThat(audit.holds()).isTrue();
        assertThat(audit.proofs()).extracting(proof -> proof.statement())
                .containsExactly("each mwh is in exactly one class", "below + above = mwh");
        assertThat(audit.proofs()).allMatch(proof -> proof.rowsHeld() == 3);
    }

    @DataProvider
    Object[][] faults() {
        return new Object[][] {
            {"a value in no class", broken("below", ABSENT, 0, ABSENT), "each mwh is in exactly one class", "Mill Race", 0.0, 1.0},
            {"a zero in no class", broken("below", ABSENT, ABSENT, 150), "each mwh is in exactly one class", "heron  weir", 0.0, 1.0},
            {"a value in two", broken("below", 400, 0, 150), "each mwh is in exactly one class", "Heron Weir", 2.0, 1.0},
            {"a piece of the wrong length", broken("below", ABSENT, 0, 150.0001), "below + above = mwh", "Mill Race", 150.0001, 150.0}};
    }

    @Test(dataProvider = "faults")
    public void faultIsNamedWithItsRowAndFigures(String fault, PlainChart chart, String identity, String row, double left, double right) {
        Audit audit = Audit.of(chart);
        assertThat(audit.holds()).as(fault).isFalse();
        Proof proof = audit.proofs().stream().filter(p -> p.statement().equals(identity)).findFirst().orElseThrow();
        assertThat(proof.failures()).containsExactly(new Proof.Failure(row, left, right));
        assertThat(proof.rowsHeld()).isEqualTo(2);
    }

    @Test
    public void differenceWithinTheToleranceHolds() {
        assertThat(Audit.of(broken("below", ABSENT, 0, 150 * (1 + 1e-10))).holds()).isTrue();
    }

    @Test
    public void valueOnTheLimitAndNamesAlikeAreNoted() {
        assertThat(Audit.of(chart()).notes()).extracting(Object::toString).containsExactly(
                "equal to the limit, counted as above: Heron Weir (400)",
                "categories that differ only in case or blanks: 'Heron Weir', 'heron  weir'");
    }

    @Test
    public void paleFillIsNoted() {
        PlainChart pale = Chart.of("station", Columns.of(column("mwh"))).color("value", Color.parse("#eee")).over(TABLE, Settings.NONE);
        assertThat(Audit.of(pale).notes()).extracting(Object::toString)
                .contains("a fill too pale to be seen well on paper (contrast below 3 to 1): value");
    }

    @Test
    public void coloursThatSomeReadersCannotTellApartAreNoted() {
        PlainChart alike = Chart.of("station", Columns.of("mwh").classify(Split.at(400))).color("below", Color.parse("#b04a32"))
                .color("above", Color.parse("#6b6b1e")).over(TABLE, Settings.NONE);
        assertThat(Audit.of(alike).notes()).extracting(Object::toString)
                .contains("colours that a reader with a colour-vision deficiency can't tell apart: 'below' and 'above'");
        assertThat(Audit.of(chart()).notes()).extracting(note -> note.sentence()).noneMatch(sentence -> sentence.startsWith("colours"));
    }
}
