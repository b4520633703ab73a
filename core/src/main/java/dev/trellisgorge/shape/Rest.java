package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/**
 * One row for all that a {@link Rank} leaves over, as if those rows had been one category from the start. Immutable.
 *
 * @param column  the column with the categories' names
 * @param name    the row's
 * @param ways    how each other column's cell is made; missing by default
 * @param derived the formulas of the columns that are derived again
 */
public record Rest(String column, String name, Map<String, Way> ways, Map<String, Formula> derived) {

    /** How a cell is made of those of the rows that are left over. */
    public enum Way {
        SUM,
        /** The mean of all the cells below. */
        MEAN, LEAST, GREATEST,
        /** By the column's formula over the row's own cells. */
        DERIVED,
        /** Nothing can be made of them: a text, a rate that stands in the raw table. */
        MISSING
    }

    public Rest {
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(name, "name");
        ways = Collections.unmodifiableMap(new LinkedHashMap<>(ways));
        derived = Collections.unmodifiableMap(new LinkedHashMap<>(derived));
    }
}
