package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.InWords;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.engine.workbook.Block.Place;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;
import dev.trellisgorge.sheet.Sheet;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;

/**
 * The sheet of a pipeline's steps, from left to right. A step that adds a column adds one; one that picks or makes rows begins a new
 * block, whose first column says which row of the block before each of its rows is. Used by one thread.
 */
final class StepSheet {
    static final int POSITION = 10;
    static final String LINE = "ROW()-" + (SheetLayout.FIRST - 1);
    private static final String HALF_BEFORE = "ROW()-" + (SheetLayout.FIRST - 0.5);

    private final String name;
    private final String title;
    private Settings settings;
    private final SheetNames names;
    private final List<SheetColumn> columns = new ArrayList<>();
    private final Map<Integer, String> sentences = new LinkedHashMap<>();
    private final Map<Table, Block> arrivals = new IdentityHashMap<>();
    private String sentence = "";
    private int lines;

    /** @param title of what the steps make the rows */
    StepSheet(String name, String title, Settings settings, SheetNames names) {
        this.name = name;
        this.title = title;
        this.settings = settings;
        this.names = names;
    }

    String name() {
        return name;
    }

    /** Where the next column stands, from 0. */
    int next() {
        return columns.size();
    }

    boolean isEmpty() {
        return columns.isEmpty();
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

    Place add(String column, String meaning, int width, int rows, SheetColumn.Filling cells) {
        return add(new SheetColumn(column, meaning, width, cells), rows);
    }

    Place add(SheetColumn column, int rows) {
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
        return new Place(name, columns.size() - 1);
    }

    /** A column of one formula, as it is written on every line, {@code NA()} where a cell is absent. */
    Place add(String column, String meaning, int rows, String formula, Column values) {
        return add(column, meaning, Computation.WIDTH, rows, formula, values, false);
    }

    Place add(String column, String meaning, int width, int rows, String formula, Column values, boolean blank) {
        RowFormula written = new RowFormula(formula);
        Optional<CellLook> style = style(values);
        return add(column, meaning, width, rows, (line, at, row) -> {
            Cell cell = line.cell(at);
            cell.formula(written.at(SheetLayout.line(row), 0));
            Computation.value(cell, values, row, blank);
            style.ifPresent(cell::look);
        });
    }

    private Optional<CellLook> style(Column cells) {
        return cells.kind() == Kind.DATE ? Optional.of(Styles.date()) : Optional.empty();
    }

    /**
     * The rows of a raw sheet and those that may come below them: a column says which lines have one.
     *
     * @param beside the columns that may come beside these
     */
    Block arrivals(Table table, RawSheets.Stands where, int spare, Optional<SpareColumns> beside) {
        if (table.rowCount() + spare + Math.max(where.first(), SheetLayout.FIRST) > SheetBounds.ROWS) {
            throw new BadInput(table.place(), ProblemKind.TOO_LARGE, table.rowCount() + " rows and room for " + spare + " more don't fit on a sheet of a workbook, which has " + SheetBounds.ROWS + " lines");
        }
        return beside.isPresent() ? arriving(table, where, spare, beside) : arrivals.computeIfAbsent(table, each -> arriving(table, where, spare, beside));
    }

    private Block arriving(Table table, RawSheets.Stands where, int spare, Optional<SpareColumns> beside) {
        String sheet = where.sheet();
        int rows = table.rowCount() + spare;
        int from = IntStream.of(where.columns()).min().orElseThrow();
        int end = IntStream.of(where.columns()).max().orElseThrow();
        CellRangeAddress below = new CellRangeAddress(where.first() + rows - 1, where.first() + rows - 1, from, end); // rows stand below each other, so one too many is there
        String columns = where.isOwn() ? "IF(" + SpareColumns.notRead(table, where, beside, name) + ",\"a new column is not read; draw again\",\"" + SheetHead.OK + "\")" : "\"" + SheetHead.OK + "\"";
        String room = "IF(COUNTA(" + below.formatAsString(sheet, true) + ")>0,\"rows find no room\"," + columns + ")";
        Place first = new Place(sheet, from, where.first(), true);
        Place last = new Place(sheet, end, where.first(), true);
        RowFormula written = new RowFormula("IF(COUNTA(" + first.cell(name) + ":" + last.cell(sheet) + ")>0," + LINE + ",\"\")");
        Column numbers = positions(IntStream.range(0, table.rowCount()).toArray());
        Place marker = add(new SheetColumn("row", SheetHead.OK, Optional.of(room), "the row of the sheet " + sheet + ", blank where there is none; there is room for " + spare + " more", POSITION, (at, column, row) -> {
            Cell cell = at.cell(column);
            cell.formula(written.at(SheetLayout.line(row), 0));
            Computation.value(cell, numbers, row, true);
        }), rows);
        return Block.open(table, where, spare, marker, rooms(List.of(), Optional.of(room), marker).get(0));
    }

    /** Columns that are worked out from a block's row, beside it. */
    Place computed(Block block, String column, Formula formula, boolean counted) {
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

    /** For the n-th line, the row on which a count that goes on is n first. */
    String first(Place count, String all, Block block) {
        return "IF(" + LINE + "<=" + all + ",IFERROR(MATCH(" + HALF_BEFORE + "," + count.range(name, block.lines()) + "),0)+1,\"\")";
    }

    /** Which row of a table each row of one is that was cut from it. */
    static int[] places(Table before, Table after) {
        Map<Integer, Integer> places = new HashMap<>();
        IntStream.range(0, before.rowCount()).forEach(row -> places.put(before.wholeRow(row), row));
        return IntStream.range(0, after.rowCount()).map(row -> places.getOrDefault(after.wholeRow(row), -1)).toArray();
    }

    static Column positions(int... at) {
        return Column.numbers("row", IntStream.of(at).mapToDouble(row -> row + 1).toArray());
    }

    /** The column that says which row of the block before each line is; 0 for none of them. */
    Place position(Block block, int rows, String formula, int[] at, Optional<String> all, String meaning) {
        Optional<String> room = all.map(count -> "IF(" + count + ">" + rows + "," + count + "-" + rows + "&\" rows find no room\",\"" + SheetHead.OK + "\")");
        RowFormula written = new RowFormula(formula);
        Column values = positions(at);
        return add(new SheetColumn("row", room.map(formulaOf -> SheetHead.OK).orElse(""), room, meaning + " of " + (block.isRaw() ? "the sheet " + block.sheet() : "the block before"), POSITION, (line, column, row) -> {
            Cell cell = line.cell(column);
            cell.formula(written.at(SheetLayout.line(row), 0));
            Computation.value(cell, values, row, true);
        }), rows);
    }

    Block picked(Block block, Table after, int rows, boolean varies, String formula, int[] at, Optional<String> all, String meaning, List<String> rooms, Set<String> needed) {
        Place position = position(block, rows, formula, at, all, meaning);
        Map<String, Place> places = new HashMap<>();
        for (Column column : after.columns()) {
            if (needed.contains(column.name()) && block.places().containsKey(column.name())) {
                places.put(column.name(), add(column.name(), column.name(), rows, fetched(block, column.name(), position, varies), column));
            }
        }
        return block.then(after, rows, places, varies ? Optional.of(position) : Optional.empty(), rooms(rooms, all, position));
    }

    List<String> rooms(List<String> rooms, Optional<String> all, Place position) {
        List<String> more = new ArrayList<>(rooms);
        all.ifPresent(count -> more.add(new CellReference(name, SheetLayout.SHOWN_AS - 1, position.column(), true, true).formatAsString()));
        return more;
    }

    /** A cell of the row that a position says, absent where there is none. */
    String fetched(Block block, String column, Place position, boolean varies) {
        String cell = "INDEX(" + block.range(column, name) + "," + position.cell(name) + ")";
        String there = block.isWhole(column) || block.isComputed(column) ? cell : ofKind(cell, block.rows().column(column).kind());
        return varies ? "IF(" + position.cell(name) + "=\"\"," + Computation.ABSENT + "," + there + ")" : there;
    }

    /** A cell, absent where it holds something of another kind or nothing. */
    static String ofKind(String cell, Kind kind) {
        String holds = switch (kind) {
            case TEXT -> "ISTEXT(";
            case TRUTH -> "ISLOGICAL(";
            case NUMBER, DATE -> "ISNUMBER(";
        };
        return "IF(" + holds + cell + ")," + cell + "," + Computation.ABSENT + ")";
    }

    /** The cells of a column as functions run over them: those that are absent are blank. */
    String cells(Block block, String column) {
        if (!block.isComputed(column) || block.isWhole(column) && block.marker().isEmpty()) {
            return block.range(column, name);
        }
        Column cells = block.rows().column(column);
        return add(column + " or blank", column + " as other cells run over it: blank where it is absent", Computation.WIDTH, block.lines(), "IFERROR(" + block.cell(column, name) + ",\"\")", cells, true).range(name, block.lines());
    }

    /** The same with 0 where there is no row, for what takes their distance from the least or greatest. */
    String orZero(Block block, String column) {
        return add(column + " or 0", column + " as other cells run over it: 0 where there is no row", Computation.WIDTH, block.lines(), "IFERROR(" + block.cell(column, name) + ",0)", block.rows().column(column), true).range(name, block.lines());
    }

    /** A text as a formula states it. */
    static String quoted(String text) {
        return "\"" + text.replace("\"", "\"\"") + "\"";
    }

    void describe(Sheet sheet) {
        sheet.widths(columns.stream().map(column -> (double) column.width()).toList());
        SheetHead.mute(sheet, lines, columns.size());
        SheetHead head = new SheetHead(sheet, columns);
        head.write(title, Optional.empty(), "What the steps make of the rows, as formulas, from left to right: a block of columns for each step, and over it what it does.", null, 0, List.of());
        head.over(sentences);
        sheet.generate(SheetLayout.FIRST - 1, lines, line -> {
            for (int i = 0; i < columns.size(); i++) {
                columns.get(i).cells().fill(line, i, line.at() - SheetLayout.FIRST + 1);
            }
        });
    }
}
