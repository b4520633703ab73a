package dev.trellisgorge.chart;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class FormatTest {

    @DataProvider
    Object[][] written() {
        return new Object[][] {{"#,##0", 1234.5, "1,235"}, {"#,##0", -0.0, "0"}, {"#,##0;(#,##0)", -70, "(70)"}, {"0.0%", 0.256, "25.6%"},
            {"#,##0 'MWh'", 12, "12 MWh"}, {"0.00", 2.675, "2.68"}, {"0", Double.NaN, ""}, {"0", 0.5, "1"}, {"0", -0.2, "0"}};
    }

    @Test(dataProvider = "written")
    public void figuresAreWrittenByThePattern(String pattern, double figure, String expected) {
        assertThat(new Format(pattern).write(figure)).isEqualTo(expected);
    }

    @DataProvider
    Object[][] fitting() {
        return new Object[][] {{new double[] {1, 200, Double.NaN}, "#,##0"}, {new double[] {1.5, 2}, "#,##0.0"},
            {new double[] {0.1 + 0.2}, "#,##0.0"}, {new double[] {1.0 / 3}, "#,##0.00"}, {new double[] {0.0012}, "0.##E0"}, {new double[] {}, "#,##0"}};
    }

    @Test(dataProvider = "fitting")
    public void fittingFormatIsThePlainestThatShowsTheFigures(double[] figures, String pattern) {
        Table table = Table.of("t", Column.numbers("v", figures), Column.texts("c", new String[figures.length]));
        Column decimals = new Evaluator(table, Settings.NONE).evaluate("decimals", Format.decimals(List.of(Formulas.column("v"))));
        assertThat(figures.length == 0 ? Format.of(0).pattern() : Format.of((int) decimals.number(0)).pattern()).isEqualTo(pattern);
    }

    @Test
    public void malformedPatternIsRefused() {
        assertThatThrownBy(() -> new Format("#.#.#")).isInstanceOf(IllegalArgumentException.class);
    }
}
