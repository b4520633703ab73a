package dev.trellisgorge.sheet;

import dev.trellisgorge.formula.NumberPattern;

/** How a cell's figure is written. Immutable. */
public sealed interface CellFormat {
    CellFormat GENERAL = new General();
    CellFormat DAY = new Day();

    /** As the program writes figures. */
    record General() implements CellFormat {
    }

    /** A date as year, month and day, with hyphens. */
    record Day() implements CellFormat {
    }

    /**
     * By a pattern; decimals that may be left out are always written.
     *
     * @param opposite whether −5 is written as 5 and 5 as −5
     */
    record Figure(NumberPattern pattern, boolean opposite) implements CellFormat {
    }
}
