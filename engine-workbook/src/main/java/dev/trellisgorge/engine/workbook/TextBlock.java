package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.Role;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.chart.TextCells.TextColumn;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import org.apache.poi.ss.util.CellRangeAddress;
import dev.trellisgorge.sheet.Sheet;

/** Bars made of characters, in cells: the category, the bars, and the figure beside them. */
final class TextBlock {
    private static final int TITLES = 3;
    /** Pixels. */
    private static final double GLYPH = 9;

    private final PlainChart chart;
    private final TextCells texts;
    private final HelperSheet helpers;
    private final Sheet sheet;
    private final TableCells cells;
    private final Consumer<String> warnings;

    TextBlock(PlainChart chart, TextCells texts, HelperSheet helpers, Sheet sheet, Consumer<String> warnings) {
        this.chart = chart;
        this.texts = texts;
        this.helpers = helpers;
        this.sheet = sheet;
        this.cells = new TableCells(sheet, helpers, warnings);
        this.warnings = warnings;
    }

    /** How many rows of the sheet a chart takes. */
    static int rows(HelperSheet helpers) {
        return helpers.lines() + TITLES + 1;
    }

    void fill(Area area) {
        cells.titles(area, chart);
        if (texts.columns().stream().flatMap(column -> column.rest().stream()).anyMatch(rest -> chart.series().stream().anyMatch(bar -> !bar.equals(rest) && !bar.fill().equals(rest.fill())))) {
            warnings.accept("'" + chart.name() + "': a cell's text has one colour, so what is left has the colour of its bar");
        }
        int figureColumns = Math.max(1, area.columns() / 10);
        int apart = texts.figures().isPresent() ? 1 : 0; // bars fill their cells
        TableCells.Widths widths = cells.widths(chart, area.columns() - figureColumns - texts.columns().size() - apart);
        int before = widths.all() + apart;
        int barColumns = Math.max(1, Math.min((area.columns() - before - figureColumns) / texts.columns().size(),
                (int) Math.ceil(longest() * GLYPH / Area.COLUMN)));
        cells.headings(area.row() + TITLES - 1, area.column(), chart, widths);
        for (int row = 0; row < helpers.lines(); row++) {
            int line = area.row() + TITLES + row;
            cells.row(line, area.column(), chart, row, 1, widths);
            int at = area.column() + before;
            if (texts.figures().isPresent()) {
                length(line, at, texts.figures().get(), row);
                merge(line, at, barColumns * texts.columns().size());
                at += barColumns * texts.columns().size();
            }
            for (TextColumn column : texts.figures().isPresent() ? List.<TextColumn>of() : texts.columns()) {
                bar(line, at, column, row);
                merge(line, at, barColumns);
                at += barColumns;
            }
            figure(line, at, row);
            merge(line, at, figureColumns);
        }
        int at = area.column() + before;
        if (texts.figures().isPresent()) {
            lengths(new CellRangeAddress(area.row() + TITLES, area.row() + TITLES + helpers.lines() - 1, at, at + barColumns * texts.columns().size() - 1));
            return;
        }
        for (TextColumn column : texts.columns()) {
            colors(column, area.row() + TITLES, at, barColumns);
            at += barColumns;
        }
    }

    /** The figure that a bar in a cell is as long as; an empty text where there is none. */
    private void length(int line, int at, String figures, int row) {
        Cell cell = write(line, at, "", Styles.plain());
        cell.formula("IFERROR(" + helpers.cellOf(figures, row) + ",\"\")");
        if (row < chart.data().rowCount() && chart.data().column(figures).isPresent(row)) {
            cell.value(chart.data().column(figures).number(row));
        }
    }

    /** Bars in cells, on one scale for both sides of zero. */
    private void lengths(CellRangeAddress all) {
        Optional<Color> below = texts.columns().stream().filter(TextColumn::flushEnd).flatMap(column -> column.series().get(0).fill().stream()).findFirst();
        Optional<Color> above = texts.columns().stream().filter(column -> !column.flushEnd()).flatMap(column -> column.series().get(0).fill().stream()).findFirst();
        if (helpers.lines() > 0) {
            sheet.dataBar(new Sheet.DataBar(all, "MIN(0," + all.formatAsString(null, true) + ")", "MAX(0," + all.formatAsString(null, true) + ")", above.or(() -> below).orElse(Role.BASE.color()), below.or(() -> above).orElse(Role.BASE.color())));
        }
    }

    private int longest() {
        return chart.series().stream().map(series -> chart.data().column(series.column()))
                .flatMap(cells -> IntStream.range(0, cells.size()).mapToObj(cells::written)).mapToInt(DisplayWidth::of).max().orElse(0);
    }

    /** Whichever series of the column is there. */
    private void bar(int line, int at, TextColumn column, int row) {
        String text = column.series().stream().filter(series -> present(series, row)).map(series -> chart.data().column(series.column()).written(row))
                .findFirst().orElse("");
        write(line, at, text, column.flushEnd() ? Styles.barAtEnd() : Styles.bar()).formula(firstOf(column.series().stream()
                .map(series -> helpers.cellOf(series, row)).toList()));
    }

    private void figure(int line, int at, int row) {
        List<Series> labelled = texts.columns().stream().flatMap(column -> column.series().stream()).filter(series -> series.label().isPresent()).toList();
        if (labelled.isEmpty()) {
            return;
        }
        Cell cell = write(line, at, "", Styles.figure(labelled.get(0).label().orElseThrow().format()));
        cell.formula(firstPresent(labelled, row));
        Optional<Series> shown = labelled.stream().filter(series -> row < chart.data().rowCount() && !chart.labelText(series, row).isEmpty()).findFirst();
        Column figures = shown.map(series -> chart.data().column(series.label().orElseThrow().column())).orElse(null);
        if (figures != null && figures.kind() == Kind.NUMBER
                && !NumberFormats.isText(shown.get().label().orElseThrow().format())) {
            cell.value(NumberFormats.rounded(figures.number(row), shown.get().label().orElseThrow().format()));
        } else {
            cell.value(shown.map(series -> chart.labelText(series, row)).orElse(""));
        }
    }

    private String firstPresent(List<Series> labelled, int row) {
        String formula = "\"\"";
        for (int i = labelled.size() - 1; i >= 0; i--) {
            String cell = helpers.labelCell(labelled.get(i), row);
            formula = "IF(" + cell + "=\"\"," + formula + "," + cell + ")";
        }
        return formula;
    }

    private static String firstOf(List<String> cells) {
        String formula = "\"\"";
        for (int i = cells.size() - 1; i >= 0; i--) {
            formula = "IFERROR(" + cells.get(i) + "," + formula + ")";
        }
        return formula;
    }

    private boolean present(Series series, int row) {
        return row < chart.data().rowCount() && chart.data().column(series.column()).isPresent(row);
    }

    /** Each class keeps its colour when a figure changes sides. */
    private void colors(TextColumn column, int firstLine, int at, int columns) {
        if (chart.data().rowCount() == 0) {
            return;
        }
        CellRangeAddress cells = new CellRangeAddress(firstLine, firstLine + helpers.lines() - 1, at, at + columns - 1);
        column.series().stream().filter(series -> series.fill().isPresent())
                .forEach(series -> sheet.rule(cells, "NOT(ISERROR(" + helpers.cellOf(series, 0).replaceAll("\\$([0-9]+)$", "$1") + "))", series.fill().get()));
    }

    private void merge(int line, int column, int columns) {
        sheet.merge(line, column, 1, columns);
    }

    private Cell write(int line, int column, String words, CellLook style) {
        return sheet.row(line).cell(column).look(style).value(words);
    }
}
