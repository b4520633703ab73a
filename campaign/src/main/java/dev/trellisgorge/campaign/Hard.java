package dev.trellisgorge.campaign;

import java.util.Arrays;
import java.util.List;

/** Pieces that readers and writers stumble over. */
final class Hard {
    private static final List<String> TEXTS = List.of("", " ", "a", "North Sluice", "Heron Weir", "Weir", "=1+1", "@SUM(A1)", "+1", "-1", "\u0000", "\u0001", "\u001b[31mred", "\r", "\n", "\t",
            "\ud800", "\udc00x", "\ufffe", "\uffff", "\ufeffx", "\u200d", "\u200f\u202eabc", "\u0645\u0631\u062d\u0628\u0627", "\u6f22\u5b57", "\ud83d\ude00", "e\u0301", "\u2028", "\u0085",
            "<b>&amp;</b>", "]]>", "<!--", "\"", "'", "''", "\\", "{x}", "${x}", "%s", "#", "!x", "&a", "*a", "- x", "a: b", "[x", "NaN", "Infinity", "null", "true", "~", "0x10", "1d", "1e999",
            "1_000", "12:30", "2031-03-01", "2031-02-30", "0000-01-01", "12026-01-01", "-0044-03-15", "2031-W53", "2031-Q5", "31.03.2031", "1.234,25", "1,234.25", "1,000", "12 %", "(5)", "\u2212" + "5",
            "Total", "Sum", "other", "rest", "value", "category", "row", "level", "spacer", "x".repeat(300), "word ".repeat(200), "\u0301".repeat(50), "../x", "/etc/passwd", "CON", ".", "..");
    private static final List<String> NUMBERS = List.of("0", "-0", "1", "-1", "2", "3", "0.1", "0.2", "0.3", "0.30000000000000004", "10", "100", "400", "-5", "1e300", "-1e300", "1e308", "-1.7976931348623157e308",
            "1e-300", "4.9e-324", "1e-306", "8e307", "9007199254740993", "1e16", "123456789012345678901234567890", "0.285", "1.005", "", "1e15", "-0.5", "99.5", "0.001", "1e-7", "12345.678", "3.0000000001");
    private static final List<String> EXPRESSIONS = List.of("v", "w", "v + w", "v / w", "v / 0", "-v", "ABS(v)", "v * 1e300", "ROUND(v, 2)", "ROUND(v / 3, 15)", "COALESCE(v, 0)", "NULLIF(v, 0)", "CASE WHEN v > 0 THEN v END",
            "CASE WHEN n = 'Weir' THEN 1 ELSE 0 END", "LEAST(v, w)", "GREATEST(v, w, 0)", "EXTRACT(YEAR FROM d)", "FLOOR(v)", ":goal", "v - :goal", "v IN (1, 2, 3)", "n", "d", "n || 'x'", "v BETWEEN 0 AND 5",
            "v IS NULL", "NOT v > 0", "v > 0 AND w < 0 OR n = ''", "DATE '2031-03-01'", "((((v))))", "v v", "SUM(v)", "v +", "'", "\"v\"", "`v`", "v; DROP TABLE x", "1/0", "nothing", "v = n", "(SELECT 1)");

    private Hard() {
    }

    static String text(Choices choices) {
        if (choices.oneIn(8)) {
            return text(choices) + text(choices);
        }
        return choices.oneIn(3) ? "r" + choices.below(30) : choices.of(TEXTS);
    }

    static String number(Choices choices) {
        return choices.oneIn(2) ? String.valueOf(choices.below(2_000) - 500) : choices.oneIn(2) ? String.valueOf((choices.below(200_000) - 50_000) / 100.0) : choices.of(NUMBERS);
    }

    static String cell(Choices choices) {
        return choices.oneIn(12) ? text(choices) : choices.oneIn(10) ? "" : number(choices);
    }

    /** An expression over the columns n, d, v and w, or what looks like one. */
    static String expression(Choices choices) {
        if (choices.oneIn(3)) {
            String one = expression(choices);
            String other = expression(choices);
            return Choices.of(choices, "(" + one + ") + (" + other + ")", "COALESCE(" + one + ", " + other + ")", "ROUND(" + one + ", " + (choices.below(30) - 5) + ")", "NULLIF(" + one + ", " + other + ")",
                    "CASE WHEN " + one + " > 0 THEN " + other + " ELSE " + one + " END", "GREATEST(" + one + ", " + other + ")", "(" + one + ") IN (" + other + ")", one + " / " + other, "-(" + one + ")",
                    "v IN (" + "1, ".repeat(choices.below(300)) + "2)", "ABS(".repeat(choices.below(60)) + one + ")".repeat(choices.below(60)), "(" + one + ") || (" + other + ")");
        }
        return choices.of(EXPRESSIONS);
    }

    /** A line with expressions in braces, or what looks like one. */
    static String words(Choices choices) {
        if (choices.oneIn(3)) {
            return text(choices);
        }
        String inside = choices.oneIn(3) ? expression(choices) : Choices.of(choices, "SUM(v)", "AVG(v)", "MAX(d)", "COUNT(n)", "MIN(w) - MAX(v)", ":goal", "n", "FIRST_VALUE(n) OVER (ORDER BY v DESC)",
                "FIRST_VALUE(v) OVER (ORDER BY n)", "SUM(SUM(v))", "SUM(v) / COUNT(v)", "");
        String words = text(choices) + " {" + inside + (choices.oneIn(3) ? " | " + format(choices) : "") + "} " + (choices.oneIn(4) ? words(choices) : "{{x}}");
        return choices.oneIn(8) ? damaged(words, choices) : words;
    }

    /** A pattern for figures or dates, or what looks like one. */
    static String format(Choices choices) {
        return choices.oneIn(6) ? text(choices) : Choices.of(choices, "#,##0", "0.0%", "+0;-0", "MMM yyyy", "EEEE d. MMMM", "QQQ yyyy", "'#'0", "0.###E0", "#,##0.00 \u00a4", "\u2030", "0.".concat("0".repeat(choices.below(400))), "YYYY-'W'ww", "zzz", "HH:mm", ";", "#,##,##0");
    }

    /** The text with a few characters changed, taken out, put in or said twice. */
    static String damaged(String text, Choices choices) {
        StringBuilder damaged = new StringBuilder(text);
        for (int i = choices.below(4); i >= 0 && damaged.length() > 0; i--) {
            int at = choices.below(damaged.length());
            switch (choices.below(5)) {
                case 0 -> damaged.deleteCharAt(at);
                case 1 -> damaged.insert(at, text(choices));
                case 2 -> damaged.setCharAt(at, (char) choices.below(0x250));
                case 3 -> damaged.insert(at, damaged.substring(at, Math.min(damaged.length(), at + choices.below(60))));
                default -> damaged.delete(at, Math.min(damaged.length(), at + choices.below(40)));
            }
        }
        return damaged.toString();
    }

    static byte[] damaged(byte[] bytes, Choices choices) {
        byte[] damaged = bytes.clone();
        for (int i = choices.below(6); i >= 0 && damaged.length > 0; i--) {
            damaged[choices.below(damaged.length)] = (byte) choices.below(256);
        }
        return choices.oneIn(6) ? Arrays.copyOf(damaged, choices.below(damaged.length + 1)) : damaged;
    }
}
