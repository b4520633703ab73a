package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Presence;
import dev.trellisgorge.formula.SheetFormula;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.plan.Cells;
import dev.trellisgorge.table.Column;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.poi.ss.util.CellReference;

/** Which column of a helper sheet holds what, and so what the names in formulas are called there. Columns count from 0. */
final class SheetLayout {
    /** The lines of a helper sheet as a reader counts them. */
    static final int TITLE = 1;
    static final int WHAT = 2;
    static final int PROOF = 3;
    static final int NAMES = 4;
    static final int SHOWN_AS = 5;
    static final int MEANINGS = 6;
    static final int FIRST = 7;

    private final Cells data;
    private final String raw;
    private final SheetNames names;
    private final Typing typing;
    private final Stages stages;
    private final Presence presence;
    private final Presence onRaw;
    private final Presence onAdded;
    private final Map<String, Integer> columnAt = new LinkedHashMap<>();
    private final Map<Formula, Integer> rangeAt = new LinkedHashMap<>();
    private final Map<String, Integer> addedAt = new LinkedHashMap<>();

    /** @param formulas every column of the sheet that is computed, by name, each after the ones that it reads */
    SheetLayout(Cells data, Map<String, Formula> formulas, String raw, SheetNames names) {
        this.data = data;
        this.raw = raw;
        this.names = names;
        this.typing = new Typing(data.rows().schema(), data.settings());
        Map<String, Formula> counting = new LinkedHashMap<>(formulas);
        counting.replaceAll((column, formula) -> SheetFormula.countingFigures(formula));
        this.stages = Stages.of(counting, formulas.keySet(), typing, SheetFormula.GRAIN);
        this.presence = new Presence(stages, typing, name -> isWhole(data.rows().column(name)) && (!data.rows().whole().schema().has(name) || isWhole(data.rows().whole().column(name))),
                name -> data.settings().find(name).filter(SheetLayout::isWhole).isPresent());
        this.onRaw = presence.where(name -> isWhole(data.rows().column(name), false) && (!data.rows().whole().schema().has(name) || isWhole(data.rows().whole().column(name))));
        this.onAdded = presence.where(name -> isWhole(data.rows().column(name), true));
    }

    private boolean isWhole(Column cells, boolean added) {
        return IntStream.range(0, cells.size()).filter(row -> isAdded(row) == added).allMatch(cells::isPresent);
    }

    private static boolean isWhole(Column cells) {
        return IntStream.range(0, cells.size()).allMatch(cells::isPresent);
    }

    /** What may be absent, by the cells that there are. */
    Presence presence() {
        return presence;
    }

    Stages stages() {
        return stages;
    }

    void column(String name, int at) {
        columnAt.put(name, at);
    }

    /** A column in which the cells of a leaf stand as others run over them. */
    void range(Formula leaf, int at) {
        rangeAt.put(leaf, at);
    }

    boolean hasRange(Formula leaf) {
        return rangeAt.containsKey(leaf);
    }

    void added(String input, int at) {
        addedAt.put(input, at);
    }

    int at(String column) {
        return columnAt.get(column);
    }

    /** Whether a row is on no raw sheet. */
    boolean isAdded(int row) {
        return data.rows().wholeRow(row) < 0;
    }

    /** The line of the helper sheet that a row stands on. */
    static int line(int row) {
        return row + FIRST;
    }

    /** The line of the raw sheet that a row stands on, 2 for the first. */
    int rawLine(int row) {
        return data.rows().wholeRow(row) + 2;
    }

    /** A cell of the raw sheet, with its line marked. */
    String rawCell(String column) {
        int at = data.rows().whole().columnNames().indexOf(column);
        String first = new CellReference(raw, 0, at, false, false).formatAsString();
        return first.substring(0, first.length() - 1) + RowFormula.RAW;
    }

    /** A computed cell of the same row, with its line marked. */
    String cell(String column) {
        return letters(columnAt.get(column)) + RowFormula.HERE;
    }

    private static String letters(int at) {
        return CellReference.convertNumToColString(at);
    }

    /** How a formula is written, by a writer for one kind of row. */
    interface Writing {
        String with(SheetFormula writer);
    }

    /** A formula as it is on the first row and on the others, and there on rows that were added. */
    final class RowFormulas {
        private final Writing writing;
        private final int own;
        private final RowFormula[] written = new RowFormula[4];

        private RowFormulas(Writing writing, int own) {
            this.writing = writing;
            this.own = own;
        }

        String at(int row) {
            boolean added = isAdded(row);
            int kind = (row == 0 ? 1 : 0) + (added ? 2 : 0);
            if (written[kind] == null) {
                written[kind] = new RowFormula(writing.with(new SheetFormula(typing, cells(own, row == 0, added), presence, added ? onAdded : onRaw)));
            }
            return written[kind].at(line(row), added ? 0 : rawLine(row));
        }
    }

    /** @param own the column that the formula stands in */
    RowFormulas formulas(int own, Writing writing) {
        return new RowFormulas(writing, own);
    }

    private SheetFormula.CellNames cells(int own, boolean first, boolean added) {
        return new SheetFormula.CellNames() {
            @Override
            public String column(String input) {
                return added ? letters(addedAt.get(input)) + RowFormula.HERE : rawCell(input);
            }

            @Override
            public String computed(String name) {
                return cell(name);
            }

            @Override
            public String setting(String setting) {
                return names.defined(setting);
            }

            @Override
            public Optional<String> ownAbove() {
                return first ? Optional.empty() : Optional.of(letters(own) + RowFormula.ABOVE);
            }

            @Override
            public String here(Formula leaf) {
                return letters(run(leaf)) + RowFormula.HERE;
            }

            @Override
            public Optional<String> above(Formula leaf) {
                return first ? Optional.empty() : Optional.of(letters(run(leaf)) + RowFormula.ABOVE);
            }

            @Override
            public String range(Formula leaf) {
                return wholeRange(run(leaf));
            }

            @Override
            public Optional<String> rangeAbove(Formula leaf) {
                String column = "$" + letters(run(leaf));
                return first ? Optional.empty() : Optional.of(column + "$" + FIRST + ":" + column + RowFormula.ABOVE);
            }

            @Override
            public String rows() {
                return wholeRange(0);
            }

            @Override
            public int linesAbove() {
                return FIRST - 1;
            }
        };
    }

    /** The column of a leaf whose cells others run over: its own, where none of them is absent. */
    private int run(Formula leaf) {
        return rangeAt.containsKey(leaf) ? rangeAt.get(leaf) : columnAt.get(((Leaf.Computed) leaf).name());
    }

    private String wholeRange(int at) {
        String column = "$" + letters(at) + "$";
        return column + FIRST + ":" + column + line(Math.max(1, data.rowCount()) - 1);
    }
}
