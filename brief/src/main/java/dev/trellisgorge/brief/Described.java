package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.sql.DatabaseTable;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Tables of which the columns alone are known: enough for statements, and not for a chart. Thread-safe. */
final class Described implements Executor {
    private final Catalog known;
    private final List<DatabaseTable> absent;
    private final String on;

    /**
     * @param absent the tables whose rows are not there; at least one
     * @param on     how messages name the database that is to be given
     */
    Described(Map<String, Schema> tables, Settings settings, List<DatabaseTable> absent, String on) {
        this.known = new Catalog(tables, settings);
        this.absent = absent;
        this.on = on;
    }

    List<DatabaseTable> absent() {
        return absent;
    }

    @Override
    public Settings settings() {
        return known.settings();
    }

    @Override
    public Described with(Settings other) {
        return new Described(known.sources(), other, absent, on);
    }

    @Override
    public Catalog known() {
        return known;
    }

    @Override
    public Optional<Executor> atHand() {
        return Optional.empty();
    }

    @Override
    public boolean isHere() {
        return false;
    }

    private BadInput notHere() {
        return new BadInput(Place.of("table '" + absent.get(0).name() + "'"), ProblemKind.MISSING, "its rows are in a database; say which with " + on);
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
