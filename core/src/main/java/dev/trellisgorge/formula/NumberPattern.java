package dev.trellisgorge.formula;

import dev.trellisgorge.table.Numbers;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.Locale;
import java.util.Objects;
import java.util.function.DoubleFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A CLDR number pattern (UTS 35, part 3), taken apart: what stands round a figure, how many digits it has, and by how much it is multiplied.
 * Immutable and thread-safe.
 *
 * @param positive       what stands round figures from 0 on, and {@code negative} round those below 0, in the signs of the locale
 * @param leastWhole     digits before the point that are written at least
 * @param mostWhole      with an exponent, digits before the point at most; without one as many as there are
 * @param leastDecimals  digits after the point that are written at least, and {@code mostDecimals} at most
 * @param groups         digits between two signs for groups; 0 for none
 * @param shift          the power of ten that figures are multiplied by: 2 for per cent, 3 for per mille
 * @param leastExponent  digits of the exponent at least; 0 for a pattern without one
 * @param alwaysPoint    whether the point stands without decimals too
 */
public record NumberPattern(Locale locale, Around positive, Around negative, int leastWhole, int mostWhole, int leastDecimals, int mostDecimals, int groups, int shift, int leastExponent, boolean alwaysPoint) {
    private static final Pattern EXPONENT = Pattern.compile("E(0+)");

    /** What stands before and after a figure. */
    public record Around(String before, String after) {
        public Around {
            Objects.requireNonNull(before, "before");
            Objects.requireNonNull(after, "after");
        }
    }

    public NumberPattern {
        Objects.requireNonNull(locale, "locale");
        Objects.requireNonNull(positive, "positive");
        Objects.requireNonNull(negative, "negative");
    }

    /**
     * Takes a pattern apart.
     *
     * @param pattern with {@code .} and {@code ,} whatever the locale is
     * @throws IllegalArgumentException where it is malformed
     */
    public static NumberPattern of(String pattern, Locale locale) {
        DecimalFormat format = format(pattern, locale);
        int most = format.getMaximumFractionDigits();
        return new NumberPattern(locale, new Around(format.getPositivePrefix(), format.getPositiveSuffix()), new Around(format.getNegativePrefix(), format.getNegativeSuffix()), format.getMinimumIntegerDigits(),
                format.getMaximumIntegerDigits(), Math.min(format.getMinimumFractionDigits(), most), most, format.isGroupingUsed() ? format.getGroupingSize() : 0, (int) Math.round(Math.log10(format.getMultiplier())),
                exponent(pattern), format.isDecimalSeparatorAlwaysShown());
    }

    /** The digits of the exponent that a pattern writes at least; 0 where it writes none, or is one of dates. */
    public static int exponent(String pattern) {
        Matcher exponent = EXPONENT.matcher(pattern.replaceAll("'[^']*'", ""));
        return exponent.find() ? exponent.group(1).length() : 0;
    }

    private static DecimalFormat format(String pattern, Locale locale) {
        DecimalFormat format = new DecimalFormat(pattern, DecimalFormatSymbols.getInstance(locale));
        format.setRoundingMode(RoundingMode.HALF_UP);
        return format;
    }

    /**
     * Writes figures by a pattern: rounded as a reader sees them, in their shortest decimal form, halves away from zero; what rounds to zero
     * has no sign. NaN gives null. The writer is for one thread.
     *
     * @throws IllegalArgumentException where the pattern is malformed
     */
    static DoubleFunction<String> writer(String pattern, Locale locale) {
        DecimalFormat format = format(pattern, locale);
        String zero = format.format(0);
        String minusZero = format.format(-0.0);
        return figure -> {
            if (figure != figure) {
                return null;
            }
            String text = Double.isInfinite(figure) ? format.format(figure) : format.format(Numbers.decimal(figure));
            return figure <= 0 && text.equals(minusZero) ? zero : text;
        };
    }

    /** The signs of its locale. */
    public DecimalFormatSymbols symbols() {
        return DecimalFormatSymbols.getInstance(locale);
    }

    public boolean isExponential() {
        return leastExponent > 0;
    }

    /** Whether decimals that are zero are left out. */
    public boolean hasOptionalDecimals() {
        return !isExponential() && mostDecimals > leastDecimals;
    }

    /** Whether figures below 0 are written in a way of their own, and not with a minus sign alone. */
    public boolean hasOwnNegative() {
        return !negative.before().equals(symbols().getMinusSign() + positive.before()) || !negative.after().equals(positive.after());
    }

    /** The digits after the point to which figures are rounded before they are multiplied. Of a pattern without an exponent. */
    public int digits() {
        return mostDecimals + shift;
    }

    /** A figure as it is rounded; as it is where the pattern has an exponent. */
    public double rounded(double figure) {
        return isExponential() ? figure : BigDecimal.valueOf(figure).setScale(digits(), RoundingMode.HALF_UP).doubleValue();
    }
}
