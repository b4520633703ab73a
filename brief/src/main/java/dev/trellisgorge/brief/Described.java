package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Known;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.Map;
import java.util.Optional;

/** Tables of which the columns alone are known: enough for statements, and not for a chart. Thread-safe. */
final class Described implements Executor {
    private final Known known;
    private final String absent;

    /** @param absent a table whose rows are not there */
    Described(Map<String, Schema> tables, Settings settings, String absent) {
        this.known = new Known(tables, settings);
        this.absent = absent;
    }

    @Override
    public Settings settings() {
        return known.settings();
    }

    @Override
    public Known known() {
        return known;
    }

    @Override
    public boolean isHere() {
        return false;
    }

    private BadInput notHere() {
        return new BadInput(Place.of("table '" + absent + "'"), "its rows are in a database; say which with --on URL");
    }

    @Override
    public Table run(Pipeline pipeline) {
        throw notHere();
    }

    @Override
    public Outcome run(Pipeline pipeline, Wanted wanted) {
        throw notHere();
    }

    @Override
    public Optional<Note> passedOver(Pipeline pipeline, String figure, Formula of) {
        throw notHere();
    }
}
