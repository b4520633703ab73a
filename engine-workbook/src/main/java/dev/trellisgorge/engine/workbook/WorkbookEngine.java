package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Engine;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Writes plain charts as a workbook ({@code .xlsx}, SpreadsheetML) that stays live: raw rows, settings as named cells,
 * helper columns as formulas with their values beside them, and a native chart over the helper columns.
 */
public final class WorkbookEngine implements Engine {

    @Override
    public Set<String> endings() {
        return Set.of("xlsx");
    }

    @Override
    public boolean holdsSeveral() {
        return true;
    }

    @Override
    public Optional<String> refusal(PlainChart chart) {
        return LiveWorkbook.refusal(chart);
    }

    @Override
    public void draw(List<PlainChart> charts, String ending, Size size, OutputStream out) throws IOException {
        new LiveWorkbook(charts, size).writeTo(out);
    }
}
