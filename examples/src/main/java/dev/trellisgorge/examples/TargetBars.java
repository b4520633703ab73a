package dev.trellisgorge.examples;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.ToTarget;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;

/** What is met of each licence, what remains, what goes past it. Takes the generation data and the files to draw. */
public final class TargetBars {
    private TargetBars() {
    }

    public static void main(String[] arguments) {
        Table generation = TableFile.read("generation", Path.of(arguments[0]));
        Chart licence = Chart.of("station", ToTarget.of("generated_mwh", "licensed_mwh"))
                .title("Two stations went past their licence in March")
                .slice("month", "2031-03-01");
        for (int i = 1; i < arguments.length; i++) {
            Engines.draw(licence.over(generation, Settings.NONE), Path.of(arguments[i]));
        }
    }
}
