package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Formulas;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Cut;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * A brief once for each combination of some columns' cells. Where a slice of such a column names a setting, the setting takes each value, so that titles and
 * rules which name it speak of the rows that are drawn.
 */
final class EachValue {
    private final Brief.Content whole;
    private final String option;
    private final List<String> columns;
    private final boolean onRaw;
    private final Pipeline cut;
    private final Map<String, Set<String>> settings = new LinkedHashMap<>();

    /** @throws BadInput where neither the charted nor the raw table has a column, or a chart is sliced by one already, or a setting that takes its values is given one */
    EachValue(Brief.Content whole, List<String> columns, Set<String> given) {
        this.whole = whole;
        this.option = whole.names().of(InputNames.Input.EACH);
        this.columns = columns;
        Pipeline pipeline = whole.pipeline();
        Schema shaped = pipeline.schema(whole.executor().known());
        this.onRaw = !columns.stream().allMatch(shaped::has);
        this.cut = onRaw ? Pipeline.of(pipeline.source()) : pipeline;
        Schema there = onRaw ? whole.executor().known().sources().get(pipeline.source()) : shaped;
        Problems problems = new Problems();
        columns.stream().filter(column -> !there.has(column)).forEach(column -> problems.add(Place.of(option), ProblemKind.UNKNOWN_NAME, (shaped.has(column) ? there : shaped).unknownColumn(column)));
        slices((what, slices) -> columns.stream().filter(slices::containsKey).forEach(column -> named(column, what, slices.get(column), problems)));
        settings.forEach((column, names) -> names.stream().filter(given::contains)
                .forEach(name -> problems.add(Place.of(option), ProblemKind.CONFLICT, "the setting ':" + name + "' has been given a value, and takes each value of '" + column + "' too; give it none, or leave out " + option)));
        problems.throwIfAny();
    }

    private void slices(BiConsumer<String, Map<String, Cut>> seen) {
        whole.charts().forEach(chart -> seen.accept("the chart '" + chart.name() + "'", chart.slices()));
        whole.board().stream().flatMap(board -> board.tiles().stream()).filter(Board.FigureTile.class::isInstance).map(tile -> ((Board.FigureTile) tile).figure())
                .forEach(figure -> seen.accept("the figure '" + figure.name() + "'", figure.slice()));
    }

    /** The setting that a slice names, or what is wrong with it. */
    private void named(String column, String what, Cut slice, Problems problems) {
        List<Formula> stated = slice.stated();
        if (slice instanceof Cut.OneOf && stated.size() == 1 && stated.get(0) instanceof Leaf.Setting setting) {
            boolean taken = settings.entrySet().stream().anyMatch(other -> !other.getKey().equals(column) && other.getValue().contains(setting.name()));
            if (taken) {
                problems.add(Place.of(option), ProblemKind.CONFLICT, "the setting ':" + setting.name() + "' can't be the value of two columns, and slices of both name it");
            }
            settings.computeIfAbsent(column, each -> new LinkedHashSet<>()).add(setting.name());
        } else {
            problems.add(Place.of(option), ProblemKind.CONFLICT, what + " is sliced where '" + column + "' " + slice.shown(Settings.NONE) + ", which contradicts drawing it for each value; take the slice out, or have it name a setting");
        }
    }

    /** In the order of the rows. */
    Map<List<String>, Brief.Content> parts() {
        Table rows = whole.executor().run(cut.then(Total.distinct(columns.toArray(String[]::new))));
        List<Column> cells = columns.stream().map(rows::column).toList();
        boolean missing = IntStream.range(0, rows.rowCount()).anyMatch(row -> !cells.stream().allMatch(column -> column.isPresent(row)));
        List<String> notes = Stream.concat(whole.notes().stream(), (missing ? Optional.of(leftOut()) : Optional.<String>empty()).stream()).toList();
        Map<List<String>, Brief.Content> parts = new LinkedHashMap<>();
        for (int row = 0; row < rows.rowCount(); row++) {
            int at = row;
            if (cells.stream().allMatch(column -> column.isPresent(at))) {
                parts.computeIfAbsent(cells.stream().map(column -> column.written(at)).toList(), values -> part(values, notes));
            }
        }
        return parts;
    }

    /** Rows without a value are in no part. */
    private String leftOut() {
        Formula present = columns.stream().map(Formulas::column).map(Formulas::present).reduce(Formula::and).orElseThrow();
        String name = cut.schema(whole.executor().known()).free("left out");
        Table counted = whole.executor().run(cut.then(new AddColumn(name, Formulas.choose(present, Formulas.number(0), Formulas.number(1)))).then(new Total(List.of(), List.of(new Total.Figure(name, Total.Fold.SUM, name)))));
        double count = counted.column(name).number(0);
        return option + ": " + (count == 1 ? "1 row has" : (long) count + " rows have") + " no value in " + (columns.size() == 1 ? "'" + columns.get(0) + "'" : "one of " + String.join(", ", columns)) + ", so no picture holds " + (count == 1 ? "it" : "them");
    }

    private Brief.Content part(List<String> values, List<String> notes) {
        Settings valued = whole.settings();
        for (int i = 0; i < columns.size(); i++) {
            for (String setting : settings.getOrDefault(columns.get(i), Set.of())) {
                String value = values.get(i);
                valued = SettingValues.changed(valued, setting, value).orElseThrow(() -> new BadInput(Place.of(option), ProblemKind.INVALID, "'" + value + "' can't be the value of the setting ':" + setting + "', by which charts are sliced; it is of another kind"));
            }
        }
        Executor executor = valued == whole.settings() ? whole.executor() : whole.executor().with(valued);
        List<Slice> slices = IntStream.range(0, columns.size()).mapToObj(i -> new Slice(columns.get(i), values.get(i))).toList();
        if (onRaw) {
            Map<String, Pipeline> tables = new LinkedHashMap<>();
            whole.own().forEach((chart, table) -> tables.put(chart, table.first(slices)));
            return new Brief.Content(valued, whole.pipeline().first(slices), whole.charts(), tables, whole.spots(),
                    whole.board().map(shown -> shown.each(big -> new Board.FigureTile(big.figure(), big.table().first(slices), big.span()))), executor, notes, whole.names());
        }
        List<Chart> charts = new ArrayList<>(whole.charts());
        Optional<Board> board = whole.board();
        for (Slice slice : slices) { // a slice by a setting keeps the rows already
            charts.replaceAll(chart -> chart.slices().containsKey(slice.column()) ? chart : chart.slice(slice.column(), slice.cut()));
            board = board.map(shown -> shown.each(big -> big.figure().slice().containsKey(slice.column()) ? big : new Board.FigureTile(big.figure().slice(slice.column(), slice.cut()), big.table(), big.span())));
        }
        return new Brief.Content(valued, whole.pipeline(), charts, whole.own(), whole.spots(), board, executor, notes, whole.names());
    }
}
