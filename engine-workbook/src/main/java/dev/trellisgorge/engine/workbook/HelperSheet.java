package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.PlainChart;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperColumn;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.formula.SheetFormula;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.xssf.usermodel.XSSFSheet;

/**
 * The sheet of one chart's helper columns, left to right: the category, the helper columns in drawing order, each
 * reference line, then one column of TRUE or FALSE for each identity. Every cell is a formula over the raw sheet, with
 * the value that the formula gives written beside it.
 */
final class HelperSheet {
    private final PlainChart chart;
    private final HelperTable data;
    private final XSSFSheet sheet;
    private final XSSFSheet raw;
    private final SheetNames names;
    private final Styles styles;
    private final List<String> helperColumns;
    private final List<ReferenceLine> lines;

    HelperSheet(PlainChart chart, XSSFSheet sheet, XSSFSheet raw, SheetNames names, Styles styles) {
        this.chart = chart;
        this.data = chart.data();
        this.sheet = sheet;
        this.raw = raw;
        this.names = names;
        this.styles = styles;
        this.helperColumns = data.columnNames();
        this.lines = chart.panels().stream().flatMap(panel -> panel.lines().stream()).toList();
    }

    void fill() {
        header();
        List<Column> proofs = data.identities().stream().map(i -> data.evaluate("holds", i.holdsOrNeedNot())).toList();
        for (int row = 0; row < data.rowCount(); row++) {
            Row line = sheet.createRow(row + 1);
            SheetFormula writer = new SheetFormula(cells(row));
            category(line, row);
            int at = 1;
            for (HelperColumn column : data.columns()) {
                formula(line.createCell(at++), writer.write(column.formula()), column.cells(), row, format(column.name()));
            }
            for (ReferenceLine reference : lines) {
                Column level = Column.numbers("level", reference.value());
                formula(line.createCell(at++), writer.write(reference.at()), level, 0, format(null));
            }
            for (int i = 0; i < proofs.size(); i++) {
                Identity identity = data.identities().get(i);
                formula(line.createCell(at++), writer.writeCondition(identity.holdsOrNeedNot()), proofs.get(i), row, Optional.empty());
            }
        }
    }

    private void header() {
        List<String> titles = new ArrayList<>();
        titles.add(data.category().name());
        helperColumns.forEach(column -> titles.add(readersName(column)));
        lines.forEach(line -> titles.add(line.name()));
        data.identities().forEach(identity -> titles.add(identity.statement()));
        LiveWorkbook.header(sheet, styles, titles);
        for (int i = 0; i < lines.size(); i++) {
            header(lines.get(i), sheet.getRow(0).getCell(lineColumn(i)));
        }
        sheet.setColumnWidth(0, Styles.width(data.category()));
        for (int i = 1; i < titles.size(); i++) {
            sheet.setColumnWidth(i, (i <= helperColumns.size() + lines.size() ? 14 : 24) * 256);
        }
        sheet.createFreezePane(1, 1);
    }

    /** A line's header carries its figure, and follows it where it is a setting. */
    private void header(ReferenceLine line, Cell cell) {
        Format format = format(null).orElse(new Format("#,##0.##"));
        String words = line.name() + " " + format.write(line.value());
        if (line.at() instanceof Formula.Setting setting) {
            String pattern = NumberFormats.of(format).replace("\"", "\"\"");
            cell.setCellFormula("\"" + line.name() + " \"&TEXT(" + names.defined(setting.name()) + ",\"" + pattern + "\")");
        }
        cell.setCellValue(words);
    }

    private String readersName(String column) {
        return chart.series().stream().filter(s -> s.column().equals(column)).map(Series::name).findFirst().orElse(column);
    }

    private Optional<Format> format(String column) {
        return chart.series().stream().filter(s -> column == null || s.column().equals(column))
                .flatMap(s -> s.label().stream()).map(Label::format).findFirst();
    }

    private void category(Row line, int row) {
        Cell cell = line.createCell(0);
        Column category = data.category();
        cell.setCellFormula(rawCell(category.name(), row));
        value(cell, category, row);
        if (category.kind() == Kind.DATE) {
            cell.setCellStyle(styles.date());
        }
    }

    private void formula(Cell cell, String formula, Column values, int row, Optional<Format> format) {
        cell.setCellFormula(formula);
        value(cell, values, row);
        format.ifPresent(f -> cell.setCellStyle(styles.figure(f)));
    }

    private static void value(Cell cell, Column values, int row) {
        if (!values.isPresent(row)) {
            cell.setCellErrorValue(FormulaError.NA.getCode());
        } else if (values.kind() == Kind.TEXT) {
            cell.setCellValue(values.written(row));
        } else if (values.kind() == Kind.TRUTH) {
            cell.setCellValue(values.number(row) == 1);
        } else if (values.kind() == Kind.DATE) {
            cell.setCellValue(values.date(row).orElseThrow());
        } else {
            cell.setCellValue(values.number(row));
        }
    }

    private SheetFormula.CellNames cells(int row) {
        return new SheetFormula.CellNames() {
            @Override
            public String input(String column) {
                return rawCell(column, row);
            }

            @Override
            public Kind inputKind(String column) {
                return data.inputs().column(column).kind();
            }

            @Override
            public Kind helperKind(String column) {
                return data.column(column).cells().kind();
            }

            @Override
            public String helper(String column) {
                return new CellReference(row + 1, helperColumn(column)).formatAsString();
            }

            @Override
            public String setting(String name) {
                return names.defined(name);
            }
        };
    }

    private String rawCell(String column, int row) {
        int at = data.inputs().whole().columnNames().indexOf(column);
        int line = data.inputs().wholeRow(row) + 1;
        return new CellReference(raw.getSheetName(), line, at, false, false).formatAsString();
    }

    private int helperColumn(String column) {
        return 1 + helperColumns.indexOf(column);
    }

    private int lineColumn(int line) {
        return 1 + helperColumns.size() + line;
    }

    /** The cell over a series' cells, which names it. */
    CellReference titleOf(Series series) {
        return title(helperColumn(series.column()));
    }

    CellReference titleOfLine(int line) {
        return title(lineColumn(line));
    }

    private CellReference title(int column) {
        return new CellReference(sheet.getSheetName(), 0, column, true, true);
    }

    String titleText(CellReference title) {
        return sheet.getRow(0).getCell(title.getCol()).getStringCellValue();
    }

    String categories() {
        return range(0, 0);
    }

    String valuesOf(Series series) {
        return range(helperColumn(series.column()), helperColumn(series.column()));
    }

    String valuesOfLine(int line) {
        return range(lineColumn(line), lineColumn(line));
    }

    /** All the TRUE and FALSE of the identities; empty where there are none. */
    Optional<String> proofs() {
        int first = lineColumn(lines.size());
        return data.identities().isEmpty() || data.rowCount() == 0 ? Optional.empty()
                : Optional.of(range(first, first + data.identities().size() - 1));
    }

    private String range(int firstColumn, int lastColumn) {
        return new CellRangeAddress(1, Math.max(1, data.rowCount()), firstColumn, lastColumn)
                .formatAsString(sheet.getSheetName(), true);
    }
}
