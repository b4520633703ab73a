package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.NumberPattern;
import dev.trellisgorge.sheet.CellFormat;

/** Formats of cells as SpreadsheetML writes them (ECMA-376 part 1, 18.8.31): literal text stands in double quotes. */
final class FormatCodes {
    private static final String AS_THEY_ARE = "()-+ ";

    private FormatCodes() {
    }

    /** Empty for the general one. */
    static String of(CellFormat format) {
        return format.match(() -> "", () -> "yyyy-mm-dd", figure -> figure(figure.pattern(), figure.opposite()));
    }

    private static String figure(NumberPattern pattern, boolean opposite) {
        String positive = section(pattern.positive(), pattern);
        if (opposite) {
            return section(pattern.negative(), pattern) + ";" + positive + ";" + positive;
        }
        return pattern.hasOwnNegative() ? positive + ";" + section(pattern.negative(), pattern) : positive;
    }

    private static String section(NumberPattern.Around around, NumberPattern pattern) {
        return literal(around.before(), pattern) + digits(pattern) + literal(around.after(), pattern);
    }

    private static String literal(String words, NumberPattern pattern) {
        StringBuilder code = new StringBuilder();
        boolean quoted = false;
        for (char c : words.toCharArray()) {
            boolean isOwn = AS_THEY_ARE.indexOf(c) >= 0 || c == '%' && pattern.shift() == 2;
            if (quoted == isOwn) {
                code.append('"');
                quoted = !isOwn;
            }
            code.append(c == '"' ? "\"\"" : String.valueOf(c));
        }
        return code.append(quoted ? "\"" : "").toString();
    }

    private static String digits(NumberPattern pattern) {
        StringBuilder whole = new StringBuilder("0".repeat(pattern.leastWhole()));
        int most = pattern.isExponential() ? pattern.mostWhole() : pattern.groups() > 0 ? pattern.groups() + 1 : 1;
        while (whole.length() < most) {
            whole.insert(0, '#');
        }
        for (int at = whole.length() - pattern.groups(); pattern.groups() > 0 && at > 0; at -= pattern.groups()) {
            whole.insert(at, ',');
        }
        String point = pattern.mostDecimals() > 0 || pattern.alwaysPoint() ? "." : "";
        return whole + point + "0".repeat(pattern.mostDecimals()) + (pattern.isExponential() ? "E+" + "0".repeat(pattern.leastExponent()) : "");
    }
}
