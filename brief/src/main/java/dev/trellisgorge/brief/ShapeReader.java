package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Reads the steps of a shape one by one, each over the columns that the ones before leave. Nothing is computed. */
final class ShapeReader {
    private static final List<String> STEPS = StepSchema.ALL.names();

    private final Map<String, Pipeline> tables;
    private final Executor executor;
    private final Problems problems;

    /**
     * @param tables   the tables that joins may name, with their own steps
     * @param executor asked for the columns of the raw tables; it computes nothing here, unless a pivot does not say its columns
     */
    ShapeReader(Map<String, Pipeline> tables, Executor executor, Problems problems) {
        this.tables = tables;
        this.executor = executor;
        this.problems = problems;
    }

    Schema schema(Pipeline pipeline) {
        return pipeline.schema(executor.known());
    }

    /** The steps of {@code key}, after those before; empty where one is wrong, which is reported: what comes after is not looked at. */
    Optional<Pipeline> shaped(Pipeline before, Mapping keys, String key) {
        Optional<Pipeline> shaped = Optional.of(before);
        for (Mapping step : keys.mappings(key)) {
            shaped = shaped.flatMap(pipeline -> after(pipeline, step));
        }
        return shaped;
    }

    private Optional<Pipeline> after(Pipeline before, Mapping step) {
        List<String> named = step.keyList();
        if (named.equals(List.of("derive"))) {
            problems.add(step.place(), ProblemKind.UNKNOWN_NAME, "the step 'derive' is called 'add' now");
            return Optional.empty();
        }
        if (named.size() != 1 || !STEPS.contains(named.get(0))) {
            problems.add(step.place(), ProblemKind.UNKNOWN_NAME, named.size() == 1 ? "there is no step '" + named.get(0) + "'. " + Nearest.hint(named.get(0), STEPS)
                    : "a step is one of " + String.join(", ", STEPS) + ", and has its one key");
            return Optional.empty();
        }
        List<Step> steps = new Reading(before, step, named.get(0)).steps();
        Optional<Pipeline> after = steps.isEmpty() ? Optional.empty() : Optional.of(before);
        for (Step each : steps) {
            after = after.flatMap(pipeline -> with(pipeline, each, step));
        }
        return after;
    }

    /** The steps and one more; empty where it does not fit the columns, which is reported at its place. */
    private Optional<Pipeline> with(Pipeline before, Step step, Mapping place) {
        Pipeline after = before.then(step, place.place());
        return problems.attempt(() -> schema(after)).map(fits -> after);
    }

    /** One step over the columns that are there. */
    private final class Reading {
        private final Pipeline before;
        private final Mapping step;
        private final String name;
        private final Expressions expressions;

        Reading(Pipeline before, Mapping step, String name) {
            this.before = before;
            this.step = step;
            this.name = name;
            this.expressions = over(before);
        }

        /** Empty where something is wrong, which is reported. */
        List<Step> steps() {
            return switch (name) {
                case "keep" -> one(step.text(name).flatMap(expressions::read).map(Keep::new));
                case "add" -> added();
                case "join" -> one(step.mapping(name).flatMap(this::join));
                case "total" -> one(step.mapping(name).flatMap(this::total));
                case "period" -> one(step.mapping(name).flatMap(this::period));
                case "previous" -> one(step.mapping(name).flatMap(this::previous));
                case "pivot" -> one(step.mapping(name).flatMap(this::pivot));
                case "unpivot" -> one(step.mapping(name).flatMap(this::unpivot));
                case "order" -> one(step.mapping(name).flatMap(this::order));
                case "top" -> one(step.count(name).stream().mapToObj(Top::new).findFirst());
                case "rename" -> one(step.mapping(name).flatMap(names -> rename(names, expressions)));
                default -> one(columns(step, name).map(Choose::new));
            };
        }

        private List<Step> one(Optional<? extends Step> read) {
            return read.<List<Step>>map(List::of).orElse(List.of());
        }

        /** Each may read the ones before it, so the columns grow on the way. */
        private List<Step> added() {
            List<Step> steps = new ArrayList<>();
            Pipeline so = before;
            for (Mapping each : step.mapping(name).stream().toList()) {
                if (each.keyList().isEmpty()) {
                    step.refuse(name, ProblemKind.MISSING, "names no column");
                }
                for (String column : each.keys()) {
                    Pipeline there = so;
                    Optional<AddColumn> add = each.text(column).flatMap(text -> over(there).read(text))
                            .map(formula -> new AddColumn(column, formula));
                    Optional<Pipeline> after = add.flatMap(made -> with(there, made, step));
                    if (after.isEmpty()) {
                        return List.of();
                    }
                    steps.add(add.get());
                    so = after.get();
                }
            }
            return steps;
        }

        private Optional<Join> join(Mapping keys) {
            keys.allowing(StepSchema.JOIN);
            Optional<Pipeline> other = keys.text("table").flatMap(this::named).flatMap(named -> !keys.has("rename") ? Optional.of(named)
                    : keys.mapping("rename").flatMap(names -> rename(names, over(named))).flatMap(renamed -> with(named, renamed, keys)));
            Map<String, String> on = new LinkedHashMap<>();
            boolean right = other.isPresent() && keys.has("on");
            if (right && keys.isMapping("on")) {
                Mapping pairs = keys.mapping("on").orElseThrow();
                for (String here : pairs.keys()) {
                    Optional<String> there = pairs.text(here).flatMap(text -> over(other.get()).column(text));
                    right &= there.isPresent() && expressions.column(new Text(here, pairs.keyPlace(here))).isPresent();
                    there.ifPresent(column -> on.put(here, column));
                }
            } else if (right) {
                List<Text> names = keys.isList("on") ? keys.texts("on") : keys.text("on").stream().toList();
                for (Text both : names) {
                    right &= expressions.column(both).isPresent() & over(other.get()).column(both).isPresent();
                    on.put(both.value(), both.value());
                }
            }
            if (right && on.isEmpty() && (keys.isMapping("on") || keys.isList("on"))) {
                keys.refuse("on", ProblemKind.MISSING, "names no key");
            }
            Join.Way way = keys.choice("way", Join.Way.class).orElse(Join.Way.LEFT);
            boolean many = keys.truth("many");
            return right && !on.isEmpty() ? Optional.of(new Join(other.get(), on, way, many)) : Optional.empty();
        }

        private Optional<Pipeline> named(Text name) {
            if (!tables.containsKey(name.value())) {
                problems.add(name.place(), ProblemKind.UNKNOWN_NAME, "there is no table '" + name.value() + "' in 'data'. " + Nearest.hint(name.value(), tables.keySet()));
            }
            return Optional.ofNullable(tables.get(name.value()));
        }

        private Expressions over(Pipeline other) {
            return new Expressions(Optional.of(schema(other)), executor.settings(), problems);
        }

        private Optional<Total> total(Mapping keys) {
            List<String> folds = Arrays.stream(Total.Fold.values()).map(Total.Fold::toString).toList();
            keys.allowing(StepSchema.TOTAL);
            Optional<List<String>> by = keys.has("by") ? columns(keys, "by") : Optional.of(List.of());
            List<String> twice = new ArrayList<>();
            List<Total.Figure> figures = new ArrayList<>();
            Set<String> seen = new TreeSet<>();
            boolean right = by.isPresent();
            for (String fold : keys.keyList()) {
                if (folds.contains(fold)) {
                    Optional<List<String>> columns = columns(keys, fold);
                    right &= columns.isPresent();
                    for (String column : columns.orElse(List.of())) {
                        figures.add(new Total.Figure(column, Total.Fold.valueOf(fold.toUpperCase(Locale.ROOT)), column));
                        if (!seen.add(column)) {
                            twice.add(column);
                        }
                    }
                }
            }
            List<Total.Figure> named = figures.stream().map(figure -> twice.contains(figure.column())
                    ? new Total.Figure(figure.column(), figure.fold(), figure.column() + " " + figure.fold()) : figure).toList();
            if (right && by.get().isEmpty() && named.isEmpty()) {
                step.refuse(name, ProblemKind.MISSING, "names no column, neither in 'by' nor to make a total of");
                return Optional.empty();
            }
            return right ? Optional.of(new Total(by.get(), named)) : Optional.empty();
        }

        private Optional<PeriodOf> period(Mapping keys) {
            keys.allowing(StepSchema.PERIOD);
            Optional<String> of = keys.text("of").flatMap(expressions::column);
            Optional<CalendarUnit> unit = keys.choice("unit", CalendarUnit.class);
            Optional<List<String>> by = keys.has("by") ? columns(keys, "by") : Optional.of(List.of());
            if (keys.has("by") && !keys.truth("fill")) {
                keys.refuse("by", ProblemKind.CONFLICT, "splits the rows that 'fill: true' fills, and nothing is filled");
            }
            return of.isPresent() && unit.isPresent() && by.isPresent() ? Optional.of(new PeriodOf(of.get(), unit.get(),
                    keys.text("as").map(Text::value).orElse(unit.get().name().toLowerCase(Locale.ROOT)), keys.truth("fill"), by.get())) : Optional.empty();
        }

        private Optional<Previous> previous(Mapping keys) {
            keys.allowing(StepSchema.PREVIOUS);
            Optional<String> of = keys.text("of").flatMap(expressions::column);
            Optional<String> period = keys.text("period").flatMap(expressions::column);
            Optional<CalendarUnit> unit = keys.choice("unit", CalendarUnit.class);
            if (keys.has("unit") && !keys.has("period")) {
                keys.refuse("unit", ProblemKind.CONFLICT, "says how long the periods of 'period' are, and the row before is looked at");
            }
            Optional<List<String>> by = keys.has("by") ? columns(keys, "by") : Optional.of(List.of());
            return of.isPresent() && by.isPresent() && period.isPresent() == keys.has("period")
                    ? Optional.of(new Previous(of.get(), keys.text("as").map(Text::value).orElse("previous " + of.get()), period, unit, by.get())) : Optional.empty();
        }

        private Optional<Pivot> pivot(Mapping keys) {
            keys.allowing(StepSchema.PIVOT);
            Optional<List<String>> by = columns(keys, "by");
            Optional<String> names = keys.text("names").flatMap(expressions::column);
            Optional<String> values = keys.text("values").flatMap(expressions::column);
            if (by.isEmpty() || names.isEmpty() || values.isEmpty()) {
                return Optional.empty();
            }
            return pivoted(keys, names.get()).map(columns -> new Pivot(by.get(), names.get(), values.get(), columns));
        }

        /** The columns that a pivot makes: as they are stated, or else the names that the rows so far hold. */
        private Optional<List<String>> pivoted(Mapping keys, String names) {
            if (keys.has("columns")) {
                List<Text> stated = keys.isList("columns") ? keys.texts("columns") : keys.text("columns").stream().toList();
                return stated.isEmpty() ? Optional.empty() : Optional.of(stated.stream().map(Text::value).distinct().toList());
            }
            return problems.attempt(() -> Pivot.namesIn(executor.run(before.then(Total.distinct(names))), names));
        }

        private Optional<Unpivot> unpivot(Mapping keys) {
            keys.allowing(StepSchema.UNPIVOT);
            if (keys.has("columns") == keys.has("all-but")) {
                problems.add(keys.place(), ProblemKind.MISSING, "say which columns are turned with 'columns', or which are not with 'all-but'");
                return Optional.empty();
            }
            Optional<String> pattern = keys.has("columns") ? pattern(keys) : Optional.of(Unpivot.ANY);
            Optional<List<String>> turned = keys.has("all-but") ? columns(keys, "all-but").flatMap(stay -> some(keys, "all-but", column -> !stay.contains(column)))
                    : pattern.isPresent() ? some(keys, "columns", like(pattern.get())) : columns(keys, "columns");
            return turned.map(columns -> new Unpivot(columns, keys.text("names").map(Text::value).orElse("name"), keys.text("values").map(Text::value).orElse("value"), pattern));
        }

        /** A pattern of names, {@code 20*}, in place of a column's name. */
        private Optional<String> pattern(Mapping keys) {
            return keys.isSingle("columns") ? keys.text("columns").map(Text::value).filter(text -> text.contains(Unpivot.ANY) && !schema(before).has(text)) : Optional.empty();
        }

        private static Predicate<String> like(String pattern) {
            return Pattern.compile(Stream.of(pattern.split(Pattern.quote(Unpivot.ANY), -1)).map(Pattern::quote).collect(Collectors.joining(".*"))).asMatchPredicate();
        }

        private Optional<List<String>> some(Mapping keys, String key, Predicate<String> which) {
            List<String> some = schema(before).columnNames().stream().filter(which).toList();
            if (some.isEmpty()) {
                keys.refuse(key, ProblemKind.INVALID, "leaves no column to turn; there are " + String.join(", ", schema(before).columnNames()));
            }
            return some.isEmpty() ? Optional.empty() : Optional.of(some);
        }

        private Optional<Order> order(Mapping keys) {
            keys.allowing(StepSchema.ORDER);
            boolean descending = keys.choice("order", Way.class).orElse(Way.ASCENDING) == Way.DESCENDING;
            return keys.text("by").flatMap(expressions::read).map(by -> new Order(by, descending));
        }

        private Optional<Rename> rename(Mapping keys, Expressions of) {
            Map<String, String> names = new LinkedHashMap<>();
            boolean right = true;
            for (String old : keys.keys()) {
                Optional<Text> next = keys.text(old);
                right &= next.isPresent() & of.column(new Text(old, keys.keyPlace(old))).isPresent();
                next.ifPresent(text -> names.put(old, text.value()));
            }
            return right ? Optional.of(new Rename(names)) : Optional.empty();
        }

        /** One column or a list of them; empty where one is unknown, which is reported. */
        private Optional<List<String>> columns(Mapping keys, String key) {
            List<Text> texts = keys.isList(key) ? keys.texts(key) : keys.text(key).stream().toList();
            List<String> known = texts.stream().flatMap(text -> expressions.column(text).stream()).toList();
            if (texts.isEmpty() && keys.has(key) && keys.isList(key) && !key.equals("by")) {
                keys.refuse(key, ProblemKind.MISSING, "names no column");
                return Optional.empty();
            }
            return known.size() == texts.size() && (keys.isList(key) || !texts.isEmpty()) ? Optional.of(known) : Optional.empty();
        }
    }

    /** The two ways of an order. */
    enum Way {
        ASCENDING, DESCENDING
    }
}
