package dev.trellisgorge.examples;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/** Bars of characters for an e-mail, on standard output. Takes the fish data. */
public final class FishMail {
    private FishMail() {
    }

    public static void main(String[] arguments) {
        Table fish = TableFile.read("fish", Path.of(arguments[0]));
        Table bars = Chart.of("day", TextBar.of("fish").width(24).inEighths()).over(fish, Settings.NONE).printed();
        PrintStream mail = new PrintStream(System.out, true, StandardCharsets.UTF_8);
        for (int row = 0; row < bars.rowCount(); row++) {
            mail.println(bars.column("day").written(row) + " " + bars.column("bar").written(row) + " " + fish.column("fish").written(row));
        }
    }
}
