package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Program;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.plan.Derived.Use;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The cells of a plan over its rows: one row a category. Each is computed once, when it is first asked for, all series in one
 * go. The plan and the rows never change. Thread-safe.
 */
public final class ComputedColumns {
    private final Plan plan;
    private final Table rows;
    private final Settings settings;
    private final Optional<Executor> executor;
    private final Map<String, Column> done;

    ComputedColumns(Plan plan, Table rows, Settings settings) {
        this(plan, rows, settings, Optional.empty(), Map.of());
    }

    ComputedColumns(Plan plan, Table rows, Settings settings, Optional<Executor> executor, Map<String, Column> done) {
        this.plan = plan;
        this.rows = rows;
        this.settings = settings;
        this.executor = executor;
        this.done = new LinkedHashMap<>(done);
    }

    /** The same cells and those of the columns that a plan adds to this one. */
    ComputedColumns over(Plan more) {
        synchronized (done) {
            return new ComputedColumns(more, rows, settings, executor, done);
        }
    }

    /** The cells of some of the rows, none of them computed anew. */
    ComputedColumns at(int[] some, Plan by) {
        Map<String, Column> cells = new LinkedHashMap<>();
        plan.columns().forEach(column -> cells.put(column.name(), column(column.name()).at(some)));
        return new ComputedColumns(by, rows.rows(some), settings, Optional.empty(), cells);
    }

    public Plan plan() {
        return plan;
    }

    /** The chart's table, after all steps. */
    public Table rows() {
        return rows;
    }

    /** What ran the plan's steps, for back ends that write the steps too; empty where the rows were given, or are some of all. */
    public Optional<Executor> executor() {
        return executor;
    }

    public Settings settings() {
        return settings;
    }

    public int rowCount() {
        return rows.rowCount();
    }

    /** The texts or dates along the chart's base, one a row; numbered rows where the chart has no category. */
    public Column category() {
        return plan.category().map(rows::column).orElseGet(() -> {
            String[] names = new String[rows.rowCount()];
            Arrays.setAll(names, row -> "row " + (row + 1));
            return Column.texts("row", names);
        });
    }

    /** @throws IllegalArgumentException where the plan computes no such column */
    public Column column(String name) {
        synchronized (done) {
            if (!done.containsKey(name)) {
                Use use = plan.column(name).use();
                List<String> together = use == Use.WORKING ? List.of(name)
                        : plan.columns().stream().filter(column -> column.use() == use).map(Derived::name).filter(each -> !done.containsKey(each)).toList();
                done.putAll(computed(together));
            }
            return done.get(name);
        }
    }

    /** Computes columns in one go, which each of them is faster by than alone. */
    void compute(Collection<String> names) {
        synchronized (done) {
            List<String> left = names.stream().filter(name -> !done.containsKey(name)).distinct().toList();
            if (!left.isEmpty()) {
                done.putAll(computed(left));
            }
        }
    }

    /** Every series, in drawing order. */
    public List<Column> series() {
        return plan.series().stream().map(this::column).toList();
    }

    private Map<String, Column> computed(Collection<String> names) {
        Evaluator evaluator = new Evaluator(rows, settings);
        if (done.isEmpty() && names.size() == plan.series().size() && plan.series().containsAll(names)) {
            return evaluator.evaluate(plan.seriesProgram(), done);
        }
        Typing typing = evaluator.typing(done);
        return evaluator.evaluate(Program.of(Stages.of(plan.closure(names, done.keySet()), Set.copyOf(names), typing, Stages.Grain.COARSE), typing), done);
    }

    /** The cells of formulas over this plan's rows and columns, by name. They are not kept. */
    public Map<String, Column> evaluate(Map<String, Formula> formulas) {
        synchronized (done) {
            Set<String> read = new LinkedHashSet<>();
            formulas.values().forEach(formula -> read.addAll(ColumnReferences.computed(formula)));
            Map<String, Formula> all = new LinkedHashMap<>(plan.closure(read, done.keySet()));
            Map<String, String> names = new LinkedHashMap<>();
            formulas.forEach((name, formula) -> {
                names.put(name, "asked: " + name);
                all.put("asked: " + name, formula);
            });
            Evaluator evaluator = new Evaluator(rows, settings);
            Typing typing = evaluator.typing(done);
            Map<String, Column> made = evaluator.evaluate(Program.of(Stages.of(all, Set.copyOf(names.values()), typing, Stages.Grain.COARSE), typing), done);
            Map<String, Column> result = new LinkedHashMap<>();
            names.forEach((name, asked) -> result.put(name, made.get(asked).named(name)));
            return result;
        }
    }

    /** The cells of one formula. */
    public Column evaluate(Formula formula) {
        return evaluate(Map.of("cells", formula)).get("cells");
    }

    /** Whether a computed column has a cell at all. */
    public boolean isEmpty(String name) {
        Column cells = column(name);
        for (int row = 0; row < cells.size(); row++) {
            if (cells.isPresent(row)) {
                return false;
            }
        }
        return true;
    }

    /**
     * The series as a table: the category, where there is one, then each series, whatever its cells are; or a row for each
     * slice of a ring. A category column with the name of a series is called {@code category}.
     */
    public Table printed() {
        if (plan.slices().isPresent()) {
            return slices(rows.rowCount() == 0 ? List.of() : plan.slices().get());
        }
        List<Column> all = new ArrayList<>();
        plan.category().map(rows::column).ifPresent(base -> all.add(plan.series().contains(base.name()) ? base.named("category") : base));
        all.addAll(series());
        return Table.of(rows.name(), Source.MEMORY, all);
    }

    private Table slices(List<Plan.Slice> slices) {
        return Table.of(rows.name(), Source.MEMORY, List.of(
                Column.texts("slice", slices.stream().map(Plan.Slice::column).toArray(String[]::new)),
                Column.numbers("size", slices.stream().mapToDouble(slice -> column(slice.column()).number(0)).toArray()),
                Column.texts("role", slices.stream().map(Plan.Slice::role).toArray(String[]::new))));
    }

    /** What people look at of {@link #printed}: without the series that have no cell at all. */
    public Table shown() {
        Table printed = printed();
        if (plan.slices().isPresent() || printed.rowCount() == 0) {
            return printed;
        }
        Optional<String> base = plan.category();
        List<Column> shown = new ArrayList<>();
        for (int i = 0; i < printed.columns().size(); i++) {
            Column column = printed.columns().get(i);
            if (i == 0 && base.isPresent() || !isEmpty(column.name())) {
                shown.add(column);
            }
        }
        return Table.of(rows.name(), Source.MEMORY, shown);
    }
}
