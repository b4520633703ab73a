package dev.trellisgorge.table;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.OptionalDouble;
import java.util.regex.Pattern;

/** How doubles are written where a machine reads them back: files, formulas, error messages. Thread-safe. */
public final class Numbers {
    private static final Pattern DECIMAL = Pattern.compile("[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]{1,9})?");
    private static final int LONG_FOR_READERS = 10;
    private static final int DIGITS_FOR_READERS = 6;
    private static final double EXACT_INTEGERS = 1L << 53;
    /** The bits of a double that are 0 for powers of two. */
    private static final long MANTISSA = (1L << 52) - 1;

    private Numbers() {
    }

    /**
     * The shortest decimal that reads back to the same double, with {@code .} and no grouping; an
     * exponent only below 1e-7 and from 1e21 on. Not-a-number gives empty text.
     */
    public static String shortest(double value) {
        if (Double.isNaN(value)) {
            return "";
        }
        if (Double.isInfinite(value)) {
            return value > 0 ? "Infinity" : "-Infinity";
        }
        if (value == Math.rint(value) && Math.abs(value) < EXACT_INTEGERS) {
            return Long.toString((long) value);
        }
        BigDecimal digits = shortestDigits(value);
        double magnitude = Math.abs(value);
        if (magnitude >= 1e-7 && magnitude < 1e21) {
            return digits.toPlainString();
        }
        int exponent = digits.precision() - digits.scale() - 1;
        return digits.movePointLeft(exponent).stripTrailingZeros().toPlainString() + "e" + exponent;
    }

    /** The same for a reader: six digits that count, where the shortest form has more than ten characters. */
    public static String brief(double value) {
        String shortest = shortest(value);
        return shortest.length() <= LONG_FOR_READERS || !Double.isFinite(value) ? shortest
                : shortest(new BigDecimal(value).round(new MathContext(DIGITS_FOR_READERS, RoundingMode.HALF_UP)).doubleValue());
    }

    /**
     * Reads a decimal number: sign, digits with {@code .}, exponent, blanks around it; nothing else. One too
     * large for a double is infinite. Empty where the text is no number.
     */
    public static OptionalDouble parse(String text) {
        String trimmed = text.strip();
        if (trimmed.isEmpty() || trimmed.charAt(0) > '9') {
            return OptionalDouble.empty();
        }
        return isDigits(trimmed) || DECIMAL.matcher(trimmed).matches() ? OptionalDouble.of(Double.parseDouble(trimmed) + 0.0) : OptionalDouble.empty();
    }

    /** Whether a text is digits with a point at most, as most figures are; told without the expression, which takes longer. */
    private static boolean isDigits(String text) {
        int points = 0;
        for (int i = text.charAt(0) == '-' ? 1 : 0; i < text.length(); i++) {
            char character = text.charAt(i);
            points += character == '.' ? 1 : 0;
            if (character != '.' && (character < '0' || character > '9')) {
                return false;
            }
        }
        return points <= 1 && text.charAt(text.length() - 1) >= '0';
    }

    /** The decimal number of the shortest form, with its digits alone; of a finite figure. */
    public static BigDecimal decimal(double value) {
        return value == Math.rint(value) && Math.abs(value) < EXACT_INTEGERS ? BigDecimal.valueOf((long) value) : shortestDigits(value);
    }

    /** Drops digits for as long as the rest still reads back; older runtimes print one too many. */
    private static BigDecimal shortestDigits(double value) {
        BigDecimal best = new BigDecimal(Double.toString(value)).stripTrailingZeros();
        BigDecimal exact = new BigDecimal(value);
        while (best.precision() > 1) {
            BigDecimal shorter = shorter(exact, value, best.precision() - 1);
            if (shorter.doubleValue() != value) {
                return best;
            }
            best = shorter.stripTrailingZeros();
        }
        return best;
    }

    /** The nearest of so many digits; where the doubles below are closer together than those above, it may be one further up that reads back. */
    private static BigDecimal shorter(BigDecimal exact, double value, int digits) {
        BigDecimal nearest = exact.round(new MathContext(digits, RoundingMode.HALF_EVEN));
        boolean isPower = (Double.doubleToLongBits(value) & MANTISSA) == 0;
        return isPower && nearest.doubleValue() != value ? exact.round(new MathContext(digits, RoundingMode.UP)) : nearest;
    }
}
