package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** The rows of tiles that take the same steps: formulas over raw sheets where the steps can be, else as they were. */
final class TileRows {
    private final Plan plan;
    private final StepSheet steps;
    private final SourceRows source;
    private final List<LiveSteps.Stays> stays;
    private final List<RawSheets.Filled> filled;
    private final boolean elsewhere;

    /** The rows of each tile. */
    static Map<Tile, TileRows> of(List<Tile> tiles, RawSheets raw, DropDowns choices, SheetNames names, Options options) {
        Map<Object, List<Tile>> alike = new LinkedHashMap<>();
        tiles.forEach(tile -> alike.computeIfAbsent(steps(data(tile)), steps -> new ArrayList<>()).add(tile));
        Map<Tile, TileRows> rows = new LinkedHashMap<>();
        alike.values().forEach(some -> {
            TileRows made = new TileRows(some, raw, choices, names, options);
            some.forEach(tile -> rows.put(tile, made));
        });
        return rows;
    }

    /** What is equal where the same table takes the same steps. */
    private static Object steps(ComputedColumns data) {
        return data.executor().isEmpty() || data.plan().pipeline().steps().isEmpty() ? new Object() : List.of(data.executor().get(), data.plan().pipeline().source(), data.plan().pipeline().steps());
    }

    private TileRows(List<Tile> tiles, RawSheets raw, DropDowns choices, SheetNames names, Options options) {
        ComputedColumns data = data(tiles.get(0));
        this.plan = data.plan();
        Pipeline pipeline = plan.pipeline();
        String name = name(tiles.get(0));
        String all = tiles.stream().map(TileRows::name).collect(Collectors.joining(", "));
        this.steps = new StepSheet(pipeline.steps().isEmpty() && options.spareRows() == 0 ? "" : names.sheet(name + " rows"), "The rows of " + all, data.settings(), names);
        Set<String> needed = tiles.stream().flatMap(tile -> needed(data(tile).plan()).stream()).collect(Collectors.toSet());
        boolean here = data.executor().filter(Executor::isHere).isPresent();
        if (pipeline.steps().isEmpty() && options.spareRows() == 0 || !here) {
            boolean isTable = options.spareRows() > 0 && data.rows().rowCount() == data.rows().whole().rowCount() && IntStream.range(0, data.rowCount()).allMatch(row -> data.rows().wholeRow(row) == row);
            this.source = isTable ? steps.arrivals(data.rows(), raw.of(data.rows().whole()), options.spareRows(), Optional.empty()) : fixed(data, raw);
            this.filled = filled(isTable, data, raw, needed);
            this.stays = List.of();
            this.elsewhere = data.executor().isPresent() && !here && !pipeline.steps().isEmpty();
            return;
        }
        LiveSteps live = new LiveSteps(data.executor().get(), raw, steps, choices, all, options);
        Optional<Block> rows = live.rows(pipeline, needed);
        this.source = rows.isPresent() ? rows.get() : fixed(data, raw);
        this.filled = rows.isPresent() ? live.filled() : filled(false, data, raw, needed);
        this.stays = live.stays();
        this.elsewhere = false;
    }

    private static SourceRows fixed(ComputedColumns data, RawSheets raw) {
        return new FixedRows(data.rows(), raw.of(data.rows().whole()));
    }

    /** What is counted on where formulas read the raw cells themselves. */
    private static List<RawSheets.Filled> filled(boolean ofBlock, ComputedColumns data, RawSheets raw, Set<String> needed) {
        return ofBlock ? List.of() : raw.filled(data.rows().whole(), needed).stream().toList();
    }

    /** The columns of the rows that the chart reads. */
    private static Set<String> needed(Plan plan) {
        Set<String> needed = new HashSet<>();
        plan.columns().forEach(column -> needed.addAll(ColumnReferences.columns(column.formula())));
        plan.identities().forEach(identity -> needed.addAll(ColumnReferences.columns(identity.holdsOrNeedNot())));
        plan.category().ifPresent(needed::add);
        return needed;
    }

    static ComputedColumns data(Tile tile) {
        if (tile instanceof Tile.OfFigure figure) {
            return figure.data();
        }
        var parts = ((Tile.OfChart) tile).parts();
        return parts.get(parts.size() - 1).data();
    }

    static String name(Tile tile) {
        return tile instanceof Tile.OfFigure figure ? figure.name() : ((Tile.OfChart) tile).parts().get(0).name();
    }

    SourceRows source() {
        return source;
    }

    StepSheet steps() {
        return steps;
    }

    /** What the formulas count on of the raw tables. */
    List<RawSheets.Filled> filled() {
        return filled;
    }

    /** What stays as it was when the workbook was made, a sentence each. */
    List<String> stays() {
        if (elsewhere) {
            return List.of("the steps stay as they were when this was drawn: the rows of '" + plan.pipeline().source() + "' are in a database");
        }
        return stays.stream().map(each -> "'" + each.step().sentence() + "' stays as it was when this was drawn, with all steps before it: " + each.why()).toList();
    }

    /** The settings that picked what stays. */
    Set<String> settingsThatStay() {
        Set<String> read = new HashSet<>();
        int last = elsewhere ? plan.pipeline().steps().size() - 1 : stays.stream().mapToInt(each -> plan.pipeline().steps().indexOf(each.step())).max().orElse(-1);
        plan.pipeline().steps().subList(0, last + 1).forEach(step -> step.formulas().forEach(formula -> read.addAll(ColumnReferences.settings(formula))));
        stays.forEach(each -> read.addAll(each.step().formulas().stream().flatMap(formula -> ColumnReferences.settings(formula).stream()).collect(Collectors.toSet())));
        return read;
    }
}
