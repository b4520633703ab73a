package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/** Rows whose places on a raw sheet don't change once the workbook is made; some may be on none. */
record FixedRows(Table rows, RawSheets.Stands where) implements SourceRows {

    @Override
    public String sheet() {
        return where.sheet();
    }

    @Override
    public String area(String column, int first, int last) {
        int at = where.columns()[rows.whole().columnNames().indexOf(column)];
        return new CellRangeAddress(first + where.first() - 1, last + where.first() - 1, at, at).formatAsString(where.sheet(), false);
    }

    @Override
    public int lines() {
        return rows.rowCount();
    }

    @Override
    public String cell(String column, String from) {
        String first = new CellReference(sheet(), 0, where.columns()[rows.whole().columnNames().indexOf(column)], false, false).formatAsString();
        return first.substring(0, first.length() - 1) + RowFormula.RAW;
    }

    @Override
    public boolean has(String column) {
        return true;
    }

    @Override
    public boolean isComputed(String column) {
        return false;
    }

    @Override
    public String range(String column, String from) {
        throw new IllegalArgumentException("no formulas make '" + column + "'");
    }

    @Override
    public int rawLine(int row) {
        return rows.wholeRow(row) + where.first();
    }

    @Override
    public boolean isAdded(int row) {
        return rows.wholeRow(row) < 0;
    }

    @Override
    public boolean isWhole(String column, boolean added) {
        Column cells = rows.column(column);
        boolean here = IntStream.range(0, rows.rowCount()).filter(row -> isAdded(row) == added).allMatch(cells::isPresent);
        return here && (added || !rows.whole().schema().has(column) || IntStream.range(0, rows.whole().rowCount()).allMatch(rows.whole().column(column)::isPresent));
    }

    @Override
    public Optional<String> there(String from) {
        return Optional.empty();
    }

    @Override
    public Optional<String> count(String from) {
        return Optional.empty();
    }
}
