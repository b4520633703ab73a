package dev.trellisgorge.chart;

import dev.trellisgorge.table.Column;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.List;
import java.util.Locale;

/**
 * How a figure is written for a reader: a CLDR number pattern, as {@link DecimalFormat} takes it, with
 * {@code .} and {@code ,}; halves are rounded away from zero. A missing figure is empty text.
 */
public record Format(String pattern) {
    private static final int MOST_DECIMALS = 2;
    private static final double SMALL = 0.01;

    /** @throws IllegalArgumentException where the pattern is malformed */
    public Format {
        try {
            formatter(pattern);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("'" + pattern + "' is no number pattern; write one such as #,##0.0", e);
        }
    }

    /**
     * The plainest pattern that shows the figures: whole numbers as such, others with as many decimals as
     * they need, two at most; where all are below a hundredth, three digits that count.
     */
    public static Format fitting(List<Column> figures) {
        int decimals = 0;
        double largest = 0;
        for (Column column : figures) {
            for (int row = 0; row < column.size(); row++) {
                if (column.isPresent(row) && !Double.isInfinite(column.number(row))) {
                    decimals = Math.max(decimals, decimals(column.number(row)));
                    largest = Math.max(largest, Math.abs(column.number(row)));
                }
            }
        }
        if (largest > 0 && largest < SMALL) {
            return new Format("0.##E0");
        }
        return new Format(decimals == 0 ? "#,##0" : "#,##0." + "0".repeat(decimals));
    }

    private static int decimals(double value) {
        double scaled = Math.abs(value);
        for (int places = 0; places < MOST_DECIMALS; places++) {
            if (Math.abs(scaled - Math.rint(scaled)) <= Math.ulp(scaled) * 4) {
                return places;
            }
            scaled *= 10;
        }
        return MOST_DECIMALS;
    }

    /**
     * Rounds what a reader sees, the shortest decimal form of the double, so that 2.675 with two decimals is 2.68; what
     * rounds to zero is written as zero, without a sign.
     */
    public String write(double figure) {
        if (Double.isNaN(figure)) {
            return "";
        }
        DecimalFormat format = formatter(pattern);
        if (Double.isInfinite(figure)) {
            return format.format(figure);
        }
        String text = format.format(BigDecimal.valueOf(figure));
        return figure <= 0 && text.equals(format.format(-0.0)) ? format.format(0) : text;
    }

    private static DecimalFormat formatter(String pattern) {
        DecimalFormat format = new DecimalFormat(pattern, DecimalFormatSymbols.getInstance(Locale.ROOT));
        format.setRoundingMode(RoundingMode.HALF_UP);
        return format;
    }
}
