package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.engine.Ability;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Page;
import java.io.IOException;
import java.io.OutputStream;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * Writes pages as a workbook ({@code .xlsx}, SpreadsheetML) that stays live: raw rows, settings as named cells, helper
 * columns as formulas with their values beside them, and native charts over the helper columns.
 */
public final class WorkbookEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("xlsx");
    }

    @Override
    public boolean holdsSeveral(String ending) {
        return true;
    }

    /** Native charts have no reference lines and no points over lying bars, and at most two groups of bars over each other. */
    @Override
    public Set<Ability> abilities() {
        return EnumSet.complementOf(EnumSet.of(Ability.PANELS, Ability.MANY_LAYERS, Ability.STACK_END_LABELS, Ability.LYING_POINTS,
                Ability.REFERENCE_LINES, Ability.REACHING_SCALE, Ability.STILL));
    }

    @Override
    public void draw(List<Page> pages, String ending, Size size, OutputStream out) throws IOException {
        new LiveWorkbook(pages, size).writeTo(out);
    }
}
