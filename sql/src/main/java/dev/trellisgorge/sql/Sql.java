package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Reads;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Typing;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Known;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Column;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * A plan as one SQL statement: a common table expression or more for each step and each stage, and at last the categories and the helper columns,
 * in the order in which they are drawn. Cells are those of the evaluator; sums may differ in their last digits. Missing and absent cells
 * are NULL. Immutable and thread-safe.
 *
 * <p>What stops the evaluator does not stop a statement: a slice that no row is in gives no rows, a key that stands twice doubles rows.
 */
public final class Sql {
    private final Plan plan;
    private final Known known;
    private final Optional<String> rowsBy;
    private final Set<String> wanted;

    private Sql(Plan plan, Known known, Optional<String> rowsBy, Set<String> wanted) {
        this.plan = Objects.requireNonNull(plan, "plan");
        this.known = Objects.requireNonNull(known, "known");
        this.rowsBy = rowsBy;
        this.wanted = wanted;
    }

    /**
     * The plan's series.
     *
     * @param known the columns of the raw tables, and the settings
     */
    public static Sql of(Plan plan, Known known) {
        return new Sql(plan, known, Optional.empty(), new LinkedHashSet<>(plan.series()));
    }

    /** With a column of each raw table that numbers its rows; without, they are in the order of all their cells, from the left. */
    public Sql rowsBy(String column) {
        return new Sql(plan, known, Optional.of(column), wanted);
    }

    /** Other computed columns than the series. */
    public Sql columns(List<String> names) {
        return new Sql(plan, known, rowsBy, new LinkedHashSet<>(names));
    }

    /**
     * A statement, and what its parameters are.
     *
     * @param text       with a question mark for each
     * @param parameters the settings, in order
     */
    public record Parametrised(String text, List<Column> parameters) {
        public Parametrised {
            parameters = List.copyOf(parameters);
        }
    }

    /**
     * With the settings as parameters.
     *
     * @throws dev.trellisgorge.problem.BadInput where the dialect can't say a step or a column, with its place
     */
    public Parametrised in(Dialect dialect) {
        List<Column> parameters = settingsRead().stream().map(name -> known.settings().value(name)).toList();
        return new Parametrised(written(dialect, column -> dialect.cast("?", column.kind())), parameters);
    }

    /** With the settings' values in it, for a person who reads it. Errors as {@link #in}. */
    public String withValues(Dialect dialect) {
        return written(dialect, column -> column.isPresent(0) ? dialect.literal(value(column)) : "CAST(NULL AS " + dialect.type(column.kind()) + ")");
    }

    private static Object value(Column column) {
        return switch (column.kind()) {
            case NUMBER -> (Object) column.number(0);
            case TEXT -> column.written(0);
            case DATE -> column.date(0).orElseThrow();
            case TRUTH -> column.number(0) == 1;
        };
    }

    /** How a setting's cell is written. */
    private interface Cell {
        String of(Column setting);
    }

    private List<String> settingsRead() {
        Set<String> read = new LinkedHashSet<>();
        plan.pipeline().steps().forEach(step -> read.addAll(reads(step)));
        plan.columns().forEach(column -> read.addAll(Reads.settings(column.formula())));
        return read.stream().filter(name -> known.settings().find(name).isPresent()).toList();
    }

    private static Set<String> reads(Step step) {
        Set<String> read = step.formulas().stream().flatMap(formula -> Reads.settings(formula).stream()).collect(Collectors.toCollection(LinkedHashSet::new));
        if (step instanceof Join join) {
            join.other().steps().forEach(other -> read.addAll(reads(other)));
        }
        return read;
    }

    private String written(Dialect dialect, Cell cell) {
        Set<String> needed = needed();
        if (rowsBy.isEmpty()) {
            RowOrder.refuseUnordered(plan, needed);
        }
        Statement statement = new Statement(dialect, known);
        Relation rows = new SqlSteps(statement, rowsBy).rows(plan.pipeline());
        Typing typing = statement.typing(rows.schema());
        Map<String, Formula> formulas = new LinkedHashMap<>();
        plan.columns().stream().filter(column -> needed.contains(column.name())).forEach(column -> formulas.put(column.name(), column.formula()));
        Relation made = formulas.isEmpty() ? rows : statement.computed(rows, formulas, typing, "compute");
        List<String> selected = new ArrayList<>();
        plan.category().ifPresent(category -> selected.add(dialect.quoted(made.columns().get(category)) + " AS " + dialect.quoted(category)));
        wanted.forEach(column -> selected.add(dialect.quoted(made.computed().get(column)) + " AS " + dialect.quoted(column)));
        Settings settings = known.settings();
        String stated = settingsRead().stream().map(name -> cell.of(settings.value(name)) + " AS " + dialect.quoted(name)).collect(Collectors.joining(", "));
        return statement.with(stated.isEmpty() ? "" : "SELECT " + stated) + "SELECT " + String.join(",\n  ", selected) + "\nFROM " + dialect.quoted(made.name()) + "\nORDER BY " + dialect.quoted(made.row()) + "\n";
    }

    /** The wanted columns and all that they read. */
    private Set<String> needed() {
        Set<String> needed = new LinkedHashSet<>();
        List<String> open = new ArrayList<>(wanted);
        while (!open.isEmpty()) {
            String name = open.remove(open.size() - 1);
            if (needed.add(name)) {
                open.addAll(Reads.computed(plan.column(name).formula()));
            }
        }
        return needed;
    }
}
