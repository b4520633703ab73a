package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Format;
import org.apache.poi.ss.usermodel.DataFormatter;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Patterns as formats of a sheet: what they write, and what they write of the opposite. */
public class NumberFormatsTest {
    @DataProvider
    public Object[][] patterns() {
        return new Object[][] {{"#,##0", 1234.5, "1,235", "-1,235"}, {"0.0", -2.25, "-2.3", "2.3"}, {"0%", 0.123, "12%", "-12%"}, {"#,##0 'MWh'", 386, "386 MWh", "-386 MWh"}, {"+#,##0;-#,##0", 5, "+5", "-5"},
            {"+#,##0;-#,##0", -5, "-5", "+5"}, {"#,##0;(#,##0)", 70, "70", "(70)"}, {"#,##0;(#,##0)", -70, "(70)", "70"},
            {"00.00", 3.5, "03.50", "-03.50"}, {"#,#00", 5, "05", "-05"}, {"'“'0'”'", 5, "“5”", "-“5”"}};
    }

    /** A piece that is as long as the opposite of its figure is labelled with the figure. */
    @Test(dataProvider = "patterns")
    public void formatOfTheOppositeWritesTheFigureOfALength(String pattern, double figure, String written, String ofOpposite) {
        DataFormatter sheet = new DataFormatter(java.util.Locale.ROOT);
        Format format = new Format(pattern);
        assertThat(sheet.formatRawCellContents(NumberFormats.rounded(figure, format), 0, FormatCodes.of(NumberFormats.of(format)))).isEqualTo(written);
        assertThat(sheet.formatRawCellContents(NumberFormats.rounded(-figure, format), 0, FormatCodes.of(NumberFormats.opposite(format)))).isEqualTo(written);
        assertThat(sheet.formatRawCellContents(NumberFormats.rounded(-figure, format), 0, FormatCodes.of(NumberFormats.of(format)))).isEqualTo(ofOpposite);
    }

    @DataProvider
    public Object[][] codes() {
        return new Object[][] {{"#,##0", "#,##0"}, {"0", "0"}, {"#", "#"}, {"0.##", "0.00"}, {"#,##0.0 'MWh'", "#,##0.0 \"MWh\""}, {"0%", "0%"}, {"0'%'", "0\"%\""}, {"'No. '0", "\"No.\" 0"}, {"#,##0;(#,##0)", "#,##0;(#,##0)"}, {"0;-0", "0"},
            {"£#,##0", "\"£\"#,##0"}, {"0.0E0", "0.0E+0"}, {"#,##,##0", "#,##0"}, {"'a\"b'0", "\"a\"\"b\"0"}};
    }

    @Test(dataProvider = "codes")
    public void patternsAreCodesOfSheets(String pattern, String code) {
        assertThat(FormatCodes.of(NumberFormats.of(new Format(pattern)))).isEqualTo(code);
    }

    @Test
    public void whatNoFormatOfASheetDoesIsText() {
        assertThat(NumberFormats.isText(new Format("0.##"))).isTrue();
        assertThat(NumberFormats.isText(new Format("0.0‰"))).isTrue();
        assertThat(NumberFormats.isText(new Format("0.0%"))).isFalse();
    }

    @Test
    public void figuresAreRoundedInDecimalsAwayFromZero() {
        assertThat(NumberFormats.rounded(0.285, new Format("0.00"))).isEqualTo(0.29);
        assertThat(NumberFormats.rounded(-0.125, new Format("0%"))).isEqualTo(-0.13);
        assertThat(NumberFormats.rounded(1234.5678, new Format("0.#E0"))).isEqualTo(1234.5678);
    }
}
