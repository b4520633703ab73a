package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellReference;

/**
 * Rows between two steps, as formulas give them: the cells of a column stand below each other on the raw sheet, or on a sheet of
 * steps. Immutable.
 *
 * @param rows   as they are when the workbook is made
 * @param lines  how many lines there are for rows
 * @param places where the columns stand
 * @param marker the column whose cells are blank on lines without a row; empty where each line has one, always
 * @param rooms  the cells that say whether all rows find room
 * @param spare  how many rows may be added later, of which any cell may be missing
 */
record Block(Table rows, int lines, Map<String, Place> places, Optional<Place> marker, List<String> rooms, int spare) implements SourceRows {
    static final int RAW_FIRST = 2;

    /**
     * Where a column stands.
     *
     * @param column from 0
     * @param first  the line of its first row, as a reader counts them
     * @param isRaw  whether its cells were read, and no formula makes them
     */
    record Place(String sheet, int column, int first, boolean isRaw) {

        /** Of formulas of ours. */
        Place(String sheet, int column) {
            this(sheet, column, SheetLayout.FIRST, false);
        }

        /** The cell on a line that is marked. */
        String cell(String from) {
            return on(from) + letters() + (first == SheetLayout.FIRST ? String.valueOf(RowFormula.HERE) : RowFormula.shifted(first - SheetLayout.FIRST));
        }

        /** All cells of so many lines. */
        String range(String from, int lines) {
            return on(from) + "$" + letters() + "$" + first + ":$" + letters() + "$" + (first + Math.max(1, lines) - 1);
        }

        /** The cell of the last of so many lines. */
        String last(String from, int lines) {
            return on(from) + "$" + letters() + "$" + (first + Math.max(1, lines) - 1);
        }

        private String letters() {
            return CellReference.convertNumToColString(column);
        }

        private String on(String from) {
            String quoted = new CellReference(sheet, 0, 0, false, false).formatAsString();
            return sheet.equals(from) ? "" : quoted.substring(0, quoted.length() - 2);
        }
    }

    Block {
        places = Map.copyOf(places);
        rooms = List.copyOf(rooms);
    }

    /** A table that stands on a sheet of its own, under a line of names. */
    static Block raw(Table table, RawSheets.Stands where) {
        return new Block(table, table.rowCount(), onSheet(table, where), Optional.empty(), List.of(), 0);
    }

    /**
     * The same with room for rows to come.
     *
     * @param marker holds the number of each line up to the last that has a row
     * @param room   the cell that says whether there are more rows than lines
     */
    static Block open(Table table, RawSheets.Stands where, int spare, Place marker, String room) {
        return new Block(table, table.rowCount() + spare, onSheet(table, where), Optional.of(marker), List.of(room), spare);
    }

    private static Map<String, Place> onSheet(Table table, RawSheets.Stands where) {
        Map<String, Place> places = new LinkedHashMap<>();
        for (int at = 0; at < table.columns().size(); at++) {
            places.put(table.columns().get(at).name(), new Place(where.sheet(), where.columns()[at], where.first(), true));
        }
        return places;
    }

    /** The same rows after a step that adds or renames columns. */
    Block with(Table after, Map<String, Place> columns) {
        return new Block(after, lines, columns, marker, rooms, spare);
    }

    /** The rows of a step that picks or makes them anew. */
    Block then(Table after, int room, Map<String, Place> columns, Optional<Place> picked, List<String> ofRoom) {
        return new Block(after, room, columns, picked, ofRoom, spare);
    }

    /** The same where so many more rows may be added later. */
    Block withSpare(int more) {
        return new Block(rows, lines, places, marker, rooms, more);
    }

    boolean open() {
        return spare > 0;
    }

    boolean isRaw() {
        return places.values().stream().allMatch(Place::isRaw);
    }

    @Override
    public boolean has(String column) {
        return places.containsKey(column);
    }

    @Override
    public boolean isComputed(String column) {
        return !places.get(column).isRaw();
    }

    @Override
    public String range(String column, String from) {
        return places.get(column).range(from, lines);
    }

    boolean isWhole(String column) {
        return isWhole(column, false);
    }

    @Override
    public String sheet() {
        return marker.or(() -> places.values().stream().filter(place -> !place.isRaw()).findFirst()).or(() -> places.values().stream().findFirst()).orElseThrow().sheet();
    }

    @Override
    public String cell(String column, String from) {
        return places.get(column).cell(from);
    }

    @Override
    public String area(String column, int first, int last) {
        throw new IllegalArgumentException("no row was added");
    }

    @Override
    public int rawLine(int row) {
        return row + RAW_FIRST;
    }

    @Override
    public boolean isAdded(int row) {
        return false;
    }

    @Override
    public boolean isWhole(String column, boolean added) {
        Column cells = rows.column(column);
        return added || !open() && IntStream.range(0, rows.rowCount()).allMatch(cells::isPresent);
    }

    @Override
    public Optional<String> there(String from) {
        return marker.map(place -> place.cell(from) + "<>\"\"");
    }

    @Override
    public Optional<String> count(String from) {
        return marker.map(place -> (isRaw() ? "MAX(" : "COUNT(") + place.range(from, lines) + ")"); // a raw row with no cell at all still has its line
    }
}
