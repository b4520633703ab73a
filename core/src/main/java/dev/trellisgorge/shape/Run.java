package dev.trellisgorge.shape;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;

/** What a step may use while it is taken. Not thread-safe: it serves one run. */
public final class Run {
    private final Executor executor;

    Run(Executor executor) {
        this.executor = executor;
    }

    Settings settings() {
        return executor.settings();
    }

    /** The outcome of another pipeline. */
    Table table(Pipeline pipeline) {
        return executor.run(pipeline);
    }

    Column evaluate(Table table, String name, Formula formula) {
        return new Evaluator(table, executor.settings()).evaluate(name, formula);
    }
}
