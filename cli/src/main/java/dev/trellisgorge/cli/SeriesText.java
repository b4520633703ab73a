package dev.trellisgorge.cli;

import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.io.PrintStream;
import java.util.List;

/** Prints helper series for people: columns in line, figures to the right, absent as nothing. */
record SeriesText(PrintStream out) {

    void print(PlainChart chart, boolean headed) {
        if (headed) {
            out.println(chart.name());
        }
        Table table = chart.data().shown();
        List<Column> columns = table.columns();
        int[] widths = columns.stream().mapToInt(SeriesText::width).toArray();
        StringBuilder line = new StringBuilder();
        for (int row = -1; row < table.rowCount(); row++) {
            line.setLength(0);
            for (int i = 0; i < widths.length; i++) {
                Column column = columns.get(i);
                String cell = row < 0 ? column.name() : column.written(row);
                String room = " ".repeat(widths[i] - DisplayWidth.of(cell));
                line.append(i == 0 ? "" : "  ").append(column.kind() == Kind.NUMBER ? room + cell : cell + room);
            }
            out.println(line.toString().stripTrailing());
        }
        if (headed) {
            out.println();
        }
    }

    private static int width(Column column) {
        int width = DisplayWidth.of(column.name());
        for (int row = 0; row < column.size(); row++) {
            String cell = column.written(row);
            width = Math.max(width, DisplayWidth.of(cell));
        }
        return width;
    }
}
