package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Looks.Purpose;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Kind;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.CellLook.Across;
import dev.trellisgorge.sheet.Sheet;

/** What stands before bars in cells: the names, and the figures beside them, as a table with ruled rows where there are some. */
final class TableCells {
    /** Pixels. */
    private static final int LETTER = 8;
    private static final int WIDEST_HEADING = 14;

    private final Sheet sheet;
    private final HelperSheet helpers;
    private final Consumer<String> warnings;

    /** @param warnings takes the figures that find no room */
    TableCells(Sheet sheet, HelperSheet helpers, Consumer<String> warnings) {
        this.sheet = sheet;
        this.helpers = helpers;
        this.warnings = warnings;
    }

    /** The lines above, on the first two rows; what columns say of them follows the cells. */
    void titles(Area area, PlainChart chart) {
        line(area.row(), area.column(), chart.stamp().map(words -> words + ": ").orElse(""), chart.title(), chart.plan().titleColumn(), Styles.line(chart.looks(), Purpose.TITLE));
        line(area.row() + 1, area.column(), "", chart.subtitle(), chart.plan().subtitleColumn(), Styles.line(chart.looks(), Purpose.SUBTITLE));
        if (chart.looks().titleAt().isPresent()) {
            merge(area.row(), area.column(), 1, area.columns());
            merge(area.row() + 1, area.column(), 1, area.columns());
        }
    }

    private void line(int line, int column, String before, String words, Optional<String> said, CellLook style) {
        Cell cell = write(line, column, before + words, style);
        sheet.row(line).fit(style, Area.ROW_POINTS);
        if (said.isPresent() && helpers.data().rowCount() > 0) {
            String value = before + words;
            cell.formula((before.isEmpty() ? "" : "\"" + before.replace("\"", "\"\"") + "\"&") + helpers.cellOf(said.get(), 0));
            cell.value(value);
        }
    }

    private static int names(PlainChart chart, int room) {
        int longest = IntStream.range(0, chart.data().rowCount()).map(row -> DisplayWidth.of(chart.categoryText(row))).max().orElse(0);
        return Math.max(1, Math.min(Math.max(1, room / 3), 1 + longest * LETTER / Area.COLUMN));
    }

    private static int wide(PlainChart chart, FigureColumn column) {
        int longest = IntStream.range(0, chart.data().rowCount()).map(row -> DisplayWidth.of(chart.besideText(column, row))).max().orElse(0);
        return 1 + Math.max(longest, Math.min(WIDEST_HEADING, DisplayWidth.of(column.name()))) * LETTER / Area.COLUMN;
    }

    /**
     * How many columns of the sheet the names and each figure take.
     *
     * @param figures those that found room, from the left
     */
    record Widths(int names, Map<FigureColumn, Integer> figures) {
        int all() {
            return names + figures.values().stream().mapToInt(Integer::intValue).sum();
        }
    }

    /** What the names and the figures take, of so many columns that there are. */
    Widths widths(PlainChart chart, int room) {
        return widths(chart, room, warnings);
    }

    /** The same; {@code warnings} takes the figures that find no room. */
    static Widths widths(PlainChart chart, int room, Consumer<String> warnings) {
        int names = names(chart, room);
        Map<FigureColumn, Integer> figures = new LinkedHashMap<>();
        int left = room - names;
        for (FigureColumn column : chart.beside()) {
            left -= wide(chart, column);
            if (left < 0) {
                warnings.accept("'" + chart.name() + "': found no room beside the names, so left out: "
                        + String.join(", ", chart.beside().subList(figures.size(), chart.beside().size()).stream().map(FigureColumn::name).toList()));
                break;
            }
            figures.put(column, wide(chart, column));
        }
        return new Widths(names, figures);
    }

    /** The names over the figures. */
    void headings(int line, int from, PlainChart chart, Widths widths) {
        if (chart.beside().isEmpty()) {
            return;
        }
        write(line, from, "", Styles.heading(Across.LEFT));
        spread(line, from, 1, widths.names());
        int at = from + widths.names();
        for (Map.Entry<FigureColumn, Integer> column : widths.figures().entrySet()) {
            write(line, at, column.getKey().name(), Styles.heading(Across.RIGHT));
            spread(line, at, 1, column.getValue());
            at += column.getValue();
        }
    }

    /** A row of the table: the name, then the figures. */
    void row(int line, int from, PlainChart chart, int row, int high, Widths widths) {
        Cell name = write(line, from, row < chart.data().rowCount() ? chart.categoryText(row) : "", chart.beside().isEmpty() ? Styles.plain() : Styles.ruled(Across.LEFT, Optional.empty()));
        name.formula(helpers.categoryCell(row));
        if (row >= chart.data().rowCount()) {
            name.value("");
        }
        spread(line, from, high, widths.names());
        int at = from + widths.names();
        for (Map.Entry<FigureColumn, Integer> column : widths.figures().entrySet()) {
            figure(line, at, chart, column.getKey(), row);
            spread(line, at, high, column.getValue());
            at += column.getValue();
        }
    }

    private void figure(int line, int at, PlainChart chart, FigureColumn column, int row) {
        Format format = column.label().format();
        String there = helpers.cellOf(column.label().column(), row);
        Kind kind = chart.data().column(column.label().column()).kind();
        boolean asText = kind == Kind.NUMBER && NumberFormats.isText(format);
        Cell cell = write(line, at, "", Styles.ruled(Across.RIGHT, kind == Kind.NUMBER && !asText ? Optional.of(format) : Optional.empty()));
        String shown = asText ? NumberFormats.text(there, format) : kind == Kind.DATE ? "TEXT(" + there + ",\"yyyy-mm-dd\")" : there;
        cell.formula("IFERROR(" + shown + ",\"\")");
        if (row >= chart.data().rowCount()) {
            cell.value("");
        } else if (kind == Kind.NUMBER && !asText && chart.data().column(column.label().column()).isPresent(row)) {
            cell.value(chart.data().column(column.label().column()).number(row));
        } else {
            cell.value(chart.besideText(column, row));
        }
    }

    /** One cell over several rows and columns, with its rules all along. */
    private void spread(int line, int column, int rows, int columns) {
        CellLook style = sheet.row(line).find(column).orElseThrow().look();
        for (int down = 0; down < rows; down++) {
            for (int across = 0; across < columns; across++) {
                if (down > 0 || across > 0) {
                    write(line + down, column + across, "", style);
                }
            }
        }
        merge(line, column, rows, columns);
    }

    void dataBar(Sheet.DataBar bar) {
        sheet.dataBar(bar);
    }

    void merge(int line, int column, int rows, int columns) {
        sheet.merge(line, column, rows, columns);
    }

    Cell write(int line, int column, String words, CellLook style) {
        return write(sheet, line, column, words, style);
    }

    /** A cell of a sheet with words and looks; empty where there are no words. */
    static Cell write(Sheet sheet, int line, int column, String words, CellLook style) {
        Cell cell = sheet.row(line).cell(column).look(style);
        return words.isEmpty() ? cell : cell.value(words);
    }
}
