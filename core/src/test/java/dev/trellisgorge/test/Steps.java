package dev.trellisgorge.test;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Takes steps as a pipeline does: the columns are described first, and are then what was described. */
public final class Steps {
    private Steps() {
    }

    /** The table after a step; {@code others} can be joined by their names. */
    public static Table taken(Step step, Table table, Table... others) {
        Map<String, Table> sources = new LinkedHashMap<>();
        sources.put(table.name(), table);
        List.of(others).forEach(other -> sources.put(other.name(), other));
        Executor executor = Executor.of(sources, Settings.NONE);
        Pipeline pipeline = Pipeline.of(table.name()).then(step);
        String described = pipeline.schema(executor.known()).fields().toString();
        Table after = executor.run(pipeline);
        if (!after.schema().fields().toString().equals(described)) {
            throw new AssertionError(step.sentence() + " describes " + described + " and makes " + after.schema().fields());
        }
        return after;
    }
}
