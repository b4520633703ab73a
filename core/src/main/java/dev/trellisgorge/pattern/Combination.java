package dev.trellisgorge.pattern;

import static dev.trellisgorge.formula.Formulas.absent;
import static dev.trellisgorge.formula.Formulas.computed;
import static dev.trellisgorge.formula.Formulas.greatest;
import static dev.trellisgorge.formula.Formulas.number;
import static dev.trellisgorge.formula.Formulas.oneIfPresent;
import static dev.trellisgorge.formula.Formulas.only;
import static dev.trellisgorge.formula.Formulas.orZero;

import dev.trellisgorge.chart.Role;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.PlanBuilder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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

        boolean is(String partName) {
            return part.name().equals(partName);
        }
    }

    /** The columns in drawing order. */
    List<Made> made() {
        return made(absent());
    }

    List<String> columns() {
        return made().stream().map(Made::column).toList();
    }

    /** The columns of each class that it colours, and of each part; a class goes before a part of the same name, and a column before both. */
    Map<String, List<String>> groups() {
        Map<String, List<String>> classes = new LinkedHashMap<>();
        Map<String, List<String>> groups = new LinkedHashMap<>();
        made().forEach(made -> {
            made.of().filter(of -> made.part().role() == Role.BASE).ifPresent(of -> classes.computeIfAbsent(of.name(), name -> new ArrayList<>()).add(made.column()));
            groups.computeIfAbsent(made.part().name(), name -> new ArrayList<>()).add(made.column());
        });
        groups.putAll(classes);
        columns().forEach(groups::remove);
        return groups;
    }

    /** Adds the columns, proves that each value is in one class, and watches what the rule watches. */
    void describe(PlanBuilder plan) {
        for (Made cell : made(plan.categoryText())) {
            cell.of().ifPresent(of -> plan.ofClass(cell.column(), of.name()));
            plan.series(cell.column(), cell.of().map(c -> only(c.when(), cell.part().length())).orElse(cell.part().length()));
        }
        if (classifier.isPresent()) {
            plan.prove(Identity.everywhere("each " + figure + " is in exactly one class", oneClass(), oneIfPresent(value)))
                    .watch(classifier.get().watches(value, plan.categoryText()));
        }
    }

    /** How many classes hold a part of the row. */
    private Formula oneClass() {
        List<Made> made = made();
        return made.stream().map(m -> m.of().orElseThrow().name()).distinct()
                .map(name -> greatest(made.stream().filter(m -> m.of().orElseThrow().name().equals(name))
                        .map(m -> oneIfPresent(computed(m.column()))).toArray(Formula[]::new)))
                .reduce(Formula::plus).orElseThrow();
    }

    /** The name of the part that a column holds. */
    String partOf(String column) {
        return made().stream().filter(made -> made.column().equals(column)).map(made -> made.part().name()).findFirst().orElse("");
    }

    /** A part whatever its class, zero where it is absent: what identities read. */
    Formula whole(String part) {
        return made().stream().filter(made -> made.is(part)).map(made -> orZero(computed(made.column()))).reduce(Formula::plus).orElse(number(0));
    }

    /** The names of a part's columns, joined as a sum: {@code below + above}. */
    String named(String part) {
        return String.join(" + ", made().stream().filter(made -> made.is(part)).map(Made::column).toList());
    }

    private List<Made> made(Formula category) {
        if (classifier.isEmpty()) {
            return parts.stream().map(part -> new Made(part.name(), part, Optional.empty())).toList();
        }
        List<RowClass> classes = new ArrayList<>(classifier.get().classes(value, category));
        classifier.get().unjudged(value, category).ifPresent(classes::add);
        return classes.stream().flatMap(rowClass -> parts.stream().map(part -> new Made(
                parts.size() == 1 ? rowClass.name() : rowClass.name() + " " + part.name(), part, Optional.of(rowClass)))).toList();
    }
}
