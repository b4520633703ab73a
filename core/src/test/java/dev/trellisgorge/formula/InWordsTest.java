package dev.trellisgorge.formula;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.coalesce;
import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.concat;
import static dev.trellisgorge.formula.Formulas.count;
import static dev.trellisgorge.formula.Formulas.cumulative;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.lag;
import static dev.trellisgorge.formula.Formulas.least;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.missing;
import static dev.trellisgorge.formula.Formulas.negate;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.rowNumber;
import static dev.trellisgorge.formula.Formulas.setting;
import static dev.trellisgorge.formula.Formulas.sum;
import static dev.trellisgorge.formula.Formulas.text;
import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a formula is called over the column that it makes. */
public class InWordsTest {
    private static final Formula MWH = column("mwh");

    @DataProvider
    public Object[][] formulas() {
        return new Object[][] {{MWH, "mwh"}, {number(0.5), "0.5"}, {setting("goal"), "the setting goal"}, {rowNumber(), "the number of the row"}, {MWH.minus(column("plan")), "mwh − plan"},
            {MWH.plus(number(1)).times(number(2)), "(mwh + 1) × 2"}, {negate(MWH), "the opposite of mwh"}, {least(MWH, number(3)), "the smaller of mwh and 3"},
            {greatest(MWH, number(3)), "the larger of mwh and 3"}, {max(MWH), "the greatest of mwh over all rows"}, {sum(MWH), "the sum of mwh over all rows"},
            {cumulative(MWH), "the sum of mwh so far"}, {only(MWH.below(setting("goal")), MWH), "mwh where mwh is below the setting goal"},
            {choose(MWH.atLeast(number(0)), number(1), number(0)), "1 where mwh is at least 0, else 0"}, {coalesce(MWH, number(0)), "mwh, or where it is missing 0"},
            {choose(present(MWH), text("a"), text("b")), "'a' where mwh is there, else 'b'"}, {only(missing(MWH), number(1)), "1 where mwh is missing"}};
    }

    @Test(dataProvider = "formulas")
    public void formulaIsSaidInWords(Formula formula, String words) {
        assertThat(InWords.of(formula)).isEqualTo(words);
    }

    @Test
    public void wordsOfLongerFormulasNameAllThatTheyRead() {
        Formula longer = concat(text("at "), column("station"), text(": "), only(lag(MWH).above(abs(column("loss"))), count(MWH)));
        assertThat(InWords.of(longer)).contains("station", "mwh", "loss", "at ");
    }
}
