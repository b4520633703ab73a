package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.formula.Calendar;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Reads;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.shape.AddRow;
import dev.trellisgorge.shape.Derive;
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
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The steps of a pipeline as formulas, from the last one that can't be on: what that one gives stands on a sheet as it was, and all
 * after it follows the sheet's cells. Used by one thread.
 */
final class LiveSteps {
    private final Executor executor;
    private final Frozen frozen;
    private final RawSheets rawSheets;
    private final List<RawSheets.Filled> filled = new ArrayList<>();
    private final StepSheet steps;
    private final StepRows rows;
    private final StepGroups groups;
    private final Choices choices;
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
    LiveSteps(Executor executor, RawSheets rawSheets, StepSheet steps, Choices choices, String chart, Options options) {
        this.executor = executor;
        this.frozen = new Frozen(executor.settings());
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
            Optional<String> why = frozen.why(all.get(at), table(pipeline, at), reads.get(at + 1), table(pipeline, at + 1).rowCount(), all.get(at) instanceof Join join ? Optional.of(executor.run(join.other())) : Optional.empty());
            if (why.isPresent()) {
                stays.add(new Stays(all.get(at), why.get()));
                from = at + 1;
            }
        }
        if (from == all.size() && !(all.isEmpty() && options.spareRows() > 0)) {
            return Optional.empty();
        }
        Block block = raw(table(pipeline, from), reads.get(from));
        for (int at = from; at < all.size(); at++) {
            boolean folded = all.subList(at + 1, all.size()).stream().anyMatch(LiveSteps::folds);
            block = after(all.get(at), block, table(pipeline, at + 1), reads.get(at + 1), folded);
        }
        return Optional.of(block);
    }

    private Block raw(Table table, Set<String> read) {
        RawSheets.Stands stands = rawSheets.of(table);
        if (options.spareRows() > 0) {
            return steps.arrivals(table, stands, options.spareRows());
        }
        rawSheets.filled(table, read).ifPresent(filled::add);
        return Block.raw(table, stands);
    }

    private Table table(Pipeline pipeline, int steps) {
        return executor.run(pipeline.upTo(steps));
    }

    /** Whether a step makes few rows of many, so that all of them are wanted before it. */
    private static boolean folds(Step step) {
        return step instanceof Total || step instanceof Pivot || step instanceof Rank rank && rank.top().isPresent();
    }

    /** The columns that are read before the first step, after it, and so on to the end. */
    private List<Set<String>> reads(List<Step> steps, Set<String> needed, Pipeline pipeline) {
        List<Set<String>> reads = new ArrayList<>();
        Set<String> after = needed;
        reads.add(after);
        for (int at = steps.size() - 1; at >= 0; at--) {
            after = before(steps.get(at), after, Set.copyOf(table(pipeline, at).columnNames()));
            reads.add(0, after);
        }
        return reads;
    }

    private static Set<String> before(Step step, Set<String> after, Set<String> there) {
        Set<String> reads = new HashSet<>(after);
        step.formulas().stream().filter(formula -> !(step instanceof Derive derive) || after.contains(derive.name())).forEach(formula -> reads.addAll(Reads.columns(formula)));
        if (step instanceof Rename rename) {
            reads.clear();
            there.stream().filter(name -> after.contains(rename.names().getOrDefault(name, name))).forEach(reads::add);
        } else if (step instanceof Total total) {
            reads.addAll(total.by());
            total.figures().stream().filter(figure -> after.contains(figure.name())).forEach(figure -> reads.add(figure.column()));
        } else if (step instanceof Pivot pivot) {
            reads.addAll(pivot.by());
            reads.addAll(List.of(pivot.names(), pivot.values()));
        } else if (step instanceof Unpivot unpivot && after.contains(unpivot.values())) {
            reads.addAll(unpivot.columns());
        } else if (step instanceof Slice slice) {
            reads.add(slice.column());
        } else if (step instanceof PeriodOf period && after.contains(period.name())) {
            reads.add(period.of());
        } else if (step instanceof Previous previous && after.contains(previous.name())) {
            reads.add(previous.of());
            previous.period().ifPresent(reads::add);
        } else if (step instanceof Join join) {
            reads.addAll(join.on().keySet());
        } else if (step instanceof AddRow row) {
            reads.add(row.column());
        } else if (step instanceof Rank rank) {
            rank.rest().ifPresent(row -> row.derived().forEach((name, formula) -> reads.addAll(after.contains(name) ? Reads.columns(formula) : Set.of())));
        }
        reads.retainAll(there);
        return reads;
    }

    private Block after(Step step, Block block, Table after, Set<String> needed, boolean folded) {
        steps.begin(step);
        if (step instanceof Derive derive) {
            return needed.contains(derive.name()) ? rows.column(block, after, derive.name(), derive.formula()) : block.with(after, block.places());
        } else if (step instanceof PeriodOf period) {
            return needed.contains(period.name()) ? rows.column(block, after, period.name(), Formulas.formatted(Formulas.column(period.of()), pattern(period))) : block.with(after, block.places());
        } else if (step instanceof Previous previous) {
            return needed.contains(previous.name()) ? rows.column(block, after, previous.name(), previous(previous, block.rows())) : block.with(after, block.places());
        } else if (step instanceof Rename rename) {
            return rows.renamed(block, after, rename.names());
        } else if (step instanceof Keep keep) {
            return rows.kept(block, after, keep.condition(), needed, folded ? block.lines() : room(block, after, after.rowCount()));
        } else if (step instanceof Slice slice) {
            Slice picked = choices.adjustable(slice, block.rows(), chart, executor.settings(), folded);
            List<String> settings = picked.cut().stated().stream().filter(Leaf.Setting.class::isInstance).map(setting -> ((Leaf.Setting) setting).name()).toList();
            settings.stream().filter(choices.values()::containsKey).forEach(setting -> steps.settable(setting, choices.values().get(setting)));
            if (block.open()) {
                settings.forEach(setting -> choices.grows(setting, () -> groups.listed(block, slice.column(), choices.offered(setting).orElseThrow().size(), options.spareRows())));
                steps.begin(step);
            }
            return rows.kept(block, after, picked.condition(block.rows().schema(), steps.settings()).orElseThrow(), needed, folded ? block.lines() : room(block, after, choices.mostRows(picked, block.rows()).orElse(after.rowCount())));
        } else if (step instanceof Order order) {
            return rows.ordered(block, after, order.by(), order.descending(), needed);
        } else if (step instanceof Rank rank) {
            if (rank.order() == Rank.Way.TABLE) {
                return rows.ranked(block, after, rank, needed, Optional.empty());
            }
            String order = choices.order(chart, rank.order());
            steps.settable(order, choices.values().get(order));
            return rows.ranked(block, after, rank, needed, Optional.of(order));
        } else if (step instanceof Total total) {
            return groups.totalled(block, after, total, needed);
        } else if (step instanceof Pivot pivot) {
            return groups.pivoted(block, after, pivot, needed);
        } else if (step instanceof Unpivot unpivot) {
            return rows.unpivoted(block, after, unpivot, needed);
        } else if (step instanceof AddRow row) {
            return rows.added(block, after, row, needed);
        } else if (step instanceof Join join) {
            Set<String> there = new HashSet<>(needed);
            there.addAll(join.on().values());
            Block other = rows(join.other(), there).orElseGet(() -> raw(executor.run(join.other()), there));
            steps.begin(step);
            return groups.joined(block, other, after, join, needed, folded ? block.lines() : room(block, after, after.rowCount()));
        }
        // What is left cuts at the end or chooses columns: a block of fewer lines, or the same.
        return step instanceof Top top ? block.then(after, Math.min(top.rows(), block.lines()), block.places(), block.marker(), block.rooms()) : block.with(after, block.places());
    }

    /** How many lines rows have that are picked of others: for so many now, and for those to come. */
    private int room(Block block, Table after, int now) {
        return Math.min(block.lines(), Math.max(after.rowCount(), now) + (block.open() ? options.spareRows() : 0));
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
