package dev.trellisgorge.plan;

import dev.trellisgorge.table.Column;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Puts a computed column wrong on purpose, and leaves the others as they were computed. */
public final class Moved {
    private Moved() {
    }

    public static PlainChart column(PlainChart chart, Column wrong) {
        Map<String, Column> cells = new LinkedHashMap<>();
        chart.plan().columns().forEach(column -> cells.put(column.name(), chart.data().column(column.name())));
        cells.put(wrong.name(), wrong);
        return new PlainChart(chart.plan(), new ComputedColumns(chart.plan(), chart.data().rows(), chart.data().settings(), Optional.empty(), cells), chart.notes(), chart.stepProofs());
    }
}
