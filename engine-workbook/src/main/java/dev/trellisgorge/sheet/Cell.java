package dev.trellisgorge.sheet;

import java.time.LocalDate;
import java.util.Optional;

/** A cell while it is put together: a formula with what it gives now, or a value, and its look. Used by one thread. */
public final class Cell {
    private String formula;
    private Object value;
    private CellLook look = CellLook.ORDINARY;

    /** What a cell holds that has no figure and shows it: {@code #N/A}. */
    public enum Missing {
        NOT_AVAILABLE
    }

    Cell() {
    }

    /** In the words of a workbook's formulas, without the sign that it begins with. */
    public Cell formula(String words) {
        formula = words;
        return this;
    }

    public Optional<String> formula() {
        return Optional.ofNullable(formula);
    }

    public Cell value(double figure) {
        value = figure;
        return this;
    }

    public Cell value(String words) {
        value = words;
        return this;
    }

    public Cell value(boolean truth) {
        value = truth;
        return this;
    }

    public Cell value(LocalDate date) {
        value = date;
        return this;
    }

    public Cell missing() {
        value = Missing.NOT_AVAILABLE;
        return this;
    }

    /** A {@link Double}, a {@link String}, a {@link Boolean}, a {@link LocalDate} or a {@link Missing}; empty for a blank cell. */
    public Optional<Object> value() {
        return Optional.ofNullable(value);
    }

    /** The words that it holds; empty where it holds none. */
    public String text() {
        return value instanceof String words ? words : "";
    }

    public Cell look(CellLook seen) {
        look = seen;
        return this;
    }

    public CellLook look() {
        return look;
    }
}
