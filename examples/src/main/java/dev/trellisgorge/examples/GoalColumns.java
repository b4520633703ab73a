package dev.trellisgorge.examples;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.Split;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;

/** Which stations reached the goal in March? Takes the data file, and the files to draw. */
public final class GoalColumns {
    private GoalColumns() {
    }

    public static void main(String[] arguments) {
        Table generation = TableFile.read("generation", Path.of(arguments[0]));
        Chart march = Chart.of("station", Columns.of("generated_mwh").classify(Split.atSetting("goal")))
                .title("Three stations reached the goal in March")
                .slice("month", "2031-03-01");
        for (int i = 1; i < arguments.length; i++) {
            Engines.draw(march.over(generation, Settings.of("goal", 400)), Path.of(arguments[i]));
        }
    }
}
