package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.engine.workbook.Block.Place;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellReference;

/** Steps that bring rows together by keys, of one table or of two, as formulas. Used by one thread. */
final class StepGroups {
    private static final String NO_KEY = "--";
    private static final double HALF = 0.5;
    private static final int SPARE_SHARE = 4;
    private static final int POSITION = StepSheet.POSITION;

    private final StepSheet sheet;
    private final String name;
    private final OptionalInt spareBars;

    /**
     * @param sheet     the sheet that the formulas go to
     * @param spareBars for how many groups more there is room where rows may come; empty for a share of those that there are
     */
    StepGroups(StepSheet sheet, OptionalInt spareBars) {
        this.sheet = sheet;
        this.spareBars = spareBars;
        this.name = sheet.name();
    }

    /** The cell that tells a row from others, and those of all rows. */
    private record Key(String cell, String range) {
    }

    /** What tells rows apart by some columns: the column itself where it is one that has no blank. */
    private Key key(Block block, List<String> by) {
        boolean one = by.size() == 1 && block.isWhole(by.get(0)) && block.marker().isEmpty();
        if (one) {
            return new Key(block.cell(by.get(0), name), block.range(by.get(0), name));
        }
        Formula key = null;
        for (String column : by) {
            Formula cell = Formulas.coalesce(Formulas.written(Formulas.column(column)), Formulas.text(NO_KEY));
            key = key == null ? cell : Formulas.concat(key, Formulas.text("\u2016"), cell);
        }
        Place place = sheet.computed(block, "key", key, true);
        return new Key(place.cell(name), place.range(name, block.lines()));
    }

    /** The row on which each row's key stands first, and where in the table that is now. */
    private record Groups(Place group, Place count, int[] first) {
    }

    private Groups groups(Block block, List<String> by) {
        Key key = key(block, by);
        Map<List<String>, Integer> seen = new LinkedHashMap<>();
        Table rows = block.rows();
        int[] group = new int[rows.rowCount()];
        int[] count = new int[group.length];
        for (int row = 0; row < group.length; row++) {
            int at = row;
            List<String> cells = by.stream().map(rows::column).map(column -> column.isPresent(at) ? "=" + column.written(at) : "").toList();
            group[row] = seen.computeIfAbsent(cells, each -> at);
            count[row] = seen.size();
        }
        Function<String, String> there = formula -> block.there(name).map(is -> "IF(" + is + "," + formula + ",\"\")").orElse(formula);
        Place at = sheet.add("group", "the first row with the same " + String.join(" and ", by), POSITION, block.lines(), there.apply("MATCH(" + key.cell() + "," + key.range() + ",0)"), StepSheet.positions(group), true);
        String above = CellReference.convertNumToColString(sheet.next()) + RowFormula.ABOVE;
        Place so = sheet.add("groups so far", "how many groups began", POSITION, block.lines(), there.apply("SUM(" + above + ",IF(" + at.cell(name) + "=" + StepSheet.LINE + ",1,0))"),
                Column.numbers("groups", IntStream.of(count).asDoubleStream().toArray()), true);
        return new Groups(at, so, seen.values().stream().mapToInt(Integer::intValue).toArray());
    }

    /** The cells of a column, each once, as a list that takes in rows to come. */
    DropDowns.Growing listed(Block block, String column, int known, int spare) {
        Groups groups = groups(block, List.of(column));
        String counts = groups.count().range("", block.lines());
        String cells = block.range(column, "");
        return new DropDowns.Growing(known + spare, at -> "IF(" + at + "<=MAX(" + counts + "),INDEX(" + cells + ",IFERROR(MATCH(" + (at - HALF) + "," + counts + "),0)+1),\"\")");
    }

    /** The block of the groups: each stands for its first row. */
    private Block grouped(Block block, Table after, Groups groups, List<String> by, Set<String> needed) {
        String all = block.marker().isPresent() ? "MAX(" + groups.count().range(name, block.lines()) + ")" : groups.count().last(name, block.lines());
        int room = after.rowCount() + (block.open() ? spareBars.orElse(Math.max(1, after.rowCount() / SPARE_SHARE)) : 0);
        Place row = sheet.position(block, room, sheet.first(groups.count(), all, block), groups.first(), Optional.of(all), "the first row of a group");
        Map<String, Place> places = new HashMap<>();
        for (String key : by) {
            if (needed.contains(key)) {
                places.put(key, sheet.add(key, key, room, sheet.fetched(block, key, row, true), after.column(key)));
            }
        }
        return block.then(after, room, places, Optional.of(row), sheet.rooms(block.rooms(), Optional.of(all), row));
    }

    Block totalled(Block block, Table after, Total total, Set<String> needed) {
        if (total.by().isEmpty()) {
            Map<String, Place> places = new HashMap<>();
            total.figures().stream().filter(figure -> needed.contains(figure.name())).forEach(figure -> places.put(figure.name(), sheet.add(figure.name(), "the " + figure.fold() + " of " + figure.column(), 1,
                    whole(block, figure), after.column(figure.name()))));
            return block.then(after, 1, places, Optional.empty(), block.rooms());
        }
        Groups groups = groups(block, total.by());
        Block made = grouped(block, after, groups, total.by(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        for (Total.Figure figure : total.figures()) {
            if (needed.contains(figure.name())) {
                String formula = "IF(" + made.marker().orElseThrow().cell(name) + "=\"\"," + Computation.ABSENT + "," + folded(block, figure, groups.group(), made.marker().orElseThrow()) + ")";
                places.put(figure.name(), sheet.add(figure.name(), "the " + figure.fold() + " of " + figure.column(), made.lines(), formula, after.column(figure.name())));
            }
        }
        return made.with(after, places);
    }

    /** Of all rows. */
    private String whole(Block block, Total.Figure figure) {
        String cells = sheet.cells(block, figure.column());
        String some = block.isWhole(figure.column()) && block.marker().isEmpty() ? "" : "IF(COUNT(" + cells + ")=0," + Computation.ABSENT + ",";
        String end = some.isEmpty() ? "" : ")";
        return switch (figure.fold()) {
            case SUM -> some + "SUM(" + cells + ")" + end;
            case MEAN -> some + "AVERAGE(" + cells + ")" + end;
            case COUNT -> block.rows().column(figure.column()).kind() == Kind.TEXT || block.rows().column(figure.column()).kind() == Kind.TRUTH ? block.count(name).orElse("ROWS(" + cells + ")") : "COUNT(" + cells + ")";
            case LEAST -> some + "MIN(" + cells + ")" + end;
            case GREATEST -> some + "MAX(" + cells + ")" + end;
            case FIRST -> "INDEX(" + cells + ",1)";
            case LAST -> "INDEX(" + cells + "," + block.count(name).orElse("ROWS(" + cells + ")") + ")";
        };
    }

    /** Of the rows of a group. */
    private String folded(Block block, Total.Figure figure, Place group, Place row) {
        boolean extreme = figure.fold() == Total.Fold.LEAST || figure.fold() == Total.Fold.GREATEST;
        boolean placed = figure.fold() == Total.Fold.FIRST || figure.fold() == Total.Fold.LAST;
        String cells = placed || extreme && block.marker().isEmpty() ? block.range(figure.column(), name) : extreme ? sheet.orZero(block, figure.column()) : sheet.cells(block, figure.column());
        String groups = group.range(name, block.lines());
        String own = row.cell(name);
        boolean whole = block.isWhole(figure.column());
        boolean figures = block.rows().column(figure.column()).kind() != Kind.TEXT && block.rows().column(figure.column()).kind() != Kind.TRUTH;
        String count = whole ? "COUNTIF(" + groups + "," + own + ")" : "COUNTIFS(" + groups + "," + own + "," + cells + ",\"" + (figures ? "<1E+300" : "?*") + "\")";
        String sum = "SUMIF(" + groups + "," + own + "," + cells + ")";
        return switch (figure.fold()) {
            case SUM -> whole ? sum : "IF(" + count + "=0," + Computation.ABSENT + "," + sum + ")";
            case MEAN -> whole ? sum + "/" + count : "IF(" + count + "=0," + Computation.ABSENT + "," + sum + "/" + count + ")";
            case COUNT -> count;
            case LEAST -> "MAX(" + cells + ")-SUMPRODUCT(MAX((" + groups + "=" + own + ")*(MAX(" + cells + ")-" + cells + ")))";
            case GREATEST -> "SUMPRODUCT(MAX((" + groups + "=" + own + ")*(" + cells + "-MIN(" + cells + "))))+MIN(" + cells + ")";
            case FIRST -> "INDEX(" + cells + "," + own + ")";
            case LAST -> "INDEX(" + cells + ",SUMPRODUCT(MAX((" + groups + "=" + own + ")*(ROW(" + cells + ")-ROW(" + firstCell(block, figure.column()) + ")+1))))";
        };
    }

    private String firstCell(Block block, String column) {
        return block.places().get(column).range(name, 1).replaceAll(":.*", "");
    }

    Block pivoted(Block block, Table after, Pivot pivot, Set<String> needed) {
        Groups groups = groups(block, pivot.by());
        Block made = grouped(block, after, groups, pivot.by(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        String row = made.marker().orElseThrow().cell(name);
        String cells = sheet.cells(block, pivot.values());
        String which = groups.group().range(name, block.lines()) + "," + row + "," + block.range(pivot.names(), name) + ",";
        for (String column : pivot.columns()) {
            if (needed.contains(column)) {
                String of = which + StepSheet.quoted(column);
                places.put(column, sheet.add(column, pivot.values() + " where " + pivot.names() + " is " + column, made.lines(),
                        "IF(COUNTIFS(" + of + ")=0," + Computation.ABSENT + ",SUMIFS(" + cells + "," + of + "))", after.column(column)));
            }
        }
        return made.with(after, places);
    }

    Block joined(Block block, Block other, Table after, Join join, Set<String> needed, int room) {
        List<String> here = List.copyOf(join.on().keySet());
        List<String> there = List.copyOf(join.on().values());
        Key own = key(block, here);
        Key others = key(other, there);
        Map<List<String>, Integer> known = new HashMap<>();
        for (int row = 0; row < other.rows().rowCount(); row++) {
            known.putIfAbsent(keyOf(other.rows(), there, row), row);
        }
        int[] at = IntStream.range(0, block.rows().rowCount()).map(row -> known.getOrDefault(keyOf(block.rows(), here, row), -1)).toArray();
        String match = "IFERROR(MATCH(" + own.cell() + "," + others.range() + ",0),\"\")";
        String blanks = here.stream().filter(column -> !block.isWhole(column)).map(column -> (block.isComputed(column) ? "ISERROR(" : "ISBLANK(") + block.cell(column, name) + ")").collect(Collectors.joining(","));
        Place row = sheet.add("row of " + join.other().name(), "the row of " + join.other().name() + " with the same " + String.join(" and ", here), POSITION, block.lines(),
                blanks.isEmpty() ? match : "IF(OR(" + blanks + "),\"\"," + match + ")", Column.numbers("row", IntStream.of(at).mapToDouble(each -> each < 0 ? Double.NaN : each + 1).toArray()), true);
        Map<String, Place> places = new HashMap<>(block.places());
        Table beside = block.rows();
        List<Column> all = new ArrayList<>(beside.columns());
        for (Column column : other.rows().columns()) {
            if (!there.contains(column.name())) {
                Column cells = column.at(at);
                all.add(cells);
                if (needed.contains(column.name())) {
                    places.put(column.name(), sheet.add(column.name(), column.name() + " of " + join.other().name(), block.lines(), sheet.fetched(other, column.name(), row, true), cells));
                }
            }
        }
        List<String> rooms = new ArrayList<>(block.rooms());
        rooms.addAll(other.rooms());
        Table left = Table.of(beside.name(), all.toArray(Column[]::new));
        Block joined = new Block(left, block.lines(), places, block.marker(), rooms, Math.max(block.spare(), other.spare()));
        if (join.way() == Join.Way.LEFT) {
            return joined.with(after, places);
        }
        String above = CellReference.convertNumToColString(sheet.next()) + RowFormula.ABOVE;
        int[] count = new int[at.length];
        int[] kept = IntStream.range(0, at.length).filter(each -> at[each] >= 0).toArray();
        for (int each = 0; each < count.length; each++) {
            count[each] = (each == 0 ? 0 : count[each - 1]) + (at[each] >= 0 ? 1 : 0);
        }
        Place so = sheet.add("matched so far", "how many rows have a match", POSITION, block.lines(), "SUM(" + above + ",IF(ISNUMBER(" + row.cell(name) + "),1,0))", Column.numbers("matched", IntStream.of(count).asDoubleStream().toArray()), true);
        String last = so.last(name, block.lines());
        return sheet.picked(joined, after, room, true, sheet.first(so, last, block), kept, Optional.of(last), "the row that has a match", rooms, needed);
    }

    private static List<String> keyOf(Table table, List<String> columns, int row) {
        List<String> cells = columns.stream().map(table::column).map(column -> column.isPresent(row) ? column.written(row) : "").toList();
        return cells.contains("") ? List.of("no row " + row + columns) : cells;
    }
}
