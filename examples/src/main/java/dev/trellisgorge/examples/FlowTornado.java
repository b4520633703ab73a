package dev.trellisgorge.examples;

import static dev.trellisgorge.formula.Formulas.column;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.round;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Ranking;
import dev.trellisgorge.pattern.Tornado;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
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
        Executor tables = Executor.of(Map.of("flow", TableFile.read("flow", Path.of(arguments[0])),
                "before", TableFile.read("before", Path.of(arguments[1]), Layout.FOUND.totalRow(Layout.TotalRow.DROP))), Settings.NONE);
        Pipeline before = Pipeline.of("before").then(new Rename(Map.of("upstream_m3s", "before"))).then(new Choose(List.of("reach", "before")));
        Pipeline flow = Pipeline.of("flow").then(Join.by(before, "reach"))
                .then(new AddColumn("growth", round(column("upstream_m3s").over(column("before")).minus(number(1)).times(number(100)))));
        Chart reaches = Chart.of("reach", Tornado.of("upstream_m3s", "downstream_m3s").note(column("growth")))
                .title("Mill Reach grew most")
                .subtitle("Mean flow in m\u00B3/s, and in brackets its growth upstream in a year, per cent")
                .name("left", "Upstream").name("right", "Downstream")
                .rank(Ranking.by(column("growth")).top(10));
        for (int i = 2; i < arguments.length; i++) {
            Engines.draw(reaches.plan(flow, tables.known()).over(tables), Path.of(arguments[i]));
        }
    }
}
