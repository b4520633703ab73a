package dev.trellisgorge.chart;

import static dev.trellisgorge.formula.Formulas.abs;
import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.formatted;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.max;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;
import static dev.trellisgorge.formula.Formulas.round;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.ValueFormatter;
import dev.trellisgorge.table.Characters;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/**
 * How a figure is written for a reader: a CLDR number pattern, as {@link java.text.DecimalFormat} takes it, by the signs of a locale; halves are
 * rounded away from zero. A missing figure is empty text. Immutable and thread-safe.
 *
 * @param pattern with {@code .} and {@code ,} whatever the locale is
 * @param locale  whose signs stand for them; those of the root are {@code .} and {@code ,}
 */
public record Format(String pattern, Locale locale) {
    private static final int MOST_DECIMALS = 2;
    private static final double SMALL = 0.01;
    private static final double CLOSE = 1e-15;

    /** The plainest pattern that shows the chart's figures. */
    public static final Format FITTING = new Format("");
    /** The same with a sign before each. */
    public static final Format FITTING_SIGNED = new Format("+");

    /** @throws IllegalArgumentException where the pattern is malformed */
    public Format {
        Objects.requireNonNull(locale, "locale");
        pattern = Characters.shown(pattern);
        try {
            ValueFormatter.by(Kind.NUMBER, pattern, locale);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("'" + pattern + "' is no number pattern; write one such as #,##0.0", e);
        }
    }

    /** With {@code .} and {@code ,}. Errors as above. */
    public Format(String pattern) {
        this(pattern, Locale.ROOT);
    }

    /** One that is not for labels, where nothing settles what {@code +} alone stands for. Errors as above, and for that. */
    public static Format stated(String pattern) {
        if (pattern.equals(FITTING_SIGNED.pattern())) {
            throw new IllegalArgumentException("'+' alone is for labels; write the pattern out, such as +#,##0.0;-#,##0.0");
        }
        return new Format(pattern);
    }

    /** The same by the signs of a locale, with the signs for currency and per cent where it puts them. */
    public Format in(Locale other) {
        return new Format(Locales.placed(pattern, other), other);
    }

    /** How a locale writes dates, as a CLDR pattern. */
    public static String dates(Locale locale) {
        return Locales.dates(locale);
    }

    /**
     * The plainest pattern that shows figures with so many decimals.
     *
     * @param decimals 0 or more; below 0 for figures that are all below a hundredth, of which three digits count
     */
    public static Format of(int decimals) {
        return new Format(decimals < 0 ? "0.##E0" : decimals == 0 ? "#,##0" : "#,##0." + "0".repeat(decimals));
    }

    /** Whether the figures decide. */
    public boolean isFitting() {
        return pattern.isEmpty() || isSigned();
    }

    private boolean isSigned() {
        return pattern.equals("+");
    }

    /** This one where it says how figures are written; else the one for so many decimals, as {@link #of} counts them. */
    public Format fitted(int decimals) {
        String plainest = of(decimals).pattern();
        return isFitting() ? new Format(isSigned() ? "+" + plainest + ";-" + plainest : plainest).in(locale) : this;
    }

    /**
     * What decides on the plainest pattern, as a formula over all rows: whole numbers are written as such, others with as many
     * decimals as they need, two at most; -1 where all are below a hundredth.
     *
     * @param figures numbers, or nothing
     */
    public static Formula decimals(List<Formula> figures) {
        Formula most = number(0);
        Formula largest = number(0);
        for (Formula figure : figures) {
            most = greatest(most, orZero(max(only(present(figure), decimals(figure)))));
            largest = greatest(largest, orZero(max(abs(figure))));
        }
        return choose(largest.above(number(0)).and(largest.below(number(SMALL))), number(-1), most);
    }

    private static Formula decimals(Formula figure) {
        Formula needed = number(MOST_DECIMALS);
        for (int places = MOST_DECIMALS - 1; places >= 0; places--) {
            needed = choose(abs(figure.minus(round(figure, places))).atMost(abs(figure).times(number(CLOSE))), number(places), needed);
        }
        return needed;
    }

    /** What is written for a figure, as a formula: by this pattern, or by the one that {@code decimals} says. */
    public Formula words(Formula figure, Formula decimals) {
        if (!isFitting()) {
            return formatted(figure, pattern, locale);
        }
        Formula words = formatted(figure, fitted(MOST_DECIMALS).pattern(), locale);
        for (int places = MOST_DECIMALS - 1; places >= -1; places--) {
            words = choose(decimals.equalTo(number(places)), formatted(figure, fitted(places).pattern(), locale), words);
        }
        return words;
    }

    /**
     * Rounds what a reader sees, the shortest decimal form of the double, so that 2.675 with two decimals is 2.68; what
     * rounds to zero is written as zero, without a sign.
     */
    public String write(double figure) {
        return Double.isNaN(figure) ? "" : ValueFormatter.by(Kind.NUMBER, pattern, locale).apply(figure);
    }
}
