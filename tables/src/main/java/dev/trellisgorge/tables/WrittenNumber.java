package dev.trellisgorge.tables;

import dev.trellisgorge.table.Numbers;
import java.math.BigDecimal;
import java.util.Currency;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Reads a number as people write it: grouped in threes, with the sign or the ISO 4217 code of a currency, a per cent sign (then
 * it is the share), in brackets or with a minus before or after it where it is below zero, with blanks of any width.
 *
 * @param decimal the decimal sign, {@code .} or {@code ,}
 */
record WrittenNumber(char decimal) {
    private static final Pattern BLANKS = Pattern.compile("[\\s\\u00A0\\u2007\\u2009\\u202F']+");
    private static final Pattern MONEY = Pattern.compile("^(\\p{Sc}|[A-Z]{3})|(\\p{Sc}|[A-Z]{3})$");
    private static final Pattern GROUPED_BY_COMMA = Pattern.compile("\\d{1,3}(,\\d{3})+(\\.\\d*)?");
    private static final Pattern GROUPED_BY_POINT = Pattern.compile("\\d{1,3}(\\.\\d{3})+(,\\d*)?");
    private static final int PER_CENT_PLACES = 2;
    /** The largest double has 309 digits. */
    private static final int LONGEST = 400;

    /** Read when the first code is met, as few files have one. */
    private static final class Codes {
        private static final Set<String> KNOWN = Currency.getAvailableCurrencies().stream().map(Currency::getCurrencyCode).collect(Collectors.toSet());
    }

    /**
     * What a cell says.
     *
     * @param value the number; of so many per cent, the share
     * @param money the currency as it is written there, or empty
     * @param share whether it is written as per cent
     */
    record Figure(double value, String money, boolean share) {
    }

    /** Empty where it is no number so written. */
    Optional<Figure> read(String cell) {
        if (cell.length() > LONGEST) {
            return Optional.empty();
        }
        String text = BLANKS.matcher(cell.strip()).replaceAll("").replace('\u2212', '-');
        boolean negative = false;
        if (text.startsWith("(") && text.endsWith(")")) {
            negative = true;
            text = text.substring(1, text.length() - 1);
        } else if (text.endsWith("-") && text.length() > 1) {
            negative = true;
            text = text.substring(0, text.length() - 1);
        }
        boolean share = text.endsWith("%");
        text = share ? text.substring(0, text.length() - 1) : text;
        boolean minus = text.startsWith("-");
        text = minus || text.startsWith("+") ? text.substring(1) : text;
        Matcher sign = MONEY.matcher(text);
        String money = sign.find() && isCurrency(sign.group()) ? sign.group() : "";
        if (!money.isEmpty()) {
            text = text.substring(0, sign.start()) + text.substring(sign.end());
            boolean between = !minus && text.startsWith("-"); // the currency and the figure
            minus |= between;
            text = between ? text.substring(1) : text;
        }
        if (negative && minus || text.isEmpty() || text.startsWith("+") || text.startsWith("-") || share && !money.isEmpty()) {
            return Optional.empty();
        }
        String plain = plain(text);
        OptionalDouble size = Numbers.parse(plain);
        if (size.isEmpty()) {
            return Optional.empty();
        }
        // 1.8 / 100 is not the double nearest to 0.018
        double figure = share ? new BigDecimal(plain).movePointLeft(PER_CENT_PLACES).doubleValue() : size.getAsDouble();
        return Optional.of(new Figure((negative || minus ? -figure : figure) + 0.0, money, share));
    }

    private static boolean isCurrency(String sign) {
        return sign.length() == 1 || Codes.KNOWN.contains(sign);
    }

    /** Without what groups, and with a point; no number where it is grouped in another way. */
    private String plain(String text) {
        if (decimal == '.') {
            return text.indexOf(',') < 0 ? text : GROUPED_BY_COMMA.matcher(text).matches() ? text.replace(",", "") : "";
        }
        return text.indexOf('.') < 0 ? text.replace(',', '.') : GROUPED_BY_POINT.matcher(text).matches() ? text.replace(".", "").replace(',', '.') : "";
    }
}
