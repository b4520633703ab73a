package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.table.CalendarUnit;
import java.util.Objects;
import java.util.Optional;

/**
 * A figure of an earlier row. Immutable and thread-safe.
 *
 * @param of     the figure
 * @param period whether it is looked up in the calendar period before, and not on the row before
 * @param unit   the length of the period; the one that the categories go by where it is empty
 */
public record Lookback(Formula of, boolean period, Optional<CalendarUnit> unit) {
    public Lookback {
        Objects.requireNonNull(of, "of");
        Objects.requireNonNull(unit, "unit");
    }
}
