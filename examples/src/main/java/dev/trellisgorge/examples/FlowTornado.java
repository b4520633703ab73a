package dev.trellisgorge.examples;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.round;

import dev.trellisgorge.chart.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Derive;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.Layout;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * Upstream and downstream flow back to back, the reaches that grew most first: two tables joined, the growth derived. Takes the
 * flow data, that of a year before, and the files to draw.
 */
public final class FlowTornado {
    private FlowTornado() {
    }

    public static void main(String[] arguments) {
        Step earlier = new Rename(Map.of("upstream_m3s", "before")).then(new Choose(List.of("reach", "before")));
        Table before = earlier.apply(TableFile.read("before", Path.of(arguments[1]), Layout.FOUND.totalRow(Layout.TotalRow.DROP)), Settings.NONE);
        Table flow = Join.by(before, "reach").then(new Derive("growth", round(column("upstream_m3s").over(column("before")).minus(number(1)).times(number(100)))))
                .apply(TableFile.read("flow", Path.of(arguments[0])), Settings.NONE);
        Chart reaches = Chart.of("reach", Tornado.of("upstream_m3s", "downstream_m3s").note(column("growth")))
                .title("Mill Reach grew most")
                .subtitle("Mean flow in m\u00B3/s, and in brackets its growth upstream in a year, per cent")
                .name("left", "Upstream").name("right", "Downstream")
                .rank(Ranking.by(column("growth")).top(10));
        for (int i = 2; i < arguments.length; i++) {
            Engines.draw(reaches.over(flow, Settings.NONE), Path.of(arguments[i]));
        }
    }
}
