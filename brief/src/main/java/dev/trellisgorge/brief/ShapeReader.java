package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Problem;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Derive;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;

/** Reads the steps of a shape and takes them one by one, as each is read over the columns that the ones before have left. */
final class ShapeReader {
    private static final List<String> STEPS = List.of("keep", "derive", "join", "total", "period", "previous", "pivot", "unpivot", "order", "top",
            "rename", "choose");

    private final Map<String, Table> tables;
    private final Settings settings;
    private final Problems problems;

    /** @param tables the raw tables, by the names that joins use */
    ShapeReader(Map<String, Table> tables, Settings settings, Problems problems) {
        this.tables = tables;
        this.settings = settings;
        this.problems = problems;
    }

    /**
     * The table after all steps of {@code key}; empty where one is wrong, or no row is left, which is reported: what comes after is
     * not looked at.
     */
    Optional<Table> shaped(Table table, Mapping keys, String key) {
        Optional<Table> shaped = Optional.of(table);
        Optional<Problem> emptied = Optional.empty();
        for (Mapping step : keys.mappings(key)) {
            Optional<Table> before = shaped;
            shaped = shaped.flatMap(rows -> after(rows, step));
            if (shaped.isPresent() && shaped.get().rowCount() == 0 && before.get().rowCount() > 0) {
                emptied = Optional.of(new Problem(step.place(), "no row is left of the " + before.get().rowCount() + " before this step"));
            }
        }
        if (shaped.isPresent() && shaped.get().rowCount() == 0 && emptied.isPresent()) {
            problems.add(emptied.get().place(), emptied.get().message());
            return Optional.empty();
        }
        return shaped;
    }

    private Optional<Table> after(Table table, Mapping step) {
        List<String> named = step.keyList();
        if (named.size() != 1 || !STEPS.contains(named.get(0))) {
            problems.add(step.place(), named.size() == 1 ? "there is no step '" + named.get(0) + "'. " + Nearest.hint(named.get(0), STEPS)
                    : "a step is one of " + String.join(", ", STEPS) + ", and has its one key");
            return Optional.empty();
        }
        String name = named.get(0);
        List<Step> steps = new Reading(table, step, name).steps();
        Optional<Table> shaped = steps.isEmpty() ? Optional.empty() : Optional.of(table);
        for (Step each : steps) {
            shaped = shaped.flatMap(before -> taken(each, before, step));
        }
        return shaped;
    }

    /** What goes wrong is told with the place of the step, and the rows that it went wrong on. */
    private Optional<Table> taken(Step step, Table before, Mapping place) {
        try {
            return Optional.of(step.apply(before, settings));
        } catch (BadInput e) {
            for (Problem problem : e.problems()) {
                problems.add(place.place(), problem.toString());
            }
            return Optional.empty();
        }
    }

    /** One step over the columns that are there. */
    private final class Reading {
        private final Table table;
        private final Mapping step;
        private final String name;
        private final Expressions expressions;

        Reading(Table table, Mapping step, String name) {
            this.table = table;
            this.step = step;
            this.name = name;
            this.expressions = over(table);
        }

        /** Empty where something is wrong, which is reported. */
        List<Step> steps() {
            return switch (name) {
                case "keep" -> one(step.text(name).flatMap(expressions::read).map(Keep::new));
                case "derive" -> derived();
                case "join" -> one(step.mapping(name).flatMap(this::join));
                case "total" -> one(step.mapping(name).flatMap(this::total));
                case "period" -> one(step.mapping(name).flatMap(this::period));
                case "previous" -> one(step.mapping(name).flatMap(this::previous));
                case "pivot" -> one(step.mapping(name).flatMap(this::pivot));
                case "unpivot" -> one(step.mapping(name).flatMap(this::unpivot));
                case "order" -> one(step.mapping(name).flatMap(this::order));
                case "top" -> one(top());
                case "rename" -> one(step.mapping(name).flatMap(names -> rename(names, expressions)));
                default -> one(columns(step, name).map(Choose::new));
            };
        }

        private List<Step> one(Optional<? extends Step> read) {
            return read.<List<Step>>map(List::of).orElse(List.of());
        }

        /** Each may read the ones before it, so the columns grow on the way. */
        private List<Step> derived() {
            List<Step> steps = new ArrayList<>();
            Table so = table;
            for (Mapping each : step.mapping(name).stream().toList()) {
                if (each.keyList().isEmpty()) {
                    step.refuse(name, "names no column");
                }
                for (String column : each.keys()) {
                    Table there = so;
                    Optional<Derive> derive = each.text(column).flatMap(text -> over(there).read(text))
                            .map(formula -> new Derive(column, formula));
                    Optional<Table> after = derive.flatMap(made -> taken(made, there, step));
                    if (after.isEmpty()) {
                        return List.of();
                    }
                    steps.add(derive.get());
                    so = after.get();
                }
            }
            return steps;
        }

        private Optional<Join> join(Mapping keys) {
            keys.allowing(List.of("table", "on"), List.of("table", "on", "way", "many", "rename"));
            Optional<Table> other = keys.text("table").flatMap(this::named).flatMap(named -> !keys.has("rename") ? Optional.of(named)
                    : keys.mapping("rename").flatMap(names -> rename(names, over(named))).flatMap(step -> taken(step, named, keys)));
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
                keys.refuse("on", "names no key");
            }
            Join.Way way = keys.choice("way", Join.Way.class).orElse(Join.Way.LEFT);
            boolean many = keys.truth("many");
            return right && !on.isEmpty() ? Optional.of(new Join(other.get(), on, way, many)) : Optional.empty();
        }

        private Optional<Table> named(Text name) {
            if (!tables.containsKey(name.value())) {
                problems.add(name.place(), "there is no table '" + name.value() + "' in 'data'. " + Nearest.hint(name.value(), tables.keySet()));
            }
            return Optional.ofNullable(tables.get(name.value()));
        }

        private Expressions over(Table other) {
            return new Expressions(Optional.of(other), settings, problems);
        }

        private Optional<Total> total(Mapping keys) {
            List<String> folds = Arrays.stream(Total.Fold.values()).map(Total.Fold::toString).toList();
            keys.allowing(List.of(), Mapping.both(List.of("by"), folds));
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
                step.refuse(name, "names no column, neither in 'by' nor to make a total of");
                return Optional.empty();
            }
            return right ? Optional.of(new Total(by.get(), named)) : Optional.empty();
        }

        private Optional<PeriodOf> period(Mapping keys) {
            keys.allowing(List.of("of", "unit"), List.of("of", "unit", "as", "fill", "by"));
            Optional<String> of = keys.text("of").flatMap(expressions::column);
            Optional<CalendarUnit> unit = keys.choice("unit", CalendarUnit.class);
            Optional<List<String>> by = keys.has("by") ? columns(keys, "by") : Optional.of(List.of());
            if (keys.has("by") && !keys.truth("fill")) {
                keys.refuse("by", "parts the rows that 'fill: true' fills, and nothing is filled");
            }
            return of.isPresent() && unit.isPresent() && by.isPresent() ? Optional.of(new PeriodOf(of.get(), unit.get(),
                    keys.text("as").map(Text::value).orElse(unit.get().name().toLowerCase(Locale.ROOT)), keys.truth("fill"), by.get())) : Optional.empty();
        }

        private Optional<Previous> previous(Mapping keys) {
            keys.allowing(List.of("of"), List.of("of", "as", "period", "by"));
            Optional<String> of = keys.text("of").flatMap(expressions::column);
            Optional<String> period = keys.text("period").flatMap(expressions::column);
            Optional<List<String>> by = keys.has("by") ? columns(keys, "by") : Optional.of(List.of());
            return of.isPresent() && by.isPresent() && period.isPresent() == keys.has("period")
                    ? Optional.of(new Previous(of.get(), keys.text("as").map(Text::value).orElse("previous " + of.get()), period, by.get())) : Optional.empty();
        }

        private Optional<Pivot> pivot(Mapping keys) {
            keys.allowing(List.of("by", "names", "values"), List.of("by", "names", "values"));
            Optional<List<String>> by = columns(keys, "by");
            Optional<String> names = keys.text("names").flatMap(expressions::column);
            Optional<String> values = keys.text("values").flatMap(expressions::column);
            return by.isPresent() && names.isPresent() && values.isPresent() ? Optional.of(new Pivot(by.get(), names.get(), values.get())) : Optional.empty();
        }

        private Optional<Unpivot> unpivot(Mapping keys) {
            keys.allowing(List.of("columns"), List.of("columns", "names", "values"));
            return columns(keys, "columns").map(columns -> new Unpivot(columns, keys.text("names").map(Text::value).orElse("name"),
                    keys.text("values").map(Text::value).orElse("value")));
        }

        private Optional<Order> order(Mapping keys) {
            keys.allowing(List.of("by"), List.of("by", "order"));
            boolean descending = keys.choice("order", Way.class).orElse(Way.ASCENDING) == Way.DESCENDING;
            return keys.text("by").flatMap(expressions::read).map(by -> new Order(by, descending));
        }

        private Optional<Top> top() {
            OptionalDouble rows = step.number(name);
            if (rows.isPresent() && !(rows.getAsDouble() >= 1 && rows.getAsDouble() == Math.rint(rows.getAsDouble()) && rows.getAsDouble() < Integer.MAX_VALUE)) {
                step.refuse(name, "must be a whole number from 1 up");
                return Optional.empty();
            }
            return rows.isPresent() ? Optional.of(new Top((int) rows.getAsDouble())) : Optional.empty();
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
                keys.refuse(key, "names no column");
                return Optional.empty();
            }
            return known.size() == texts.size() && (keys.isList(key) || !texts.isEmpty()) ? Optional.of(known) : Optional.empty();
        }
    }

    /** The two ways of an order. */
    private enum Way {
        ASCENDING, DESCENDING
    }
}
