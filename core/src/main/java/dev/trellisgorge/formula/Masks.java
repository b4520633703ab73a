package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Condition.Comparison;
import dev.trellisgorge.formula.Condition.Connective;
import dev.trellisgorge.formula.Condition.Relation;
import dev.trellisgorge.formula.Register.Figures;
import dev.trellisgorge.formula.Register.Texts;
import dev.trellisgorge.table.TextOrder;
import java.util.Arrays;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The truths of a {@link Pass} as masks over a block: all bits of a row are set where a condition certainly is what is wanted.
 * Each truth and its opposite are worked out once. Used by one thread.
 */
final class Masks {
    private final Pass pass;
    private final Map<Formula, long[]> certain = new IdentityHashMap<>();
    private final Map<Formula, long[]> certainlyNot = new IdentityHashMap<>();

    Masks(Pass pass) {
        this.pass = pass;
    }

    /** The rows on which a truth is certainly what is wanted; unknown is neither. */
    long[] of(Formula truth, boolean wanted) {
        return of(truth, truth, wanted);
    }

    /** @param node what the mask is remembered by, where the truth is about a node and none itself */
    long[] of(Formula truth, Formula node, boolean wanted) {
        Map<Formula, long[]> memory = truth == node ? wanted ? certain : certainlyNot : new IdentityHashMap<>();
        long[] known = memory.get(node);
        if (known == null) {
            known = pass.aside(() -> made(truth, wanted));
            memory.put(node, known);
        }
        return known;
    }

    private long[] made(Formula truth, boolean wanted) {
        long[] out = new long[Pass.BLOCK];
        if (truth instanceof Comparison f) {
            compare(wanted ? f.relation() : BlockLoops.opposite(f.relation()), f.left(), f.right(), out);
        } else if (truth instanceof Condition.In f) {
            among(f, wanted, out);
        } else if (truth instanceof Condition.Logic f) {
            boolean both = (f.connective() == Connective.AND) == wanted;
            List<long[]> masks = f.of().stream().map(each -> of(each, wanted)).toList();
            connect(masks, both, out);
        } else if (truth instanceof Condition.Not f) {
            return of(f.of(), !wanted);
        } else if (truth instanceof Condition.Present f) {
            Register of = pass.operand(f.of());
            long whenThere = wanted ? -1L : 0L;
            pass.add(of instanceof Figures a ? (from, count) -> BlockLoops.present(a.cells(), a.at(from), whenThere, out, count)
                    : (from, count) -> BlockLoops.present(((Texts) of).cells(), of.at(from), whenThere, out, count));
        } else if (truth instanceof Leaf.Literal f) {
            Arrays.fill(out, f.value().equals(wanted) ? -1L : 0L);
        } else {
            Figures a = (Figures) pass.operand(truth);
            Figures b = Figures.constant(wanted ? 1 : 0, Pass.BLOCK);
            pass.add((from, count) -> BlockLoops.compare(Relation.EQUAL, a.cells(), a.at(from), b.cells(), 0, out, count));
        }
        return out;
    }

    private void connect(List<long[]> masks, boolean both, long[] out) {
        long[] so = masks.get(0);
        if (masks.size() == 1) {
            pass.add((from, count) -> System.arraycopy(masks.get(0), 0, out, 0, count));
        }
        for (long[] next : masks.subList(1, masks.size())) {
            long[] left = so;
            pass.add(both ? (from, count) -> BlockLoops.and(left, next, out, count) : (from, count) -> BlockLoops.or(left, next, out, count));
            so = out;
        }
    }

    /** The rows on which both sides are there and the relation holds. */
    long[] compared(Relation relation, Formula left, Formula right) {
        long[] out = new long[Pass.BLOCK];
        compare(relation, left, right, out);
        return out;
    }

    private void compare(Relation relation, Formula left, Formula right, long[] out) {
        Register first = pass.operand(left);
        Register second = pass.operand(right);
        if (first instanceof Figures a && second instanceof Figures b) {
            pass.add((from, count) -> BlockLoops.compare(relation, a.cells(), a.at(from), b.cells(), b.at(from), out, count));
            return;
        }
        Texts a = (Texts) first;
        Texts b = (Texts) second;
        pass.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                String one = a.cells()[a.at(from) + i];
                String other = b.cells()[b.at(from) + i];
                out[i] = one != null && other != null && relation.holds(TextOrder.compare(one, other)) ? -1L : 0L;
            }
        });
    }

    /** One of a list: stated values by their hash, as there may be many. */
    private void among(Condition.In f, boolean wanted, long[] out) {
        if (!f.list().stream().allMatch(Leaf.Literal.class::isInstance)) {
            List<long[]> masks = f.list().stream().map(each -> compared(wanted ? Relation.EQUAL : Relation.UNEQUAL, f.of(), each)).toList();
            connect(masks, !wanted, out);
            return;
        }
        Register of = pass.operand(f.of());
        Set<Object> values = new HashSet<>();
        f.list().forEach(each -> values.add(of instanceof Texts ? ((Leaf.Literal) each).value() : (Object) (((Leaf.Literal) each).figure() + 0.0)));
        pass.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                Object cell = of instanceof Texts texts ? texts.cells()[texts.at(from) + i] : (Object) (((Figures) of).cells()[of.at(from) + i] + 0.0);
                boolean there = cell != null && !(cell instanceof Double figure && figure.isNaN());
                out[i] = there && values.contains(cell) == wanted ? -1L : 0L;
            }
        });
    }
}
