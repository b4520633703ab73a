package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** Runs pipelines: over raw tables that are at hand, or where the raw tables are. Thread-safe. */
public interface Executor {

    /** Over raw tables that are at hand. @param sources by the names that pipelines use */
    static Executor of(Map<String, Table> sources, Settings settings) {
        return new TableExecutor(sources, settings);
    }

    /** Over one raw table, by its own name. */
    static Executor over(Table table, Settings settings) {
        return of(Map.of(table.name(), table), settings);
    }

    Settings settings();

    /** What runs over the same raw tables with other settings. It is closed with this one. */
    Executor with(Settings other);

    /** What is known of the raw tables without their cells. */
    Catalog known();

    /** What runs over the same raw tables at hand, so that the rows after each step can be looked at; empty where they are elsewhere. */
    Optional<Executor> atHand();

    /** Whether the raw tables are at hand, and steps are taken over them. */
    boolean isHere();

    /**
     * The table after all steps, with the notes of its rows and of the steps.
     *
     * @throws dev.trellisgorge.problem.BadInput where there is no such raw table, a step can't be taken, or a user's steps leave no row
     */
    Table run(Pipeline pipeline);

    /** The same, with computed columns where they are computed where the rows are. Errors as {@link #run(Pipeline)}. */
    Outcome run(Pipeline pipeline, Wanted wanted);

    /** A note on the rows on which a formula has no cell, so that a sum or a mean of it passes over them; empty where there are none. */
    Optional<Note> passedOver(Pipeline pipeline, String figure, Formula of);

    /**
     * Columns to be computed over the rows.
     *
     * @param formulas      by name, each after the ones that it reads
     * @param names         those that are asked for; the others only serve them
     * @param firstRowAlone whether nothing but the first row is looked at; the columns are still those of all rows
     */
    record Wanted(Map<String, Formula> formulas, Set<String> names, boolean firstRowAlone) {
        public Wanted {
            formulas = Collections.unmodifiableMap(new LinkedHashMap<>(formulas));
            names = Collections.unmodifiableSet(new LinkedHashSet<>(names));
        }
    }

    /**
     * What a run gives.
     *
     * @param rows     the table after all steps, or as much of it as was asked for
     * @param computed the columns that were computed on the way, by name; those that are not among them are left to whoever asks
     */
    record Outcome(Table rows, Map<String, Column> computed) {
        public Outcome {
            Objects.requireNonNull(rows, "rows");
            computed = Collections.unmodifiableMap(new LinkedHashMap<>(computed));
        }
    }
}
