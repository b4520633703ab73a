package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.Order;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Pivot;
import dev.trellisgorge.shape.Previous;
import dev.trellisgorge.shape.Rank;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.StepNotes;
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What stops the evaluator stops a database too: slices that nothing is in, joins that double rows, pivots of several rows a cell. */
final class DatabaseChecks {
    /** So many kinds of cells are brought over for a message that names the nearest. */
    private static final int MOST_CELLS = 10_000;

    private final Database database;

    DatabaseChecks(Database database) {
        this.database = database;
    }

    /** What the outcome does not show. @throws BadInput where a key of another table stands twice, or a slice names a cell that is not there */
    void beforehand(Pipeline pipeline) {
        for (int i = 0; i < pipeline.parts().size(); i++) {
            Pipeline before = pipeline.upTo(i);
            Pipeline.Part part = pipeline.parts().get(i);
            part.step().traits().tables().forEach(this::beforehand);
            part.run(() -> part.step().match(new Before(before)));
        }
    }

    /** What stops a step though its outcome does not show it. */
    private final class Before implements Step.Cases<Void> {
        private final Pipeline before;

        Before(Pipeline before) {
            this.before = before;
        }

        @Override
        public Void addRow(AddRow step) {
            return null;
        }

        @Override
        public Void choose(Choose step) {
            return null;
        }

        @Override
        public Void addColumn(AddColumn step) {
            return null;
        }

        @Override
        public Void join(Join step) {
            if (!step.many()) {
                refuseDoubling(before, step);
            }
            return null;
        }

        @Override
        public Void keep(Keep step) {
            return null;
        }

        @Override
        public Void order(Order step) {
            return null;
        }

        @Override
        public Void periodOf(PeriodOf step) {
            refuseNoPeriods(before, step);
            return null;
        }

        @Override
        public Void pivot(Pivot step) {
            return null; // several rows a cell show in the outcome
        }

        @Override
        public Void previous(Previous step) {
            return null;
        }

        @Override
        public Void rank(Rank step) {
            return null;
        }

        @Override
        public Void rename(Rename step) {
            return null;
        }

        @Override
        public Void slice(Slice step) {
            if (step.cut() instanceof Cut.OneOf some && some.cells().size() > 1) {
                refuseMissing(before, step);
            }
            return null;
        }

        @Override
        public Void top(Top step) {
            return null;
        }

        @Override
        public Void total(Total step) {
            return null;
        }

        @Override
        public Void unpivot(Unpivot step) {
            return null;
        }
    }

    /** Texts that name no period, and more periods to fill than there may be. */
    private void refuseNoPeriods(Pipeline before, PeriodOf period) {
        Formula cell = Formulas.column(period.of());
        if (before.schema(database.known()).field(period.of()).kind() == Kind.TEXT) {
            Formula none = Formulas.present(cell).and(Formulas.not(Formulas.present(new Calendar.Period(cell, period.unit()))));
            runHere(before.then(new Keep(none)).then(new Choose(List.of(period.of()))).then(new Top(1)), PeriodOf.of(period.of(), period.unit(), period.name()));
        }
        if (period.fill()) {
            List<String> kept = Stream.concat(period.by().stream(), Stream.of(period.of())).distinct().toList();
            runHere(before.then(Total.distinct(kept.toArray(String[]::new))).then(new Top(MOST_CELLS)), period);
        }
    }

    /** Takes a step over rows that come over, as it then says what is wrong with them. */
    private void runHere(Pipeline rows, Step step) {
        Table there = database.fetched(rows);
        Executor.over(there, database.settings()).run(Pipeline.of(there.name()).then(step));
    }

    /** @throws BadInput where a slice is of what is not there, or a user's step left no row */
    void emptied(Pipeline pipeline) {
        long rows = database.notes().count(pipeline.upTo(0));
        for (int i = 0; i < pipeline.parts().size() && rows > 0; i++) {
            Pipeline.Part part = pipeline.parts().get(i);
            long after = database.notes().count(pipeline.upTo(i + 1));
            if (after == 0) {
                Pipeline before = pipeline.upTo(i);
                if (part.step() instanceof Slice slice) {
                    part.run(() -> refuseMissing(before, slice));
                }
                if (!part.place().toString().isEmpty()) {
                    throw new BadInput(part.place(), ProblemKind.NO_ROWS, "no row is left of the " + rows + " before this step");
                }
            }
            rows = after;
        }
    }

    /** What a count says. @throws BadInput where it is a mistake */
    Optional<Note> counted(Fact fact, double count) {
        if (fact.of() instanceof Fact.PassedOver total) {
            Formula missing = Formulas.not(Formulas.present(Formulas.column(total.figure().column())));
            return count == 0 ? Optional.empty() : Optional.of(StepNotes.passedOver(StepNotes.figure(total.figure()), (long) count, database.notes().names(fact.before(), missing)));
        } else if (fact.of() instanceof Fact.PassedOverInRest rest) {
            return count > 0 ? Optional.of(database.notes().passedOver(fact.before(), rest.rank(), rest.column(), (long) count)) : Optional.empty();
        } else if (fact.of() instanceof Fact.RowsOfCell cell && count > 1) {
            refuseSeveral(fact.before(), cell);
        } else if (fact.of() instanceof Fact.RowsOfAll && count == 0) {
            emptied(fact.before());
        }
        return Optional.empty();
    }

    /** The same sentence as of rows that are at hand, over the cells that there are. */
    private void refuseMissing(Pipeline before, Slice slice) {
        Optional<Column> cells = database.notes().cells(before, slice.column(), MOST_CELLS);
        if (cells.isPresent()) {
            Table there = Table.of(before.name(), cells.get());
            Executor.over(there, database.settings()).run(Pipeline.of(there.name()).then(slice));
        } else if (database.notes().count(before.then(slice)) == 0) {
            throw new BadInput(Place.of("table '" + before.name() + "'").within("column '" + slice.column() + "'"), ProblemKind.NO_ROWS, "no row's " + slice.column() + " " + slice.cut().shown(database.settings()));
        }
    }

    private void refuseDoubling(Pipeline before, Join join) {
        List<String> keys = List.copyOf(join.on().values());
        String rows = join.other().schema(database.known()).free("rows");
        Pipeline twice = twice(join.other(), keys, rows);
        if (database.fetched(twice.then(new Top(1))).rowCount() == 0) {
            return;
        }
        // The columns of the other table get names that none here has.
        Map<String, String> names = new LinkedHashMap<>();
        Map<String, String> on = new LinkedHashMap<>();
        for (Map.Entry<String, String> key : join.on().entrySet()) {
            names.put(key.getValue(), "key " + names.size());
            on.put(key.getKey(), names.get(key.getValue()));
        }
        Pipeline here = before.then(new Choose(List.copyOf(join.on().keySet())));
        String count = here.schema(database.known()).free("count");
        names.put(rows, count);
        Table doubled = database.fetched(here.then(new Join(twice.then(new Rename(names)), on, Join.Way.INNER, false)).then(new Top(1)));
        if (doubled.rowCount() > 0) {
            throw new BadInput(Place.of("table '" + before.name() + "'"), ProblemKind.DATA, "'" + written(doubled, List.copyOf(join.on().keySet())) + "' stands on " + (long) doubled.column(count).number(0) + " rows of '" + join.other().name()
                    + "', so the join would double this row. Total that table first, by a 'shape' of its own, or ask for it with 'many'.");
        }
    }

    /** The keys that stand on several rows, and on how many. */
    private static Pipeline twice(Pipeline pipeline, List<String> keys, String rows) {
        Formula several = Formulas.column(rows).above(Formulas.number(1));
        return pipeline.then(new AddColumn(rows, Formulas.number(1))).then(new Total(keys, List.of(new Total.Figure(rows, Total.Fold.SUM, rows)))).then(new Keep(several));
    }

    private void refuseSeveral(Pipeline before, Fact.RowsOfCell cell) {
        List<String> keys = new ArrayList<>(cell.pivot().by());
        keys.add(cell.pivot().names());
        Formula named = Formulas.column(cell.pivot().names());
        Formula wanted = cell.pivot().columns().stream().map(column -> named.equalTo(Formulas.text(column))).reduce(Formula::or).orElseThrow();
        String rows = before.schema(database.known()).free("rows");
        Table twice = database.fetched(twice(before.then(new Keep(wanted)), keys, rows).then(new Top(1)));
        throw new BadInput(Place.of("table '" + before.name() + "'"), ProblemKind.DATA, "'" + written(twice, cell.pivot().by()) + "' has '" + twice.column(cell.pivot().names()).written(0) + "' on "
                + (long) twice.column(rows).number(0) + " rows; total the rows first");
    }

    private static String written(Table first, List<String> keys) {
        return keys.stream().map(key -> first.column(key).isPresent(0) ? first.column(key).written(0) : "(missing)").collect(Collectors.joining(", "));
    }
}
