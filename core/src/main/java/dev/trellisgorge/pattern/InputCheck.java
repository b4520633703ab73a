package dev.trellisgorge.pattern;

import dev.trellisgorge.formula.Formula;
import dev.trellisgorge.formula.HelperTable;
import dev.trellisgorge.formula.Inputs;
import dev.trellisgorge.formula.Refusal;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Place;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Table;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Refuses a table that a pattern can't be computed over, and says of every mistake where it stands. */
final class InputCheck {
    private static final int LISTED = 5;

    private final Table table;
    private final Settings settings;
    private final Problems problems;
    private final RowProblems odd;

    InputCheck(Table table, Settings settings, Problems problems) {
        this.table = table;
        this.settings = settings;
        this.problems = problems;
        this.odd = new RowProblems(table, problems);
    }

    /** Each must be a number on every row, or missing. */
    void figures(Map<String, Formula> figures) {
        of(Set.of(Kind.NUMBER), figures);
    }

    /** The same, or a date. */
    void figuresOrDates(Map<String, Formula> figures) {
        of(Set.of(Kind.NUMBER, Kind.DATE), figures);
    }

    /** What rows are sorted by may be of any kind. */
    void rank(Formula key) {
        of(Set.of(Kind.values()), Map.of("rank", key));
    }

    private void of(Set<Kind> kinds, Map<String, Formula> figures) {
        columns(figures).stream().filter(column -> column.kind() == Kind.NUMBER).forEach(column -> odd.report(row -> Double.isInfinite(column.number(row)),
                Optional.of(column.name()), row -> "the figure is too large to be a number (infinite)"));
        new LinkedHashSet<>(figures.values()).stream().filter(this::isKnown).forEach(figure -> checkKind(figure, kinds));
    }

    private boolean isKnown(Formula figure) {
        return Inputs.columnsOf(figure).stream().allMatch(name -> table.find(name).isPresent()) && Inputs.settingsOf(figure).stream().allMatch(name -> settings.find(name).isPresent());
    }

    private void checkKind(Formula figure, Set<Kind> kinds) {
        if (figure instanceof Formula.Input input && table.column(input.column()).kind() == Kind.TEXT && !kinds.contains(Kind.TEXT)) {
            odd.reportNoNumbers(table.column(input.column()));
            return;
        }
        problems.attempt(() -> HelperTable.over(table, settings, Optional.empty()).kind(figure)).flatMap(kind -> kind).filter(kind -> !kinds.contains(kind)).ifPresent(kind -> {
            if (figure instanceof Formula.Input input) {
                problems.add(table.place().within("column '" + input.column() + "'"), "holds " + kind.phrase() + " a row, and a figure must be a number");
            } else {
                problems.add(table.place(), figure + " is " + kind.phrase() + ", and a figure must be a number");
            }
        });
    }

    /** The columns that formulas read; what is unknown is reported. */
    private List<Column> columns(Map<String, Formula> figures) {
        Set<String> names = new LinkedHashSet<>();
        for (Formula figure : figures.values()) {
            names.addAll(Inputs.columnsOf(figure));
            Inputs.settingsOf(figure).stream().filter(name -> settings.find(name).isEmpty())
                    .forEach(name -> problems.add(Place.of("settings"), settings.unknown(name)));
        }
        names.stream().filter(name -> table.find(name).isEmpty())
                .forEach(name -> problems.add(table.place(), table.unknownColumn(name)));
        return names.stream().flatMap(name -> table.find(name).stream()).toList();
    }

    void category(Optional<String> category) {
        category.filter(name -> table.find(name).isEmpty()).ifPresent(name -> problems.add(table.place(), table.unknownColumn(name)));
        category.flatMap(table::find).ifPresent(this::checkCategories);
    }

    /** Each of the names must be a category's. */
    void names(Optional<String> category, List<String> names) {
        category.flatMap(table::find).ifPresent(column -> {
            List<String> known = IntStream.range(0, column.size()).mapToObj(column::written).toList();
            names.stream().filter(name -> !known.contains(name)).forEach(name -> problems.add(
                    table.place().within("column '" + column.name() + "'"), "there is no '" + name + "'. " + Nearest.hint(name, known)));
        });
    }

    /** A pattern of one figure takes one row. */
    void oneRow(PatternType type) {
        if (!type.categories() && table.rowCount() != 1) {
            problems.add(table.place(), "the pattern '" + type.name() + "' shows one figure and there are " + table.rowCount()
                    + " rows; keep one with 'slice', or total them first");
        }
    }

    /**
     * Looks for the rows that can't be shown.
     *
     * @throws BadInput with the first few of them, where there are any
     */
    static void refuse(HelperTable table, List<Refusal> refusals) {
        Problems problems = new Problems();
        RowProblems odd = new RowProblems(table.inputs(), problems);
        for (Refusal refusal : refusals) {
            Column when = table.evaluate("refused", refusal.when());
            Map<String, Column> figures = new LinkedHashMap<>();
            refusal.figures().forEach((name, figure) -> figures.put(name, table.evaluate(name, figure)));
            Column category = table.category();
            odd.report(row -> when.number(row) == 1, Optional.empty(), row -> "'" + category.written(row) + "': " + figures.entrySet().stream()
                    .map(figure -> figure.getKey() + " is " + quoted(figure.getValue(), row)).collect(Collectors.joining(", "))
                    + "; " + refusal.expected());
        }
        problems.throwIfAny();
    }

    private static String quoted(Column figures, int row) {
        return figures.kind() == Kind.TEXT ? "'" + figures.written(row) + "'" : figures.written(row);
    }

    private void checkCategories(Column category) {
        odd.report(row -> !category.isPresent(row), Optional.of(category.name()), row -> "the category is missing; every row needs one");
        Map<String, List<Integer>> rows = IntStream.range(0, category.size()).filter(category::isPresent).boxed()
                .collect(Collectors.groupingBy(category::written, LinkedHashMap::new, Collectors.toList()));
        rows.forEach((name, found) -> {
            if (found.size() > 1) {
                String others = found.stream().skip(1).limit(LISTED).map(row -> table.rowPlace(row).toString())
                        .collect(Collectors.joining(", "));
                problems.add(table.rowPlace(found.get(0)).within("column '" + category.name() + "'"),
                        "'" + name + "' stands on " + found.size() + " rows (again at " + others
                                + (found.size() > LISTED + 1 ? ", …" : "") + "); a chart takes one row a category. "
                                + "Keep one with 'slice', or total the rows first.");
            }
        });
    }
}
