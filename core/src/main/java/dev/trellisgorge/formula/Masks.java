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
 * The truths of a {@link BlockEvaluator} as masks over a block: zero on the rows where a condition certainly is what is wanted, else NaN.
 * Each truth and its opposite are worked out once. Used by one thread.
 */
final class Masks {
    private final BlockEvaluator pass;
    private final Map<Formula, double[]> certain = new IdentityHashMap<>();
    private final Map<Formula, double[]> certainlyNot = new IdentityHashMap<>();

    Masks(BlockEvaluator pass) {
        this.pass = pass;
    }

    /** The rows on which a truth is certainly what is wanted; unknown is neither. */
    double[] of(Formula truth, boolean wanted) {
        return of(truth, truth, wanted);
    }

    /** @param node what the mask is remembered by, where the truth is about a node and none itself */
    double[] of(Formula truth, Formula node, boolean wanted) {
        Map<Formula, double[]> memory = truth == node ? wanted ? certain : certainlyNot : new IdentityHashMap<>();
        double[] known = memory.get(node);
        if (known == null) {
            known = made(truth, wanted);
            memory.put(node, known);
        }
        return known;
    }

    private double[] made(Formula truth, boolean wanted) {
        double[] out = new double[BlockEvaluator.BLOCK];
        if (truth instanceof Comparison f) {
            compare(wanted ? f.relation() : BlockLoops.opposite(f.relation()), f.left(), f.right(), out);
        } else if (truth instanceof Condition.In f) {
            among(f, wanted, out);
        } else if (truth instanceof Condition.Logic f) {
            boolean both = (f.connective() == Connective.AND) == wanted;
            List<double[]> masks = f.of().stream().map(each -> of(each, wanted)).toList();
            connect(masks, both, out);
        } else if (truth instanceof Condition.Not f) {
            return of(f.of(), !wanted);
        } else if (truth instanceof Condition.Present f) {
            present(pass.register(f.of()), wanted, out);
        } else if (truth instanceof Leaf.Literal f) {
            Arrays.fill(out, BlockLoops.holds(f.value().equals(wanted)));
        } else {
            double[] cells = ((Figures) pass.register(truth)).cells();
            double[] value = Figures.constant(wanted ? 1 : 0).cells();
            pass.add((from, count) -> BlockLoops.compare(Relation.EQUAL, cells, value, out, count));
        }
        return out;
    }

    private void present(Register of, boolean wanted, double[] out) {
        if (of instanceof Texts texts) {
            pass.add((from, count) -> BlockLoops.present(texts.cells(), wanted, out, count));
        } else {
            double[] cells = ((Figures) of).cells();
            pass.add(wanted ? (from, count) -> BlockLoops.present(cells, out, count) : (from, count) -> BlockLoops.missing(cells, out, count));
        }
    }

    private void connect(List<double[]> masks, boolean both, double[] out) {
        double[] so = masks.get(0);
        if (masks.size() == 1) {
            pass.add((from, count) -> System.arraycopy(masks.get(0), 0, out, 0, count));
        }
        for (double[] next : masks.subList(1, masks.size())) {
            double[] left = so;
            pass.add(both ? (from, count) -> BlockLoops.plus(left, next, out, count) : (from, count) -> BlockLoops.or(left, next, out, count));
            so = out;
        }
    }

    /** The rows on which both sides are there and the relation holds. */
    double[] compared(Relation relation, Formula left, Formula right) {
        double[] out = new double[BlockEvaluator.BLOCK];
        compare(relation, left, right, out);
        return out;
    }

    private void compare(Relation relation, Formula left, Formula right, double[] out) {
        Register first = pass.register(left);
        Register second = pass.register(right);
        if (first instanceof Figures a && second instanceof Figures b) {
            pass.add((from, count) -> BlockLoops.compare(relation, a.cells(), b.cells(), out, count));
            return;
        }
        String[] a = ((Texts) first).cells();
        String[] b = ((Texts) second).cells();
        pass.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                out[i] = BlockLoops.holds(a[i] != null && b[i] != null && relation.holds(TextOrder.compare(a[i], b[i])));
            }
        });
    }

    /** One of a list: stated values by their hash, as there may be many. */
    private void among(Condition.In f, boolean wanted, double[] out) {
        if (!f.list().stream().allMatch(Leaf.Literal.class::isInstance)) {
            List<double[]> masks = f.list().stream().map(each -> compared(wanted ? Relation.EQUAL : Relation.UNEQUAL, f.of(), each)).toList();
            connect(masks, !wanted, out);
            return;
        }
        Register of = pass.register(f.of());
        Set<Object> values = new HashSet<>();
        f.list().forEach(each -> values.add(of instanceof Texts ? ((Leaf.Literal) each).value() : (Object) (((Leaf.Literal) each).figure() + 0.0)));
        pass.add((from, count) -> {
            for (int i = 0; i < count; i++) {
                Object cell = of instanceof Texts texts ? texts.cells()[i] : (Object) (((Figures) of).cells()[i] + 0.0);
                boolean there = cell != null && !(cell instanceof Double figure && figure.isNaN());
                out[i] = BlockLoops.holds(there && values.contains(cell) == wanted);
            }
        });
    }
}
