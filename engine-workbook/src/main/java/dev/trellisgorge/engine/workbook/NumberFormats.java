package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
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

    /** A formula that rounds a cell as the format does, so that nothing is written as less than zero that rounds to it. */
    static String rounded(String cell, Format format) {
        DecimalFormat parts = parts(format);
        return isExponential(format) ? cell : "ROUND(" + cell + "," + (parts.getMaximumFractionDigits() + scale(parts)) + ")";
    }

    /** A formula that writes a cell as a text; the signs for decimals and groups are those of the reader's locale. */
    static String text(String cell, Format format) {
        DecimalFormat parts = parts(format);
        if (isExponential(format)) {
            return "(\"\"&" + cell + ")";
        }
        String rounded = rounded(cell, format);
        String scaled = "ABS(" + rounded + ")" + (parts.getMultiplier() == 1 ? "" : "*" + parts.getMultiplier());
        String figure = "FIXED(" + scaled + "," + decimals(scaled, parts) + "," + (parts.isGroupingUsed() ? "FALSE" : "TRUE") + ")";
        return "IF(" + rounded + "<0," + quoted(parts.getNegativePrefix()) + "&" + figure + "&" + quoted(parts.getNegativeSuffix()) + ","
                + quoted(parts.getPositivePrefix()) + "&" + figure + "&" + quoted(parts.getPositiveSuffix()) + ")";
    }

    /** Whether decimals are left out where they are zero, which no number format of a sheet does. */
    static boolean hasOptionalDecimals(Format format) {
        return !isExponential(format) && parts(format).getMaximumFractionDigits() > parts(format).getMinimumFractionDigits();
    }

    private static DecimalFormat parts(Format format) {
        return new DecimalFormat(format.pattern(), DecimalFormatSymbols.getInstance(Locale.ROOT));
    }

    /** How many decimals a figure is written with: the fewest that show it, of those that the format allows. */
    private static String decimals(String scaled, DecimalFormat parts) {
        String decimals = String.valueOf(parts.getMaximumFractionDigits());
        for (int fewer = parts.getMaximumFractionDigits() - 1; fewer >= parts.getMinimumFractionDigits(); fewer--) {
            decimals = "IF(ROUND(" + scaled + "," + parts.getMaximumFractionDigits() + ")=ROUND(" + scaled + "," + fewer + ")," + fewer + "," + decimals + ")";
        }
        return decimals;
    }

    private static boolean isExponential(Format format) {
        return EXPONENT.matcher(format.pattern().replaceAll("'[^']*'", "")).find();
    }

    private static int scale(DecimalFormat parts) {
        return (int) Math.round(Math.log10(parts.getMultiplier()));
    }

    private static String quoted(String literal) {
        return "\"" + literal.replace("\"", "\"\"") + "\"";
    }

    private static void flush(StringBuilder literal, StringBuilder sheet) {
        if (!literal.isEmpty()) {
            sheet.append('"').append(literal.toString().replace("\"", "\"\"")).append('"');
            literal.setLength(0);
        }
    }
}
