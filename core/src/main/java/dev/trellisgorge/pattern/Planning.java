package dev.trellisgorge.pattern;

import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Drawing;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Format;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Orientation;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.pattern.Filters.Looked;
import dev.trellisgorge.plan.Carried;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.PlanBuilder;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Lineage;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rest;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Makes the plan of one chart: its steps, then its columns, then its labels and its drawing. */
final class Planning {
    private final Chart chart;
    private Pipeline base;
    private final Catalog known;
    private final Problems problems = new Problems();
    private Pattern pattern;

    Planning(Chart chart, Pipeline base, Catalog known) {
        this.chart = chart;
        this.base = base;
        this.known = known;
        this.pattern = chart.pattern();
    }

    Plan plan() {
        base = chart.slicesRaw() ? base.first(slices()) : base;
        Schema schema = base.schema(known);
        check(schema);
        Pipeline sliced = sliced(schema);
        Formula category = categoryText(sliced.schema(known));
        Pipeline ranked = ranked(sliced, category);
        Pipeline whole = ranked;
        for (Step step : pattern.rows(chart.category())) {
            whole = whole.then(step);
        }
        PlanBuilder plan = new PlanBuilder(chart.name(), base, sliced, whole, known, chart.category());
        plan.titles(chart.title().said(), chart.subtitle().said()).locale(chart.locale()).orientation(chart.orientation().orElse(pattern.orientation()))
                .finite(columns(figures()).stream().toList()).categoryNames(pattern.categories())
                .refuse(pattern.classifier().map(Classifier::refusals).orElse(List.of())).refuse(pattern.refusals());
        pattern.totals(category).ifPresent(plan::totals);
        names(plan);
        if (!pattern.type().categories()) {
            plan.oneRow(pattern.type().name());
        }
        pattern.describe(plan);
        rest(plan);
        anchors(plan, sliced, category);
        new Labelling(chart, pattern, plan).describe();
        pattern.note().ifPresent(column -> note(plan, column));
        beside(plan);
        Wording wording = new Wording(plan, chart.locale());
        plan.titlesFrom(wording.column(chart.title(), "title"), wording.column(chart.subtitle(), "second line"));
        Looks looks = chart.looks().over(chart.theme());
        Drawing drawing = pattern.arrange(new Look(chart.names(), chart.colors(), plan.labels(), pattern.groups(), looks));
        plan.labels().keySet().stream().filter(series -> !chart.seriesNames().contains(series)).findFirst().ifPresent(series -> {
            throw new BadInput(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNSUPPORTED, "'" + series + "' carries no label");
        });
        Drawing dressed = new Dressing(chart, pattern, looks, wording).dressed(drawing);
        if (chart.areInCells()) {
            checkInCells(dressed);
        }
        return plan.looks(looks).drawing(dressed).inCells(chart.areInCells()).build();
    }

    /** Dates and periods along the base as a reader reads them: by the chart's pattern, or as its locale writes them. */
    private void names(PlanBuilder plan) {
        Optional<Field> field = chart.category().map(plan.schema()::field).filter(base -> base.kind() == Kind.DATE || base.kind() == Kind.TEXT);
        Optional<String> own = chart.looks().axis().dates();
        if (own.isPresent() && field.isEmpty()) {
            throw new BadInput(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNSUPPORTED, "there are no dates along its base to be written as '" + own.get() + "'");
        }
        Optional<String> pattern = chart.looks().over(chart.theme()).axis().dates().filter(dates -> field.isPresent()).or(() -> chart.locale().equals(Locale.ROOT) ? Optional.empty() : field.flatMap(base -> base.kind() == Kind.DATE
                ? Optional.of(Format.dates(chart.locale())) : period(plan, base.name()).flatMap(this::usual)));
        pattern.ifPresent(as -> {
            String column = plan.free("name as written");
            plan.forLabels(column, Formulas.formatted(Formulas.column(field.orElseThrow().name()), as, chart.locale())).namesFrom(column);
        });
    }

    private static Optional<CalendarUnit> period(PlanBuilder plan, String column) {
        return plan.pipeline().steps().stream().filter(PeriodOf.class::isInstance).map(PeriodOf.class::cast).filter(step -> step.name().equals(column)).map(PeriodOf::unit).findFirst();
    }

    private Optional<String> usual(CalendarUnit unit) {
        return switch (unit) {
            case DAY -> Optional.of(Format.dates(chart.locale()));
            case MONTH -> Optional.of("MMM y");
            case QUARTER -> Optional.of("QQQ y");
            case WEEK, YEAR -> Optional.empty();
        };
    }

    private Map<String, Formula> figures() {
        Map<String, Formula> figures = new LinkedHashMap<>(pattern.figures());
        pattern.classifier().ifPresent(rule -> figures.putAll(rule.figures()));
        return figures;
    }

    private static Set<String> columns(Map<String, Formula> formulas) {
        Set<String> columns = new LinkedHashSet<>();
        formulas.values().forEach(formula -> columns.addAll(ColumnReferences.columns(formula)));
        return columns;
    }

    private Formula categoryText(Schema schema) {
        return chart.category().map(name -> schema.find(name).map(Field::kind).orElse(Kind.TEXT) == Kind.TEXT ? Formulas.column(name)
                : Formulas.written(Formulas.column(name))).orElseGet(Formulas::absent);
    }

    /** What can be told to be wrong from the columns alone. */
    private void check(Schema schema) {
        checkSeries();
        Map<String, Formula> every = new LinkedHashMap<>(figures());
        every.putAll(pattern.figuresOrDates());
        every.putAll(pattern.remarks());
        chart.beside().forEach(column -> every.put("beside " + column.figure(), column.figure()));
        chart.ranking().ifPresent(ranking -> every.put("rank", ranking.by()));
        Set<String> read = columns(every);
        if (!chart.slicesRaw()) {
            read.addAll(chart.slices().keySet());
        }
        chart.category().ifPresent(read::add);
        Set<String> settings = new LinkedHashSet<>();
        every.values().forEach(formula -> settings.addAll(ColumnReferences.settings(formula)));
        settings.stream().filter(name -> known.settings().find(name).isEmpty()).forEach(name -> problems.add(Place.of("settings"), ProblemKind.UNKNOWN_NAME, known.settings().unknown(name)));
        read.stream().filter(name -> !schema.has(name)).forEach(name -> problems.attempt(() -> schema.field(name)));
        figures().values().forEach(figure -> kind(figure, EnumSet.of(Kind.NUMBER), schema));
        pattern.figuresOrDates().values().forEach(figure -> kind(figure, EnumSet.of(Kind.NUMBER, Kind.DATE), schema));
        chart.ranking().ifPresent(ranking -> kind(ranking.by(), EnumSet.allOf(Kind.class), schema));
        problems.throwIfAny();
    }

    private void kind(Formula figure, Set<Kind> kinds, Schema schema) {
        boolean isKnown = ColumnReferences.columns(figure).stream().allMatch(schema::has) && ColumnReferences.settings(figure).stream().allMatch(name -> known.settings().find(name).isPresent());
        if (!isKnown) {
            return;
        }
        Optional<Kind> kind = problems.attempt(() -> new Typing(schema, known.settings()).kind(figure)).flatMap(found -> found);
        if (kind.isEmpty() || kinds.contains(kind.get())) {
            return;
        }
        if (figure instanceof Leaf.Column column && kind.get() == Kind.TEXT) {
            RowProblems.reportNoNumbers(schema, column.name(), problems);
        } else if (figure instanceof Leaf.Column column) {
            problems.add(schema.place().within("column '" + column.name() + "'"), ProblemKind.WRONG_TYPE, "holds " + kind.get().phrase() + " a row, and a figure must be a number");
        } else {
            problems.add(schema.place(), ProblemKind.WRONG_TYPE, figure + " is " + kind.get().phrase() + ", and a figure must be a number");
        }
    }

    private void checkSeries() {
        Set<String> series = new LinkedHashSet<>(chart.seriesNames());
        series.addAll(pattern.groups().keySet());
        Stream.concat(chart.names().keySet().stream(), chart.colors().keySet().stream()).filter(name -> !series.contains(name))
                .forEach(name -> problems.add(Place.of("chart '" + chart.name() + "'"), ProblemKind.UNKNOWN_NAME, "there is no series '" + name + "'. " + Nearest.hint(name, series)));
    }

    private List<Step> slices() {
        return chart.slices().entrySet().stream().<Step>map(cut -> new Slice(cut.getKey(), cut.getValue())).toList();
    }

    private Pipeline sliced(Schema schema) {
        Pipeline sliced = base;
        for (Step slice : chart.slicesRaw() ? List.<Step>of() : slices()) {
            sliced = sliced.then(slice);
        }
        if (pattern.lookback().isPresent() && chart.category().isPresent()) {
            Optional<Looked> looked = Filters.before(sliced, pattern.lookback().get(), chart.category().get(), schema);
            if (looked.isPresent()) {
                pattern = pattern.comparedWith(looked.get().column());
                return looked.get().pipeline();
            }
        }
        return sliced;
    }

    private Pipeline ranked(Pipeline sliced, Formula category) {
        if (chart.ranking().isEmpty()) {
            return sliced;
        }
        Ranking asked = chart.ranking().get();
        Optional<Rest> rest = asked.top().isEmpty() ? Optional.empty() : asked.rest().flatMap(name -> chart.category().map(column -> {
            Lineage origins = Lineage.of(sliced, known);
            return new Rest(column, name, origins.ways(sliced.schema(known), amounts(origins)), origins.derived());
        }));
        return sliced.then(new Rank(asked.by(), asked.order(), asked.top(), rest, chart.category(), pattern.anchors(category).map(Pattern.Anchors::rows)));
    }

    private Set<String> amounts(Lineage origins) {
        List<Formula> drawn = new ArrayList<>(figures().values());
        chart.ranking().ifPresent(ranking -> drawn.add(ranking.by()));
        List<Formula> remarks = new ArrayList<>(pattern.remarks().values());
        chart.labels().forEach(labels -> labels.expression().ifPresent(remarks::add));
        chart.beside().forEach(column -> remarks.add(column.figure()));
        return Amounts.in(drawn, remarks, origins);
    }

    /** What must hold of the row that stands for the others, and what it lacks. */
    private void rest(PlanBuilder plan) {
        Optional<Rest> rest = rank(plan.pipeline()).flatMap(Rank::rest);
        if (rest.isEmpty()) {
            return;
        }
        Formula there = plan.categoryText().equalTo(Formulas.text(rest.get().name()));
        Set<String> read = new LinkedHashSet<>(columns(figures()));
        read.addAll(columns(pattern.remarks()));
        chart.labels().forEach(labels -> labels.expression().ifPresent(label -> read.addAll(ColumnReferences.columns(label))));
        chart.beside().forEach(column -> read.addAll(ColumnReferences.columns(column.figure())));
        for (String column : read) {
            Rest.Way way = rest.get().ways().getOrDefault(column, Rest.Way.MISSING);
            Formula derived = rest.get().derived().get(column);
            if (way == Rest.Way.DERIVED && plan.schema().field(column).kind() == Kind.NUMBER) {
                plan.prove(new Identity(Formulas.column(column) + " = " + derived + ", in the row '" + rest.get().name() + "'", there.and(Formulas.present(derived)),
                        Formulas.column(column), derived));
            } else if (way == Rest.Way.MISSING && !column.equals(rest.get().column())) {
                plan.watch(new RowWarning("has no '" + column + "', which can't be made of the rows that it stands for", there, Formulas.absent()));
            }
        }
    }

    private static Optional<Rank> rank(Pipeline pipeline) {
        return pipeline.steps().stream().filter(Rank.class::isInstance).map(Rank.class::cast).findFirst();
    }

    private void anchors(PlanBuilder plan, Pipeline sliced, Formula category) {
        if (chart.ranking().isPresent()) {
            pattern.anchors(category).ifPresent(anchors -> plan.carry(new Carried(anchors.statement(), sliced, anchors.rows(), anchors.figure())));
        }
    }

    /** The figures between the names and the bars, each in a format of its own. */
    private void beside(PlanBuilder plan) {
        Place place = Place.of("chart '" + chart.name() + "'");
        if (!chart.beside().isEmpty() && !pattern.type().categories()) {
            throw new BadInput(place, ProblemKind.CONFLICT, "'beside' has no effect here: a chart of the pattern '" + pattern.type().name() + "' is of one figure");
        }
        if (!chart.beside().isEmpty() && chart.orientation().orElse(pattern.orientation()) == Orientation.VERTICAL) {
            throw new BadInput(place, ProblemKind.CONFLICT, "'beside' puts figures between names and bars that lie; add orientation: horizontal");
        }
        List<FigureColumn> columns = new ArrayList<>();
        for (Beside asked : chart.beside()) {
            String column = plan.free("beside " + asked.heading());
            plan.forLabels(column, asked.figure());
            Kind kind = plan.kind(Formulas.computed(column)).orElse(Kind.NUMBER);
            if (kind != Kind.NUMBER) {
                asked.format().ifPresent(format -> {
                    throw new BadInput(place, ProblemKind.CONFLICT, "'" + asked.heading() + "' is " + kind.phrase() + " a row, which can't take the format '" + format.pattern() + "'");
                });
            }
            Optional<String> decimals = kind == Kind.NUMBER && asked.format().isEmpty() ? Optional.of(plan.free("decimals of " + column)) : Optional.empty();
            decimals.ifPresent(name -> plan.forLabels(name, Format.decimals(List.of(Formulas.computed(column)))));
            columns.add(new FigureColumn(asked.heading(), Labelling.worded(plan, column, plan.free("words of " + column), asked.format().orElse(Format.FITTING).in(chart.locale()), decimals,
                    Label.At.END, false, Optional.empty())));
        }
        plan.beside(columns);
    }

    /** A cell holds one bar from the edge, in one colour. */
    private void checkInCells(Drawing drawing) {
        Place place = Place.of("chart '" + chart.name() + "'");
        if (chart.beside().isEmpty()) {
            throw new BadInput(place, ProblemKind.CONFLICT, "bars in cells stand beside figures; say which in 'beside'");
        }
        if (!(drawing instanceof Panels panels)) {
            throw new BadInput(place, ProblemKind.CONFLICT, "'in-cells' has no effect here: a " + pattern.type().name() + " has its own bars in cells");
        }
        if (panels.panels().stream().flatMap(panel -> panel.bars().stream()).filter(group -> group.placing() == BarGroup.Placing.STACKED).flatMap(group -> group.series().stream()).anyMatch(series -> !series.isSeen())) {
            throw new BadInput(place, ProblemKind.CONFLICT, "bars of the pattern '" + pattern.type().name() + "' float, and bars in cells start at the edge; leave 'in-cells' out");
        }
    }

    private void note(PlanBuilder plan, String column) {
        Optional<String> decimals = Optional.empty();
        if (plan.kind(Formulas.computed(column)).orElse(Kind.NUMBER) == Kind.NUMBER) {
            decimals = Optional.of("decimals of the note");
            plan.forLabels("decimals of the note", Format.decimals(List.of(Formulas.computed(column))));
        }
        plan.note(Labelling.worded(plan, column, "words of the note", Format.FITTING.in(chart.locale()), decimals, Label.At.BASE, false, Optional.empty()));
    }
}
