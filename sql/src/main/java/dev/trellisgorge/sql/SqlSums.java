package dev.trellisgorge.sql;

import dev.trellisgorge.table.Kind;

/**
 * Sums and means of doubles that are the evaluator's to the last digit, and the same whichever thread adds up which rows: of each figure the multiples of 2^-16 are added up as whole
 * numbers, which is exact, and what is left is so small that its own rounding doesn't reach the sum's last digit. Figures from 2^47 on are added up as they are. By the standard alone a sum
 * is the database's own.
 */
final class SqlSums {
    private static final double FINE = 0x1p16;
    private static final double FINER = 0x1p40;
    private static final double LARGE = 0x1p47;
    private static final String WHOLE_DOUBLES = "9007199254740992";
    /** What is cut off from whole numbers that no double keeps, so that both parts are kept. */
    private static final String LOW_PART = "1073741824";


    private final Dialect dialect;

    SqlSums(Dialect dialect) {
        this.dialect = dialect;
    }

    /**
     * Of the cells that are there; NULL where none is.
     *
     * @param cells a column, or else it is computed many times
     * @param over  what stands behind each aggregate: a window, or nothing
     */
    String sum(String cells, String over) {
        if (dialect.sums() == Dialect.Sums.OWN) {
            return "SUM(" + cells + ")" + over;
        }
        String fine = (compensates() ? cells : "CASE WHEN ABS(" + cells + ") < " + dialect.number(LARGE) + " THEN " + cells + " END") + " * " + dialect.number(FINE);
        String whole = (compensates() ? "TRY_CAST(" : "CAST(") + fine + " AS BIGINT)";
        String wholes = "SUM(" + dialect.widened(whole) + ")" + over;
        String left = "COALESCE(" + left(fine + " - " + number(whole), over) + ", " + dialect.number(0) + ")";
        String low = "MOD(" + wholes + ", " + LOW_PART + ")";
        String exact = "CASE WHEN ABS(" + wholes + ") < " + WHOLE_DOUBLES + " THEN " + number(wholes) + " + " + left + " ELSE " + number(wholes + " - " + low) + " + (" + number(low) + " + " + left + ") END";
        String large = number("SUM(" + number("CASE WHEN " + whole + " IS NULL THEN " + cells + " END") + ")" + over);
        return "CASE WHEN COUNT(" + cells + ")" + over + " > 0 THEN COALESCE((" + exact + ") / " + dialect.number(FINE) + ", " + dialect.number(0) + ") + COALESCE(" + large + ", " + dialect.number(0) + ") END";
    }

    /** The sum of figures that are below 1. */
    private String left(String cells, String over) {
        if (compensates()) {
            return plain(cells, over);
        }
        String finer = "(" + cells + ") * " + dialect.number(FINER);
        String whole = "CAST(" + finer + " AS BIGINT)";
        return "(" + number("SUM(" + dialect.widened(whole) + ")" + over) + " + " + number(plain(finer + " - " + number(whole), over)) + ") / " + dialect.number(FINER);
    }

    private String plain(String cells, String over) {
        return compensates() ? "FSUM(" + cells + ")" + over : "SUM(" + number(cells) + ")" + over; // some databases forget that what is always missing is a number
    }

    private boolean compensates() {
        return dialect.sums() == Dialect.Sums.COMPENSATED;
    }

    private String number(String figure) {
        return dialect.cast(figure, Kind.NUMBER);
    }

    /** Likewise. */
    String mean(String cells) {
        return "(" + sum(cells, "") + " / " + number("COUNT(" + cells + ")") + ")";
    }

    /** Of decimal numbers, as the database keeps them: exact, and a double at the end. */
    String exactSum(String cells, String over) {
        return dialect.nearest("SUM(" + cells + ")" + over);
    }

    /** Likewise. */
    String exactMean(String cells) {
        return "(" + exactSum(cells, "") + " / " + number("COUNT(" + cells + ")") + ")";
    }
}
