package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.sheet.CellFormat;
import java.util.Locale;

/** How figures of a chart are written in the cells of a sheet, whose signs for decimals and groups are those of the reader's locale. */
final class NumberFormats {

    private NumberFormats() {
    }

    static CellFormat of(Format format) {
        return new CellFormat.Figure(pattern(format), false);
    }

    /** The format of a length that writes its opposite: −5 as {@code 5} and 5 as {@code -5}. */
    static CellFormat opposite(Format format) {
        return new CellFormat.Figure(pattern(format), true);
    }

    /** A formula that rounds a cell as the format does, so that nothing is written as less than zero that rounds to it. */
    static String rounded(String cell, Format format) {
        return SheetTexts.rounded(cell, pattern(format));
    }

    /** What that formula gives for a figure. */
    static double rounded(double figure, Format format) {
        return pattern(format).rounded(figure);
    }

    /** A formula that writes a cell as a text. */
    static String text(String cell, Format format) {
        return SheetTexts.number(cell, pattern(format));
    }

    /** Whether it leaves out decimals that are zero or multiplies by more than a hundred, which no format of a sheet does. */
    static boolean isText(Format format) {
        NumberPattern pattern = pattern(format);
        return pattern.hasOptionalDecimals() || pattern.shift() > 2;
    }

    private static NumberPattern pattern(Format format) {
        return NumberPattern.of(format.pattern(), Locale.ROOT);
    }
}
