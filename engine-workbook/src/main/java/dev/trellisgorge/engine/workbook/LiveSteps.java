package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Choose;
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
import dev.trellisgorge.shape.Top;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The steps of a pipeline as formulas, from the last one that can't be on: what that one gives stands on a sheet as it was, and all
 * after it follows the sheet's cells. Used by one thread.
 */
final class LiveSteps {
    private final Executor executor;
    private final StaticSteps frozen;
    private final RawSheets rawSheets;
    private final List<RawSheets.Filled> filled = new ArrayList<>();
    private final StepSheet steps;
    private final StepRows rows;
    private final StepGroups groups;
    private final DropDowns choices;
    private final String chart;
    private final Options options;
    private final List<Stays> stays = new ArrayList<>();

    /** A step whose outcome stands as it was, and why. */
    record Stays(Step step, String why) {
    }

    /**
     * @param rawSheets say where a table's cells stand
     * @param steps    the sheet that the formulas go to
     * @param choices  given what a reader may pick rows by
     * @param chart    what the rows are for
     * @param options  of which the room for rows to come is read
     */
    LiveSteps(Executor executor, RawSheets rawSheets, StepSheet steps, DropDowns choices, String chart, Options options) {
        this.executor = executor;
        this.frozen = new StaticSteps(executor.settings());
        this.rawSheets = rawSheets;
        this.steps = steps;
        this.rows = new StepRows(steps);
        this.groups = new StepGroups(steps, options.spareBars());
        this.choices = choices;
        this.chart = chart;
        this.options = options;
    }

    /** The steps that can't be formulas, of all pipelines so far; those before them in their pipeline stay too. */
    List<Stays> stays() {
        return List.copyOf(stays);
    }

    /** What the formulas of all pipelines so far count on. */
    List<RawSheets.Filled> filled() {
        return List.copyOf(filled);
    }

    /**
     * The rows after all steps; empty where the last one stays as it was.
     *
     * @param needed what is read of them
     */
    Optional<Block> rows(Pipeline pipeline, Set<String> needed) {
        List<Step> all = pipeline.steps();
        List<Set<String>> reads = reads(all, needed, pipeline);
        int from = 0;
        for (int at = 0; at < all.size(); at++) {
            Optional<String> why = frozen.why(all.get(at), table(pipeline, at), reads.get(at + 1), table(pipeline, at + 1).rowCount(), all.get(at).traits().tables().stream().findFirst().map(executor::run));
            if (why.isPresent()) {
                stays.add(new Stays(all.get(at), why.get()));
                from = at + 1;
            }
        }
        if (from == all.size() && !(all.isEmpty() && options.spareRows() > 0)) {
            return Optional.empty();
        }
        Table first = table(pipeline, from);
        Optional<SpareColumns> beside = options.spareRows() > 0 && from < all.size() && all.get(from) instanceof Unpivot turned ? SpareColumns.of(steps, first, rawSheets.of(first), turned) : Optional.empty();
        Block block = raw(first, reads.get(from), beside);
        for (int at = from; at < all.size(); at++) {
            boolean folded = all.subList(at + 1, all.size()).stream().anyMatch(step -> step.traits().folds());
            steps.begin(all.get(at));
            block = all.get(at).match(new After(block, table(pipeline, at + 1), reads.get(at + 1), folded, at == from ? beside : Optional.empty()));
        }
        return Optional.of(block);
    }

    private Block raw(Table table, Set<String> read, Optional<SpareColumns> beside) {
        RawSheets.Stands stands = rawSheets.of(table);
        if (options.spareRows() > 0) {
            return steps.arrivals(table, stands, options.spareRows(), beside);
        }
        rawSheets.filled(table, read).ifPresent(filled::add);
        return Block.raw(table, stands);
    }

    private Table table(Pipeline pipeline, int steps) {
        return executor.run(pipeline.upTo(steps));
    }

    /** The columns that are read before the first step, after it, and so on to the end. */
    private List<Set<String>> reads(List<Step> steps, Set<String> needed, Pipeline pipeline) {
        List<Set<String>> reads = new ArrayList<>();
        Set<String> after = needed;
        reads.add(after);
        for (int at = steps.size() - 1; at >= 0; at--) {
            Set<String> there = Set.copyOf(table(pipeline, at).columnNames());
            after = steps.get(at).match(new Read(after, there)).stream().filter(there::contains).collect(Collectors.toSet());
            reads.add(0, after);
        }
        return reads;
    }

    /**
     * The columns that are read before a step.
     *
     * @param after those that are read after it
     * @param there those that there are before it
     */
    private record Read(Set<String> after, Set<String> there) implements Step.Cases<Set<String>> {

        private Set<String> and(Collection<String> more) {
            Set<String> all = new HashSet<>(after);
            all.addAll(more);
            return all;
        }

        private Set<String> and(String column) {
            return and(Set.of(column));
        }

        @Override
        public Set<String> addRow(AddRow step) {
            return and(step.column());
        }

        @Override
        public Set<String> choose(Choose step) {
            return after;
        }

        @Override
        public Set<String> addColumn(AddColumn step) {
            return after.contains(step.name()) ? and(ColumnReferences.columns(step.formula())) : after;
        }

        @Override
        public Set<String> join(Join step) {
            return and(step.on().keySet());
        }

        @Override
        public Set<String> keep(Keep step) {
            return and(ColumnReferences.columns(step.condition()));
        }

        @Override
        public Set<String> order(Order step) {
            return and(ColumnReferences.columns(step.by()));
        }

        @Override
        public Set<String> periodOf(PeriodOf step) {
            return after.contains(step.name()) ? and(step.of()) : after;
        }

        @Override
        public Set<String> pivot(Pivot step) {
            return and(Stream.concat(step.by().stream(), Stream.of(step.names(), step.values())).toList());
        }

        @Override
        public Set<String> previous(Previous step) {
            return after.contains(step.name()) ? and(Stream.concat(Stream.of(step.of()), step.period().stream()).toList()) : after;
        }

        @Override
        public Set<String> rank(Rank step) {
            Set<String> reads = and(ColumnReferences.columns(step.by()));
            step.rest().ifPresent(row -> row.derived().forEach((name, formula) -> reads.addAll(after.contains(name) ? ColumnReferences.columns(formula) : Set.of())));
            return reads;
        }

        @Override
        public Set<String> rename(Rename step) {
            return there.stream().filter(name -> after.contains(step.names().getOrDefault(name, name))).collect(Collectors.toSet());
        }

        @Override
        public Set<String> slice(Slice step) {
            return and(step.column());
        }

        @Override
        public Set<String> top(Top step) {
            return after;
        }

        @Override
        public Set<String> total(Total step) {
            Set<String> reads = and(step.by());
            step.figures().stream().filter(figure -> after.contains(figure.name())).forEach(figure -> reads.add(figure.column()));
            return reads;
        }

        @Override
        public Set<String> unpivot(Unpivot step) {
            return after.contains(step.values()) ? and(step.columns()) : after;
        }
    }

    /** The block of a step's rows, after that of the rows before it. */
    private final class After implements Step.Cases<Block> {
        private final Block block;
        private final Table after;
        private final Set<String> needed;
        private final boolean folded;
        private final Optional<SpareColumns> beside;

        /**
         * @param folded whether a later step makes fewer rows of these
         * @param beside the columns that may come beside those before the step
         */
        After(Block block, Table after, Set<String> needed, boolean folded, Optional<SpareColumns> beside) {
            this.block = block;
            this.after = after;
            this.needed = needed;
            this.folded = folded;
            this.beside = beside;
        }

        @Override
        public Block addRow(AddRow step) {
            return rows.added(block, after, step, needed);
        }

        @Override
        public Block choose(Choose step) {
            return block.with(after, block.places());
        }

        @Override
        public Block addColumn(AddColumn step) {
            return needed.contains(step.name()) ? rows.column(block, after, step.name(), step.formula()) : block.with(after, block.places());
        }

        @Override
        public Block join(Join step) {
            Set<String> there = new HashSet<>(needed);
            there.addAll(step.on().values());
            Block other = LiveSteps.this.rows(step.other(), there).orElseGet(() -> raw(executor.run(step.other()), there, Optional.empty()));
            steps.begin(step);
            return groups.joined(block, other, after, step, needed, folded ? block.lines() : room(block, after, after.rowCount()));
        }

        @Override
        public Block keep(Keep step) {
            return rows.kept(block, after, step.condition(), needed, folded ? block.lines() : room(block, after, after.rowCount()));
        }

        @Override
        public Block order(Order step) {
            return rows.ordered(block, after, step.by(), step.descending(), needed);
        }

        @Override
        public Block periodOf(PeriodOf step) {
            return needed.contains(step.name()) ? rows.column(block, after, step.name(), Formulas.formatted(Formulas.column(step.of()), pattern(step))) : block.with(after, block.places());
        }

        @Override
        public Block pivot(Pivot step) {
            return groups.pivoted(block, after, step, needed);
        }

        @Override
        public Block previous(Previous step) {
            return needed.contains(step.name()) ? rows.column(block, after, step.name(), LiveSteps.previous(step, block.rows())) : block.with(after, block.places());
        }

        @Override
        public Block rank(Rank step) {
            if (step.order() == Rank.Way.TABLE) {
                return rows.ranked(block, after, step, needed, Optional.empty());
            }
            String order = choices.order(chart, step.order());
            steps.settable(order, choices.values().get(order));
            return rows.ranked(block, after, step, needed, Optional.of(order));
        }

        @Override
        public Block rename(Rename step) {
            return rows.renamed(block, after, step.names());
        }

        @Override
        public Block slice(Slice step) {
            Slice picked = choices.adjustable(step, block.rows(), chart, executor.settings(), folded);
            List<String> settings = picked.cut().stated().stream().filter(Leaf.Setting.class::isInstance).map(setting -> ((Leaf.Setting) setting).name()).toList();
            settings.stream().filter(choices.values()::containsKey).forEach(setting -> steps.settable(setting, choices.values().get(setting)));
            if (block.open()) {
                settings.forEach(setting -> choices.grows(setting, () -> groups.listed(block, step.column(), choices.offered(setting).orElseThrow().size(), block.spare())));
                steps.begin(step);
            }
            return rows.kept(block, after, picked.condition(block.rows().schema(), steps.settings()).orElseThrow(), needed, folded ? block.lines() : room(block, after, choices.mostRows(picked, block.rows()).orElse(after.rowCount())));
        }

        @Override
        public Block top(Top step) {
            return block.then(after, Math.min(step.rows(), block.lines()), block.places(), block.marker(), block.rooms());
        }

        @Override
        public Block total(Total step) {
            return groups.totalled(block, after, step, needed);
        }

        @Override
        public Block unpivot(Unpivot step) {
            return rows.unpivoted(block, after, step, needed, beside);
        }
    }

    /** How many lines rows have that are picked of others: for so many now, and for those to come. */
    private int room(Block block, Table after, int now) {
        return Math.min(block.lines(), Math.max(after.rowCount(), now) + block.spare());
    }

    private static String pattern(PeriodOf period) {
        return switch (period.unit()) {
            case YEAR -> "yyyy";
            case QUARTER -> "yyyy-'Q'Q";
            case MONTH -> "yyyy-MM";
            default -> "yyyy-MM-dd";
        };
    }

    private static Formula previous(Previous previous, Table rows) {
        Formula of = Formulas.column(previous.of());
        if (previous.period().isEmpty()) {
            return Formulas.lag(of);
        }
        String column = previous.period().get();
        Formula index = new Calendar.Period(Formulas.column(column), previous.unit().orElseGet(() -> CalendarUnit.of(rows.column(column))));
        return new Window.Lookup(of, index, index.minus(Formulas.number(1)));
    }
}
