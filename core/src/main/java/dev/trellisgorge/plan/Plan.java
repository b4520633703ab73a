package dev.trellisgorge.plan;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Program;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Stages;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Everything that a chart will compute and show, as data, before a cell is read: the steps that make its table, the computed
 * columns, what must hold of them, and the drawing by column names. Evaluated to cells by {@link #over}; other back ends write
 * it as formulas of their own. Immutable and thread-safe.
 */
public final class Plan {
    private final PlanBuilder parts;
    private final Map<String, Derived> columns;
    private final Settings settings;
    private Program series;

    Plan(PlanBuilder parts) {
        this.parts = parts;
        this.settings = parts.settings();
        Map<String, Derived> byName = new LinkedHashMap<>();
        parts.columns().forEach(column -> byName.put(column.name(), column));
        this.columns = Collections.unmodifiableMap(byName);
    }

    /** The chart's name. */
    public String name() {
        return parts.name();
    }

    /** The line over the drawing as it is stated; what a column says is left out. */
    public String title() {
        return parts.title();
    }

    /** The same of the second line. */
    public String subtitle() {
        return parts.subtitle();
    }

    /** The column whose text is the line over the drawing, on every row the same; empty where the line is stated. */
    public Optional<String> titleColumn() {
        return parts.titleColumn();
    }

    /** The same of the second line. */
    public Optional<String> subtitleColumn() {
        return parts.subtitleColumn();
    }

    /** The column of what readers call the rows; empty where it is the category as it is written. */
    public Optional<String> nameColumn() {
        return parts.nameColumn();
    }

    /** How it looks where that is not in the drawing. */
    public Looks looks() {
        return parts.looks();
    }

    /** In whose language figures and dates are written; the root's, which is nobody's, by default. */
    public Locale locale() {
        return parts.locale();
    }

    public Orientation orientation() {
        return parts.orientation();
    }

    /** The raw table and the steps that make the chart's table of it. */
    public Pipeline pipeline() {
        return parts.pipeline();
    }

    /** The columns of the chart's table, after all steps. */
    public Schema schema() {
        return parts.schema();
    }

    /** The column along the chart's base, of texts or dates; empty where there is none. */
    public Optional<String> category() {
        return parts.category();
    }

    /** The row's name as a text; absent where the chart has no category. */
    public Formula categoryText() {
        return parts.categoryText();
    }

    /** Every computed column, each after the ones that it reads. */
    public Collection<Derived> columns() {
        return columns.values();
    }

    /** The names of the series, in drawing order: first is the bottom of the stack, or leftmost. */
    public List<String> series() {
        return parts.series();
    }

    public Optional<Derived> find(String column) {
        return Optional.ofNullable(columns.get(column));
    }

    /** @throws IllegalArgumentException where the plan computes no such column */
    public Derived column(String name) {
        return find(name).orElseThrow(() -> new IllegalArgumentException("no computed column '" + name + "'. " + Nearest.hint(name, columns.keySet())));
    }

    public List<Identity> identities() {
        return parts.identities();
    }

    /** What the steps must leave as it was. */
    public List<Carried> carried() {
        return parts.carried();
    }

    public List<RowWarning> watches() {
        return parts.watches();
    }

    public List<Refusal> refusals() {
        return parts.refusals();
    }

    /** Sentences that describe rows in their own figures. */
    public List<Saying> sayings() {
        return parts.sayings();
    }

    /** The class whose rows a series holds, by the series; none where no rule is given. */
    public Map<String, String> classes() {
        return parts.classes();
    }

    /** The notes whatever the cells are. */
    public List<Note> notes() {
        return parts.notes();
    }

    /** The labels of each series that has some, by the series. */
    public Map<String, List<Label>> labels() {
        return parts.labels();
    }

    /** What is written after a category's name, or none. */
    public Optional<Label> note() {
        return parts.note();
    }

    /** Figures between the names of lying bars and the bars, from the left. */
    public List<FigureColumn> beside() {
        return parts.beside();
    }

    /** Whether the bars stand in cells of their own beside those figures. */
    public boolean areInCells() {
        return parts.areInCells();
    }

    public Drawing drawing() {
        return parts.drawing();
    }

    /** How the series are printed where they are not columns: one row for each of these series, with its role. */
    public Optional<List<Slice>> slices() {
        return parts.slices();
    }

    /**
     * A series that is printed as a row.
     *
     * @param column the series, whose cell on the one row is the size
     * @param role   what it is to a reader
     */
    public record Slice(String column, String role) {
        public Slice {
            Objects.requireNonNull(column, "column");
            Objects.requireNonNull(role, "role");
        }
    }

    /** The settings that a formula of the plan reads, first use first. */
    public Set<String> settingsRead() {
        Set<String> read = new LinkedHashSet<>();
        columns.values().forEach(column -> read.addAll(ColumnReferences.settings(column.formula())));
        return read;
    }

    /** The settings that the steps read, which pick rows and make columns before a formula of the plan reads them. */
    public Set<String> settingsOfSteps() {
        Set<String> read = new LinkedHashSet<>();
        pipeline().steps().forEach(step -> step.formulas().forEach(formula -> read.addAll(ColumnReferences.settings(formula))));
        return read;
    }

    /** Whether nothing but the first row is looked at, as every row says the same. */
    public boolean isFirstRowAlone() {
        return parts.isFirstRowAlone();
    }

    PlanBuilder parts() {
        return parts;
    }

    /** The same plan, open to changes. */
    public PlanBuilder change() {
        return parts.copy();
    }

    /** The columns that only say how labels are written; engines with formats of their own need none of them. */
    public Set<String> wording() {
        Set<String> wording = new LinkedHashSet<>();
        Stream.of(labels().values().stream().flatMap(List::stream), note().stream(), beside().stream().map(FigureColumn::label)).flatMap(each -> each).forEach(label -> {
            if (!label.words().equals(label.column())) {
                wording.add(label.words());
            }
            label.decimals().ifPresent(wording::add);
        });
        return wording;
    }

    /** The kind of a computed column's cells. */
    public Kind kind(String column) {
        Typing typing = new Typing(schema(), settings);
        for (Derived each : columns.values()) {
            typing.computed(each.name(), typing.kind(each.formula()).orElse(Kind.NUMBER));
            if (each.name().equals(column)) {
                break;
            }
        }
        return typing.computed().get(column(column).name());
    }

    /** The computed columns in the form that back ends write from. Working columns that nothing reads are left out. */
    public Stages stages(Stages.Grain grain) {
        Map<String, Formula> formulas = new LinkedHashMap<>();
        columns.values().forEach(column -> formulas.put(column.name(), column.formula()));
        return Stages.of(formulas, formulas.keySet(), new Typing(schema(), settings), grain);
    }

    /** The series and what they read; working columns that nothing reads are left out. */
    synchronized Program seriesProgram() {
        if (series == null) {
            Typing typing = new Typing(schema(), settings);
            series = Program.of(Stages.of(closure(series(), Set.of()), Set.copyOf(series()), typing, Stages.Grain.COARSE), typing);
        }
        return series;
    }

    /** The columns that are computed where the rows are: the series, or what one row can't tell by itself. */
    private Executor.Wanted wanted() {
        boolean first = isFirstRowAlone();
        List<String> names = first ? columns.values().stream().filter(column -> column.formula() instanceof Window).map(Derived::name).toList() : series();
        return new Executor.Wanted(closure(names, Set.of()), new LinkedHashSet<>(names), first);
    }

    /** Columns and the ones that they read, each after what it reads, without those in {@code done}. */
    Map<String, Formula> closure(Collection<String> wanted, Set<String> done) {
        Set<String> needed = new LinkedHashSet<>();
        wanted.forEach(name -> need(name, done, needed));
        Map<String, Formula> formulas = new LinkedHashMap<>();
        columns.values().stream().filter(column -> needed.contains(column.name())).forEach(column -> formulas.put(column.name(), column.formula()));
        return formulas;
    }

    private void need(String name, Set<String> done, Set<String> needed) {
        if (!done.contains(name) && needed.add(name)) {
            ColumnReferences.computed(column(name).formula()).forEach(read -> need(read, done, needed));
        }
    }

    /**
     * The plan's columns over rows that are at hand, whatever the steps say. Nothing is checked.
     *
     * @param rows has the columns of {@link #schema}
     */
    public ComputedColumns cells(Table rows, Settings values) {
        return new ComputedColumns(this, rows, values);
    }

    /**
     * Runs the steps and arranges what they make as a chart.
     *
     * @throws dev.trellisgorge.problem.BadInput with every mistake in one go: a step that can't be taken; a category that is missing or stands on
     *                  several rows; a figure that is infinite or makes a series so, or that the pattern or its rule can't show
     */
    public PlainChart over(Executor executor) {
        Executor.Outcome made = executor.run(pipeline(), wanted());
        Table rows = made.rows();
        new RowCheck(this, rows, executor).check();
        List<Note> told = new ArrayList<>(RowCheck.notes(this, executor, rows));
        told.addAll(notes());
        List<StepProof> proofs = carried().stream().map(each -> StepProof.of(each, executor, rows, category())).toList();
        ComputedColumns cells = new ComputedColumns(this, rows, executor.settings(), Optional.of(executor), made.computed());
        RowCheck.refuseOverflow(rows, cells);
        return new PlainChart(this, cells, told, proofs);
    }

    /** The plan's name and columns. */
    @Override
    public String toString() {
        return name() + " " + columns.values();
    }
}
