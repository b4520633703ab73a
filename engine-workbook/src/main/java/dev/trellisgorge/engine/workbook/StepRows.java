package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.engine.workbook.Block.Place;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Steps that add columns to rows, pick rows or put them in order, as formulas. Used by one thread. */
final class StepRows {
    private static final String LINE = StepSheet.LINE;

    private final StepSheet sheet;
    private final String name;

    /** @param sheet the sheet that the formulas go to */
    StepRows(StepSheet sheet) {
        this.sheet = sheet;
        this.name = sheet.name();
    }

    /** A step that adds a column to each row. */
    Block column(Block block, Table after, String column, Formula formula) {
        Map<String, Place> places = new HashMap<>(block.places());
        places.put(column, sheet.computed(block, column, formula, false));
        return block.with(after, places);
    }

    Block renamed(Block block, Table after, Map<String, String> renamed) {
        Map<String, Place> places = new HashMap<>();
        block.places().forEach((column, place) -> places.put(renamed.getOrDefault(column, column), place));
        return block.with(after, places);
    }

    /** The rows that are kept are counted beside them; the n-th is the first one of that count. */
    Block kept(Block block, Table after, Formula condition, Set<String> needed, int room) {
        Place count = sheet.computed(block, "kept so far", Formulas.cumulative(Formulas.choose(condition, Formulas.number(1), Formulas.number(0))), true);
        String all = block.marker().isPresent() ? "MAX(" + count.range(name, block.lines()) + ")" : count.last(name, block.lines());
        return sheet.picked(block, after, room, true, sheet.first(count, all, block), StepSheet.places(block.rows(), after), Optional.of(all), "the row that is kept", block.rooms(), needed);
    }

    /** Where each row comes in an order: equal ones as they stand, and those without a key last. */
    private Place ranks(Block block, Formula key, boolean descending) {
        return sheet.computed(block, "place", rank(block, key, descending), true);
    }

    /** The same in the way that a setting says. */
    private Place ranks(Block block, Formula key, String order) {
        Formula stated = Formulas.setting(order);
        return sheet.computed(block, "place", Formulas.choose(stated.equalTo(Formulas.text(DropDowns.inWords(Rank.Way.TABLE))), Formulas.rowNumber(),
                Formulas.choose(stated.equalTo(Formulas.text(DropDowns.inWords(Rank.Way.ASCENDING))), rank(block, key, false), rank(block, key, true))), true);
    }

    private Formula rank(Block block, Formula key, boolean descending) {
        boolean date = new Typing(block.rows().schema(), sheet.settings()).kind(key).equals(Optional.of(Kind.DATE));
        Formula by = date ? new Calendar.Period(key, CalendarUnit.DAY) : key;
        Formula rank = new Window.Rank(by, descending ? Window.Direction.DESCENDING : Window.Direction.ASCENDING, Window.Ties.BY_ROW);
        Formula last = Formulas.count(by).plus(Formulas.cumulative(Formulas.choose(Formulas.missing(by), Formulas.number(1), Formulas.number(0))));
        Column cells = new Evaluator(block.rows(), sheet.settings()).evaluate("by", by);
        boolean whole = IntStream.range(0, cells.size()).allMatch(cells::isPresent) && block.marker().isEmpty() && ColumnReferences.columns(by).stream().allMatch(block::isWhole);
        return whole ? rank : Formulas.coalesce(rank, last);
    }

    Block ordered(Block block, Table after, Formula by, boolean descending, Set<String> needed) {
        Place place = ranks(block, by, descending);
        return sheet.picked(block, after, block.lines(), block.marker().isPresent(), at(block, place), StepSheet.places(block.rows(), after), Optional.empty(), "the row that comes next", block.rooms(), needed);
    }

    private String at(Block block, Place place) {
        String match = "MATCH(" + LINE + "," + place.range(name, block.lines()) + ",0)";
        return block.marker().isPresent() ? "IFERROR(" + match + ",\"\")" : match;
    }

    /** @param order the setting that says in which order; empty for that of the table */
    Block ranked(Block block, Table after, Rank rank, Set<String> needed, Optional<String> order) {
        boolean varies = block.marker().isPresent();
        int top = rank.top().orElse(block.lines());
        Place place = order.isEmpty() ? sheet.computed(block, "place", Formulas.rowNumber(), true) : ranks(block, rank.by(), order.get());
        boolean others = rank.rest().isPresent() && rank.top().isPresent() && block.lines() > top;
        int rows = Math.min(block.lines(), top) + (others ? 1 : 0);
        int[] at = StepSheet.places(block.rows(), after);
        if (!others) {
            return sheet.picked(block, after, rows, varies, at(block, place), at, Optional.empty(), "the row that comes next", block.rooms(), needed);
        }
        String more = varies ? "IF(" + block.count(name).orElseThrow() + ">" + top + ",0,\"\")" : "0";
        String position = "IF(" + LINE + "<=" + top + "," + at(block, place) + "," + more + ")";
        Rest rest = rank.rest().get();
        Map<String, String> instead = new HashMap<>();
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && block.places().containsKey(column.name())) {
                instead.put(column.name(), column.name().equals(rest.column()) ? StepSheet.quoted(rest.name()) : others(block, column.name(), rest.ways().getOrDefault(column.name(), Rest.Way.MISSING), place, top));
            }
        }
        Place row = sheet.position(block, rows, position, at, Optional.empty(), "the row that comes next, 0 for all others,");
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            Rest.Way way = rest.ways().getOrDefault(column.name(), Rest.Way.MISSING);
            if (needed.contains(column.name()) && block.places().containsKey(column.name()) && (way != Rest.Way.DERIVED || column.name().equals(rest.column()))) {
                places.put(column.name(), sheet.add(column.name(), column.name(), rows,
                        added(block, column.name(), row, varies, instead.get(column.name())), column));
            }
        }
        Block made = block.then(after, rows, places, varies ? Optional.of(row) : Optional.empty(), block.rooms());
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && rest.ways().get(column.name()) == Rest.Way.DERIVED && !places.containsKey(column.name())) {
                places.put(column.name(), sheet.computed(made.with(made.rows(), places), column.name(), rest.derived().get(column.name()), false));
            }
        }
        return made.with(after, places);
    }

    /** A cell of the row that a position says, and what stands there where it is 0. */
    private String added(Block block, String column, Place position, boolean varies, String instead) {
        String cell = "IF(" + position.cell(name) + "=0," + instead + "," + sheet.fetched(block, column, position, false) + ")";
        return varies ? "IF(" + position.cell(name) + "=\"\"," + Computation.ABSENT + "," + cell + ")" : cell;
    }

    private String others(Block block, String column, Rest.Way way, Place place, int top) {
        if (way != Rest.Way.SUM) {
            return Computation.ABSENT;
        }
        String ranks = place.range(name, block.lines());
        String cells = sheet.cells(block, column);
        String sum = "SUMIF(" + ranks + ",\">" + top + "\"," + cells + ")";
        return block.isWhole(column) ? sum : "IF(COUNTIFS(" + ranks + ",\">" + top + "\"," + cells + ",\"<1E+300\")=0," + Computation.ABSENT + "," + sum + ")";
    }

    Block added(Block block, Table after, AddRow row, Set<String> needed) {
        boolean varies = block.marker().isPresent();
        int rows = block.lines() + 1;
        String own = row.first() ? LINE + "-1" : LINE;
        String count = block.count(name).orElse(String.valueOf(block.lines()));
        String position = row.first() ? own : "IF(" + own + "<=" + count + "," + own + "," + (varies ? "IF(" + own + "=" + count + "+1,0,\"\")" : "0") + ")";
        String bounded = varies && row.first() ? "IF(" + own + "<=" + count + "," + own + ",\"\")" : position;
        Place at = sheet.position(block, rows, bounded, StepSheet.places(block.rows(), after), Optional.empty(), "the row, 0 for the one that is added,");
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && block.places().containsKey(column.name())) {
                places.put(column.name(), sheet.add(column.name(), column.name(), rows,
                        added(block, column.name(), at, varies, column.name().equals(row.column()) ? StepSheet.quoted(row.name()) : Computation.ABSENT), column));
            }
        }
        return block.then(after, rows, places, varies ? Optional.of(at) : Optional.empty(), block.rooms());
    }

    /** @param beside the columns that may come beside those of the block, and are turned too */
    Block unpivoted(Block block, Table after, Unpivot unpivot, Set<String> needed, Optional<SpareColumns> beside) {
        int known = unpivot.columns().size();
        int rows = block.lines() * (known + beside.map(SpareColumns::room).orElse(0));
        String each = beside.map(columns -> columns.count().last(name, 1)).orElse(String.valueOf(known));
        boolean varies = block.marker().isPresent();
        String own = "INT((ROW()-" + SheetLayout.FIRST + ")/" + each + ")+1";
        String bounded = varies ? "IF(" + own + "<=" + block.count(name).orElseThrow() + "," + own + ",\"\")" : own;
        Block made = sheet.picked(block, after, rows, varies, bounded, IntStream.range(0, after.rowCount()).map(row -> row / known).toArray(), Optional.empty(), "the row", block.rooms(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        Place row = new Place(name, sheet.next() - 1 - made.places().size());
        String turn = "MOD(ROW()-" + SheetLayout.FIRST + "," + each + ")+1";
        for (String column : List.of(unpivot.names(), unpivot.values())) {
            if (needed.contains(column)) {
                boolean named = column.equals(unpivot.names());
                IntFunction<String> choice = at -> named ? StepSheet.quoted(unpivot.columns().get(at)) : sheet.fetched(block, unpivot.columns().get(at), row, false);
                String chosen = "CHOOSE(" + turn + "," + IntStream.range(0, known).mapToObj(choice).collect(Collectors.joining(",")) + ")";
                String all = beside.map(columns -> "IF(" + turn + "<=" + known + "," + chosen + "," + columns.cell(turn + "-" + known, named, row, block, after.column(unpivot.values()).kind()) + ")").orElse(chosen);
                places.put(column, sheet.add(column, named ? "the name of the column" : "the cell of the column", rows,
                        varies ? "IF(" + row.cell(name) + "=\"\"," + Computation.ABSENT + "," + all + ")" : all, after.column(column)));
            }
        }
        return made.with(after, places).withSpare(block.open() ? rows - after.rowCount() : 0);
    }
}
