package dev.trellisgorge.audit;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Choice;
import dev.trellisgorge.formula.Condition;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Puts into words, with its figures, why a formula comes to what it does on one row.
 *
 * @param table  what the formula reads
 * @param row    0-based
 * @param format how figures are written, where that loses nothing; else in their shortest form
 */
record Reason(ComputedColumns table, int row, Optional<Format> format) {

    /** A formula's way to its cell: the conditions that led there, and the formula that was then worked out. */
    record Way(List<String> because, Formula result) {
    }

    /** Goes down the choices of a formula, as the row's cells decide them. */
    Way way(Formula formula) {
        List<String> because = new ArrayList<>();
        Formula at = formula;
        while (at instanceof Choice.Case choice) {
            Formula result = choice.otherwise();
            for (Choice.When when : choice.whens()) {
                boolean holds = isTrue(when.condition());
                why(when.condition(), holds).ifPresent(because::add);
                if (holds) {
                    result = when.result();
                    break;
                }
            }
            at = result;
        }
        return new Way(because.stream().distinct().toList(), at);
    }

    /** Why a condition is true, or is not; empty where there is nothing to say. */
    private Optional<String> why(Formula condition, boolean holds) {
        if (condition instanceof Condition.Comparison c) {
            return Optional.of(compared(c, holds));
        }
        if (condition instanceof Condition.In in) {
            return Optional.of(!isKnown(in.of()) ? named(in.of()) + " is missing"
                    : withFigure(in.of()) + (holds ? " is " : " is not ") + (in.list().size() == 1 ? in.list().get(0) : "one of " + in.list()).toString());
        }
        if (condition instanceof Condition.Not n) {
            return why(n.of(), !holds);
        }
        if (condition instanceof Condition.Present p) {
            return p.of() instanceof Leaf.Literal ? Optional.empty() : Optional.of(p.of() instanceof Choice.Case
                    ? joined(way(p.of()).because()) : named(p.of()) + (holds ? " is there" : " is missing"));
        }
        if (condition instanceof Condition.Logic l) {
            boolean all = (l.connective() == Condition.Connective.AND) == holds;
            List<Formula> deciding = all ? l.of() : l.of().stream().filter(part -> isTrue(part) == holds).limit(1).toList();
            List<String> reasons = deciding.stream().flatMap(part -> why(part, holds).stream()).distinct().toList();
            return reasons.isEmpty() ? Optional.empty() : Optional.of(joined(reasons));
        }
        return condition instanceof Leaf.Literal ? Optional.empty()
                : Optional.of(isKnown(condition) ? named(condition) + " is " + holds : named(condition) + " is missing");
    }

    private static String joined(List<String> reasons) {
        return String.join(" and ", reasons);
    }

    private String compared(Condition.Comparison c, boolean holds) {
        for (Formula side : List.of(c.left(), c.right())) {
            if (!isKnown(side)) {
                return named(side) + " is missing";
            }
        }
        String words = switch (c.relation()) {
            case BELOW -> holds ? "is below" : "is not below";
            case AT_MOST -> holds ? "is at most" : "is above";
            case ABOVE -> holds ? "is above" : "is not above";
            case AT_LEAST -> holds ? "is at least" : "is below";
            case EQUAL -> holds ? "is" : "is not";
            case UNEQUAL -> holds ? "is not" : "is";
        };
        return withFigure(c.left()) + " " + words + " " + withFigure(c.right());
    }

    /** {@code generated_mwh (400)}; what is stated is its own figure. */
    String withFigure(Formula formula) {
        return formula instanceof Leaf.Literal ? figure(formula) : named(formula) + " (" + figure(formula) + ")";
    }

    private static String named(Formula formula) {
        if (formula instanceof Leaf.Setting setting) {
            return "the setting " + setting.name();
        }
        if (formula instanceof Window.Rank rank) {
            return "the rank of " + named(rank.of()) + (rank.direction() == Window.Direction.DESCENDING ? " from the largest" : " from the smallest");
        }
        return formula.title();
    }

    /** What a formula comes to on the row, as a reader sees it. */
    String figure(Formula formula) {
        return written(cells(formula), row);
    }

    String written(Column cells, int at) {
        if (!cells.isPresent(at)) {
            return "nothing";
        }
        if (cells.kind() != Kind.NUMBER) {
            return cells.written(at);
        }
        double number = cells.number(at);
        String text = format.map(f -> f.write(number)).orElse("");
        boolean lossless = Numbers.parse(text.replace(",", "")).stream().anyMatch(read -> read == number);
        return lossless ? text : Numbers.shortest(number);
    }

    private boolean isTrue(Formula condition) {
        return cells(condition).number(row) == 1;
    }

    private boolean isKnown(Formula formula) {
        return cells(formula).isPresent(row);
    }

    private Column cells(Formula formula) {
        return table.evaluate(formula);
    }
}
