package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.sheet.Placed;
import dev.trellisgorge.sheet.Sheet;
import dev.trellisgorge.sheet.SheetChart;
import dev.trellisgorge.sheet.TextLine;
import java.util.List;
import java.util.Optional;

/** A sheet whose cells are all equally large, with charts and boxes over them. */
record SheetCanvas(Sheet sheet) implements Canvas {

    @Override
    public void chart(Area area, String name, String description, SheetChart chart) {
        sheet.place(new Placed.OfChart(area.anchor(), name, description, chart));
    }

    @Override
    public void box(Area area, String description, Optional<String> cell, boolean atTop, List<TextLine> lines) {
        sheet.place(new Placed.OfWords(area.anchor(), "Words " + (sheet.placed().size() + 1), description, cell, atTop, lines));
    }
}
