package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The tables that charts and figures are made of: the first one of {@code data} with the brief's steps, unless a chart names another one; then the chart's
 * own steps. A condition of the command line keeps rows of the raw tables before all steps; tables that are only joined keep theirs.
 */
final class ChartedTables {
    private static final String TABLE = "table";

    private final Map<String, Pipeline> joined;
    private final Map<String, Pipeline> charted = new LinkedHashMap<>();
    private final Optional<Pipeline> first;
    private final Overrides overrides;
    private final Executor executor;
    private final ShapeReader shapes;
    private final Problems problems;
    private final List<String> notes = new ArrayList<>();

    /**
     * @param raw   the raw tables, by name; none where one of them can't be read
     * @param data  where tables have steps of their own
     * @param root  where the brief has its steps, and its charts and figures name their tables
     * @param overrides has the condition on raw rows, where there is one
     */
    ChartedTables(Set<String> raw, Optional<Mapping> data, Optional<Mapping> root, Overrides overrides, Executor executor, Problems problems) {
        this.overrides = overrides;
        this.executor = executor;
        this.problems = problems;
        Map<String, Pipeline> bare = new LinkedHashMap<>();
        raw.forEach(name -> bare.put(name, Pipeline.of(name)));
        this.joined = shaped(bare, data, new ShapeReader(bare, executor, problems));
        this.shapes = new ShapeReader(joined, executor, problems);
        Set<String> named = new LinkedHashSet<>(joined.keySet().stream().limit(1).toList());
        root.ifPresent(keys -> named.addAll(named(keys)));
        named.retainAll(joined.keySet());
        Map<String, Pipeline> kept = overrides.where().isEmpty() || joined.isEmpty() ? Map.of() : kept(named, overrides.where().get());
        charted.putAll(joined);
        charted.putAll(shaped(kept, data, new ShapeReader(bare, executor, new Problems())));
        this.first = charted.values().stream().findFirst().flatMap(pipeline -> root.flatMap(keys -> shapes.shaped(pipeline, keys, "shape")));
    }

    /** Each table with the steps of its own, which join the others as they were read; none at all where a step is wrong, which is reported. */
    private static Map<String, Pipeline> shaped(Map<String, Pipeline> tables, Optional<Mapping> data, ShapeReader shapes) {
        Map<String, Pipeline> shaped = new LinkedHashMap<>();
        for (Map.Entry<String, Pipeline> table : tables.entrySet()) {
            Optional<Mapping> keys = data.filter(all -> all.isMapping(table.getKey())).flatMap(all -> all.mapping(table.getKey()));
            Optional<Pipeline> steps = keys.isEmpty() ? Optional.of(table.getValue()) : shapes.shaped(table.getValue(), keys.get(), "shape");
            if (steps.isEmpty()) {
                return Map.of();
            }
            shaped.put(table.getKey(), steps.get());
        }
        return shaped;
    }

    /** The tables that charts and figures name, as far as they are well written: what is not is reported where they are read. */
    private static Set<String> named(Mapping root) {
        Set<String> named = new LinkedHashSet<>();
        Problems unheard = new Problems();
        if (root.isMapping("charts")) {
            Mapping charts = root.mapping("charts").orElseThrow();
            charts.keys().forEach(chart -> Optional.of(chart).filter(charts::isMapping).flatMap(charts::mapping).filter(keys -> keys.isSingle(TABLE))
                    .flatMap(keys -> keys.text(TABLE)).ifPresent(table -> named.add(table.value())));
        }
        if (root.isMapping("board") && root.mapping("board").orElseThrow().isList("tiles")) {
            root.mapping("board").orElseThrow().heard(unheard).mappings("tiles").stream().filter(keys -> keys.isSingle(TABLE)).flatMap(keys -> keys.text(TABLE).stream())
                    .forEach(table -> named.add(table.value()));
        }
        return named;
    }

    /** The raw tables with the rows on which the condition is true; a table without the columns that it reads keeps all, which is reported. */
    private Map<String, Pipeline> kept(Set<String> tables, String where) {
        Map<String, Pipeline> kept = new LinkedHashMap<>();
        List<String> others = new ArrayList<>();
        Optional<Problems> mistakes = Optional.empty();
        for (String table : tables) {
            Problems wrong = new Problems();
            Optional<Pipeline> keeping = new Expressions(Optional.of(executor.known().sources().get(table)), executor.settings(), wrong).read(new Text(where, overrides.place(InputNames.Input.WHERE)))
                    .flatMap(condition -> keeping(table, condition, wrong));
            keeping.ifPresentOrElse(pipeline -> kept.put(table, pipeline), () -> others.add(table));
            mistakes = mistakes.isPresent() || keeping.isPresent() ? mistakes : Optional.of(wrong);
        }
        if (kept.isEmpty()) {
            mistakes.ifPresent(problems::addAll);
        } else {
            others.forEach(table -> notes.add(overrides.names().of(InputNames.Input.WHERE) + " is not for the table '" + table + "', which lacks a column of it; its rows all stay"));
        }
        return kept;
    }

    private Optional<Pipeline> keeping(String table, Formula condition, Problems wrong) {
        Pipeline pipeline = Pipeline.of(table).then(new Keep(condition), overrides.place(InputNames.Input.WHERE));
        return wrong.attempt(() -> pipeline.schema(executor.known())).map(fits -> pipeline);
    }

    /** The table that charts are made of where they name no other; empty where a step is wrong, which is reported. */
    Optional<Pipeline> first() {
        return first;
    }

    /** The table of a chart or a figure; empty where there is none, which is reported. */
    Optional<Pipeline> of(Mapping keys) {
        Optional<Pipeline> base = keys.has(TABLE) ? keys.text(TABLE).flatMap(this::named) : first;
        return base.flatMap(pipeline -> keys.has("shape") ? shapes.shaped(pipeline, keys, "shape") : base);
    }

    private Optional<Pipeline> named(Text table) {
        String main = charted.keySet().stream().findFirst().orElse("");
        if (!charted.isEmpty() && !charted.containsKey(table.value())) {
            problems.add(table.place(), ProblemKind.UNKNOWN_NAME, "there is no table '" + table.value() + "' in 'data'. " + Nearest.hint(table.value(), List.copyOf(charted.keySet())));
        }
        return table.value().equals(main) ? first : Optional.ofNullable(charted.get(table.value()));
    }

    /** What expressions over a table read; any column where the table could not be made. */
    Expressions expressions(Optional<Pipeline> table) {
        return new Expressions(table.map(this::schema), executor.settings(), problems);
    }

    /** The same over the raw table that it starts from. */
    Expressions raw(Optional<Pipeline> table) {
        return new Expressions(table.map(pipeline -> executor.known().sources().get(pipeline.source())), executor.settings(), problems);
    }

    private Schema schema(Pipeline pipeline) {
        return pipeline.schema(executor.known());
    }

    /** What a reader should know of the condition. */
    List<String> notes() {
        return notes;
    }
}
