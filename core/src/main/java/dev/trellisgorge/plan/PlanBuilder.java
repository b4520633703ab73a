package dev.trellisgorge.plan;

import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.plan.Derived.Use;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Bound;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Characters;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.FreeName;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Gathers a plan: what a pattern describes itself into. Nothing is computed, but each formula is typed as it comes, so that
 * one whose sides don't go together is refused at once. Not thread-safe.
 */
public final class PlanBuilder implements Cloneable {
    private static final int MOST_IN_TITLE = Bound.TITLE_CHARACTERS.count();

    private final String name;
    private final Pipeline base;
    private final Pipeline sliced;
    private final Pipeline pipeline;
    private final Schema schema;
    private final Settings settings;
    private final Optional<String> category;
    private Typing typing;
    private List<Derived> columns = new ArrayList<>();
    private List<String> series = new ArrayList<>();
    private List<Identity> identities = new ArrayList<>();
    private List<Carried> carried = new ArrayList<>();
    private List<RowWarning> watches = new ArrayList<>();
    private List<Refusal> refusals = new ArrayList<>();
    private List<Saying> sayings = new ArrayList<>();
    private Map<String, String> classes = new LinkedHashMap<>();
    private List<Note> notes = new ArrayList<>();
    private Map<String, List<Label>> labels = new LinkedHashMap<>();
    private List<String> figures = List.of();
    private List<String> categoryNames = List.of();
    private boolean namesInLabels;
    private Optional<String> oneRowOf = Optional.empty();
    private Optional<Formula> totals = Optional.empty();
    private Optional<List<Plan.Slice>> slices = Optional.empty();
    private Optional<Label> note = Optional.empty();
    private List<FigureColumn> beside = List.of();
    private boolean inCells;
    private String title = "";
    private String subtitle = "";
    private Optional<String> titleColumn = Optional.empty();
    private Optional<String> subtitleColumn = Optional.empty();
    private Optional<String> nameColumn = Optional.empty();
    private Map<String, String> singles = new LinkedHashMap<>();
    private Locale locale = Locale.ROOT;
    private Looks looks = Looks.OWN;
    private Orientation orientation = Orientation.VERTICAL;
    private boolean firstRowAlone;
    private Drawing drawing;

    /**
     * @param base     the steps before the chart's own
     * @param sliced   those and the chart's slices
     * @param pipeline all steps
     * @param category the column along the base, or none
     */
    public PlanBuilder(String name, Pipeline base, Pipeline sliced, Pipeline pipeline, Catalog known, Optional<String> category) {
        this.name = Characters.shown(name);
        this.base = base;
        this.sliced = sliced;
        this.pipeline = pipeline;
        this.schema = pipeline.schema(known);
        this.settings = known.settings();
        this.category = category;
        this.typing = new Typing(schema, settings);
    }

    /** The same, whose changes are its own. */
    PlanBuilder copy() {
        try {
            PlanBuilder copy = (PlanBuilder) clone();
            copy.typing = new Typing(schema, settings);
            columns.forEach(column -> copy.typing.computed(column.name(), copy.typing.kind(column.formula()).orElse(Kind.NUMBER)));
            copy.columns = new ArrayList<>(columns);
            copy.series = new ArrayList<>(series);
            copy.identities = new ArrayList<>(identities);
            copy.carried = new ArrayList<>(carried);
            copy.watches = new ArrayList<>(watches);
            copy.refusals = new ArrayList<>(refusals);
            copy.sayings = new ArrayList<>(sayings);
            copy.classes = new LinkedHashMap<>(classes);
            copy.notes = new ArrayList<>(notes);
            copy.labels = new LinkedHashMap<>(labels);
            copy.singles = new LinkedHashMap<>(singles);
            return copy;
        } catch (CloneNotSupportedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A series, the last so far. Errors as {@link #working}. */
    public PlanBuilder series(String column, Formula formula) {
        return add(column, formula, Use.SERIES);
    }

    /**
     * A column that others, identities and notes read: neither drawn nor printed.
     *
     * @param formula over the shaped table and the columns so far
     * @throws BadInput where there is a computed column of that name, a name is unknown, or sides are of kinds that don't go
     *                  together
     */
    public PlanBuilder working(String column, Formula formula) {
        return add(column, formula, Use.WORKING);
    }

    /** The same, for a column that labels and the drawing alone read. */
    public PlanBuilder forLabels(String column, Formula formula) {
        return add(column, formula, Use.LABEL);
    }

    private PlanBuilder add(String column, Formula formula, Use use) {
        if (find(column).isPresent()) {
            throw new BadInput(Place.of("series '" + column + "'"), ProblemKind.CONFLICT, "two helper columns would have this name; rename a column of the table");
        }
        typing.computed(column, typing.kind(formula).orElse(Kind.NUMBER));
        columns.add(new Derived(column, formula, use));
        if (use == Use.SERIES) {
            series.add(column);
        }
        return this;
    }

    /** Makes a working column a series, the last so far. */
    public PlanBuilder showing(String column) {
        columns.replaceAll(each -> each.name().equals(column) ? new Derived(column, each.formula(), Use.SERIES) : each);
        series.add(column);
        return this;
    }

    /** Equations that must hold. */
    public PlanBuilder prove(Identity... equations) {
        identities.addAll(Arrays.asList(equations));
        return this;
    }

    /** Figures that the steps must leave as they were. */
    public PlanBuilder carry(Carried figure) {
        carried.add(figure);
        return this;
    }

    /** Conditions that are reported. */
    public PlanBuilder watch(RowWarning... conditions) {
        return watch(Arrays.asList(conditions));
    }

    public PlanBuilder watch(List<RowWarning> conditions) {
        watches.addAll(conditions);
        return this;
    }

    /** Rows that can't be shown. */
    public PlanBuilder refuse(List<Refusal> mistakes) {
        refusals.addAll(mistakes);
        return this;
    }

    /**
     * A sentence that describes rows in their own figures.
     *
     * @param when  true on the rows that it is said of
     * @param parts words (String) and formulas over the table and the columns
     */
    public PlanBuilder say(Formula when, Object... parts) {
        sayings.add(new Saying(when, Arrays.asList(parts)));
        return this;
    }

    /** That a series holds the rows of a class. */
    public PlanBuilder ofClass(String column, String className) {
        classes.put(column, className);
        return this;
    }

    /** A share as readers read it: {@code 80%}. */
    public Formula percent(Formula share) {
        return Formulas.formatted(share, new Format("0.#%").in(locale).pattern(), locale);
    }

    /** A note whatever the cells are. */
    public PlanBuilder tell(Note more) {
        notes.add(more);
        return this;
    }

    /** A label of a series, beside those that it has. */
    public PlanBuilder label(String column, Label label) {
        List<Label> more = new ArrayList<>(labels.getOrDefault(column, List.of()));
        more.add(label);
        labels.put(column, List.copyOf(more));
        return this;
    }

    /** What is written after a category's name. */
    public PlanBuilder note(Label label) {
        note = Optional.of(label);
        return this;
    }

    /** Figures between the names of lying bars and the bars. */
    public PlanBuilder beside(List<FigureColumn> figureColumns) {
        beside = List.copyOf(figureColumns);
        return this;
    }

    /** Whether the bars stand in cells of their own beside those figures, where files have such bars. */
    public PlanBuilder inCells(boolean asked) {
        inCells = asked;
        return this;
    }

    /** Columns of the shaped table whose cells must be finite. */
    public PlanBuilder finite(List<String> columnsOfTable) {
        figures = List.copyOf(columnsOfTable);
        return this;
    }

    /** Names that must be categories'. */
    public PlanBuilder categoryNames(List<String> names) {
        categoryNames = List.copyOf(names);
        return this;
    }

    /** That there must be one row alone, as this pattern shows one figure. */
    public PlanBuilder oneRow(String pattern) {
        oneRowOf = Optional.of(pattern);
        return this;
    }

    /** That labels show the rows' names: where every row has one, the axis does not. */
    public PlanBuilder namesInLabels(boolean shown) {
        namesInLabels = shown;
        return this;
    }

    boolean namesInLabels() {
        return namesInLabels;
    }

    /** True on rows that the pattern takes as totals of others, and not as one more figure. */
    public PlanBuilder totals(Formula rows) {
        totals = Optional.of(rows);
        return this;
    }

    /** Prints each of these series as a row, and not as a column. */
    public PlanBuilder slices(List<Plan.Slice> rows) {
        slices = Optional.of(List.copyOf(rows));
        return this;
    }

    /**
     * The two lines over the drawing, each empty where there is none.
     *
     * @throws BadInput where one has more than 1,000 characters
     */
    public PlanBuilder titles(String line, String secondLine) {
        title = shown(line, "title");
        subtitle = shown(secondLine, "second line");
        titleColumn = Optional.empty();
        subtitleColumn = Optional.empty();
        return this;
    }

    /** Takes the lines over the drawing from columns, of the same text on every row; each where it is there. */
    public PlanBuilder titlesFrom(Optional<String> line, Optional<String> secondLine) {
        titleColumn = line;
        subtitleColumn = secondLine;
        return this;
    }

    /** Takes what readers call the rows from a column of texts. */
    public PlanBuilder namesFrom(String column) {
        nameColumn = Optional.of(column);
        return this;
    }

    /** How it looks where that is not in the drawing: the legend, the title, the size of texts. */
    public PlanBuilder looks(Looks all) {
        looks = all;
        return this;
    }

    /** In whose language figures and dates are written; the root's by default. */
    public PlanBuilder locale(Locale language) {
        locale = language;
        return this;
    }

    /**
     * That a column of the table has the same cell on every row.
     *
     * @param line what says it: {@code title}
     */
    public PlanBuilder single(String column, String line) {
        singles.putIfAbsent(column, line);
        return this;
    }

    private String shown(String line, String what) {
        if (line.length() > MOST_IN_TITLE) {
            throw new BadInput(Place.of("chart '" + name + "'"), ProblemKind.TOO_LARGE, "its " + what + " has " + line.length() + " characters, and at most " + MOST_IN_TITLE + " are drawn");
        }
        return Characters.shown(line);
    }

    public PlanBuilder orientation(Orientation way) {
        orientation = way;
        return this;
    }

    /** That nothing but the first row is looked at, as every row says the same. */
    public PlanBuilder firstRowAlone() {
        firstRowAlone = true;
        return this;
    }

    boolean isFirstRowAlone() {
        return firstRowAlone;
    }

    public PlanBuilder drawing(Drawing shown) {
        drawing = shown;
        return this;
    }

    /** @throws IllegalStateException where there is no drawing */
    public Plan build() {
        if (drawing == null) {
            throw new IllegalStateException("the plan '" + name + "' has no drawing");
        }
        PlanBuilder built = copy();
        if (firstRowAlone) {
            built.nameWindows();
        }
        return new Plan(built);
    }

    /** What looks at other rows stands in columns of its own, so that the rest can be said of one row. */
    private void nameWindows() {
        List<Derived> all = List.copyOf(columns);
        columns.clear();
        for (Derived column : all) {
            Formula formula = column.formula();
            Formula apart = formula instanceof Window ? formula : windowsApart(formula);
            columns.add(new Derived(column.name(), apart, column.use()));
        }
    }

    private Formula windowsApart(Formula formula) {
        if (formula instanceof Window window && !isOfFirstRow(window)) {
            String column = free("of all rows");
            working(column, formula);
            return Formulas.computed(column);
        }
        return formula.operands().isEmpty() ? formula : formula.rebuilt(formula.operands().stream().map(this::windowsApart).toList());
    }

    /** Whether it says a cell of the first row. */
    private static boolean isOfFirstRow(Window window) {
        return window instanceof Window.Lookup lookup && lookup.key() instanceof Leaf.RowNumber && lookup.wanted().equals(Formulas.number(1)) && lookup.of() instanceof Leaf.Column;
    }

    public String name() {
        return name;
    }

    /** The columns of the chart's table. */
    public Schema schema() {
        return schema;
    }

    /** The settings that formulas may name; their kinds say something of the plan, and their values nothing. */
    public Settings settings() {
        return settings;
    }

    /** The column along the base; empty where there is none. */
    public Optional<String> category() {
        return category;
    }

    /** The row's name as readers read it; absent where the chart has no category. */
    public Formula shownName() {
        return nameColumn.map(Formulas::computed).orElseGet(this::categoryText);
    }

    /** The row's name as a text; absent where the chart has no category. */
    public Formula categoryText() {
        return category.map(column -> schema.find(column).map(Field::kind).orElse(Kind.TEXT) == Kind.TEXT ? Formulas.column(column)
                : Formulas.written(Formulas.column(column))).orElseGet(Formulas::absent);
    }

    /** The kind of a formula over the table and the columns so far; empty where it is always absent. Errors as {@link #working}. */
    public Optional<Kind> kind(Formula formula) {
        return typing.kind(formula);
    }

    public Optional<Derived> find(String column) {
        return columns.stream().filter(each -> each.name().equals(column)).findFirst();
    }

    /** A name like the one that is wanted and that no column has. */
    public String free(String wanted) {
        return FreeName.of(wanted, name -> find(name).isPresent());
    }

    public Pipeline pipeline() {
        return pipeline;
    }

    Pipeline base() {
        return base;
    }

    Pipeline sliced() {
        return sliced;
    }

    List<Derived> columns() {
        return columns;
    }

    List<String> series() {
        return List.copyOf(series);
    }

    List<Identity> identities() {
        return List.copyOf(identities);
    }

    List<Carried> carried() {
        return List.copyOf(carried);
    }

    List<RowWarning> watches() {
        return List.copyOf(watches);
    }

    List<Refusal> refusals() {
        return List.copyOf(refusals);
    }

    List<Saying> sayings() {
        return List.copyOf(sayings);
    }

    Map<String, String> classes() {
        return Collections.unmodifiableMap(classes);
    }

    List<Note> notes() {
        return List.copyOf(notes);
    }

    public Map<String, List<Label>> labels() {
        return Collections.unmodifiableMap(labels);
    }

    List<FigureColumn> beside() {
        return beside;
    }

    boolean areInCells() {
        return inCells;
    }

    Optional<Label> note() {
        return note;
    }

    List<String> finite() {
        return figures;
    }

    List<String> categoryNames() {
        return categoryNames;
    }

    Optional<String> oneRowOf() {
        return oneRowOf;
    }

    Optional<Formula> totals() {
        return totals;
    }

    Optional<List<Plan.Slice>> slices() {
        return slices;
    }

    String title() {
        return title;
    }

    String subtitle() {
        return subtitle;
    }

    Optional<String> titleColumn() {
        return titleColumn;
    }

    Optional<String> subtitleColumn() {
        return subtitleColumn;
    }

    Optional<String> nameColumn() {
        return nameColumn;
    }

    Map<String, String> singles() {
        return Collections.unmodifiableMap(singles);
    }

    Looks looks() {
        return looks;
    }

    Locale locale() {
        return locale;
    }

    Orientation orientation() {
        return orientation;
    }

    Drawing drawing() {
        return drawing;
    }
}
