package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
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
     * Literal text is put in double quotes. Sheets can't drop the decimal point of optional decimals, so those are
     * fixed at the first one.
     */
    static String of(Format format) {
        String pattern = OPTIONAL_DECIMALS.matcher(format.pattern()).replaceAll(m -> "." + (m.group(1).isEmpty() ? "0" : m.group(1)));
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

    private static void flush(StringBuilder literal, StringBuilder sheet) {
        if (!literal.isEmpty()) {
            sheet.append('"').append(literal.toString().replace("\"", "\"\"")).append('"');
            literal.setLength(0);
        }
    }
}
