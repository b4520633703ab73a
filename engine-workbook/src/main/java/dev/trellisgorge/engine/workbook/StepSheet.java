package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.InWords;
import dev.trellisgorge.formula.Reads;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.engine.workbook.Block.Place;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.util.CellReference;

/**
 * The sheet of a pipeline's steps, from left to right. A step that adds a column adds one; one that picks or makes rows begins a new
 * block, whose first column says which row of the block before each of its rows is. Used by one thread.
 */
final class StepSheet {
    private static final int POSITION = 10;
    private static final String LINE = "ROW()-" + (SheetLayout.FIRST - 1);
    private static final String HALF_BEFORE = "ROW()-" + (SheetLayout.FIRST - 0.5);
    private static final String NO_ROW = "-";

    private final String name;
    private final String title;
    private Settings settings;
    private final SheetNames names;
    private final Styles styles;
    private final List<SheetColumn> columns = new ArrayList<>();
    private final Map<Integer, String> sentences = new LinkedHashMap<>();
    private String sentence = "";
    private int lines;

    /** @param title of what the steps make the rows */
    StepSheet(String name, String title, Settings settings, SheetNames names, Styles styles) {
        this.name = name;
        this.title = title;
        this.settings = settings;
        this.names = names;
        this.styles = styles;
    }

    String name() {
        return name;
    }

    boolean isEmpty() {
        return columns.isEmpty();
    }

    List<Double> widths() {
        return columns.stream().map(column -> (double) column.width()).toList();
    }

    Settings settings() {
        return settings;
    }

    /** Lets formulas read one setting more. */
    void settable(String setting, Column value) {
        settings = switch (value.kind()) {
            case TEXT -> settings.with(setting, value.written(0));
            case DATE -> settings.with(setting, value.date(0).orElseThrow());
            default -> settings.with(setting, value.number(0));
        };
    }

    /** All that follows is for this step. */
    void begin(Step step) {
        sentence = step.sentence();
    }

    // Columns

    private Place add(String column, String meaning, int width, int rows, SheetColumn.Filling cells) {
        return add(new SheetColumn(column, meaning, width, cells), rows);
    }

    private Place add(SheetColumn column, int rows) {
        if (!sentence.isEmpty()) {
            sentences.put(columns.size(), sentence);
            sentence = "";
        }
        lines = Math.max(lines, rows);
        SheetColumn.Filling within = (line, at, row) -> {
            if (row < rows) {
                column.cells().fill(line, at, row);
            }
        };
        columns.add(new SheetColumn(column.name(), column.shown(), column.live(), column.meaning(), column.width(), within));
        return new Place(name, columns.size() - 1, SheetLayout.FIRST);
    }

    /** A column of one formula, as it is written on every line, {@code NA()} where a cell is absent. */
    private Place add(String column, String meaning, int rows, String formula, Column values) {
        return add(column, meaning, Computation.WIDTH, rows, formula, values, false);
    }

    private Place add(String column, String meaning, int width, int rows, String formula, Column values, boolean blank) {
        RowFormula written = new RowFormula(formula);
        Optional<CellStyle> style = style(values);
        return add(column, meaning, width, rows, (line, at, row) -> {
            Cell cell = line.createCell(at);
            cell.setCellFormula(written.at(SheetLayout.line(row), row + 2));
            Computation.value(cell, values, row, blank);
            style.ifPresent(cell::setCellStyle);
        });
    }

    private Optional<CellStyle> style(Column cells) {
        return cells.kind() == Kind.DATE ? Optional.of(styles.date()) : Optional.empty();
    }

    /** Columns that are worked out from a block's row, beside it. */
    private Place computed(Block block, String column, Formula formula, boolean counted) {
        Table rows = block.rows();
        String internal = rows.schema().has(column) ? column + " " : column;
        SheetLayout layout = new SheetLayout(block, settings, Map.of(internal, formula), name, names);
        List<SheetColumn> made = new ArrayList<>(columns);
        Evaluator evaluator = new Evaluator(rows, settings);
        Computation computation = new Computation(layout, made, asked -> evaluator.evaluate("cells", asked), this::style);
        computation.beside(any -> true);
        layout.column(internal, made.size());
        String meaning = InWords.of(computation.named(formula));
        made.add(new SheetColumn(column, meaning, Computation.WIDTH, counted ? computation.counted(internal, evaluator.evaluate("cells", formula)) : computation.cells(internal, evaluator.evaluate("cells", formula))));
        Place last = null;
        for (SheetColumn each : List.copyOf(made.subList(columns.size(), made.size()))) {
            last = add(each, block.lines());
        }
        return last;
    }

    /** A step that adds a column to each row. */
    Block column(Block block, Table after, String column, Formula formula) {
        Map<String, Place> places = new HashMap<>(block.places());
        places.put(column, computed(block, column, formula, false));
        return block.with(after, places);
    }

    Block renamed(Block block, Table after, Map<String, String> renamed) {
        Map<String, Place> places = new HashMap<>();
        block.places().forEach((column, place) -> places.put(renamed.getOrDefault(column, column), place));
        return block.with(after, places);
    }

    // Rows

    /** The rows that are kept are counted beside them; the n-th is the first one of that count. */
    Block kept(Block block, Table after, Formula condition, Set<String> needed, boolean folded) {
        Place count = computed(block, "kept so far", Formulas.cumulative(Formulas.choose(condition, Formulas.number(1), Formulas.number(0))), true);
        String all = block.marker().isPresent() ? "MAX(" + count.range(name, block.lines()) + ")" : count.last(name, block.lines());
        return picked(block, after, folded ? block.lines() : after.rowCount(), true, first(count, all, block), places(block.rows(), after), Optional.of(all), "the row that is kept", block.rooms(), needed);
    }

    /** For the n-th line, the row on which a count that goes on is n first. */
    private String first(Place count, String all, Block block) {
        return "IF(" + LINE + "<=" + all + ",IFERROR(MATCH(" + HALF_BEFORE + "," + count.range(name, block.lines()) + "),0)+1,\"\")";
    }

    /** Which row of a table each row of one is that was cut from it. */
    private static int[] places(Table before, Table after) {
        Map<Integer, Integer> places = new HashMap<>();
        IntStream.range(0, before.rowCount()).forEach(row -> places.put(before.wholeRow(row), row));
        return IntStream.range(0, after.rowCount()).map(row -> places.getOrDefault(after.wholeRow(row), -1)).toArray();
    }

    private static Column positions(int... at) {
        return Column.numbers("row", IntStream.of(at).mapToDouble(row -> row + 1).toArray());
    }

    /** The column that says which row of the block before each line is; 0 for none of them. */
    private Place position(Block block, int rows, String formula, int[] at, Optional<String> all, String meaning) {
        Optional<String> room = all.map(count -> "IF(" + count + ">" + rows + "," + count + "-" + rows + "&\" rows find no room\",\"" + SheetHead.OK + "\")");
        RowFormula written = new RowFormula(formula);
        Column values = positions(at);
        return add(new SheetColumn("row", room.map(formulaOf -> SheetHead.OK).orElse(""), room, meaning + " of " + (block.isRaw() ? "the sheet " + block.sheet() : "the block before"), POSITION, (line, column, row) -> {
            Cell cell = line.createCell(column);
            cell.setCellFormula(written.at(SheetLayout.line(row), row + 2));
            Computation.value(cell, values, row, true);
        }), rows);
    }

    private Block picked(Block block, Table after, int rows, boolean varies, String formula, int[] at, Optional<String> all, String meaning, List<String> rooms, Set<String> needed) {
        Place position = position(block, rows, formula, at, all, meaning);
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && block.places().containsKey(column.name())) {
                places.put(column.name(), add(column.name(), column.name(), rows, fetched(block, column.name(), position, varies), column));
            }
        }
        return new Block(after, rows, places, varies ? Optional.of(position) : Optional.empty(), rooms(rooms, all, position));
    }

    private List<String> rooms(List<String> rooms, Optional<String> all, Place position) {
        List<String> more = new ArrayList<>(rooms);
        all.ifPresent(count -> more.add(new CellReference(name, SheetLayout.SHOWN_AS - 1, position.column(), true, true).formatAsString()));
        return more;
    }

    /** A cell of the row that a position says, absent where there is none. */
    private String fetched(Block block, String column, Place position, boolean varies) {
        String cell = "INDEX(" + block.range(column, name) + "," + position.cell(name) + ")";
        String holds = switch (block.rows().column(column).kind()) {
            case TEXT -> "ISTEXT(";
            case TRUTH -> "ISLOGICAL(";
            default -> "ISNUMBER(";
        };
        String there = block.isWhole(column) || block.isComputed(column) ? cell : "IF(" + holds + cell + ")," + cell + "," + Computation.ABSENT + ")";
        return varies ? "IF(" + position.cell(name) + "=\"\"," + Computation.ABSENT + "," + there + ")" : there;
    }

    /** The cells of a column as functions run over them: those that are absent are blank. */
    private String cells(Block block, String column) {
        if (!block.isComputed(column) || block.isWhole(column) && block.marker().isEmpty()) {
            return block.range(column, name);
        }
        Column cells = block.rows().column(column);
        return add(column + " or blank", column + " as other cells run over it: blank where it is absent", Computation.WIDTH, block.lines(), "IFERROR(" + block.cell(column, name) + ",\"\")", cells, true).range(name, block.lines());
    }

    /** The same with 0 where there is no row, for what takes their distance from the least or greatest. */
    private String orZero(Block block, String column) {
        return add(column + " or 0", column + " as other cells run over it: 0 where there is no row", Computation.WIDTH, block.lines(), "IFERROR(" + block.cell(column, name) + ",0)", block.rows().column(column), true).range(name, block.lines());
    }

    /** Where each row comes in an order: equal ones as they stand, and those without a key last. */
    private Place ranks(Block block, Formula key, boolean descending) {
        boolean date = new Typing(block.rows().schema(), settings).kind(key).equals(Optional.of(Kind.DATE));
        Formula by = date ? new Calendar.Period(key, CalendarUnit.DAY) : key;
        Formula rank = new Window.Rank(by, descending ? Window.Direction.DESCENDING : Window.Direction.ASCENDING, Window.Ties.BY_ROW);
        Formula last = Formulas.count(by).plus(Formulas.cumulative(Formulas.choose(Formulas.missing(by), Formulas.number(1), Formulas.number(0))));
        Column cells = new Evaluator(block.rows(), settings).evaluate("by", by);
        boolean whole = IntStream.range(0, cells.size()).allMatch(cells::isPresent) && block.marker().isEmpty() && Reads.columns(by).stream().allMatch(block::isWhole);
        return computed(block, "place", whole ? rank : Formulas.coalesce(rank, last), true);
    }

    Block ordered(Block block, Table after, Formula by, boolean descending, Set<String> needed) {
        Place place = ranks(block, by, descending);
        return picked(block, after, block.lines(), block.marker().isPresent(), at(block, place), places(block.rows(), after), Optional.empty(), "the row that comes next", block.rooms(), needed);
    }

    private String at(Block block, Place place) {
        String match = "MATCH(" + LINE + "," + place.range(name, block.lines()) + ",0)";
        return block.marker().isPresent() ? "IFERROR(" + match + ",\"\")" : match;
    }

    Block ranked(Block block, Table after, Rank rank, Set<String> needed) {
        boolean varies = block.marker().isPresent();
        int top = rank.top().orElse(block.lines());
        Place place = rank.order() == Rank.Way.TABLE ? computed(block, "place", Formulas.rowNumber(), true) : ranks(block, rank.by(), rank.order() == Rank.Way.DESCENDING);
        boolean others = rank.rest().isPresent() && rank.top().isPresent() && block.lines() > top;
        int rows = Math.min(block.lines(), top) + (others ? 1 : 0);
        int[] at = places(block.rows(), after);
        if (!others) {
            return picked(block, after, rows, varies, at(block, place), at, Optional.empty(), "the row that comes next", block.rooms(), needed);
        }
        String more = varies ? "IF(" + block.count(name).orElseThrow() + ">" + top + ",0,\"\")" : "0";
        String position = "IF(" + LINE + "<=" + top + "," + at(block, place) + "," + more + ")";
        Rest rest = rank.rest().get();
        Place row = position(block, rows, position, at, Optional.empty(), "the row that comes next, 0 for all others,");
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            Rest.Way way = rest.ways().getOrDefault(column.name(), Rest.Way.MISSING);
            if (needed.contains(column.name()) && block.places().containsKey(column.name()) && (way != Rest.Way.DERIVED || column.name().equals(rest.column()))) {
                places.put(column.name(), add(column.name(), column.name(), rows,
                        added(block, column.name(), row, varies, column.name().equals(rest.column()) ? quoted(rest.name()) : others(block, column.name(), way, place, top)), column));
            }
        }
        Block made = new Block(after, rows, places, varies ? Optional.of(row) : Optional.empty(), block.rooms());
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && rest.ways().get(column.name()) == Rest.Way.DERIVED && !places.containsKey(column.name())) {
                places.put(column.name(), computed(made.with(made.rows(), places), column.name(), rest.derived().get(column.name()), false));
            }
        }
        return made.with(after, places);
    }

    /** A cell of the row that a position says, and what stands there where it is 0. */
    private String added(Block block, String column, Place position, boolean varies, String instead) {
        String cell = "IF(" + position.cell(name) + "=0," + instead + "," + fetched(block, column, position, false) + ")";
        return varies ? "IF(" + position.cell(name) + "=\"\"," + Computation.ABSENT + "," + cell + ")" : cell;
    }

    private String others(Block block, String column, Rest.Way way, Place place, int top) {
        if (way != Rest.Way.SUM) {
            return Computation.ABSENT;
        }
        String ranks = place.range(name, block.lines());
        String cells = cells(block, column);
        String sum = "SUMIF(" + ranks + ",\">" + top + "\"," + cells + ")";
        return block.isWhole(column) ? sum : "IF(COUNTIFS(" + ranks + ",\">" + top + "\"," + cells + ",\"<1E+300\")=0," + Computation.ABSENT + "," + sum + ")";
    }

    private static String quoted(String text) {
        return "\"" + text.replace("\"", "\"\"") + "\"";
    }

    Block added(Block block, Table after, AddRow row, Set<String> needed) {
        boolean varies = block.marker().isPresent();
        int rows = block.lines() + 1;
        String own = row.first() ? LINE + "-1" : LINE;
        String count = block.count(name).orElse(String.valueOf(block.lines()));
        String position = row.first() ? own : "IF(" + own + "<=" + count + "," + own + "," + (varies ? "IF(" + own + "=" + count + "+1,0,\"\")" : "0") + ")";
        String bounded = varies && row.first() ? "IF(" + own + "<=" + count + "," + own + ",\"\")" : position;
        Place at = position(block, rows, bounded, places(block.rows(), after), Optional.empty(), "the row, 0 for the one that is added,");
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && block.places().containsKey(column.name())) {
                places.put(column.name(), add(column.name(), column.name(), rows,
                        added(block, column.name(), at, varies, column.name().equals(row.column()) ? quoted(row.name()) : Computation.ABSENT), column));
            }
        }
        return new Block(after, rows, places, varies ? Optional.of(at) : Optional.empty(), block.rooms());
    }

    // Groups

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
            Formula cell = Formulas.coalesce(Formulas.written(Formulas.column(column)), Formulas.text(NO_ROW + NO_ROW));
            key = key == null ? cell : Formulas.concat(key, Formulas.text("\u2016"), cell);
        }
        Place place = computed(block, "key", key, true);
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
        Place at = add("group", "the first row with the same " + String.join(" and ", by), POSITION, block.lines(), there.apply("MATCH(" + key.cell() + "," + key.range() + ",0)"), positions(group), true);
        String above = CellReference.convertNumToColString(columns.size()) + RowFormula.ABOVE;
        Place so = add("groups so far", "how many groups began", POSITION, block.lines(), there.apply("SUM(" + above + ",IF(" + at.cell(name) + "=" + LINE + ",1,0))"),
                Column.numbers("groups", IntStream.of(count).asDoubleStream().toArray()), true);
        return new Groups(at, so, seen.values().stream().mapToInt(Integer::intValue).toArray());
    }

    /** The block of the groups: each stands for its first row. */
    private Block grouped(Block block, Table after, Groups groups, List<String> by, Set<String> needed) {
        String all = block.marker().isPresent() ? "MAX(" + groups.count().range(name, block.lines()) + ")" : groups.count().last(name, block.lines());
        Place row = position(block, after.rowCount(), first(groups.count(), all, block), groups.first(), Optional.of(all), "the first row of a group");
        Map<String, Place> places = new HashMap<>();
        for (String key : by) {
            if (needed.contains(key)) {
                places.put(key, add(key, key, after.rowCount(), fetched(block, key, row, true), after.column(key)));
            }
        }
        return new Block(after, after.rowCount(), places, Optional.of(row), rooms(block.rooms(), Optional.of(all), row));
    }

    Block totalled(Block block, Table after, Total total, Set<String> needed) {
        if (total.by().isEmpty()) {
            Map<String, Place> places = new HashMap<>();
            total.figures().stream().filter(figure -> needed.contains(figure.name())).forEach(figure -> places.put(figure.name(), add(figure.name(), "the " + figure.fold() + " of " + figure.column(), 1,
                    whole(block, figure), after.column(figure.name()))));
            return new Block(after, 1, places, Optional.empty(), block.rooms());
        }
        Groups groups = groups(block, total.by());
        Block made = grouped(block, after, groups, total.by(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        for (Total.Figure figure : total.figures()) {
            if (needed.contains(figure.name())) {
                String formula = "IF(" + made.marker().orElseThrow().cell(name) + "=\"\"," + Computation.ABSENT + "," + folded(block, figure, groups.group(), made.marker().orElseThrow()) + ")";
                places.put(figure.name(), add(figure.name(), "the " + figure.fold() + " of " + figure.column(), made.lines(), formula, after.column(figure.name())));
            }
        }
        return made.with(after, places);
    }

    /** Of all rows. */
    private String whole(Block block, Total.Figure figure) {
        String cells = cells(block, figure.column());
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
        String cells = placed || extreme && block.marker().isEmpty() ? block.range(figure.column(), name) : extreme ? orZero(block, figure.column()) : cells(block, figure.column());
        String groups = group.range(name, block.lines());
        String own = row.cell(name);
        boolean whole = block.isWhole(figure.column());
        String count = whole ? "COUNTIF(" + groups + "," + own + ")" : "COUNTIFS(" + groups + "," + own + "," + cells + ",\"<1E+300\")";
        String sum = "SUMIF(" + groups + "," + own + "," + cells + ")";
        return switch (figure.fold()) {
            case SUM -> whole ? sum : "IF(" + count + "=0," + Computation.ABSENT + "," + sum + ")";
            case MEAN -> whole ? sum + "/" + count : "IF(" + count + "=0," + Computation.ABSENT + "," + sum + "/" + count + ")";
            case COUNT -> count;
            case LEAST -> "MAX(" + cells + ")-SUMPRODUCT(MAX((" + groups + "=" + own + ")*(MAX(" + cells + ")-" + cells + ")))";
            case GREATEST -> "SUMPRODUCT(MAX((" + groups + "=" + own + ")*(" + cells + "-MIN(" + cells + "))))+MIN(" + cells + ")";
            case FIRST -> "INDEX(" + cells + "," + own + ")";
            case LAST -> "INDEX(" + cells + ",SUMPRODUCT(MAX((" + groups + "=" + own + ")*(ROW(" + cells + ")-ROW(" + first(block, figure.column()) + ")+1))))";
        };
    }

    private String first(Block block, String column) {
        return block.places().get(column).range(name, 1).replaceAll(":.*", "");
    }

    Block pivoted(Block block, Table after, Pivot pivot, Set<String> needed) {
        Groups groups = groups(block, pivot.by());
        Block made = grouped(block, after, groups, pivot.by(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        String row = made.marker().orElseThrow().cell(name);
        String cells = cells(block, pivot.values());
        String which = groups.group().range(name, block.lines()) + "," + row + "," + block.range(pivot.names(), name) + ",";
        for (String column : pivot.columns()) {
            if (needed.contains(column)) {
                String of = which + quoted(column);
                places.put(column, add(column, pivot.values() + " where " + pivot.names() + " is " + column, made.lines(),
                        "IF(COUNTIFS(" + of + ")=0," + Computation.ABSENT + ",SUMIFS(" + cells + "," + of + "))", after.column(column)));
            }
        }
        return made.with(after, places);
    }

    Block unpivoted(Block block, Table after, Unpivot unpivot, Set<String> needed) {
        int each = unpivot.columns().size();
        int rows = block.lines() * each;
        boolean varies = block.marker().isPresent();
        String own = "INT((ROW()-" + SheetLayout.FIRST + ")/" + each + ")+1";
        String bounded = varies ? "IF(" + own + "<=" + block.count(name).orElseThrow() + "," + own + ",\"\")" : own;
        Block made = picked(block, after, rows, varies, bounded, IntStream.range(0, after.rowCount()).map(row -> row / each).toArray(), Optional.empty(), "the row", block.rooms(), needed);
        Map<String, Place> places = new HashMap<>(made.places());
        Place row = new Place(name, columns.size() - 1 - made.places().size(), SheetLayout.FIRST);
        String turn = "MOD(ROW()-" + SheetLayout.FIRST + "," + each + ")+1";
        for (String column : List.of(unpivot.names(), unpivot.values())) {
            if (needed.contains(column)) {
                boolean named = column.equals(unpivot.names());
                IntFunction<String> choice = at -> named ? quoted(unpivot.columns().get(at)) : fetched(block, unpivot.columns().get(at), row, false);
                String chosen = "CHOOSE(" + turn + "," + IntStream.range(0, each).mapToObj(choice).collect(Collectors.joining(",")) + ")";
                places.put(column, add(column, named ? "the name of the column" : "the cell of the column", rows,
                        varies ? "IF(" + row.cell(name) + "=\"\"," + Computation.ABSENT + "," + chosen + ")" : chosen, after.column(column)));
            }
        }
        return made.with(after, places);
    }

    // Other tables

    Block joined(Block block, Block other, Table after, Join join, Set<String> needed, boolean folded) {
        List<String> here = List.copyOf(join.on().keySet());
        List<String> there = List.copyOf(join.on().values());
        Key own = key(block, here);
        Key others = key(other, there);
        Map<List<String>, Integer> known = new HashMap<>();
        for (int row = 0; row < other.rows().rowCount(); row++) {
            known.putIfAbsent(cells(other.rows(), there, row), row);
        }
        int[] at = IntStream.range(0, block.rows().rowCount()).map(row -> known.getOrDefault(cells(block.rows(), here, row), -1)).toArray();
        String match = "IFERROR(MATCH(" + own.cell() + "," + others.range() + ",0),\"\")";
        String blanks = here.stream().filter(column -> !block.isWhole(column)).map(column -> (block.isComputed(column) ? "ISERROR(" : "ISBLANK(") + block.cell(column, name) + ")").collect(Collectors.joining(","));
        Place row = add("row of " + join.other().name(), "the row of " + join.other().name() + " with the same " + String.join(" and ", here), POSITION, block.lines(),
                blanks.isEmpty() ? match : "IF(OR(" + blanks + "),\"\"," + match + ")", Column.numbers("row", IntStream.of(at).mapToDouble(each -> each < 0 ? Double.NaN : each + 1).toArray()), true);
        Map<String, Place> places = new HashMap<>(block.places());
        Table beside = block.rows();
        List<Column> all = new ArrayList<>(beside.columns());
        for (Column column : other.rows().columns()) {
            if (!there.contains(column.name())) {
                Column cells = column.at(at);
                all.add(cells);
                if (needed.contains(column.name())) {
                    places.put(column.name(), add(column.name(), column.name() + " of " + join.other().name(), block.lines(), fetched(other, column.name(), row, true), cells));
                }
            }
        }
        List<String> rooms = new ArrayList<>(block.rooms());
        rooms.addAll(other.rooms());
        Table left = Table.of(beside.name(), all.toArray(Column[]::new));
        Block joined = new Block(left, block.lines(), places, block.marker(), rooms);
        if (join.way() == Join.Way.LEFT) {
            return joined.with(after, places);
        }
        String above = CellReference.convertNumToColString(columns.size()) + RowFormula.ABOVE;
        int[] count = new int[at.length];
        int[] kept = IntStream.range(0, at.length).filter(each -> at[each] >= 0).toArray();
        for (int each = 0; each < count.length; each++) {
            count[each] = (each == 0 ? 0 : count[each - 1]) + (at[each] >= 0 ? 1 : 0);
        }
        Place so = add("matched so far", "how many rows have a match", POSITION, block.lines(), "SUM(" + above + ",IF(ISNUMBER(" + row.cell(name) + "),1,0))", Column.numbers("matched", IntStream.of(count).asDoubleStream().toArray()), true);
        String last = so.last(name, block.lines());
        return picked(joined, after, folded ? block.lines() : after.rowCount(), true, first(so, last, block), kept, Optional.of(last), "the row that has a match", rooms, needed);
    }

    private static List<String> cells(Table table, List<String> columns, int row) {
        List<String> cells = columns.stream().map(table::column).map(column -> column.isPresent(row) ? column.written(row) : "").toList();
        return cells.contains("") ? List.of("no row " + row + columns) : cells;
    }

    void fill(Sheet sheet) {
        SheetHead head = new SheetHead(sheet, styles, columns);
        head.write(title, "What the steps make of the rows, as formulas, from left to right: a block of columns for each step, and over it what it does.", null, 0, List.of());
        head.over(sentences);
        for (int row = 0; row < lines; row++) {
            Row line = sheet.createRow(SheetLayout.line(row) - 1);
            for (int i = 0; i < columns.size(); i++) {
                columns.get(i).cells().fill(line, i, row);
            }
        }
    }
}
