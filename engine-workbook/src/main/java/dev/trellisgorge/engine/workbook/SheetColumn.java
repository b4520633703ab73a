package dev.trellisgorge.engine.workbook;

import java.util.Optional;
import dev.trellisgorge.sheet.Row;

/**
 * A column of a helper sheet.
 *
 * @param name    as other columns and messages call it
 * @param shown   as the legend calls it; empty where it is not drawn
 * @param live    the formula of that, where it names a setting's value
 * @param meaning in words
 * @param width   in characters
 * @param cells   what stands on each row
 */
record SheetColumn(String name, String shown, Optional<String> live, String meaning, int width, Filling cells) {

    /** Writes one cell. */
    interface Filling {
        /**
         * @param line   of the sheet
         * @param column of the sheet, from 0
         * @param row    of the chart's table, from 0
         */
        void fill(Row line, int column, int row);
    }

    SheetColumn(String name, String meaning, int width, Filling cells) {
        this(name, "", Optional.empty(), meaning, width, cells);
    }
}
