package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Typing;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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

    /** Before the name of a column of the rows whose cells are formulas: they are read as computed ones. */
    private static final String OF_ROWS = "rows\u0000";

    private final SourceRows source;
    private final String sheet;
    private final Optional<String> there;
    private final SheetNames names;
    private final Typing typing;
    private final Stages stages;
    private final Presence presence;
    private final Presence onRaw;
    private final Presence onAdded;
    private final Map<Boolean, Map<String, Boolean>> whole = Map.of(false, new HashMap<>(), true, new HashMap<>());
    private final Map<String, Integer> columnAt = new LinkedHashMap<>();
    private final Map<Formula, Integer> rangeAt = new LinkedHashMap<>();
    private final Map<String, Integer> addedAt = new LinkedHashMap<>();

    /**
     * @param formulas every column that is computed, by name, each after the ones that it reads
     * @param sheet    the sheet on which they stand
     */
    SheetLayout(SourceRows source, Settings settings, Map<String, Formula> formulas, String sheet, SheetNames names) {
        this(source, settings, formulas, sheet, names, source.there(sheet));
    }

    /** @param there a condition, with its line marked, that holds where a row stands on the line; empty where one always does */
    SheetLayout(SourceRows source, Settings settings, Map<String, Formula> formulas, String sheet, SheetNames names, Optional<String> there) {
        this.there = there;
        this.source = source;
        this.sheet = sheet;
        this.names = names;
        this.typing = new Typing(source.rows().schema(), settings);
        Map<String, Formula> counting = new LinkedHashMap<>(formulas);
        source.rows().columns().stream().filter(column -> source.has(column.name()) && source.isComputed(column.name())).forEach(column -> typing.computed(OF_ROWS + column.name(), column.kind()));
        counting.replaceAll((column, formula) -> SheetFormula.countingFigures(asComputed(formula)));
        this.stages = Stages.of(counting, formulas.keySet(), typing, SheetFormula.GRAIN);
        this.presence = new Presence(stages, typing, name -> isWhole(name, false) && isWhole(name, true), name -> settings.find(name).filter(value -> value.isPresent(0)).isPresent());
        this.onRaw = presence.where(name -> isWhole(name, false));
        this.onAdded = presence.where(name -> isWhole(name, true));
    }

    /** A formula in which columns that are formulas themselves are computed ones. */
    private Formula asComputed(Formula formula) {
        if (formula instanceof Leaf.Column column) {
            return source.isComputed(column.name()) ? new Leaf.Computed(OF_ROWS + column.name()) : formula;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::asComputed).toList());
    }

    /** The column of the rows that a computed one is; empty where it is none of them. */
    static Optional<String> ofRows(String computed) {
        return computed.startsWith(OF_ROWS) ? Optional.of(computed.substring(OF_ROWS.length())) : Optional.empty();
    }

    private boolean isWhole(String column, boolean added) {
        return whole.get(added).computeIfAbsent(ofRows(column).orElse(column), name -> source.isWhole(name, added));
    }

    /** What may be absent, by the cells that there are. */
    Presence presence() {
        return presence;
    }

    /** The leaves that need a column of their own for others to run over. On lines without a row such a column is blank. */
    Set<Formula> ranges() {
        return there.isPresent() ? SheetFormula.runOver(stages) : SheetFormula.ranges(stages, presence);
    }

    SourceRows source() {
        return source;
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

    /** The line of the helper sheet that a row stands on. */
    static int line(int row) {
        return row + FIRST;
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
        private final String absent;
        private final RowFormula[] written = new RowFormula[4];

        private RowFormulas(Writing writing, int own, String absent) {
            this.writing = writing;
            this.own = own;
            this.absent = absent;
        }

        String at(int row) {
            boolean added = row < source.rows().rowCount() && source.isAdded(row);
            int kind = (row == 0 ? 1 : 0) + (added ? 2 : 0);
            if (written[kind] == null) {
                String formula = writing.with(new SheetFormula(typing, cells(own, row == 0, added), presence, added ? onAdded : onRaw));
                written[kind] = new RowFormula(there.map(is -> "IF(" + is + "," + formula + "," + absent + ")").orElse(formula));
            }
            return written[kind].at(line(row), added ? 0 : source.rawLine(row));
        }
    }

    /**
     * @param own    the column that the formula stands in
     * @param absent what stands on a line that has no row
     */
    RowFormulas formulas(int own, String absent, Writing writing) {
        return new RowFormulas(writing, own, absent);
    }

    private SheetFormula.CellNames cells(int own, boolean first, boolean added) {
        return new SheetFormula.CellNames() {
            @Override
            public String column(String input) {
                return added ? letters(addedAt.get(input)) + RowFormula.HERE : source.cell(input, sheet);
            }

            @Override
            public String computed(String name) {
                return ofRows(name).map(column -> source.cell(column, sheet)).orElseGet(() -> cell(name));
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
                return ownRange(leaf).map(column -> source.cell(column, sheet)).orElseGet(() -> letters(run(leaf)) + RowFormula.HERE);
            }

            @Override
            public Optional<String> above(Formula leaf) {
                return first ? Optional.empty() : Optional.of(here(leaf).replace(RowFormula.HERE, RowFormula.ABOVE));
            }

            @Override
            public String range(Formula leaf) {
                return ownRange(leaf).map(column -> source.range(column, sheet)).orElseGet(() -> wholeRange(run(leaf)));
            }

            @Override
            public Optional<String> rangeAbove(Formula leaf) {
                if (first) {
                    return Optional.empty();
                }
                String whole = range(leaf);
                String end = whole.substring(whole.lastIndexOf(':') + 1).replaceAll("\\$?[0-9]+$", "");
                return Optional.of(whole.substring(0, whole.lastIndexOf(':') + 1) + end + RowFormula.ABOVE);
            }

            @Override
            public String rowCount() {
                return source.count(sheet).orElseGet(() -> "ROWS(" + wholeRange(0) + ")");
            }

            @Override
            public int linesAbove() {
                return FIRST - 1;
            }
        };
    }

    /** The column of the rows over whose own cells formulas run; empty where they run over a column of this sheet. */
    private Optional<String> ownRange(Formula leaf) {
        return rangeAt.containsKey(leaf) || !(leaf instanceof Leaf.Computed made) ? Optional.empty() : ofRows(made.name());
    }

    /** The column of a leaf whose cells others run over: its own, where none of them is absent. */
    private int run(Formula leaf) {
        return rangeAt.containsKey(leaf) ? rangeAt.get(leaf) : columnAt.get(((Leaf.Computed) leaf).name());
    }

    private String wholeRange(int at) {
        String column = "$" + letters(at) + "$";
        return column + FIRST + ":" + column + line(Math.max(1, source.lines()) - 1);
    }
}
