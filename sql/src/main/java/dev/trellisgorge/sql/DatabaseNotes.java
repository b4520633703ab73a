package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
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
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/** What a reader is told of the rows in a database: counted there, by steps of their own. */
final class DatabaseNotes {
    private final Database database;

    DatabaseNotes(Database database) {
        this.database = database;
    }

    /** What a step leaves out, and what a join does not match. */
    List<Note> of(Pipeline before, Step step) {
        return step.match(new Of(before));
    }

    /** The notes on a step over rows. */
    private final class Of implements Step.Cases<List<Note>> {
        private final Pipeline before;

        Of(Pipeline before) {
            this.before = before;
        }

        @Override
        public List<Note> addRow(AddRow step) {
            return List.of();
        }

        @Override
        public List<Note> choose(Choose step) {
            return List.of();
        }

        @Override
        public List<Note> addColumn(AddColumn step) {
            return List.of();
        }

        @Override
        public List<Note> join(Join step) {
            return joined(before, step);
        }

        @Override
        public List<Note> keep(Keep step) {
            return left(before, before, step.condition(), (counts, names) -> StepNotes.leftOut(step, counts.left(), counts.all(), counts.unknown(), counts.amounts(), names));
        }

        @Override
        public List<Note> order(Order step) {
            return List.of();
        }

        @Override
        public List<Note> periodOf(PeriodOf step) {
            return step.fill() ? filled(before, step) : List.of();
        }

        @Override
        public List<Note> pivot(Pivot step) {
            return others(before, step);
        }

        @Override
        public List<Note> previous(Previous step) {
            return List.of();
        }

        @Override
        public List<Note> rank(Rank step) {
            return step.top().isPresent() ? cutOff(before, step) : List.of();
        }

        @Override
        public List<Note> rename(Rename step) {
            return List.of();
        }

        @Override
        public List<Note> slice(Slice step) {
            Formula condition = step.condition(schema(before), database.settings()).orElseThrow();
            return left(before, before, condition, (counts, names) -> StepNotes.leftOut(step, step.cut().shown(database.settings()), counts.left(), counts.all(), counts.amounts(), names));
        }

        @Override
        public List<Note> top(Top step) {
            String number = schema(before).free("row");
            Formula first = Formulas.column(number).atMost(Formulas.number(step.rows()));
            return left(before, before.then(new AddColumn(number, Formulas.rowNumber())), first, (counts, names) -> StepNotes.leftOut(step, counts.left(), counts.all(), counts.amounts(), names));
        }

        @Override
        public List<Note> total(Total step) {
            return List.of();
        }

        @Override
        public List<Note> unpivot(Unpivot step) {
            return List.of();
        }
    }

    /** An added row has a period, and nothing that it is the period of. */
    private List<Note> filled(Pipeline before, PeriodOf period) {
        Formula added = Formulas.present(Formulas.column(period.name())).and(Formulas.not(Formulas.present(Formulas.column(period.of()))));
        List<String> by = new ArrayList<>(period.by());
        by.add(period.name());
        List<String> names = written(before.then(period).then(new Keep(added)), by);
        return names.isEmpty() ? List.of() : List.of(StepNotes.filled(period, names));
    }

    private List<Note> others(Pipeline before, Pivot pivot) {
        Formula name = Formulas.column(pivot.names());
        Formula wanted = pivot.columns().stream().map(column -> name.equalTo(Formulas.text(column))).reduce(Formula::or).orElse(Formulas.truth(false));
        List<String> names = written(before.then(new Keep(Formulas.not(wanted))), List.of(pivot.names()));
        return names.isEmpty() ? List.of() : List.of(StepNotes.others(pivot, names));
    }

    private Schema schema(Pipeline pipeline) {
        return pipeline.schema(database.known());
    }

    /** The sum of a column's cells; 0 where there are none. */
    double sum(Pipeline pipeline, String column) {
        double sum = database.fetched(pipeline.then(new Total(List.of(), List.of(new Total.Figure(column, Total.Fold.SUM, column))))).column(column).number(0);
        return Double.isNaN(sum) ? 0 : sum;
    }

    /** How many rows there are. */
    long count(Pipeline pipeline) {
        String one = schema(pipeline).free("one");
        return (long) sum(pipeline.then(new AddColumn(one, Formulas.number(1))), one);
    }

    /** What the rows on which a condition is true are called, each name once. */
    List<String> names(Pipeline pipeline, Formula condition) {
        return StepNotes.namedBy(schema(pipeline)).map(column -> names(pipeline.then(new Keep(condition)), column)).orElse(List.of());
    }

    private List<String> names(Pipeline pipeline, String column) {
        return written(pipeline, List.of(column));
    }

    /** The first keys, and how many more there are. */
    private List<String> written(Pipeline pipeline, List<String> by) {
        Pipeline distinct = pipeline.then(Total.distinct(by.toArray(String[]::new)));
        Table first = database.fetched(distinct.then(new Top(StepNotes.LISTED)));
        List<String> names = IntStream.range(0, first.rowCount()).mapToObj(row -> String.join(", ", by.stream().map(first::column).map(cells -> cells.isPresent(row) ? cells.written(row) : "(missing)").toList())).toList();
        return names.size() < StepNotes.LISTED ? names : StepNotes.listed(names, count(distinct));
    }

    /** What is counted of rows that a condition leaves out. */
    private record Counts(long left, long all, long unknown, List<StepNotes.Amount> amounts) {
    }

    private interface Telling {
        Note of(Counts counts, List<String> names);
    }

    /** Rows on which a condition is not true. @param told whose columns of figures are reported */
    private List<Note> left(Pipeline told, Pipeline before, Formula condition, Telling telling) {
        List<String> figures = StepNotes.amountsOf(schema(told));
        Map<String, Formula> cells = new LinkedHashMap<>();
        cells.put("rows", Formulas.number(1));
        cells.put("rows left", left(condition, Formulas.number(1)));
        cells.put("rows unknown", Formulas.choose(Formulas.present(condition), Formulas.absent(), Formulas.number(1)));
        for (int i = 0; i < figures.size(); i++) {
            Formula figure = Formulas.column(figures.get(i));
            Formula large = Formulas.abs(figure).atLeast(Formulas.number(StepNotes.AMOUNTS_BELOW));
            Formula addedUp = Formulas.choose(large, Formulas.absent(), figure);
            cells.put("large " + i, Formulas.choose(large, Formulas.number(1), Formulas.absent()));
            cells.put("all " + i, addedUp);
            cells.put("left " + i, left(condition, addedUp));
        }
        Map<String, Double> sums = sums(before, cells);
        long left = sums.get("rows left").longValue();
        List<StepNotes.Amount> amounts = IntStream.range(0, figures.size()).filter(i -> sums.get("large " + i) == 0).mapToObj(i -> new StepNotes.Amount(figures.get(i), sums.get("left " + i), sums.get("all " + i))).toList();
        Counts counts = new Counts(left, sums.get("rows").longValue(), sums.get("rows unknown").longValue(), amounts);
        return left == 0 ? List.of() : List.of(telling.of(counts, names(before, Formulas.not(Formulas.coalesce(condition, Formulas.truth(false))))));
    }

    private static Formula left(Formula condition, Formula cell) {
        return Formulas.choose(condition, Formulas.absent(), cell);
    }

    /** The sums of formulas over all rows; 0 where there is no cell. */
    private Map<String, Double> sums(Pipeline before, Map<String, Formula> cells) {
        Pipeline at = before;
        Map<String, String> columns = new LinkedHashMap<>();
        List<Total.Figure> figures = new ArrayList<>();
        for (Map.Entry<String, Formula> cell : cells.entrySet()) {
            String name = schema(at).free(cell.getKey());
            at = at.then(new AddColumn(name, cell.getValue()));
            columns.put(cell.getKey(), name);
            figures.add(new Total.Figure(name, Total.Fold.SUM, name));
        }
        Table sums = database.fetched(at.then(new Total(List.of(), figures)));
        Map<String, Double> all = new LinkedHashMap<>();
        columns.forEach((cell, name) -> all.put(cell, sums.column(name).isPresent(0) ? sums.column(name).number(0) : 0));
        return all;
    }

    /** The rows that are not among the first ones, and what they amount to. */
    private List<Note> cutOff(Pipeline before, Rank rank) {
        CutOff cut = new CutOff(before, rank);
        boolean sized = StepNotes.isSize(rank.by(), schema(cut.ranked()).field(cut.key()).kind());
        Map<String, Double> left = sums(cut.others(), Map.of("rows", Formulas.number(1), "key", sized ? Formulas.column(cut.key()) : Formulas.number(0)));
        long rows = left.get("rows").longValue();
        Formula stays = rank.anchors().<Formula>map(anchors -> Formulas.choose(anchors, Formulas.absent(), Formulas.column(cut.key()))).orElse(Formulas.column(cut.key()));
        double whole = rows > 0 && sized ? sums(cut.ranked(), Map.of("key", stays)).get("key") : 0;
        return rows == 0 ? List.of() : List.of(StepNotes.cutOff(rank, rows, whole == 0 ? Double.NaN : left.get("key") / whole, rank.names().map(column -> names(cut.others(), column)).orElse(List.of())));
    }

    /** The rows that a rank cuts off, found as those that are not among what it keeps. */
    private final class CutOff {
        private final Rank rank;
        private final Pipeline ranked;
        private final String number;
        private final String key;
        /** Of rows between two that stay. */
        private final String run;

        CutOff(Pipeline before, Rank rank) {
            this.rank = rank;
            this.number = schema(before).free("row");
            Pipeline numbered = before.then(new AddColumn(number, Formulas.rowNumber()));
            this.key = schema(numbered).free("key");
            Pipeline keyed = numbered.then(new AddColumn(key, rank.by()));
            this.run = schema(keyed).free("run");
            this.ranked = rank.anchors().map(stays -> keyed.then(new AddColumn(run, Formulas.cumulative(Formulas.choose(stays, Formulas.number(1), Formulas.number(0)))))).orElse(keyed);
        }

        /** All rows, with their numbers and what they are ranked by. */
        Pipeline ranked() {
            return ranked;
        }

        String key() {
            return key;
        }

        Pipeline others() {
            String mark = schema(ranked).free("kept");
            Rank alone = new Rank(rank.by(), rank.order(), rank.top(), Optional.empty(), Optional.empty(), rank.anchors());
            Pipeline kept = ranked.then(alone).then(new Choose(List.of(number))).then(new AddColumn(mark, Formulas.number(1)));
            Pipeline others = ranked.then(new Join(kept, Map.of(number, number), Join.Way.LEFT, false)).then(new Keep(Formulas.not(Formulas.present(Formulas.column(mark)))));
            if (rank.order() == Rank.Way.TABLE) {
                return others;
            }
            Pipeline ordered = others.then(new Order(Formulas.column(key), rank.order() == Rank.Way.DESCENDING));
            return rank.anchors().isPresent() ? ordered.then(new Order(Formulas.column(run), false)) : ordered;
        }
    }

    /** The cells that the row for all others passes over. */
    Note passedOver(Pipeline before, Rank rank, String column, long missing) {
        Formula none = Formulas.not(Formulas.present(Formulas.column(column)));
        return StepNotes.passedOver(StepNotes.figure(rank.rest().orElseThrow().name(), column, rank.rest().get().ways().get(column)), missing, names(new CutOff(before, rank).others(), none));
    }

    private List<Note> joined(Pipeline before, Join join) {
        List<Note> notes = new ArrayList<>();
        List<String> here = List.copyOf(join.on().keySet());
        List<String> there = here.stream().map(join.on()::get).toList();
        List<String> unmatched = unmatched(before, here, join.other(), there);
        List<String> unused = unmatched(join.other(), there, before, here);
        if (!unmatched.isEmpty()) {
            notes.add(StepNotes.unmatched(join, unmatched));
        }
        if (!unused.isEmpty()) {
            notes.add(StepNotes.unused(join, unused));
        }
        return notes;
    }

    /** The keys of one table that another has not. */
    private List<String> unmatched(Pipeline one, List<String> keys, Pipeline other, List<String> otherKeys) {
        String mark = schema(one.then(new Choose(keys))).free("there");
        Pipeline marked = other.then(Total.distinct(otherKeys.toArray(String[]::new))).then(new AddColumn(mark, Formulas.number(1)));
        Map<String, String> on = new LinkedHashMap<>();
        IntStream.range(0, keys.size()).forEach(i -> on.put(keys.get(i), otherKeys.get(i)));
        Pipeline left = one.then(Total.distinct(keys.toArray(String[]::new))).then(new Join(marked, on, Join.Way.LEFT, false));
        return written(left.then(new Keep(Formulas.not(Formulas.present(Formulas.column(mark))))), keys);
    }

    /** A column's cells as they are written, each once; no more than are looked through. */
    Optional<Column> cells(Pipeline pipeline, String column, int most) {
        Table cells = database.fetched(pipeline.then(Total.distinct(column)).then(new Top(most + 1)));
        return cells.rowCount() > most ? Optional.empty() : Optional.of(cells.column(column));
    }
}
