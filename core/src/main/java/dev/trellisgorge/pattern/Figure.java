package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.count;
import static dev.trellisgorge.formula.Formulas.largest;
import static dev.trellisgorge.formula.Formulas.smallest;
import static dev.trellisgorge.formula.Formulas.sum;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Tile;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * One big figure on a board: of one row, or a total of several.
 *
 * @param name   what its series are called by
 * @param value  the figure on a row
 * @param total  what is made of several rows; where there is none, there is one row
 * @param title  over it, or empty
 * @param text   under it, or empty
 * @param format how it is written; the plainest that shows it where it is empty
 * @param slice  which rows count: those whose cell in each column is written like this
 */
public record Figure(String name, Formula value, Optional<Total> total, String title, String text, Optional<Format> format,
        Map<String, String> slice) {
    private static final String FIGURE = "figure";

    /** What is made of the figures of several rows; missing ones count for nothing. */
    public enum Total {
        SUM, MEAN, COUNT, LEAST, GREATEST;

        private Formula of(Formula value) {
            return switch (this) {
                case SUM -> sum(value);
                case MEAN -> sum(value).over(count(value));
                case COUNT -> count(value);
                case LEAST -> smallest(value);
                case GREATEST -> largest(value);
            };
        }

        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Figure {
        slice = Collections.unmodifiableMap(new LinkedHashMap<>(slice));
    }

    /** The figure in a column of a table with one row. */
    public static Figure of(String column) {
        return new Figure(column, column(column), Optional.empty(), "", "", Optional.empty(), Map.of());
    }

    /** The same, of several rows. */
    public Figure total(Total of) {
        return new Figure(name, value, Optional.of(of), title, text, format, slice);
    }

    public Figure title(String line) {
        return new Figure(name, value, total, line, text, format, slice);
    }

    public Figure text(String line) {
        return new Figure(name, value, total, title, line, format, slice);
    }

    public Figure format(String pattern) {
        return new Figure(name, value, total, title, text, Optional.of(new Format(pattern)), slice);
    }

    /** Keeps the rows whose cell in {@code column} is {@code value}. */
    public Figure slice(String column, String value) {
        Map<String, String> more = new LinkedHashMap<>(slice);
        more.put(column, value);
        return new Figure(name, this.value, total, title, text, format, more);
    }

    /**
     * Computes the figure. It is missing where every row's is.
     *
     * @throws BadInput where a column or setting is unknown, a figure is text or infinite, no row is left, or several are and
     *                  nothing says what is made of them
     */
    public Tile.OfFigure over(Table table, Settings settings) {
        Table rows = table;
        for (Map.Entry<String, String> cut : slice.entrySet()) {
            rows = rows.slice(cut.getKey(), cut.getValue());
        }
        Problems problems = new Problems();
        new InputCheck(rows, settings, problems).figures(Map.of(FIGURE, value));
        problems.throwIfAny();
        if (total.isEmpty() && rows.rowCount() > 1) {
            throw new BadInput(rows.place(), "a figure is taken from one row, and there are " + rows.rowCount()
                    + "; keep one with 'slice', or say what is made of them with 'total' (sum, mean, count, least, greatest)");
        }
        HelperTable data = HelperTable.over(rows, settings, Optional.empty()).with(FIGURE, total.map(of -> of.of(value)).orElse(value));
        Format written = format.orElseGet(() -> Format.fitting(List.of(data.column(FIGURE).cells())));
        return new Tile.OfFigure(name, title, text, data, new Label(FIGURE, written, Label.At.END));
    }
}
