package dev.trellisgorge.examples;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Labels;
import dev.trellisgorge.pattern.Waterfall;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.nio.file.Path;

/** From opening to closing storage, with the proof that the movements reach it. Takes the storage data and the files to draw. */
public final class WaterBalance {
    private WaterBalance() {
    }

    public static void main(String[] arguments) {
        Table storage = TableFile.read("storage", Path.of(arguments[0]));
        PlainChart balance = Chart.of("item", Waterfall.of("volume_ml").kinds("kind"))
                .title("Spring inflow brought the reservoir back above the dead-storage mark")
                .labels(Labels.VALUE.format("#,##0;(#,##0)"))
                .over(storage, Settings.NONE);
        Audit.of(balance).proofs().forEach(proof -> System.out.println(proof.statement() + ": "
                + proof.rowsHeld() + " of " + proof.rows()));
        for (int i = 1; i < arguments.length; i++) {
            Engines.draw(balance, Path.of(arguments[i]));
        }
    }
}
