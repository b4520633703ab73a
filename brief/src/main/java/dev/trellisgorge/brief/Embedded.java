package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Catalog;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.sql.Database;
import dev.trellisgorge.sql.ReadOtherwise;
import dev.trellisgorge.sql.Unsaid;
import dev.trellisgorge.table.Table;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;

/** Large files that an embedded engine reads, though nobody asked for it: where it can't say a step, the files are read here, and all is as if they had been from the start. Thread-safe. */
final class Embedded implements Executor {
    private final Database database;
    private final Supplier<Executor> here;
    private final Place brief;
    private Executor at;

    /** @param brief where the brief is, for messages */
    Embedded(Database database, Supplier<Executor> here, Place brief) {
        this.brief = brief;
        this.database = database;
        this.here = here;
        this.at = database;
    }

    private static String described(Executor executor) {
        return executor.known().sources().values().toString();
    }

    private synchronized <T> T tried(Function<Executor, T> run) {
        try {
            return run.apply(at);
        } catch (Unsaid unsaid) {
            if (at != database) {
                throw unsaid;
            }
            Executor read = here.get();
            if (!described(read).equals(described(database))) {
                throw new ReadOtherwise(brief);
            }
            at = read;
            return run.apply(at);
        }
    }

    @Override
    public Settings settings() {
        return database.settings();
    }

    @Override
    public synchronized Executor with(Settings other) {
        return at == database ? new Embedded(database.with(other), () -> here.get().with(other), brief) : at.with(other);
    }

    @Override
    public synchronized Catalog known() {
        return at.known();
    }

    @Override
    public synchronized Optional<Executor> atHand() {
        return at.atHand();
    }

    @Override
    public synchronized boolean isHere() {
        return at.isHere();
    }

    @Override
    public Table run(Pipeline pipeline) {
        return tried(executor -> executor.run(pipeline));
    }

    @Override
    public Outcome run(Pipeline pipeline, Wanted wanted) {
        return tried(executor -> executor.run(pipeline, wanted));
    }

    @Override
    public Optional<Note> passedOver(Pipeline pipeline, String figure, Formula of) {
        return tried(executor -> executor.passedOver(pipeline, figure, of));
    }

    Database database() {
        return database;
    }
}
