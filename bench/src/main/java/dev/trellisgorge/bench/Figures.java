package dev.trellisgorge.bench;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Random figures with some missing, as the library takes them and as a hand-written loop does. */
final class Figures {
    final double[] value;
    final double[] target;
    final String[] names;
    private final Table table;

    Figures(int rows) {
        Random random = new Random(rows);
        value = random.doubles(rows, -200, 1000).map(v -> v > 990 ? Double.NaN : v).toArray();
        target = random.doubles(rows, 0, 1000).toArray();
        names = new String[rows];
        Arrays.fill(names, "row");
        table = Table.of("figures", Column.texts("name", names), Column.numbers("value", value), Column.numbers("target", target));
    }

    /** The plan of a pattern over these figures: described once, whatever is computed by it. */
    Plan plan(Pattern pattern) {
        return Chart.of("name", pattern).labels(Labels.NONE).plan(Pipeline.of("figures"), Catalog.of(Map.of("figures", table), Settings.NONE));
    }

    /** The series of a plan over these figures. */
    List<Column> series(Plan plan) {
        return plan.cells(table, Settings.NONE).series();
    }

    /** The cells of one formula over these figures. */
    Column evaluated(Formula formula) {
        return new Evaluator(table, Settings.NONE).evaluate("cells", formula);
    }
}
