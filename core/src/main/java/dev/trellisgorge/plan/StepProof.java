package dev.trellisgorge.plan;

import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.shape.Choose;
import dev.trellisgorge.shape.AddColumn;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Keep;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Schema;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A figure that steps must leave as it was, as it is before and after them. Immutable and thread-safe.
 *
 * @param statement what must hold
 * @param names     the rows on which it must
 * @param before    the figure before the steps; NaN where it is missing
 * @param after     the figure after them
 */
public record StepProof(String statement, List<String> names, List<Double> before, List<Double> after) {
    public StepProof {
        Objects.requireNonNull(statement, "statement");
        names = List.copyOf(names);
        before = List.copyOf(before);
        after = List.copyOf(after);
    }

    static StepProof of(Carried carried, Executor executor, Table rows, Optional<String> category) {
        Map<String, Double> was = figures(carried, executor, category);
        Map<String, Double> is = figures(carried, rows, executor.settings(), category);
        List<Double> after = new ArrayList<>();
        was.keySet().forEach(name -> after.add(is.getOrDefault(name, Double.NaN)));
        return new StepProof(carried.statement(), List.copyOf(was.keySet()), List.copyOf(was.values()), after);
    }

    /** Before the steps: the rows that count alone, wherever they are. */
    private static Map<String, Double> figures(Carried carried, Executor executor, Optional<String> category) {
        Schema before = carried.before().schema(executor.known());
        String figure = before.free("figure");
        List<String> seen = Stream.concat(category.stream(), Stream.of(figure)).toList();
        Table rows = executor.run(carried.before().then(new AddColumn(figure, carried.figure())).then(new Keep(carried.where())).then(new Choose(seen)));
        Map<String, Double> figures = new LinkedHashMap<>();
        for (int row = 0; row < rows.rowCount(); row++) {
            figures.put(name(rows, row, category, figures.size()), rows.column(figure).number(row));
        }
        return figures;
    }

    private static String name(Table rows, int row, Optional<String> category, int before) {
        return category.map(column -> rows.column(column).written(row)).orElse("no. " + (before + 1));
    }

    private static Map<String, Double> figures(Carried carried, Table rows, Settings settings, Optional<String> category) {
        Map<String, Formula> formulas = new LinkedHashMap<>();
        formulas.put("where", carried.where());
        formulas.put("figure", carried.figure());
        Map<String, Column> cells = new Evaluator(rows, settings).evaluate(formulas, Map.of());
        Map<String, Double> figures = new LinkedHashMap<>();
        for (int row = 0; row < rows.rowCount(); row++) {
            if (cells.get("where").number(row) == 1) {
                figures.put(name(rows, row, category, figures.size()), cells.get("figure").number(row));
            }
        }
        return figures;
    }
}
