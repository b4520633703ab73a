package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.SheetTexts;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Rewrites a CLDR number pattern as a SpreadsheetML number format. */
final class NumberFormats {
    private static final Pattern OPTIONAL_DECIMALS = Pattern.compile("\\.(0*)#+");
    private static final Pattern EXPONENT = Pattern.compile("E(0+)");
    private static final String OWN_SIGNS = "#0,.;%()-+ ";

    private NumberFormats() {
    }

    /**
     * Literal text is put in double quotes. Sheets can't drop the decimal point of optional decimals, so those are always
     * written.
     */
    static String of(Format format) {
        String pattern = OPTIONAL_DECIMALS.matcher(format.pattern()).replaceAll(m -> "." + "0".repeat(m.group().length() - 1));
        Matcher exponent = EXPONENT.matcher(pattern);
        String mantissa = exponent.find() ? exponent.replaceFirst("\u0000$1") : pattern;
        StringBuilder sheet = new StringBuilder();
        StringBuilder literal = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < mantissa.length(); i++) {
            char c = mantissa.charAt(i);
            boolean doubled = c == '\'' && i + 1 < mantissa.length() && mantissa.charAt(i + 1) == '\'';
            if (c == '\'' && !doubled) {
                quoted = !quoted;
            } else if (c == '\'' || quoted || OWN_SIGNS.indexOf(c) < 0 && c != '\u0000') {
                literal.append(c);
                i += doubled ? 1 : 0;
            } else {
                flush(literal, sheet);
                sheet.append(c == '\u0000' ? "E+" : String.valueOf(c));
            }
        }
        flush(literal, sheet);
        return sheet.toString();
    }

    /** The format of a length that writes its opposite: −5 as {@code 5} and 5 as {@code -5}. */
    static String opposite(Format format) {
        DecimalFormat parts = parts(format);
        String whole = of(format);
        int signs = whole.indexOf(';');
        return signs >= 0 ? whole.substring(signs + 1) + ";" + whole.substring(0, signs) : parts.getNegativePrefix().equals("-" + parts.getPositivePrefix()) ? "-" + whole + ";" + whole + ";" + whole : whole;
    }

    /** A formula that rounds a cell as the format does, so that nothing is written as less than zero that rounds to it. */
    static String rounded(String cell, Format format) {
        return SheetTexts.rounded(cell, format.pattern());
    }

    /** What that formula gives for a figure. */
    static double rounded(double figure, Format format) {
        if (SheetTexts.isExponential(format.pattern())) {
            return figure;
        }
        int digits = parts(format).getMaximumFractionDigits() + (int) Math.round(Math.log10(parts(format).getMultiplier()));
        return BigDecimal.valueOf(figure).setScale(digits, RoundingMode.HALF_UP).doubleValue();
    }

    /** A formula that writes a cell as a text; the signs for decimals and groups are those of the reader's locale. */
    static String text(String cell, Format format) {
        return SheetTexts.number(cell, format.pattern(), Locale.ROOT);
    }

    /** Whether decimals are left out where they are zero, which no number format of a sheet does. */
    static boolean hasOptionalDecimals(Format format) {
        return !SheetTexts.isExponential(format.pattern()) && parts(format).getMaximumFractionDigits() > parts(format).getMinimumFractionDigits();
    }

    private static DecimalFormat parts(Format format) {
        return new DecimalFormat(format.pattern(), DecimalFormatSymbols.getInstance(Locale.ROOT));
    }

    private static void flush(StringBuilder literal, StringBuilder sheet) {
        if (!literal.isEmpty()) {
            sheet.append('"').append(literal.toString().replace("\"", "\"\"")).append('"');
            literal.setLength(0);
        }
    }
}
