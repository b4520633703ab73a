package dev.trellisgorge.formula;

import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.Map;
import java.util.stream.Stream;

/**
 * The helper columns of one chart, each with its formula and its cells, beside the shaped table and the
 * settings that they were computed from. One row a category; immutable, so {@link #with} gives a new table.
 */
public final class HelperTable {
    private final Table inputs;
    private final Settings settings;
    private final String category;
    private final Map<String, HelperColumn> columns;
    private final List<Identity> identities;
    private final List<Watch> watches;

    private HelperTable(Table inputs, Settings settings, String category, Map<String, HelperColumn> columns,
            List<Identity> identities, List<Watch> watches) {
        this.inputs = inputs;
        this.settings = settings;
        this.category = category;
        this.columns = Collections.unmodifiableMap(columns);
        this.identities = List.copyOf(identities);
        this.watches = List.copyOf(watches);
    }

    /** A table with no helper column yet. {@code category} names the column of {@code inputs} along the base. */
    public static HelperTable over(Table inputs, Settings settings, String category) {
        inputs.column(category);
        return new HelperTable(inputs, settings, category, new LinkedHashMap<>(), List.of(), List.of());
    }

    /**
     * This table and one more helper column, whose formula may read the ones before.
     *
     * @throws dev.trellisgorge.problem.BadInput where the formula names an unknown column or setting, or its
     *                                           sides are of different kinds
     */
    public HelperTable with(String name, Formula formula) {
        return withCells(name, formula, evaluate(name, formula));
    }

    /** The same with cells that were computed elsewhere; the formula is only remembered. */
    public HelperTable withCells(String name, Formula formula, Column cells) {
        Map<String, HelperColumn> more = new LinkedHashMap<>(columns);
        more.put(name, new HelperColumn(name, formula, cells.named(name)));
        return new HelperTable(inputs, settings, category, more, identities, watches);
    }

    /** This table and equations that its helper columns must meet. */
    public HelperTable proving(List<Identity> more) {
        List<Identity> all = Stream.concat(identities.stream(), more.stream()).toList();
        return new HelperTable(inputs, settings, category, columns, all, watches);
    }

    /** This table and conditions that a reader is told of. */
    public HelperTable watching(List<Watch> more) {
        List<Watch> all = Stream.concat(watches.stream(), more.stream()).toList();
        return new HelperTable(inputs, settings, category, columns, identities, all);
    }

    /** Computes a formula on every row without keeping it. Errors as {@link #with}. */
    public Column evaluate(String name, Formula formula) {
        Map<String, Column> cells = new LinkedHashMap<>();
        columns.forEach((key, column) -> cells.put(key, column.cells()));
        return new Evaluator(new Scope(inputs, cells, settings)).evaluate(name, formula);
    }

    public Table inputs() {
        return inputs;
    }

    public Settings settings() {
        return settings;
    }

    /** The settings that some helper column reads, first use first. */
    public Set<String> settingsRead() {
        Set<String> read = new LinkedHashSet<>();
        columns.values().forEach(column -> read.addAll(Inputs.settingsOf(column.formula())));
        return read;
    }

    /** The texts or dates along the chart's base, one a row. */
    public Column category() {
        return inputs.column(category);
    }

    public int rowCount() {
        return inputs.rowCount();
    }

    public List<Identity> identities() {
        return identities;
    }

    public List<Watch> watches() {
        return watches;
    }

    /** In drawing order: first is the bottom of the stack, or leftmost. */
    public Collection<HelperColumn> columns() {
        return columns.values();
    }

    public List<String> columnNames() {
        return List.copyOf(columns.keySet());
    }

    /** @throws IllegalArgumentException where there is no such helper column */
    public HelperColumn column(String name) {
        HelperColumn column = columns.get(name);
        if (column == null) {
            throw new IllegalArgumentException("no helper column '" + name + "'. " + Nearest.hint(name, columns.keySet()));
        }
        return column;
    }

    /**
     * The table as it is printed: the category, then each helper column. Where the category column has a
     * helper column's name, it is printed as {@code category}.
     */
    public Table printed() {
        Column base = category();
        List<Column> all = new ArrayList<>();
        all.add(columns.containsKey(base.name()) ? base.named("category") : base);
        columns.values().forEach(column -> all.add(column.cells()));
        return Table.of(inputs.name(), Source.MEMORY, all);
    }
}
