package dev.trellisgorge.sql;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Leaf;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.formula.Window;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.Derive;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Join;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.shape.PeriodOf;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Rename;
import dev.trellisgorge.shape.Slice;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.shape.Unpivot;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * The keys of a pipeline's first total in the order in which they first stand in a file, as its first rows tell. All rows of the file need not be
 * numbered then, which takes one processor alone. A key that the first rows do not show comes after those that they do; of several such ones the order is not known.
 *
 * @param before the steps before the total
 * @param keys   one column for each key of the total; none of a total of all
 */
record KeysAhead(Pipeline before, List<Column> keys) {
    private static final int MOST_KEYS = 500;

    /** @return empty where the steps read the order of rows, or the first rows look as if they did not show most keys */
    static Optional<KeysAhead> of(Pipeline pipeline, Map<String, TableSource> sources, Settings settings) {
        Optional<TableSource.Start> start = sources.get(pipeline.source()).start();
        List<Step> steps = pipeline.steps();
        int at = (int) steps.stream().takeWhile(step -> isOfEachRow(step, sources)).count();
        if (start.isEmpty() || at == steps.size() || !(steps.get(at) instanceof Total total) || readsPlaces(total)) {
            return Optional.empty();
        }
        Pipeline before = pipeline.upTo(at);
        return total.by().isEmpty() ? Optional.of(new KeysAhead(before, List.of())) : ahead(before, total, start.get().rows(), sources, settings);
    }

    private static boolean readsPlaces(Total total) {
        return total.figures().stream().anyMatch(figure -> figure.fold() == Total.Fold.FIRST || figure.fold() == Total.Fold.LAST);
    }

    /** Whether a step makes the first rows of its outcome from the first rows that it is given. */
    private static boolean isOfEachRow(Step step, Map<String, TableSource> sources) {
        boolean alone = step instanceof Keep || step instanceof Slice || step instanceof Derive || step instanceof Choose || step instanceof Rename || step instanceof Unpivot
                || step instanceof PeriodOf period && !period.fill() || step instanceof Join join && isAtHand(join.other(), sources);
        return alone && step.formulas().stream().noneMatch(KeysAhead::looksAround);
    }

    private static boolean looksAround(Formula formula) {
        return formula instanceof Window || formula instanceof Leaf.RowNumber || formula.operands().stream().anyMatch(KeysAhead::looksAround);
    }

    private static boolean isAtHand(Pipeline pipeline, Map<String, TableSource> sources) {
        return sources.get(pipeline.source()).copied().isPresent() && pipeline.steps().stream().allMatch(step -> !(step instanceof Join join) || isAtHand(join.other(), sources));
    }

    private static Optional<KeysAhead> ahead(Pipeline before, Total total, Table first, Map<String, TableSource> sources, Settings settings) {
        Map<String, Table> tables = new LinkedHashMap<>();
        sources.forEach((name, source) -> source.copied().ifPresent(table -> tables.put(name, table)));
        tables.put(before.source(), first);
        Table rows;
        try {
            rows = Executor.of(tables, settings).run(before);
        } catch (BadInput wrong) {
            return Optional.empty(); // it may be so of these rows alone
        }
        List<Column> cells = total.by().stream().map(rows::column).toList();
        Map<List<String>, Integer> places = new LinkedHashMap<>();
        for (int row = 0; row < rows.rowCount(); row++) {
            places.putIfAbsent(written(cells, row), row);
        }
        int[] each = places.values().stream().mapToInt(place -> place).toArray();
        return places.size() <= MOST_KEYS && areMixed(cells, each) ? Optional.of(new KeysAhead(before, cells.stream().map(column -> column.at(each)).toList())) : Optional.empty();
    }

    /** Whether the second half of the rows shows no new key, but the very first one again: keys that stand in blocks would not. */
    private static boolean areMixed(List<Column> cells, int[] places) {
        int rows = cells.get(0).size();
        return places.length > 0 && places[places.length - 1] < rows / 2 && IntStream.range(rows / 2, rows).anyMatch(row -> written(cells, row).equals(written(cells, 0)));
    }

    private static List<String> written(List<Column> cells, int row) {
        return cells.stream().map(column -> column.isPresent(row) ? "=" + column.written(row) : "").toList();
    }

    /** Whether all keys are known. */
    boolean isWhole() {
        return keys.isEmpty();
    }

    /** The sources without numbers on the rows of the one that is totalled. */
    Map<String, TableSource> sources(Map<String, TableSource> sources) {
        Map<String, TableSource> all = new LinkedHashMap<>(sources);
        all.put(before.source(), sources.get(before.source()).unnumbered());
        return all;
    }

    /** The place of a key among those that are known, from 1; missing of another. @param cells the key's, as expressions; no place is asked for where there are none */
    String place(List<String> cells, Dialect dialect) {
        StringBuilder place = new StringBuilder("CASE");
        for (int row = 0; row < keys.get(0).size(); row++) {
            List<String> same = new ArrayList<>();
            for (int i = 0; i < cells.size(); i++) {
                same.add(cells.get(i) + (keys.get(i).isPresent(row) ? " = " + dialect.literal(keys.get(i), row) : " IS NULL"));
            }
            place.append(" WHEN ").append(String.join(" AND ", same)).append(" THEN ").append(row + 1);
        }
        return place + " END";
    }
}
