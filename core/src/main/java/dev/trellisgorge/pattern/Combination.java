package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.helper;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.oneIfPresent;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Identity;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The parts of a figure masked by the classes of a rule: each class has its own copy of each part, in class
 * order, then part order. A column is named after its class and its part; after its class alone where there is
 * one part, and after its part alone where there is no rule.
 *
 * @param figure     what the judged figure is called in a statement
 * @param value      the figure that is judged
 * @param parts      its pieces, first is the bottom of the stack; at least one
 * @param classifier the rule, or none
 */
record Combination(String figure, Formula value, List<Part> parts, Optional<Classifier> classifier) {

    /** A column that the combination makes: which part it is, of which class (none without a rule). */
    record Made(String column, Part part, Optional<RowClass> of) {

        /** The class's colour; the part's own where there is no rule, or the part is not to be coloured by one. */
        Role role() {
            return part.role() == Role.BASE ? of.map(RowClass::role).orElse(Role.BASE) : part.role();
        }
    }

    /** Every column that there could be, {@code unjudged} ones too. */
    List<String> possibleColumns() {
        return cells(absent()).stream().map(Made::column).toList();
    }

    /** Adds the columns, proves that each value is in one class, and watches what the rule watches. */
    HelperTable addTo(HelperTable table) {
        HelperTable more = table;
        for (Made cell : cells(table.categoryText())) {
            if (cell.of().isEmpty() || cell.of().get().alwaysMade() || mayBe(table, cell.of().get())) {
                more = more.with(cell.column(), cell.of().map(c -> only(c.when(), cell.part().length())).orElse(cell.part().length()));
            }
        }
        if (classifier.isEmpty()) {
            return more;
        }
        Formula held = oneClass(more);
        return more.proving(List.of(Identity.everywhere("each " + figure + " is in exactly one class", held, oneIfPresent(value))))
                .watching(classifier.get().watches(value, table.categoryText()));
    }

    /** Whether some row is in a class; a rule that is the same on every row is asked once. */
    private boolean mayBe(HelperTable table, RowClass unjudged) {
        Formula judged = classifier.orElseThrow().judged(value, table.categoryText());
        return !table.isTrueThroughout(judged) && table.anyRow(unjudged.when());
    }

    /** How many classes hold a part of the row. */
    private Formula oneClass(HelperTable table) {
        List<Made> made = madeIn(table);
        return made.stream().map(m -> m.of().orElseThrow().name()).distinct()
                .map(name -> made.stream().filter(m -> m.of().orElseThrow().name().equals(name))
                        .map(m -> oneIfPresent(helper(m.column()))).reduce((a, b) -> greatest(a, b)).orElseThrow())
                .reduce(Formula::plus).orElseThrow();
    }

    /** The columns of {@code table} that this combination added, in drawing order. */
    List<Made> madeIn(HelperTable table) {
        return cells(table.categoryText()).stream().filter(cell -> table.find(cell.column()).isPresent()).toList();
    }

    /** The name of the part that a column of {@code table} holds. */
    String partOf(HelperTable table, String column) {
        return madeIn(table).stream().filter(made -> made.column().equals(column)).map(made -> made.part().name()).findFirst().orElse("");
    }

    /** A part whatever its class, zero where it is absent: what identities read. */
    Formula whole(HelperTable table, String part) {
        return madeIn(table).stream().filter(made -> made.part().name().equals(part)).map(made -> orZero(helper(made.column())))
                .reduce(Formula::plus).orElse(number(0));
    }

    /** The names of a part's columns, joined as a sum: {@code below + above}. */
    String named(HelperTable table, String part) {
        return String.join(" + ", madeIn(table).stream().filter(made -> made.part().name().equals(part)).map(Made::column).toList());
    }

    private List<Made> cells(Formula category) {
        if (classifier.isEmpty()) {
            return parts.stream().map(part -> new Made(part.name(), part, Optional.empty())).toList();
        }
        List<RowClass> classes = new ArrayList<>(classifier.get().classes(value, category));
        classes.add(classifier.get().unjudged(value, category));
        return classes.stream().flatMap(rowClass -> parts.stream().map(part -> new Made(
                parts.size() == 1 ? rowClass.name() : rowClass.name() + " " + part.name(), part, Optional.of(rowClass)))).toList();
    }
}
