package dev.trellisgorge.formula;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Source;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The helper columns of one chart, each with its formula and its cells, beside the shaped table and the
 * settings that they were computed from. One row a category; immutable, so {@link #with} gives a new table.
 *
 * <p>Some columns are series: they are drawn and printed, in their own order. The others are working columns, which
 * formulas, identities and labels read.
 */
public final class HelperTable {
    private final Table inputs;
    private final Settings settings;
    private final Optional<String> category;
    private final Map<String, HelperColumn> columns;
    private final List<String> series;
    private final List<Identity> identities;
    private final List<Watch> watches;
    private final List<Note> notes;
    private final Map<Formula, double[]> kept;

    private HelperTable(Table inputs, Settings settings, Optional<String> category, Map<String, HelperColumn> columns,
            List<String> series, List<Identity> identities, List<Watch> watches, List<Note> notes, Map<Formula, double[]> kept) {
        this.inputs = inputs;
        this.settings = settings;
        this.category = category;
        this.columns = Collections.unmodifiableMap(columns);
        this.series = List.copyOf(series);
        this.identities = List.copyOf(identities);
        this.watches = List.copyOf(watches);
        this.notes = List.copyOf(notes);
        this.kept = kept;
    }

    /** A table with no helper column yet. {@code category} names the column of {@code inputs} along the base. */
    public static HelperTable over(Table inputs, Settings settings, String category) {
        inputs.column(category);
        return over(inputs, settings, Optional.of(category));
    }

    /** The same; without a category the rows have no names, as a dial's one row has none. */
    public static HelperTable over(Table inputs, Settings settings, Optional<String> category) {
        return new HelperTable(inputs, settings, category, new LinkedHashMap<>(), List.of(), List.of(), List.of(), List.of(),
                new ConcurrentHashMap<>());
    }

    /**
     * This table and one more series, whose formula may read the columns before.
     *
     * @throws BadInput where there is a column of that name already, the formula names an unknown column or setting, or
     *                  its sides are of different kinds
     */
    public HelperTable with(String name, Formula formula) {
        return working(name, formula).showing(name);
    }

    /** The same, for a working column: it is neither drawn nor printed. */
    public HelperTable working(String name, Formula formula) {
        if (columns.containsKey(name)) {
            throw new BadInput(Place.of("series '" + name + "'"), "two helper columns would have this name; rename a column of the table");
        }
        return changed(new HelperColumn(name, formula, evaluate(name, formula)), kept);
    }

    /** Makes a working column a series, the last so far. */
    public HelperTable showing(String name) {
        List<String> more = new ArrayList<>(series);
        more.add(name);
        return new HelperTable(inputs, settings, category, columns, more, identities, watches, notes, kept);
    }

    /** This table with other cells in one of its columns, computed elsewhere; the formula is only remembered. */
    public HelperTable withCells(String name, Formula formula, Column cells) {
        return changed(new HelperColumn(name, formula, cells.named(name)), new ConcurrentHashMap<>());
    }

    private HelperTable changed(HelperColumn column, Map<Formula, double[]> keptThen) {
        Map<String, HelperColumn> more = new LinkedHashMap<>(columns);
        more.put(column.name(), column);
        return new HelperTable(inputs, settings, category, more, series, identities, watches, notes, keptThen);
    }

    /** The rows from the last to the first; formulas are only remembered, as what they read of other rows has moved. */
    public HelperTable reversed() {
        int[] rows = new int[rowCount()];
        Arrays.setAll(rows, row -> rows.length - 1 - row);
        Map<String, HelperColumn> turned = new LinkedHashMap<>();
        columns.forEach((key, column) -> turned.put(key, new HelperColumn(key, column.formula(), column.cells().at(rows))));
        return new HelperTable(inputs.rows(rows), settings, category, turned, series, identities, watches, notes, new ConcurrentHashMap<>());
    }

    /** This table and equations that its helper columns must meet. */
    public HelperTable proving(List<Identity> more) {
        return new HelperTable(inputs, settings, category, columns, series, joined(identities, more), watches, notes, kept);
    }

    /** This table and conditions that a reader is told of. */
    public HelperTable watching(List<Watch> more) {
        return new HelperTable(inputs, settings, category, columns, series, identities, joined(watches, more), notes, kept);
    }

    /** This table and something that a reader is told of whatever the cells are. */
    public HelperTable noting(List<Note> more) {
        return new HelperTable(inputs, settings, category, columns, series, identities, watches, joined(notes, more), kept);
    }

    private static <T> List<T> joined(List<T> some, List<T> more) {
        List<T> all = new ArrayList<>(some);
        all.addAll(more);
        return all;
    }

    /** Computes a formula on every row without keeping it. Errors as {@link #with}. */
    public Column evaluate(String name, Formula formula) {
        return evaluator().evaluate(name, formula);
    }

    /**
     * What a formula's cells are, without computing them; empty where it is always absent.
     *
     * @throws BadInput where its sides don't go together
     */
    public Optional<Kind> kind(Formula formula) {
        return formula.match(new KindOf(scope()));
    }

    private Evaluator evaluator() {
        return new Evaluator(scope());
    }

    private Scope scope() {
        Map<String, Column> cells = new LinkedHashMap<>();
        columns.forEach((key, column) -> cells.put(key, column.cells()));
        return new Scope(inputs, cells, settings, kept);
    }

    /** Whether a condition is true on some row. */
    public boolean anyRow(Formula condition) {
        return evaluator().anyRow(condition);
    }

    /** Whether a condition reads no rows, settings and constants alone, and is true. */
    public boolean isTrueThroughout(Formula condition) {
        Table anyRow = Table.of("any", Column.numbers("any", 0));
        return Inputs.readsNoRow(condition) && new Evaluator(new Scope(anyRow, Map.of(), settings, kept)).evaluate("throughout", condition).number(0) == 1;
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

    /** The texts or dates along the chart's base, one a row; numbered rows where the chart has no category. */
    public Column category() {
        return category.map(inputs::column).orElseGet(() -> {
            String[] names = new String[inputs.rowCount()];
            Arrays.setAll(names, row -> "row " + (row + 1));
            return Column.texts("row", names);
        });
    }

    /** The row's name as a text; absent where the chart has no category. */
    public Formula categoryText() {
        return category.map(name -> category().kind() == Kind.TEXT ? Formulas.column(name) : new Formula.Written(Formulas.column(name)))
                .orElseGet(Formulas::absent);
    }

    /** The column along the chart's base, of texts or dates; empty where there is none. */
    public Optional<String> categoryName() {
        return category;
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

    public List<Note> notes() {
        return notes;
    }

    /** The series, in drawing order: first is the bottom of the stack, or leftmost. */
    public List<HelperColumn> columns() {
        return series.stream().map(columns::get).toList();
    }

    /** The names of {@link #columns()}. */
    public List<String> columnNames() {
        return series;
    }

    /** Every column, working ones too, each after the ones that it reads. */
    public Collection<HelperColumn> allColumns() {
        return columns.values();
    }

    /** A series or a working column; empty where there is none of that name. */
    public Optional<HelperColumn> find(String name) {
        return Optional.ofNullable(columns.get(name));
    }

    /** @throws IllegalArgumentException where there is no such helper column */
    public HelperColumn column(String name) {
        return find(name).orElseThrow(() -> new IllegalArgumentException("no helper column '" + name + "'. "
                + Nearest.hint(name, columns.keySet())));
    }

    /**
     * The table as it is printed: the category, where there is one, then each series. Where the category column has a
     * series' name, it is printed as {@code category}.
     */
    public Table printed() {
        List<Column> all = new ArrayList<>();
        category.map(inputs::column).ifPresent(base -> all.add(series.contains(base.name()) ? base.named("category") : base));
        columns().forEach(column -> all.add(column.cells()));
        return Table.of(inputs.name(), Source.MEMORY, all);
    }
}
