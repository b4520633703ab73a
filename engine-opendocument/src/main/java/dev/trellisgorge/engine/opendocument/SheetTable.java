package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.Row;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.apache.poi.ss.util.CellRangeAddress;

/** Writes a sheet's cells as a table, row by row as they are read. Used by one thread. */
final class SheetTable {
    private final SheetShape shape;
    private final CellLooks looks;
    private final PartWriter part;
    private final Map<String, String> sizes;
    private final int[] heading;
    private int row;
    private int column;

    /**
     * @param sizes   the names of the styles of columns and rows
     */
    SheetTable(SheetShape shape, CellLooks looks, Map<String, String> sizes, PartWriter part) {
        this.shape = shape;
        this.looks = looks;
        this.sizes = sizes;
        this.heading = shape.sheet().repeated();
        this.part = part;
    }

    /** What a column's style is found by. */
    static String width(double points) {
        return "column " + PartWriter.points(points);
    }

    /** What a row's style is found by. */
    static String height(double points) {
        return "row " + PartWriter.points(points);
    }

    void columns() {
        boolean folded = false;
        for (SheetShape.Columns some : shape.columns()) {
            if (some.folded() && !folded) {
                part.open("table:table-column-group", "table:display", "false");
            } else if (!some.folded() && folded) {
                part.close(1);
            }
            folded = some.folded();
            int count = some.last() - some.first() + 1;
            part.leaf("table:table-column", "table:style-name", sizes.get(width(some.width())), "table:number-columns-repeated", count > 1 ? String.valueOf(count) : null, "table:visibility",
                    folded ? "collapse" : null, "table:default-cell-style-name", "Default");
        }
        part.close(folded ? 1 : 0);
    }

    void rows() {
        shape.sheet().rows().forEach(this::row);
        shape.sheet().generated().ifPresent(made -> {
            for (int at = 0; at < made.count(); at++) {
                Row row = new Row(made.first() + at);
                made.fill().accept(row);
                row(row);
            }
        });
        emptyRows(Math.max(row + 1, heading[1]));
    }

    private void row(Row given) {
        emptyRows(given.at());
        openRow(1);
        column = 0;
        for (int at = 0; at <= given.lastColumn(); at++) {
            Optional<Cell> cell = given.find(at);
            if (cell.isPresent()) {
                fill(at);
                cell(cell.get());
            }
        }
        fill(lastMerged() + 1);
        closeRow();
    }

    /** Cells of merged areas reach on where no cells are stated. */
    private int lastMerged() {
        int last = column - 1;
        while (shape.merged(row, last + 1).isPresent()) {
            last++;
        }
        return last;
    }

    /** Rows without cells, up to one. */
    private void emptyRows(int to) {
        while (row < to) {
            int many = 1;
            Optional<Double> height = shape.height(row);
            while (row + many < to && shape.height(row + many).equals(height) && row + many != heading[0] && row + many != heading[1]) {
                many++;
            }
            openRow(many);
            row += many - 1;
            closeRow();
        }
    }

    private void openRow(int many) {
        if (row == heading[0] && heading[0] < heading[1]) {
            part.open("table:table-header-rows");
        }
        Optional<Double> height = shape.height(row).or(() -> Optional.of(SheetShape.ROW).filter(usual -> !shape.sheet().placed().isEmpty()));
        part.open("table:table-row", "table:style-name", height.map(points -> sizes.get(height(points))).orElse(null), "table:number-rows-repeated", many > 1 ? String.valueOf(many) : null);
    }

    private void closeRow() {
        if (column == 0) {
            part.leaf("table:table-cell");
        }
        part.close(1);
        row++;
        column = 0;
        if (row == heading[1] && heading[0] < heading[1]) {
            part.close(1);
        }
    }

    /** Blank cells, up to a column; those that merged areas take are covered. */
    private void fill(int to) {
        while (column < to) {
            Optional<CellRangeAddress> area = shape.merged(row, column);
            int many = 1;
            while (column + many < to && area.isEmpty() && shape.merged(row, column + many).isEmpty()) {
                many++;
            }
            part.open(area.isPresent() ? "table:covered-table-cell" : "table:table-cell", "table:number-columns-repeated", many > 1 ? String.valueOf(many) : null).close(1);
            column += many;
        }
    }

    private void cell(Cell cell) {
        Optional<CellRangeAddress> area = shape.merged(row, column);
        boolean covered = area.filter(all -> all.getFirstRow() != row || all.getFirstColumn() != column).isPresent();
        part.open(covered ? "table:covered-table-cell" : "table:table-cell", "table:style-name", looks.name(cell.look(), shape.ruled(row, column)), "table:content-validation-name",
                shape.list(row, column).map(SheetShape.NamedList::name).orElse(null));
        if (!covered && area.isPresent()) {
            part.with("table:number-columns-spanned", String.valueOf(area.get().getLastColumn() - area.get().getFirstColumn() + 1), "table:number-rows-spanned",
                    String.valueOf(area.get().getLastRow() - area.get().getFirstRow() + 1));
        }
        cell.formula().ifPresent(formula -> part.with("table:formula", OpenFormula.of(formula)));
        cell.value().ifPresent(value -> value(value, cell.formula().isPresent()));
        part.close(1);
        column++;
    }

    private void value(Object value, boolean worked) {
        if (value instanceof String text) {
            part.with("office:value-type", "string", "office:string-value", worked ? text : null).paragraphs(text);
        } else if (value instanceof Boolean truth) {
            part.with("office:value-type", "boolean", "office:boolean-value", String.valueOf(truth));
        } else if (value instanceof Cell.Missing) {
            part.with("office:value-type", "string", "office:string-value", "").paragraphs("#N/A");
        } else if (value instanceof LocalDate date) {
            part.with("office:value-type", "date", "office:date-value", date.toString());
        } else {
            part.with("office:value-type", "float", "office:value", plain(String.valueOf(value)));
        }
    }

    /** Without decimals that say nothing. */
    private static String plain(String number) {
        return number.endsWith(".0") ? number.substring(0, number.length() - 2) : number;
    }
}
