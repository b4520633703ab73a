package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.table.Column;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * A plan as one SQL statement: a common table expression or more for each step and each stage, and at last the categories and the helper columns,
 * in the order in which they are drawn. Cells are those of the evaluator; sums may differ in their last digits. Missing and absent cells
 * are NULL. Immutable and thread-safe.
 *
 * <p>What stops the evaluator does not stop a statement: a slice that no row is in gives no rows, a key that stands twice doubles rows.
 */
public final class Sql {
    private final Plan plan;
    private final Catalog known;
    private final Optional<String> rowsBy;
    private final Set<String> wanted;
    private final List<DatabaseTable> tables;

    private Sql(Plan plan, Catalog known, Optional<String> rowsBy, Set<String> wanted, List<DatabaseTable> tables) {
        this.plan = Objects.requireNonNull(plan, "plan");
        this.known = Objects.requireNonNull(known, "known");
        this.rowsBy = rowsBy;
        this.wanted = wanted;
        this.tables = tables;
    }

    /**
     * The plan's series.
     *
     * @param known the columns of the raw tables, and the settings
     */
    public static Sql of(Plan plan, Catalog known) {
        return new Sql(plan, known, Optional.empty(), new LinkedHashSet<>(plan.series()), List.of());
    }

    /**
     * With a column of each raw table that numbers its rows. Without, they are in no order: totals are then in that of their keys, and rows that nothing
     * has put in an order in that of all their cells, from the left.
     */
    public Sql rowsBy(String column) {
        return new Sql(plan, known, Optional.of(column), wanted, tables);
    }

    /** With tables or queries of the database for some of the raw tables; others are called there as they are here. */
    public Sql over(List<DatabaseTable> some) {
        return new Sql(plan, known, rowsBy, wanted, List.copyOf(some));
    }

    /** With the texts of labels beside the series, as far as the dialect says them, and the settings' values in it. Errors as {@link #in}. */
    public String labelled(Dialect dialect) {
        return LabelTexts.beside(plan, (texts, names) -> query(dialect, texts, names)).withValues();
    }

    /** The series that have a label whose text the dialect can't say. */
    public Set<String> withoutLabels(Dialect dialect) {
        return LabelTexts.of(plan, (texts, names) -> query(dialect, texts, names)).without();
    }

    /** Other computed columns than the series. */
    public Sql columns(List<String> names) {
        return new Sql(plan, known, rowsBy, new LinkedHashSet<>(names), tables);
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
        return query(dialect, Map.of(), wanted).parametrised();
    }

    /** With the settings' values in it, for a person who reads it. Errors as {@link #in}. */
    public String withValues(Dialect dialect) {
        return query(dialect, Map.of(), wanted).withValues();
    }

    private Query query(Dialect dialect, Map<String, Formula> texts, Set<String> names) {
        Map<String, TableSource> sources = new LinkedHashMap<>();
        known.sources().forEach((name, schema) -> sources.put(name, tables.stream().filter(table -> table.name().equals(name)).findFirst()
                .map(table -> TableSource.of(rowsBy.map(table::rowsBy).orElse(table), schema, dialect)).orElseGet(() -> TableSource.named(name, schema, rowsBy, dialect))));
        Query query = Query.of(plan, texts, names, known, sources, dialect);
        query.refuseUnordered();
        return query;
    }
}
