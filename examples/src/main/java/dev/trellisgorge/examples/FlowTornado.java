package dev.trellisgorge.examples;

import static dev.trellisgorge.formula.Formulas.column;

import dev.trellisgorge.chart.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;

/** Upstream and downstream flow back to back, the largest reaches first. Takes the flow data and the files to draw. */
public final class FlowTornado {
    private FlowTornado() {
    }

    public static void main(String[] arguments) {
        Table flow = TableFile.read("flow", Path.of(arguments[0]));
        Chart reaches = Chart.of("reach", Tornado.of("upstream_m3s", "downstream_m3s"))
                .title("Upper Gorge carries most of the water")
                .rank(Ranking.by(column("upstream_m3s")).top(4).rest("All others"));
        for (int i = 1; i < arguments.length; i++) {
            Engines.draw(reaches.over(flow, Settings.NONE), Path.of(arguments[i]));
        }
    }
}
