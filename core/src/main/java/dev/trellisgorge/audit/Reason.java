package dev.trellisgorge.audit;

import dev.trellisgorge.chart.Format;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formula.Connective;
import dev.trellisgorge.formula.HelperTable;
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
record Reason(HelperTable table, int row, Optional<Format> format) {

    /** A formula's way to its cell: the conditions that led there, and the formula that was then worked out. */
    record Way(List<String> because, Formula result) {
    }

    /** Goes down the choices of a formula, as the row's cells decide them. */
    Way way(Formula formula) {
        List<String> because = new ArrayList<>();
        Formula at = formula;
        while (at instanceof Formula.Choose choice) {
            boolean holds = isTrue(choice.when());
            why(choice.when(), holds).ifPresent(because::add);
            at = holds ? choice.then() : choice.otherwise();
        }
        return new Way(because.stream().distinct().toList(), at);
    }

    /** Why a condition is true, or is not; empty where there is nothing to say. */
    private Optional<String> why(Formula condition, boolean holds) {
        if (condition instanceof Formula.Comparison c) {
            return Optional.of(compared(c, holds));
        }
        if (condition instanceof Formula.Not n) {
            return why(n.of(), !holds);
        }
        if (condition instanceof Formula.Present p) {
            return p.of() instanceof Formula.Constant ? Optional.empty() : Optional.of(p.of() instanceof Formula.Choose
                    ? joined(way(p.of()).because()) : named(p.of()) + (holds ? " is there" : " is missing"));
        }
        if (condition instanceof Formula.Logic l) {
            boolean all = (l.connective() == Connective.AND) == holds;
            List<Formula> deciding = all ? List.of(l.left(), l.right())
                    : List.of(isTrue(l.left()) == holds ? l.left() : l.right());
            List<String> reasons = deciding.stream().flatMap(part -> why(part, holds).stream()).distinct().toList();
            return reasons.isEmpty() ? Optional.empty() : Optional.of(joined(reasons));
        }
        return isKnown(condition) ? Optional.of(named(condition) + " is " + holds) : Optional.of(named(condition) + " is missing");
    }

    private static String joined(List<String> reasons) {
        return String.join(" and ", reasons);
    }

    private String compared(Formula.Comparison c, boolean holds) {
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

    /** {@code generated_mwh (400)}; a constant is its own figure. */
    String withFigure(Formula formula) {
        boolean plain = formula instanceof Formula.Constant || formula instanceof Formula.Words || formula instanceof Formula.Day;
        return plain ? figure(formula) : named(formula) + " (" + figure(formula) + ")";
    }

    private static String named(Formula formula) {
        if (formula instanceof Formula.Setting setting) {
            return "the setting " + setting.name();
        }
        if (formula instanceof Formula.Rank rank) {
            return "the rank of " + named(rank.of()) + (rank.direction() == Formula.Direction.DESCENDING ? " from the largest" : " from the smallest");
        }
        return formula instanceof Formula.Helper helper ? helper.column() : formula.toString();
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
        return table.evaluate("reason", formula);
    }
}
