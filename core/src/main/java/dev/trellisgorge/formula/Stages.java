package dev.trellisgorge.formula;

import dev.trellisgorge.table.FreeName;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiPredicate;

/**
 * Columns in the form that every back end writes from: each is one {@link Window} over columns of earlier stages, or is worked
 * out row by row from them, and a subtree that several columns have stands once, in a column of its own. Immutable.
 *
 * @param all the stages in order; each reads the columns of the ones before it alone
 */
public record Stages(List<Stage> all) {

    /** Columns that can be computed together. */
    public record Stage(List<StageColumn> columns) {
        public Stage {
            columns = List.copyOf(columns);
        }
    }

    /**
     * One column.
     *
     * @param name    unique; of a column that only serves others, the formula in short
     * @param formula typed; a {@link Window} over leaves alone, or a formula without one
     * @param kind    of its cells
     * @param wanted  whether it was asked for, and does not only serve others
     */
    public record StageColumn(String name, Formula formula, Kind kind, boolean wanted) {
        public StageColumn {
            Objects.requireNonNull(name, "name");
            Objects.requireNonNull(formula, "formula");
            Objects.requireNonNull(kind, "kind");
        }
    }

    /**
     * How far formulas are taken apart.
     *
     * @param shared what a subtree that several columns have must hold, in nodes, to get a column of its own
     * @param most   how many nodes the formula of one column holds at most
     * @param again  whether a back end reads the operands of a node, whose first is of that kind, several times; they stand in
     *               columns of their own then
     */
    public record Grain(int shared, int most, BiPredicate<Formula, Kind> again) {
        public Grain {
            Objects.requireNonNull(again, "again");
        }

        /** As little as possible: for a back end that finds equal subtrees by itself. */
        public static final Grain COARSE = new Grain(Integer.MAX_VALUE, Integer.MAX_VALUE, (node, kind) -> false);
    }

    public Stages {
        all = List.copyOf(all);
    }

    /** Every column, each after the ones that it reads. */
    public List<StageColumn> columns() {
        return all.stream().flatMap(stage -> stage.columns().stream()).toList();
    }

    /**
     * @param columns formulas by name, each after the ones that it reads; names of columns that were computed before are
     *                known to {@code typing}
     * @param wanted  those that are asked for; the others only serve them
     * @param typing knows the table and the columns that were computed before; the wanted ones are made known to it
     * @throws dev.trellisgorge.problem.BadInput where sides of a formula don't go together
     */
    public static Stages of(Map<String, Formula> columns, Set<String> wanted, Typing typing, Grain grain) {
        return new Cutting(typing, grain).stages(columns, wanted);
    }

    private static final class Cutting {
        private final Typing typing;
        private final Grain grain;
        private final Map<Formula, Integer> uses = new IdentityHashMap<>();
        private final Map<Formula, Integer> sizes = new IdentityHashMap<>();
        private final Set<Formula> underWindow = Collections.newSetFromMap(new IdentityHashMap<>());
        private final Map<Formula, Formula> standIns = new IdentityHashMap<>();
        private final Map<Formula, Formula> cut = new IdentityHashMap<>();
        private final Map<String, Integer> levels = new LinkedHashMap<>();
        private final Map<Integer, List<StageColumn>> stages = new TreeMap<>();
        private final Set<String> names = new HashSet<>();

        Cutting(Typing typing, Grain grain) {
            this.typing = typing;
            this.grain = grain;
        }

        Stages stages(Map<String, Formula> all, Set<String> wanted) {
            names.addAll(typing.computed().keySet());
            names.addAll(all.keySet());
            Map<String, Formula> roots = new LinkedHashMap<>();
            Simplifier simplifier = new Simplifier(typing);
            all.forEach((name, formula) -> {
                Formula root = simplifier.simplified(typing.typed(formula));
                roots.put(name, root);
                typing.computed(name, typing.of(root));
            });
            dropUnread(roots, wanted);
            roots.values().forEach(this::count);
            roots.forEach((name, root) -> {
                Formula known = standIns.get(root);
                boolean leaf = root.operands().isEmpty();
                Formula formula = known != null && !leaf ? known : operandsCut(root);
                add(name, formula, typing.of(root), wanted.contains(name));
                if (known == null && !leaf) {
                    standIns.put(root, typing.typed(new Leaf.Computed(name)));
                }
            });
            return new Stages(stages.values().stream().map(Stage::new).toList());
        }

        /** A column that only serves others may serve none, once their formulas are simpler. */
        private static void dropUnread(Map<String, Formula> roots, Set<String> wanted) {
            List<String> names = new ArrayList<>(roots.keySet());
            Set<String> read = new HashSet<>(wanted);
            for (int i = names.size() - 1; i >= 0; i--) {
                if (read.contains(names.get(i))) {
                    read.addAll(ColumnReferences.computed(roots.get(names.get(i))));
                } else {
                    roots.remove(names.get(i));
                }
            }
        }

        private void count(Formula node) {
            if (uses.merge(node, 1, Integer::sum) == 1) {
                int size = 1;
                for (Formula operand : node.operands()) {
                    count(operand);
                    size += sizes.get(operand);
                    if (node instanceof Window) {
                        underWindow.add(operand);
                    }
                }
                sizes.put(node, size);
            }
        }

        /** The node over operands that stand in columns of their own where they must. */
        private Formula operandsCut(Formula node) {
            Formula known = cut.get(node);
            if (known != null) {
                return known;
            }
            List<Formula> given = node.operands();
            List<Formula> operands = new ArrayList<>();
            int size = 1;
            boolean again = !given.isEmpty() && grain.again().test(node, typing.of(given.get(0)));
            for (Formula operand : given) {
                Formula stands = again && !operand.operands().isEmpty() ? inColumn(operand) : standing(operand);
                operands.add(stands);
                size += size(stands);
            }
            if (size > grain.most()) {
                for (int i = 0; i < operands.size(); i++) {
                    if (!given.get(i).operands().isEmpty() && size(operands.get(i)) > Math.max(2, grain.most() / 8)) {
                        operands.set(i, inColumn(given.get(i)));
                    }
                }
            }
            Formula made = operands.isEmpty() ? node : typing.typed(node.rebuilt(operands));
            cut.put(node, made);
            return made;
        }

        private int size(Formula node) {
            return 1 + node.operands().stream().mapToInt(this::size).sum();
        }

        private Formula standing(Formula node) {
            Formula known = standIns.get(node);
            if (known != null) {
                return known;
            }
            boolean shared = uses.get(node) > 1 && sizes.get(node) >= grain.shared();
            boolean own = !node.operands().isEmpty() && (node instanceof Window || underWindow.contains(node) || shared)
                    || node instanceof Leaf.RowNumber && underWindow.contains(node);
            return own ? inColumn(node) : operandsCut(node);
        }

        private Formula inColumn(Formula node) {
            Formula known = standIns.get(node);
            if (known != null) {
                return known;
            }
            Formula formula = operandsCut(node);
            String name = free(node.toString());
            typing.computed(name, typing.of(node));
            add(name, formula, typing.of(node), false);
            Formula made = typing.typed(new Leaf.Computed(name));
            standIns.put(node, made);
            return made;
        }

        private String free(String formula) {
            String wanted = formula.length() <= 60 ? formula : formula.substring(0, 57) + "...";
            String name = FreeName.of(wanted, names::contains);
            names.add(name);
            return name;
        }

        private void add(String name, Formula formula, Kind kind, boolean wanted) {
            int level = ColumnReferences.computed(formula).stream().mapToInt(read -> levels.getOrDefault(read, 0)).max().orElse(0) + 1;
            levels.put(name, level);
            stages.computeIfAbsent(level, l -> new ArrayList<>()).add(new StageColumn(name, formula, kind, wanted));
        }
    }
}
