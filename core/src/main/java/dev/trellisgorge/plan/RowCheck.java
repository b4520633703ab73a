package dev.trellisgorge.plan;

import dev.trellisgorge.chart.Label;
import dev.trellisgorge.formula.Evaluator;
import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Table;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Refuses rows that a plan can't be computed over, and says of every mistake where it stands. */
final class RowCheck {
    private static final int LISTED = 5;

    private final Plan plan;
    private final Table table;
    private final Executor executor;
    private final Problems problems = new Problems();
    private final RowProblems odd;

    RowCheck(Plan plan, Table table, Executor executor) {
        this.plan = plan;
        this.table = table;
        this.executor = executor;
        this.odd = new RowProblems(table, problems);
    }

    void check() {
        plan.parts().finite().stream().map(table::column).filter(column -> column.kind() == Kind.NUMBER).forEach(column -> odd.report(
                row -> Double.isInfinite(column.number(row)), Optional.of(column.name()), row -> "the figure is too large to be a number (infinite)"));
        plan.category().map(table::column).ifPresent(category -> {
            categories(category);
            names(category);
        });
        plan.parts().oneRowOf().filter(pattern -> table.rowCount() != 1).ifPresent(pattern -> problems.add(table.place(), ProblemKind.DATA, "the pattern '" + pattern
                + "' shows one figure and there are " + table.rowCount() + " rows; keep one with 'slice', or total them first"));
        plan.parts().singles().forEach(this::single);
        problems.throwIfAny();
        plan.refusals().forEach(this::refuse);
        problems.throwIfAny();
    }

    /** Finite figures may still come to more than a number can be. */
    static void refuseOverflow(Table rows, ComputedColumns cells) {
        refuseInfinite(rows, cells, cells.series());
    }

    /** The figures beside bars may come to more than the bars, as shares of something tiny do. */
    static void refuseInfiniteLabels(PlainChart chart) {
        ComputedColumns cells = chart.data();
        refuseInfinite(cells.rows(), cells, chart.labels().values().stream().flatMap(List::stream).map(Label::column).distinct().map(cells::column).toList());
    }

    private static void refuseInfinite(Table rows, ComputedColumns cells, List<Column> columns) {
        Problems problems = new Problems();
        for (Column series : columns) {
            if (series.kind() == Kind.NUMBER) {
                new RowProblems(rows, problems).report(row -> Double.isInfinite(series.number(row)), Optional.empty(),
                        row -> "'" + cells.category().written(row) + "': '" + series.name() + "' overflows (infinite)");
            }
        }
        problems.throwIfAny();
    }

    private void categories(Column category) {
        odd.report(row -> !category.isPresent(row), Optional.of(category.name()), row -> "the category is missing; every row needs one");
        odd.report(row -> category.kind() == Kind.NUMBER && Double.isInfinite(category.number(row)), Optional.of(category.name()),
                row -> "the category is too large to be a number (infinite)");
        Map<String, Integer> first = new HashMap<>();
        Map<String, List<Integer>> again = new LinkedHashMap<>();
        for (int row = 0; row < category.size(); row++) {
            if (category.isPresent(row)) {
                Integer before = first.putIfAbsent(category.written(row), row);
                if (before != null) {
                    again.computeIfAbsent(category.written(row), name -> new ArrayList<>()).add(row);
                }
            }
        }
        again.forEach((name, rows) -> problems.add(table.rowPlace(first.get(name)).within("column '" + category.name() + "'"), ProblemKind.DATA,
                "'" + name + "' stands on " + (rows.size() + 1) + " rows (again at " + rows.stream().limit(LISTED).map(row -> table.rowPlace(row).toString())
                        .collect(Collectors.joining(", ")) + (rows.size() > LISTED ? ", …" : "") + "); a chart takes one row a category. "
                        + "Keep one with 'slice', or total the rows first."));
    }

    /** A line of words says a cell once for all rows. */
    private void single(String column, String line) {
        Column cells = executor.run(plan.pipeline().then(Total.distinct(column))).column(column);
        List<String> several = IntStream.range(0, cells.size()).mapToObj(row -> cells.isPresent(row) ? cells.written(row) : "(missing)").distinct().toList();
        if (several.size() > 1) {
            problems.add(Place.of("chart '" + plan.name() + "'"), ProblemKind.DATA, "its " + line + " says '" + column + "', and the rows have several: " + several.stream().limit(LISTED).collect(Collectors.joining(", "))
                    + (several.size() > LISTED ? ", …" : "") + "; keep one with 'slice', or say which, as FIRST_VALUE(" + column + ") OVER (ORDER BY …) does");
        }
    }

    private void names(Column category) {
        if (!plan.parts().categoryNames().isEmpty()) {
            List<String> known = IntStream.range(0, category.size()).mapToObj(category::written).toList();
            plan.parts().categoryNames().stream().filter(name -> !known.contains(name)).forEach(name -> problems.add(
                    table.place().within("column '" + category.name() + "'"), ProblemKind.UNKNOWN_NAME, "there is no '" + name + "'. " + Nearest.hint(name, known)));
        }
    }

    private void refuse(Refusal refusal) {
        Evaluator evaluator = new Evaluator(table, executor.settings());
        Column when = evaluator.evaluate("refused", refusal.when());
        if (IntStream.range(0, when.size()).noneMatch(row -> when.number(row) == 1)) {
            return;
        }
        Map<String, Column> figures = new LinkedHashMap<>();
        refusal.figures().forEach((name, figure) -> figures.put(name, evaluator.evaluate(name, figure)));
        Column category = plan.cells(table, executor.settings()).category();
        odd.report(row -> when.number(row) == 1, Optional.empty(), row -> "'" + category.written(row) + "': " + figures.entrySet().stream()
                .map(figure -> figure.getKey() + " is " + quoted(figure.getValue(), row)).collect(Collectors.joining(", ")) + "; " + refusal.expected());
    }

    private static String quoted(Column figures, int row) {
        return figures.kind() == Kind.TEXT ? "'" + figures.written(row) + "'" : figures.written(row);
    }

    /**
     * What is to be reported of the rows: without urgent notes on rows that aren't charted, or that the pattern takes as the totals
     * that they are.
     */
    static List<Note> notes(Plan plan, Executor executor, Table rows) {
        Optional<Executor> here = executor.atHand();
        if (here.isEmpty() || rows.notes().stream().noneMatch(Note::urgent)) {
            return rows.notes();
        }
        Table before = here.get().run(plan.parts().base());
        Table sliced = here.get().run(plan.parts().sliced());
        Optional<Formula> totals = plan.parts().totals();
        return rows.notes().stream().filter(note -> {
            OptionalInt charted = row(sliced, note);
            return !note.urgent() || row(before, note).isEmpty() || charted.isPresent() && totals.map(total -> new Evaluator(sliced, executor.settings())
                    .evaluate("total", total).number(charted.getAsInt()) != 1).orElse(true);
        }).toList();
    }

    /** The row that a note is on, by its place; empty where steps have left no such row. */
    private static OptionalInt row(Table table, Note note) {
        return IntStream.range(0, table.rowCount()).map(i -> table.rowCount() - 1 - i).filter(row -> note.rows().contains(table.rowPlace(row).toString())).findFirst();
    }
}
