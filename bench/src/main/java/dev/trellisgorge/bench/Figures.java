package dev.trellisgorge.bench;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Pattern;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
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
        java.util.Arrays.fill(names, "row");
        table = Table.of("figures", Column.texts("name", names), Column.numbers("value", value), Column.numbers("target", target));
    }

    /** The helper columns of a pattern over these figures. */
    HelperTable computed(Pattern pattern) {
        return pattern.addTo(HelperTable.over(table, Settings.NONE, "name"));
    }

    /** The cells of one formula over these figures. */
    Column evaluated(Formula formula) {
        return HelperTable.over(table, Settings.NONE, "name").evaluate("cells", formula);
    }
}
