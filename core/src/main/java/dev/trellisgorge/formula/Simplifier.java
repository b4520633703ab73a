package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Choice.When;
import dev.trellisgorge.formula.Condition.Connective;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * Takes out of typed formulas what stated truths settle: a condition that always holds or never does, and the branches that are
 * never taken. The cells stay as they are on every row. Not thread-safe.
 */
final class Simplifier {
    private final Typing typing;
    private final Map<Formula, Formula> done = new IdentityHashMap<>();

    Simplifier(Typing typing) {
        this.typing = typing;
    }

    Formula simplified(Formula node) {
        Formula known = done.get(node);
        if (known == null) {
            known = made(node);
            done.put(node, known);
        }
        return known;
    }

    private Formula made(Formula node) {
        List<Formula> operands = new ArrayList<>();
        boolean same = true;
        for (Formula operand : node.operands()) {
            Formula simple = simplified(operand);
            same &= simple == operand;
            operands.add(simple);
        }
        Kind kind = typing.of(node);
        Formula made = same ? node : typing.typed(node.rebuilt(operands), kind);
        return made instanceof Condition.Logic logic ? logic(logic)
                : made instanceof Condition.Not not && not.of() instanceof Leaf.Literal truth ? stated(!isTrue(truth))
                : made instanceof Choice.Case choice ? choice(choice, kind)
                : made instanceof Window.Cumulative sum && isFalse(sum.restart()) ? typing.typed(new Window.Cumulative(sum.of(), new Leaf.Absent()), kind)
                : made;
    }

    /** One side that is false settles AND, one that is true settles OR; a side of the other truth says nothing. */
    private Formula logic(Condition.Logic logic) {
        boolean settles = logic.connective() == Connective.OR;
        List<Formula> open = logic.of().stream().filter(side -> !(side instanceof Leaf.Literal)).toList();
        if (logic.of().stream().anyMatch(side -> side instanceof Leaf.Literal truth && isTrue(truth) == settles)) {
            return stated(settles);
        }
        return open.isEmpty() ? stated(!settles) : open.size() == 1 ? open.get(0)
                : open.size() == logic.of().size() ? logic : typing.typed(new Condition.Logic(logic.connective(), open), Kind.TRUTH);
    }

    private Formula choice(Choice.Case choice, Kind kind) {
        List<When> open = new ArrayList<>();
        Formula otherwise = choice.otherwise();
        for (When when : choice.whens()) {
            if (when.condition() instanceof Leaf.Literal truth && isTrue(truth)) {
                otherwise = when.result();
                break;
            }
            if (!isFalse(when.condition())) {
                open.add(when);
            }
        }
        return open.isEmpty() ? otherwise : open.size() == choice.whens().size() ? choice : typing.typed(new Choice.Case(open, otherwise), kind);
    }

    private Formula stated(boolean truth) {
        return typing.typed(Formulas.truth(truth), Kind.TRUTH);
    }

    private static boolean isTrue(Leaf.Literal truth) {
        return truth.value().equals(true);
    }

    private static boolean isFalse(Formula truth) {
        return truth instanceof Leaf.Literal literal && !isTrue(literal);
    }
}
