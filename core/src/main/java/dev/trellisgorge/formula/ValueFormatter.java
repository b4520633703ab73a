package dev.trellisgorge.formula;

import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.function.DoubleFunction;

/** How figures are rounded and written: as a reader sees them, so by their shortest decimal form. Thread-safe. */
public final class ValueFormatter {
    private static final int MOST_DIGITS = 400;

    private ValueFormatter() {
    }

    /** Rounded to so many digits after the point, halves away from zero; 0.285 with two is 0.29. NaN stays. */
    static double rounded(double figure, int digits) {
        if (!(Math.abs(figure) < 1e300) || figure == 0) {
            return figure + 0.0;
        }
        if (digits == 0 && Math.abs(figure) < 1L << 52) {
            double whole = Math.rint(figure);
            double off = Math.abs(figure - whole);
            return (off == 0.5 ? figure < 0 ? Math.floor(figure) : Math.ceil(figure) : whole) + 0.0;
        }
        return BigDecimal.valueOf(figure).setScale(Math.min(MOST_DIGITS, digits), RoundingMode.HALF_UP).doubleValue() + 0.0;
    }

    /** A cell as text: a number in its shortest form, an ISO date, {@code true} or {@code false}; null where it is missing. */
    static String text(Kind kind, double figure) {
        if (figure != figure) {
            return null;
        }
        return switch (kind) {
            case DATE -> LocalDate.ofEpochDay((long) figure).toString();
            case TRUTH -> figure == 1 ? "true" : "false";
            default -> Numbers.shortest(figure);
        };
    }

    /**
     * A writer of dates; where nobody's language is asked for, names are English.
     *
     * @throws IllegalArgumentException where the pattern is malformed, or asks for what a date does not have
     */
    public static DateTimeFormatter dates(String pattern, Locale locale) {
        try {
            DateTimeFormatter dates = DateTimeFormatter.ofPattern(pattern, locale.equals(Locale.ROOT) ? Locale.ENGLISH : locale);
            dates.format(LocalDate.EPOCH);
            return dates;
        } catch (IllegalArgumentException | DateTimeException e) {
            throw new IllegalArgumentException("'" + pattern + "' is no date pattern; write one such as d MMM yyyy", e);
        }
    }

    /** @throws IllegalArgumentException where dates can't be written by a pattern */
    public static void checkDates(String pattern, Locale locale) {
        dates(pattern, locale);
    }

    /** Writes texts that name an ISO date or a period by the first day of it, and others as they are. Errors as {@link #by}. */
    static UnaryOperator<String> periods(String pattern, Locale locale) {
        DateTimeFormatter dates = dates(pattern, locale);
        return text -> CalendarUnit.days(text).map(days -> dates.format(days.first())).orElse(text);
    }

    /** Writes numbers or dates by a CLDR pattern; the writer is for one thread. Throws {@link IllegalArgumentException} where it is malformed. */
    public static DoubleFunction<String> by(Kind kind, String pattern, Locale locale) {
        if (kind == Kind.DATE) {
            DateTimeFormatter dates = dates(pattern, locale);
            return day -> day != day ? null : dates.format(LocalDate.ofEpochDay((long) day));
        }
        return NumberPattern.writer(pattern, locale);
    }
}
