package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Stages.StageColumn;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.FigureChunks;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowOrder;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ForkJoinPool;
import java.util.function.Function;
import java.util.stream.IntStream;

/**
 * The back end that computes cells in process: the columns of a stage are filled together, a block of rows at a time
 * ({@link BlockEvaluator}), each cell once; no cell is boxed. Thread-safe.
 */
public final class Evaluator {
    private static final int MANY = 1 << 17;

    private final Table inputs;
    private final Settings settings;

    /** Over the rows of a table, in their order. */
    public Evaluator(Table inputs, Settings settings) {
        this.inputs = inputs;
        this.settings = settings;
    }

    /** A typing over the table, to which the columns that were computed before are known. */
    public Typing typing(Map<String, Column> before) {
        Typing typing = new Typing(inputs.schema(), settings);
        before.forEach((name, column) -> typing.computed(name, column.kind()));
        return typing;
    }

    /** The cells of one formula that reads no computed column. */
    public Column evaluate(String name, Formula formula) {
        return evaluate(Map.of(name, formula), Map.of()).get(name);
    }

    /**
     * The cells of formulas, each of which may read the ones before it.
     *
     * @param before columns that were computed before, by name
     */
    public Map<String, Column> evaluate(Map<String, Formula> wanted, Map<String, Column> before) {
        Typing typing = typing(before);
        return evaluate(Program.of(Stages.of(wanted, wanted.keySet(), typing, Stages.Grain.COARSE), typing), before);
    }

    /** The wanted columns of a program. */
    public Map<String, Column> evaluate(Program program, Map<String, Column> before) {
        return new Run(program, before).columns();
    }

    /** What the leaves of formulas stand for while they are computed. */
    final class Scope {
        private final Map<String, Column> columns;
        private final Map<String, Double> scalars;
        private final Map<String, Register> inPass = new HashMap<>();

        Scope(Map<String, Column> columns, Map<String, Double> scalars) {
            this.columns = columns;
            this.scalars = scalars;
        }

        Column input(String name) {
            return inputs.column(name);
        }

        Register computed(String name, Function<Column, Register> reader) {
            Register mine = inPass.get(name);
            if (mine != null) {
                return mine;
            }
            return scalars.containsKey(name) ? Register.Figures.constant(scalars.get(name)) : reader.apply(columns.get(name));
        }

        void inPass(String name, Register register) {
            inPass.put(name, register);
        }

        Settings settings() {
            return settings;
        }

        double folded(Window.Aggregate aggregate) {
            throw new IllegalStateException("folded before its stage: " + aggregate);
        }

        double[] ranks(Window.Rank f) {
            double[] cells = all(f.of());
            int[] order = RowOrder.of(cells, f.direction() == Window.Direction.DESCENDING);
            double[] ranks = new double[cells.length];
            for (int i = 0; i < order.length; i++) {
                int row = order[i];
                boolean shared = f.ties() == Window.Ties.SHARED && i > 0 && cells[row] == cells[order[i - 1]];
                ranks[row] = cells[row] != cells[row] ? Double.NaN : shared ? ranks[order[i - 1]] : i + 1;
            }
            return ranks;
        }

        /** The cells of the first rows whose keys are the wanted ones. */
        Column lookedUp(String name, Window.Lookup f, Kind kind) {
            double[] keys = all(f.key());
            double[] wanted = all(f.wanted());
            Map<Double, Integer> firstOf = new HashMap<>();
            for (int row = 0; row < keys.length; row++) {
                firstOf.putIfAbsent(keys[row] + 0.0, row);
            }
            firstOf.remove(Double.NaN);
            int[] found = new int[wanted.length];
            Arrays.setAll(found, row -> firstOf.getOrDefault(wanted[row] + 0.0, -1));
            return kind == Kind.TEXT ? texts(name, f.of(), found) : Column.owning(name, kind, all(f.of())).at(found);
        }

        private Column texts(String name, Formula leaf, int[] rows) {
            Column column = leaf instanceof Leaf.Column given ? input(given.name()) : leaf instanceof Leaf.Computed made ? columns.get(made.name()) : null;
            if (column != null) {
                return column.at(rows).named(name);
            }
            Column setting = leaf instanceof Leaf.Setting named ? settings.value(named.name()) : Column.texts(name, leaf instanceof Leaf.Literal stated ? (String) stated.value() : null);
            return setting.at(Arrays.stream(rows).map(row -> row < 0 ? -1 : 0).toArray()).named(name);
        }

        private double[] all(Formula leaf) {
            double[] cells = new double[inputs.rowCount()];
            if (leaf instanceof Leaf.Column column) {
                input(column.name()).read(0, cells.length, cells, 0);
            } else if (leaf instanceof Leaf.Computed made && !scalars.containsKey(made.name())) {
                columns.get(made.name()).read(0, cells.length, cells, 0);
            } else {
                double figure = leaf instanceof Leaf.Computed made ? scalars.get(made.name()) : leaf instanceof Leaf.Setting setting ? settings.value(setting.name()).number(0)
                        : leaf instanceof Leaf.Literal literal ? literal.figure() : Double.NaN;
                Arrays.fill(cells, figure);
            }
            return cells;
        }
    }

    /** One evaluation: the columns of a program, group after group. */
    private final class Run {
        private final Program program;
        private final int rows = inputs.rowCount();
        private final Map<String, Column> columns = new LinkedHashMap<>();
        private final Map<String, Double> scalars = new HashMap<>();

        Run(Program program, Map<String, Column> before) {
            this.program = program;
            columns.putAll(before);
        }

        Map<String, Column> columns() {
            for (Program.Group group : program.groups()) {
                if (group.alone()) {
                    alone(group.columns().get(0));
                } else {
                    pass(group);
                }
            }
            Map<String, Column> wanted = new LinkedHashMap<>();
            program.wanted().forEach(column -> wanted.put(column.name(), cells(column)));
            return wanted;
        }

        private void alone(StageColumn column) {
            Scope scope = new Scope(columns, scalars);
            columns.put(column.name(), column.formula() instanceof Window.Rank rank ? Column.owning(column.name(), Kind.NUMBER, scope.ranks(rank))
                    : scope.lookedUp(column.name(), (Window.Lookup) column.formula(), column.kind()));
        }

        private void pass(Program.Group group) {
            Map<String, Object> targets = targets(group);
            Map<String, double[]> folds = new LinkedHashMap<>();
            int parts = group.inOrder() || rows < MANY ? 1 : ForkJoinPool.getCommonPoolParallelism() + 1;
            int part = parts == 1 ? rows : (rows / parts / FigureChunks.ROWS + 1) * FigureChunks.ROWS;
            List<BlockEvaluator> passes = new ArrayList<>();
            for (int p = 0; p < parts; p++) {
                passes.add(made(group, targets, folds));
            }
            if (parts == 1) {
                passes.get(0).run(0, rows);
            } else {
                IntStream.range(0, parts).parallel().forEach(p -> passes.get(p).run(Math.min(rows, p * part), Math.min(rows, (p + 1) * part)));
            }
            folds.forEach((name, result) -> scalars.put(name, result[0]));
            for (StageColumn column : group.columns()) {
                Object cells = targets.get(column.name());
                if (cells != null) {
                    columns.put(column.name(), cells instanceof String[] texts ? Column.owning(column.name(), texts)
                            : Column.owning(column.name(), column.kind(), (FigureChunks) cells));
                }
            }
        }

        /** What the cells of all rows go into, FigureChunks or a String[]; equal columns share one. */
        private Map<String, Object> targets(Program.Group group) {
            Map<String, Object> targets = new HashMap<>();
            Map<Formula, Object> ofFormula = new IdentityHashMap<>();
            for (StageColumn column : group.columns()) {
                if (!(column.formula() instanceof Window.Aggregate) && program.isKept(column.name())) {
                    targets.put(column.name(), ofFormula.computeIfAbsent(column.formula(), formula -> column.kind() == Kind.TEXT ? new String[rows] : FigureChunks.forRows(rows)));
                }
            }
            return targets;
        }

        private BlockEvaluator made(Program.Group group, Map<String, Object> targets, Map<String, double[]> folds) {
            BlockEvaluator pass = new BlockEvaluator(program.typing(), new Scope(columns, scalars));
            Set<Object> written = Collections.newSetFromMap(new IdentityHashMap<>());
            for (StageColumn column : group.columns()) {
                if (column.formula() instanceof Window.Aggregate aggregate) {
                    pass.fold(aggregate, folds.computeIfAbsent(column.name(), name -> new double[1]));
                } else {
                    Object cells = targets.get(column.name());
                    pass.column(column.name(), column.formula(), cells != null && written.add(cells) ? cells : null);
                }
            }
            return pass;
        }

        private Column cells(StageColumn column) {
            if (columns.containsKey(column.name())) {
                return columns.get(column.name());
            }
            double[] same = new double[rows];
            Arrays.fill(same, scalars.get(column.name()));
            return Column.owning(column.name(), column.kind(), same);
        }
    }
}
