package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ToTargetTest {
    private static final Table STATIONS = Table.of("stations", Column.texts("station", "North Sluice", "Heron Weir", "Mill Race", "Alder Gate", "Fern Pool", "Low Lock"),
            Column.numbers("value", 520, 400, 150, -20, 0, 5), Column.numbers("target", 450, 400, 380, 100, 0, Rows.MISSING));

    private static PlainChart chart() {
        return Chart.of("station", ToTarget.of("value", "target")).over(STATIONS, Settings.NONE);
    }

    private static void agree(Rows rows, boolean classified) {
        double[] met = Rows.cells(rows.count());
        double[] remaining = Rows.cells(rows.count());
        double[] above = Rows.cells(rows.count());
        double[] unjudged = Rows.cells(rows.count());
        double[] targets = new double[rows.count()];
        for (int row = 0; row < rows.count(); row++) {
            double v = rows.a()[row];
            double t = Math.abs(rows.b()[row]);
            targets[row] = t;
            if (Double.isNaN(v)) {
                continue;
            }
            if (Double.isNaN(t)) {
                unjudged[row] = v;
            } else if (v < 0) {
                met[row] = v;
                remaining[row] = t;
            } else if (v < t) {
                met[row] = v;
                remaining[row] = t - v;
            } else {
                met[row] = t;
                if (v > t) {
                    above[row] = v - t;
                }
            }
        }
        Rows positive = new Rows(rows.names(), rows.a(), targets);
        if (!classified) {
            PlainChart chart = positive.proved(ToTarget.of("a", "b"));
            Rows.same(chart, "met", met);
            Rows.same(chart, "remaining", remaining);
            Rows.same(chart, "above", above);
            Rows.same(chart, "unjudged", unjudged);
            assertThat(ToTarget.of(column("a"), number(400)).seriesNames()).containsExactly("met", "remaining", "above");
            return;
        }
        PlainChart chart = positive.proved(ToTarget.of("a", "b").classify(new Sign()));
        for (String part : new String[] {"met", "remaining", "above"}) {
            double[] whole = part.equals("met") ? met : part.equals("remaining") ? remaining : above;
            double[] negative = Rows.cells(rows.count());
            double[] other = Rows.cells(rows.count());
            for (int row = 0; row < rows.count(); row++) {
                (rows.a()[row] < 0 ? negative : other)[row] = whole[row];
            }
            Rows.same(chart, "negative " + part, negative);
            Rows.same(chart, "positive " + part, other);
        }
    }

    @Test
    public void randomTablesAgreeWithTheOracle() {
        Rows.each(2, -7, 10_000, rows -> agree(rows, false));
    }

    @Test
    public void eachClassHasItsOwnCopyOfEachPart() {
        Rows.each(3, -7, 2_000, rows -> agree(rows, true));
    }

    @DataProvider
    Object[][] faults() {
        return new Object[][] {{"remaining", 2, "met + remaining = target, where the figure is from zero up to its target: Mill Race"},
            {"above", 0, "met + above = value, where the figure is at least its target: North Sluice"},
            {"met", 3, "met = value and remaining = target, where the figure is below zero: Alder Gate"},
            {"unjudged", 5, "unjudged = value, where the target is missing: Low Lock"}};
    }

    @Test(dataProvider = "faults")
    public void faultIsNamed(String column, int row, String failure) {
        assertThat(Rows.failures(chart())).isEmpty();
        assertThat(Rows.failures(Rows.moved(chart(), column, row, 71))).contains(failure);
    }

    @Test
    public void whatAReaderShouldKnowIsNoted() {
        assertThat(Rows.notes(chart())).containsExactly("no target, so unjudged: Low Lock (5)", "equal to the target: Heron Weir (400), Fern Pool (0)",
                "a figure below zero, drawn left of it: Alder Gate (-20)", "a target of zero, so no attainment: Fern Pool");
    }

    @Test
    public void attainmentIsAbsentWhereTheTargetIsZero() {
        assertThat(chart().data().column("attainment").isPresent(4)).isFalse();
        assertThat(chart().data().column("share remaining").number(2)).isEqualTo(230.0 / 380);
    }

    @Test
    public void labelOfWhatRemainsSaysHowMuchWhereTheFigureIsBelowZero() {
        assertThat(chart().labelText("remaining", chart().labels().get("remaining").get(0), 3)).isEqualTo("120");
        assertThat(chart().labelText("remaining", chart().labels().get("remaining").get(0), 2)).isEmpty();
        assertThat(chart().labelText("above", chart().labels().get("above").get(0), 0)).isEqualTo("520");
    }

    @Test
    public void targetBelowZeroIsRefused() {
        Table wrong = Table.of("stations", Column.texts("station", "Weir"), Column.numbers("value", 1), Column.numbers("target", -1));
        assertThatThrownBy(() -> Chart.of("station", ToTarget.of(column("value"), column("target"))).over(wrong, Settings.NONE)).isInstanceOf(BadInput.class)
                .hasMessage("table 'stations', row 1: 'Weir': target is -1; a target is not below zero; the pattern 'variance' shows a figure against one that may be");
    }
}
