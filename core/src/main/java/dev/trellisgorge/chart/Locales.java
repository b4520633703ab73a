package dev.trellisgorge.chart;

import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.text.NumberFormat;
import java.time.chrono.IsoChronology;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.FormatStyle;
import java.util.Arrays;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Where locales put the signs for currency and per cent, and how they write dates, by the runtime's CLDR data. */
final class Locales {
    private static final String CURRENCY = "\u00A4";
    private static final String BLANKS = "[ \u00A0\u202F]*";
    /** What may stand round a figure beside the sign: blanks, plus, minus and brackets. */
    private static final String SIGNS = "[ \u00A0\u202F()+\u2212-]";
    private static final Pattern FIGURE = Pattern.compile("(?<before>(?:'[^']*'|[^#0,.;'])*)(?<figure>[#0,.]+)(?<after>(?:'[^']*'|[^#0,.;'])*)");

    private Locales() {
    }

    /** The pattern, and the one for figures below zero where it has one, with the sign for currency or per cent where the locale has it. */
    static String placed(String pattern, Locale locale) {
        if (locale.equals(Locale.ROOT) || pattern.isEmpty()) {
            return pattern;
        }
        return Arrays.stream(pattern.split(";(?=(?:[^']*'[^']*')*[^']*$)", -1)).map(half -> half(half, locale)).collect(Collectors.joining(";"));
    }

    private static String half(String pattern, Locale locale) {
        Matcher parts = FIGURE.matcher(pattern);
        String around = parts.matches() ? parts.group("before") + parts.group("after") : "";
        if (around.replaceAll(SIGNS, "").equals(CURRENCY)) {
            String symbol = "'" + DecimalFormatSymbols.getInstance(locale).getCurrencySymbol().replace("'", "''") + "'";
            return placed(parts, CURRENCY, NumberFormat.getCurrencyInstance(locale)).replace(CURRENCY, symbol);
        }
        return around.replaceAll(SIGNS, "").equals("%") ? placed(parts, "%", NumberFormat.getPercentInstance(locale)) : pattern;
    }

    /** What is around the figure, but for the sign, which stands where a format of the locale has it. */
    private static String placed(Matcher parts, String sign, NumberFormat model) {
        Matcher own = FIGURE.matcher(((DecimalFormat) model).toPattern().split(";")[0]);
        String without = BLANKS + sign + BLANKS;
        String before = parts.group("before").replaceAll(without, "");
        String after = parts.group("after").replaceAll(without, "");
        return own.matches() ? before + own.group("before") + parts.group("figure") + own.group("after") + after : parts.group();
    }

    static String dates(Locale locale) {
        return DateTimeFormatterBuilder.getLocalizedDateTimePattern(FormatStyle.MEDIUM, null, IsoChronology.INSTANCE, locale);
    }
}
