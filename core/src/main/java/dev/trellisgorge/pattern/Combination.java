package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.choose;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;
import static dev.trellisgorge.formula.Formulas.present;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The parts of a figure masked by the classes of a rule: each class has its own copy of each part, in class
 * order, then part order. A column is named after its class and its part; after its class alone where there is
 * one part, and after its part alone where there is no rule.
 *
 * @param value      the figure that is divided and judged
 * @param parts      its pieces, first is the bottom of the stack; at least one
 * @param classifier the rule, or none
 */
record Combination(Formula value, List<Part> parts, Optional<Classifier> classifier) {

    /** A column that the combination makes. */
    record Made(String column, Role role) {
    }

    private record Cell(String column, Formula formula, RowClass of) {
    }

    /** Every column that there could be, {@code unjudged} ones too. */
    List<String> possibleColumns() {
        return cells().stream().map(Cell::column).toList();
    }

    /** Adds the columns, proves that they hold the value, and watches what the rule watches. */
    HelperTable addTo(HelperTable table) {
        HelperTable more = table;
        for (Cell cell : cells()) {
            if (cell.of() == null || cell.of().alwaysMade() || anyRow(table, cell.of().when())) {
                more = more.with(cell.column(), cell.formula());
            }
        }
        HelperTable proved = more.proving(identities(more));
        return classifier.map(rule -> proved.watching(rule.watches(value))).orElse(proved);
    }

    /** The columns of {@code table} that this combination added, in drawing order. */
    List<Made> madeIn(HelperTable table) {
        List<String> there = table.columnNames();
        return cells().stream().filter(cell -> there.contains(cell.column()))
                .map(cell -> new Made(cell.column(), cell.of() == null ? Role.BASE : cell.of().role())).toList();
    }

    private List<Cell> cells() {
        List<Cell> cells = new ArrayList<>();
        if (classifier.isEmpty()) {
            parts.forEach(part -> cells.add(new Cell(part.name(), part.length(), null)));
            return cells;
        }
        List<RowClass> classes = new ArrayList<>(classifier.get().classes(value));
        classes.add(classifier.get().unjudged(value));
        for (RowClass rowClass : classes) {
            for (Part part : parts) {
                String name = parts.size() == 1 ? rowClass.name() : rowClass.name() + " " + part.name();
                cells.add(new Cell(name, only(rowClass.when(), part.length()), rowClass));
            }
        }
        return cells;
    }

    private List<Identity> identities(HelperTable table) {
        List<String> made = madeIn(table).stream().map(Made::column).toList();
        Formula sum = made.stream().map(name -> orZero(helper(name))).reduce(Formula::plus).orElseThrow();
        Identity addBack = new Identity(String.join(" + ", made) + " = " + value, sum, orZero(value));
        if (classifier.isEmpty()) {
            return List.of(addBack);
        }
        Formula held = made.stream().map(name -> oneIfPresent(helper(name))).reduce(Formula::plus).orElseThrow();
        return List.of(new Identity("each " + value + " is in exactly one class", held, oneIfPresent(value)), addBack);
    }

    private static Formula oneIfPresent(Formula of) {
        return choose(present(of), number(1), number(0));
    }

    private static boolean anyRow(HelperTable table, Formula condition) {
        Column truths = table.evaluate("any", condition);
        for (int row = 0; row < truths.size(); row++) {
            if (truths.number(row) == 1) {
                return true;
            }
        }
        return false;
    }
}
