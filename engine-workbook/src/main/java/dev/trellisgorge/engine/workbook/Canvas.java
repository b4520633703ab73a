package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLine;
import java.util.List;
import java.util.Optional;

/** What native charts and words over them are put on: a sheet, or a slide. */
interface Canvas {

    /**
     * Puts a chart on it.
     *
     * @param name        what lists of the drawn things call it
     * @param description in words, for readers who can't see it
     */
    void chart(Area area, String name, String description, SheetChart chart);

    /**
     * Puts words on it, in a box without fill or line.
     *
     * @param cell  the cell whose words it follows, where the canvas has cells; empty for words that stay
     * @param atTop whether they begin at its top, and not in its middle
     */
    void box(Area area, String description, Optional<String> cell, boolean atTop, List<TextLine> lines);
}
