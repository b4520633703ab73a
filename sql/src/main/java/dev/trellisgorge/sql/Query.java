package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * One statement: the steps of a pipeline, columns that are computed over its rows, and what is selected of both, in the order of the rows.
 *
 * @param formulas columns that are computed, by name, each after the ones that it reads
 * @param wanted   those that are selected
 * @param selected the columns of the table that are selected before them
 */
record Query(Pipeline pipeline, Map<String, Formula> formulas, Set<String> wanted, List<String> selected, Catalog known, Map<String, TableSource> sources, Dialect dialect) {
    /** What a column of the table is called beside a computed one of its name. */
    private static final String CATEGORY = "category";

    Query {
        formulas = new LinkedHashMap<>(formulas);
        formulas.keySet().retainAll(needed(formulas, wanted));
    }

    /** Of a plan's columns, and some more that read them. */
    static Query of(Plan plan, Map<String, Formula> more, Set<String> wanted, Catalog known, Map<String, TableSource> sources, Dialect dialect) {
        Map<String, Formula> formulas = new LinkedHashMap<>();
        plan.columns().forEach(column -> formulas.put(column.name(), column.formula()));
        formulas.putAll(more);
        return new Query(plan.pipeline(), formulas, wanted, plan.category().stream().toList(), known, sources, dialect);
    }

    /** The wanted columns and all that they read. */
    private static Set<String> needed(Map<String, Formula> formulas, Set<String> wanted) {
        Set<String> needed = new LinkedHashSet<>();
        List<String> open = new ArrayList<>(wanted);
        while (!open.isEmpty()) {
            String name = open.remove(open.size() - 1);
            if (needed.add(name)) {
                open.addAll(ColumnReferences.computed(formulas.get(name)));
            }
        }
        return needed;
    }

    /** Where a table has no order of its own and something reads one. */
    void refuseUnordered() {
        RowOrder.refuseUnordered(pipeline, formulas, sources);
    }

    /** How a setting's cell is written. */
    private interface Cell {
        String of(Column setting);
    }

    /**
     * A statement with parameters, and what it counts on its way.
     *
     * @param facts each in a column of its own after the others, on every row the same
     */
    record Telling(Sql.Parametrised statement, List<Fact> facts) {
    }

    Sql.Parametrised parametrised() {
        return new Sql.Parametrised(written(this::parameter, "", List.of(), false), parameters());
    }

    /** @param more what stands at its end, or nothing */
    Telling telling(String more) {
        List<Fact> facts = new ArrayList<>();
        String text = written(this::parameter, more, facts, true);
        return new Telling(new Sql.Parametrised(text, parameters()), facts);
    }

    private List<Column> parameters() {
        return settingsRead().stream().map(name -> known.settings().value(name)).toList();
    }

    private String parameter(Column column) {
        return dialect.cast("?", column.kind());
    }

    String withValues() {
        return written(column -> column.isPresent(0) ? dialect.literal(column, 0) : "CAST(NULL AS " + dialect.type(column.kind()) + ")", "", List.of(), false);
    }

    private List<String> settingsRead() {
        Set<String> read = new LinkedHashSet<>();
        pipeline.steps().forEach(step -> read.addAll(reads(step)));
        formulas.values().forEach(formula -> read.addAll(ColumnReferences.settings(formula)));
        return read.stream().filter(name -> known.settings().find(name).isPresent()).toList();
    }

    private static Set<String> reads(Step step) {
        Set<String> read = step.formulas().stream().flatMap(formula -> ColumnReferences.settings(formula).stream()).collect(Collectors.toCollection(LinkedHashSet::new));
        step.traits().tables().forEach(table -> table.steps().forEach(other -> read.addAll(reads(other))));
        return read;
    }

    private String written(Cell cell, String more, List<Fact> facts, boolean telling) {
        Statement statement = new Statement(dialect, known, sources, telling);
        SqlSteps steps = new SqlSteps(statement);
        Relation rows = steps.rows(pipeline);
        Typing typing = statement.typing(rows.schema());
        Relation made = formulas.isEmpty() ? rows : statement.computed(rows, formulas, typing, "compute");
        List<String> cells = new ArrayList<>();
        selected.forEach(column -> cells.add(here(made.columns().get(column)) + " AS " + dialect.quoted(wanted.contains(column) ? CATEGORY : column)));
        wanted.forEach(column -> cells.add(here(made.computed().get(column)) + " AS " + dialect.quoted(column)));
        if (telling) {
            facts.addAll(steps.facts());
            facts.forEach(fact -> cells.add(fact.expression()));
        }
        String stated = settingsRead().stream().map(name -> cell.of(known.settings().value(name)) + " AS " + dialect.quoted(name)).collect(Collectors.joining(", "));
        return statement.with(stated.isEmpty() ? "" : "SELECT " + stated) + "SELECT " + String.join(",\n  ", cells) + "\nFROM " + dialect.quoted(made.name()) + " AS " + dialect.quoted("here")
                + "\nORDER BY " + statement.order(made) + more + "\n";
    }

    private String here(String alias) {
        return dialect.quoted("here") + "." + dialect.quoted(alias);
    }
}
