package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.table.CalendarUnit;
import java.util.Optional;

/**
 * A figure of an earlier row.
 *
 * @param of     the figure
 * @param period whether it is looked up in the calendar period before, and not on the row before
 * @param unit   the length of the period; the one that the categories go by where it is empty
 */
record Lookback(Formula of, boolean period, Optional<CalendarUnit> unit) {
}
