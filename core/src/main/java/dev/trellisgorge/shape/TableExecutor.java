package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Memory;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Table;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;

/** Runs pipelines over raw tables that are at hand. What several pipelines have in common is computed once, and is then one and the same table. Thread-safe. */
final class TableExecutor implements Executor {
    private final Map<String, Table> sources;
    private final Settings settings;
    private final Map<Table, Map<Step, Table>> done = new IdentityHashMap<>();

    /** @param sources the raw tables by the names that pipelines use */
    TableExecutor(Map<String, Table> sources, Settings settings) {
        this.sources = new LinkedHashMap<>(sources);
        this.settings = Objects.requireNonNull(settings, "settings");
    }

    @Override
    public Settings settings() {
        return settings;
    }

    @Override
    public Executor with(Settings other) {
        return new TableExecutor(sources, other);
    }

    @Override
    public Catalog known() {
        return Catalog.of(sources, settings);
    }

    @Override
    public Optional<Executor> atHand() {
        return Optional.of(this);
    }

    @Override
    public boolean isHere() {
        return true;
    }

    /** Computed columns are left to whoever asks for them. */
    @Override
    public Outcome run(Pipeline pipeline, Wanted wanted) {
        return new Outcome(run(pipeline), Map.of());
    }

    @Override
    public synchronized Table run(Pipeline pipeline) {
        Table table = after(pipeline, pipeline.parts().size());
        if (table.rowCount() <= pipeline.addedRows()) {
            emptied(pipeline).ifPresent(wrong -> {
                throw wrong;
            });
        }
        return table;
    }

    private Table after(Pipeline pipeline, int steps) {
        if (steps == 0) {
            Table source = sources.get(pipeline.source());
            if (source == null) {
                throw new BadInput(Place.of(""), ProblemKind.UNKNOWN_NAME, "there is no table '" + pipeline.source() + "'. " + Nearest.hint(pipeline.source(), sources.keySet()));
            }
            return source;
        }
        Table before = after(pipeline, steps - 1);
        Pipeline.Part part = pipeline.parts().get(steps - 1);
        Map<Step, Table> next = done.computeIfAbsent(before, table -> new IdentityHashMap<>());
        Table known = next.get(part.step());
        if (known == null) {
            try {
                known = part.step().apply(before, new Run(this));
            } catch (BadInput wrong) {
                throw part.at(wrong);
            } catch (OutOfMemoryError e) {
                throw part.at(Memory.ended(before.place(), "what the step makes of its " + before.rowCount() + " rows", "take fewer rows or columns into it"));
            }
            next.put(part.step(), known);
        }
        return known;
    }

    @Override
    public Optional<Note> passedOver(Pipeline pipeline, String figure, Formula of) {
        Table rows = run(pipeline);
        return DroppedRows.passedOver(figure, rows, new Evaluator(rows, settings).evaluate("cells", of), IntStream.range(0, rows.rowCount()));
    }

    /** The first step that a user asked for and that left no row of some. */
    private Optional<BadInput> emptied(Pipeline pipeline) {
        for (int i = 0; i < pipeline.parts().size(); i++) {
            int before = after(pipeline, i).rowCount();
            Place place = pipeline.parts().get(i).place();
            if (before > 0 && !place.toString().isEmpty() && after(pipeline, i + 1).rowCount() == 0) {
                return Optional.of(new BadInput(place, ProblemKind.NO_ROWS, "no row is left of the " + before + " before this step"));
            }
        }
        return Optional.empty();
    }
}
