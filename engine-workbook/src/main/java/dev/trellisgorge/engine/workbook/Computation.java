package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.InWords;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Stages.StageColumn;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import dev.trellisgorge.sheet.Cell;
import dev.trellisgorge.sheet.CellLook;

/**
 * Formulas over rows, as columns of a sheet: a column each, and beside them the pieces that several need and the cells that others
 * run over. Used by one thread.
 */
final class Computation {
    static final int WIDTH = 16;
    static final String ABSENT = "NA()";
    private static final String BLANK = "\"\"";
    private static final String INTERMEDIATE = "intermediate ";

    private final SheetLayout layout;
    private final List<SheetColumn> columns;
    private final Function<Formula, Column> values;
    private final Function<Column, Optional<CellLook>> style;
    private final List<StageColumn> beside;
    private final Set<Formula> ranges;
    private final Set<String> readOnItsRow = new HashSet<>();

    /**
     * @param columns those of the sheet so far; more are added
     * @param values  the cells of a formula over the rows as they are now
     * @param style   how cells look
     */
    Computation(SheetLayout layout, List<SheetColumn> columns, Function<Formula, Column> values, Function<Column, Optional<CellLook>> style) {
        this.layout = layout;
        this.columns = columns;
        this.values = values;
        this.style = style;
        this.beside = layout.stages().columns().stream().filter(column -> !column.wanted()).toList();
        this.ranges = layout.ranges();
        layout.stages().columns().stream().map(StageColumn::formula).forEach(formula -> {
            if (!(formula instanceof Window) || formula instanceof Window.Cumulative) {
                readOnItsRow.addAll(ColumnReferences.computed(formula));
            } else if (formula instanceof Window.Lookup lookup) {
                readOnItsRow.addAll(ColumnReferences.computed(lookup.wanted()));
            }
        });
    }

    /** Some columns and all that they need, by name. */
    Set<String> reached(Collection<String> from) {
        Map<String, Formula> formulas = new LinkedHashMap<>();
        layout.stages().columns().forEach(column -> formulas.put(column.name(), column.formula()));
        Set<String> reached = new LinkedHashSet<>();
        Deque<String> open = new ArrayDeque<>(from);
        while (!open.isEmpty()) {
            String next = open.pop();
            if (reached.add(next)) {
                ColumnReferences.computed(formulas.get(next)).stream().filter(name -> SheetLayout.ofRows(name).isEmpty()).forEach(open::add);
            }
        }
        return reached;
    }

    /** The formula of a column once it is taken apart. */
    Formula staged(String name) {
        return layout.stages().columns().stream().filter(column -> column.name().equals(name)).findFirst().orElseThrow().formula();
    }

    /** What fills the next column with a column's cells, {@code NA()} where they are absent. */
    SheetColumn.Filling cells(String name, Column values) {
        return cells(layout.formulas(columns.size(), ABSENT, writer -> writer.write(staged(name))), values, false);
    }

    /** The same of a column without absent cells, with blanks on lines that have no row. */
    SheetColumn.Filling counted(String name, Column values) {
        return cells(layout.formulas(columns.size(), BLANK, writer -> writer.write(staged(name))), values, true);
    }

    private SheetColumn.Filling cells(SheetLayout.RowFormulas variants, Column cells, boolean blank) {
        Optional<CellLook> looks = style.apply(cells);
        return (line, column, row) -> {
            Cell cell = line.cell(column);
            cell.formula(variants.at(row));
            value(cell, cells, row, blank);
            looks.ifPresent(cell::look);
        };
    }

    /** Writes what a formula gives now beside it. */
    static void value(Cell cell, Column values, int row, boolean blank) {
        if (row >= values.size() || !values.isPresent(row)) {
            if (blank) {
                cell.value("");
            } else {
                cell.missing();
            }
        } else if (values.kind() == Kind.TEXT) {
            cell.value(values.written(row));
        } else if (values.kind() == Kind.TRUTH) {
            cell.value(values.number(row) == 1);
        } else if (values.kind() == Kind.DATE) {
            cell.value(values.date(row).orElseThrow());
        } else {
            cell.value(values.number(row));
        }
    }

    /** Whether the cells of a column stand beside for others to run over, and for nothing else. */
    private boolean besideOnly(String name) {
        return beside.stream().anyMatch(column -> column.name().equals(name)) && !readOnItsRow.contains(name);
    }

    /**
     * Adds what stands beside columns: pieces of formulas that several need, and cells that others run over.
     *
     * @param needed whether a column is one of those that it is for
     */
    void beside(Predicate<String> needed) {
        for (StageColumn column : beside) {
            if (needed.test(column.name())) {
                boolean range = besideOnly(column.name());
                layout.column(column.name(), columns.size());
                columns.add(new SheetColumn(intermediate(column.name()), InWords.of(named(column.formula())) + (range ? ", blank where it is absent" : ""), WIDTH,
                        cells(layout.formulas(columns.size(), range ? BLANK : ABSENT, writer -> range ? writer.writeInRange(column.formula()) : writer.write(column.formula())),
                                values.apply(inFull(column.formula())), range)));
            }
        }
        for (Formula leaf : ranges) {
            if (layout.hasRange(leaf) || layout.stages().columns().stream().noneMatch(column -> needed.test(column.name()) && column.formula().operands().contains(leaf))) {
                continue;
            }
            if (leaf instanceof Leaf.Computed made && besideOnly(made.name())) {
                layout.range(leaf, layout.at(made.name()));
            } else {
                layout.range(leaf, columns.size());
                String of = leaf instanceof Leaf.Computed made ? named(made.name()) : leaf.title();
                columns.add(new SheetColumn(of + " or blank", of + " as other cells run over it: blank where it is absent", WIDTH,
                        cells(layout.formulas(columns.size(), BLANK, writer -> writer.writeInRange(leaf)), values.apply(inFull(leaf)), true)));
            }
        }
    }

    /** What a column that stands beside is called; any other has its name. */
    private String named(String name) {
        return beside.stream().anyMatch(column -> column.name().equals(name)) ? intermediate(name) : SheetLayout.ofRows(name).orElse(name);
    }

    private String intermediate(String name) {
        return INTERMEDIATE + (IntStream.range(0, beside.size()).filter(at -> beside.get(at).name().equals(name)).findFirst().orElseThrow() + 1);
    }

    /** A formula in which the columns that stand beside have the names that they have on the sheet. */
    Formula named(Formula formula) {
        return formula instanceof Leaf.Computed made ? new Leaf.Computed(named(made.name()))
                : formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::named).toList());
    }

    /** A formula with the pieces that stand beside put back, as others know nothing of them. */
    private Formula inFull(Formula formula) {
        if (formula instanceof Leaf.Computed made) {
            if (SheetLayout.ofRows(made.name()).isPresent()) {
                return new Leaf.Column(SheetLayout.ofRows(made.name()).get());
            }
            Optional<StageColumn> piece = beside.stream().filter(column -> column.name().equals(made.name())).findFirst();
            return piece.isPresent() ? inFull(piece.get().formula()) : formula;
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::inFull).toList());
    }
}
