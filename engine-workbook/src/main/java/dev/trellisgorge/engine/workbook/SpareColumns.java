package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.workbook.Block.Place;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * Columns that may be typed in beside those of a raw table, the next year's for instance, and become rows as those do. They are taken
 * from left to right, up to the first whose name doesn't fit or stands there twice. Immutable.
 *
 * @param room  for how many columns
 * @param names where their names stand, below each other; blank for those that are not there
 * @param count where the number of columns stands that become rows, those that were there included
 * @param cells where the first of them stands on the raw sheet
 */
record SpareColumns(int room, Place names, Place count, Place cells) {
    private static final int ROOM = 4;
    private static final int LOOKED_AT = 3;
    private static final int LATEST_YEAR = 9999;

    /** Empty where a step turns no columns but those that it names, or other things may stand beside the table. */
    static Optional<SpareColumns> of(StepSheet steps, Table table, RawSheets.Stands where, Unpivot step) {
        if (!where.isOwn() || step.more().filter(SpareColumns::isSimple).isEmpty()) {
            return Optional.empty();
        }
        String pattern = step.more().get();
        int next = end(where) + 1;
        String all = headings(where, 0, end(where) + ROOM);
        Place names = steps.add("further columns", "the names of columns beside those of the sheet " + where.sheet() + " that become rows too; there is room for " + ROOM, Computation.WIDTH, ROOM, (line, at, row) -> {
            String heading = headings(where, next + row, next + row);
            List<String> fits = new ArrayList<>(List.of("OR(ISTEXT(" + heading + "),AND(ISNUMBER(" + heading + ")," + heading + "<=" + LATEST_YEAR + "))", "COUNTIF(" + all + "," + heading + ")=1"));
            fits.addAll(conditions(pattern, heading));
            if (row > 0) {
                fits.add(0, new CellReference(SheetLayout.line(row) - 2, at).formatAsString() + "<>\"\"");
            }
            line.cell(at).formula("IF(AND(" + String.join(",", fits) + ")," + heading + "&\"\",\"\")").value("");
        });
        int known = step.columns().size();
        Place count = steps.add("columns", "how many columns become rows", StepSheet.POSITION, 1, known + "+COUNTIF(" + names.range(steps.name(), ROOM) + ",\"?*\")", Column.numbers("columns", known), true);
        return Optional.of(new SpareColumns(ROOM, names, count, new Place(where.sheet(), next, where.first(), true)));
    }

    /** A condition that holds where there are more columns than are read. */
    static String notRead(Table table, RawSheets.Stands where, Optional<SpareColumns> beside, String from) {
        String taken = beside.map(columns -> "+COUNTIF(" + columns.names().range(from, ROOM) + ",\"?*\")").orElse("");
        return "COUNTA(" + headings(where, 0, end(where) + ROOM + LOOKED_AT) + ")>" + table.columns().size() + taken;
    }

    /**
     * The name or a cell of the n-th of these columns.
     *
     * @param at    a formula of n
     * @param named whether it is the name
     * @param row   says the row of the block
     */
    String cell(String at, boolean named, Place row, Block block, Kind kind) {
        String from = row.sheet();
        if (named) {
            return "INDEX(" + names.range(from, ROOM) + "," + at + ")";
        }
        Place last = new Place(cells.sheet(), cells.column() + ROOM - 1, cells.first(), true);
        String all = cells.range(from, 1).replaceAll(":.*", "") + ":" + last.last(cells.sheet(), block.lines());
        return StepSheet.ofKind("INDEX(" + all + "," + row.cell(from) + "," + at + ")", kind);
    }

    private static int end(RawSheets.Stands where) {
        return IntStream.of(where.columns()).max().orElseThrow();
    }

    private static String headings(RawSheets.Stands where, int first, int last) {
        return new CellRangeAddress(where.first() - 2, where.first() - 2, first, last).formatAsString(where.sheet(), true);
    }

    /** With one {@code *} at most, as a formula compares the beginning and the end. */
    private static boolean isSimple(String pattern) {
        return pattern.indexOf(Unpivot.ANY) == pattern.lastIndexOf(Unpivot.ANY);
    }

    private static List<String> conditions(String pattern, String heading) {
        String[] ends = pattern.split(Pattern.quote(Unpivot.ANY), -1);
        List<String> conditions = new ArrayList<>();
        if (!ends[0].isEmpty()) {
            conditions.add("EXACT(LEFT(" + heading + "," + ends[0].length() + ")," + StepSheet.quoted(ends[0]) + ")");
        }
        if (!ends[1].isEmpty()) {
            conditions.add("EXACT(RIGHT(" + heading + "," + ends[1].length() + ")," + StepSheet.quoted(ends[1]) + ")");
            conditions.add("LEN(" + heading + ")>=" + (ends[0].length() + ends[1].length()));
        }
        return conditions;
    }
}
